using MathNet.Numerics.Distributions;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>What one closed job taught: which causes were confirmed in it.</summary>
/// <param name="Profile">Profile of the unit.</param>
/// <param name="Revision">Board revision, or blank when it was not known.</param>
/// <param name="Causes">Part and failure mode of each confirmed cause.</param>
/// <param name="Number">Number of the job, for the list of units.</param>
public sealed record Lesson(DeviceProfile Profile, string Revision, IReadOnlyList<(string PartId, string ModeId)> Causes, long Number = 0);

/// <summary>How often a fault was the cause at this shop, against what the library or profile says.</summary>
/// <param name="Fault">The fault, with the library's or profile's prior.</param>
/// <param name="Revision">Board revision, or blank for all.</param>
/// <param name="Found">Units in which it was confirmed.</param>
/// <param name="Units">Closed units of the model with a confirmed cause.</param>
/// <param name="Learned">Chance used now, 0 to 1.</param>
/// <param name="Low">Lower end of the 90 % interval of the chance.</param>
/// <param name="High">Upper end of it.</param>
/// <param name="Numbers">Jobs in which it was confirmed.</param>
public sealed record Pattern(
    PartFault Fault, string Revision, int Found, int Units, double Learned, double Low, double High, IReadOnlyList<long> Numbers);

/// <summary>
/// Learning from the shop's own closed jobs. Each chance is Beta-shaped around the weight it starts from, with a
/// strength in units; a confirmed cause counts for its part and mode, every other closed unit of the model against
/// (conjugate updating of a Beta prior by binomial counts: mean (s·p + k) / (s + n)). Pooling goes upward: what other
/// models show of the same part kind moves the starting point (Gamma–Poisson on the ratio of found to expected), what
/// other revisions show counts half, the same revision counts full.
/// </summary>
public sealed class ShopLessons
{
    /// <summary>Units of experience that the library's weight is worth, when the shop does not say otherwise.</summary>
    public const double DefaultStrength = 6;

    private const double OtherRevision = 0.5;
    private const double Highest = 0.95;

    private readonly IReadOnlyList<Lesson> _lessons;
    private readonly double _strength;
    private readonly Dictionary<string, DeviceModelCount> _byProfile;

    /// <summary>Collects the lessons.</summary>
    /// <param name="lessons">Closed jobs with at least one confirmed cause.</param>
    /// <param name="strength">Units of experience the starting weight is worth, above 0.</param>
    public ShopLessons(IReadOnlyList<Lesson> lessons, double strength = DefaultStrength)
    {
        (_lessons, _strength) = (lessons, strength);
        _byProfile = lessons.GroupBy(l => l.Profile.Id).ToDictionary(g => g.Key, g => new DeviceModelCount(g.ToList()));
    }

    /// <summary>Number of lessons.</summary>
    public int Count => _lessons.Count;

    /// <summary>Chance of every fault of a model, by index.</summary>
    /// <param name="model">Model.</param>
    /// <param name="revision">Board revision, or blank when it is not known.</param>
    public double[] Priors(DeviceModel model, string revision) => model.Faults.Select(f => Mean(Shape(model, f, revision))).ToArray();

    /// <summary>What the shop has learned of a model: every fault found at least once, and all that were expected but never found.</summary>
    public IReadOnlyList<Pattern> Patterns(DeviceModel model, string revision)
    {
        var own = Own(model, revision).ToList();
        var patterns = new List<Pattern>();
        foreach (var fault in model.Faults)
        {
            var found = own.Where(l => l.Causes.Contains((fault.Part.Id, fault.Mode.Id))).ToList();
            if (found.Count == 0 && own.Count * fault.Prior < 1) continue;
            var (a, b) = Shape(model, fault, revision);
            patterns.Add(new Pattern(fault, revision, found.Count, own.Count, Mean((a, b)), Beta.InvCDF(a, b, 0.05), Beta.InvCDF(a, b, 0.95), found.Select(l => l.Number).ToList()));
        }

        return patterns.OrderByDescending(p => Math.Abs(Math.Log(p.Learned / Math.Max(p.Fault.Prior, 1e-4)))).ToList();
    }

    private IEnumerable<Lesson> Own(DeviceModel model, string revision) =>
        _lessons.Where(l => l.Profile.Id == model.Profile.Id && (revision.Length == 0 || l.Revision == revision));

    /// <summary>Parameters of the Beta distribution of a chance.</summary>
    private (double A, double B) Shape(DeviceModel model, PartFault fault, string revision)
    {
        if (fault.Prior is <= 0 or >= 1) return (fault.Prior, 1 - fault.Prior);
        var start = Math.Min(Highest, fault.Prior * KindRatio(model, fault));
        var (a, b) = (_strength * start, _strength * (1 - start));
        if (!_byProfile.TryGetValue(model.Profile.Id, out var counts)) return (a, b);
        foreach (var (theirs, units, found) in counts.Of(fault.Part.Id, fault.Mode.Id))
        {
            // With the revision unknown on either side the lesson holds for the model.
            var weight = revision.Length == 0 || theirs.Length == 0 || theirs == revision ? 1 : OtherRevision;
            (a, b) = (a + weight * found, b + weight * (units - found));
        }

        return (a, b);
    }

    /// <summary>How much more often than expected the same kind of part failed this way in other models.</summary>
    private double KindRatio(DeviceModel model, PartFault fault)
    {
        double found = 0, expected = 0;
        foreach (var (profileId, counts) in _byProfile)
        {
            if (profileId == model.Profile.Id) continue;
            found += counts.OfKind(fault.Part.Kind, fault.Mode.Id);
            expected += counts.Units * counts.Expected(model.Library, fault.Part.Kind, fault.Mode.Id);
        }

        return (_strength + found) / (_strength + expected);
    }

    private static double Mean((double A, double B) shape) => shape.A + shape.B > 0 ? shape.A / (shape.A + shape.B) : 0;

    /// <summary>Counts of one profile's lessons.</summary>
    private sealed class DeviceModelCount(IReadOnlyList<Lesson> lessons)
    {
        private readonly DeviceProfile _profile = lessons[^1].Profile;

        public int Units => lessons.Count;

        public IEnumerable<(string Revision, int Units, int Found)> Of(string partId, string modeId) =>
            lessons.GroupBy(l => l.Revision).Select(g => (g.Key, g.Count(), g.Count(l => l.Causes.Contains((partId, modeId)))));

        public int OfKind(string kind, string modeId) =>
            lessons.Sum(l => l.Causes.Count(c => c.ModeId == modeId && l.Profile.FindPart(c.PartId)?.Kind == kind));

        public double Expected(Methods.TradeLibrary library, string kind, string modeId) => _profile.Parts.Where(p => p.Kind == kind)
            .Sum(p => p.Modes?.FirstOrDefault(m => m.Mode == modeId)?.Prior ?? library.FindPartKind(kind)?.Modes.FirstOrDefault(m => m.Id == modeId)?.Prior ?? 0);
    }
}
