using MathNet.Numerics.Distributions;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>What one job taught: which causes were confirmed in it.</summary>
/// <param name="Profile">Profile of the unit.</param>
/// <param name="Revision">Board revision, or blank when it was not known.</param>
/// <param name="Causes">Part and failure mode of each confirmed cause.</param>
public sealed record Lesson(DeviceProfile Profile, string Revision, IReadOnlyList<(PartId PartId, string ModeId)> Causes);

/// <summary>What all jobs of one model and revision taught, counted.</summary>
/// <param name="Model">Model, in the version the jobs were taken in with.</param>
/// <param name="Revision">Board revision, or blank when it was not known.</param>
/// <param name="Units">Units with a confirmed cause.</param>
/// <param name="Found">Units in which each part and failure mode was confirmed.</param>
public sealed record LessonGroup(
    DeviceModel Model,
    string Revision,
    int Units,
    IReadOnlyDictionary<(PartId PartId, string ModeId), int> Found
)
{
    /// <summary>The group without one of its units.</summary>
    /// <param name="causes">What was confirmed in that unit.</param>
    public LessonGroup Without(IReadOnlyCollection<(PartId PartId, string ModeId)> causes) =>
        this with
        {
            Units = Units - 1,
            Found = Found.ToDictionary(f => f.Key, f => f.Value - (causes.Contains(f.Key) ? 1 : 0)),
        };
}

/// <summary>How often a fault was the cause at this shop, against what the library or profile says. All rates are shares of the
/// units brought in.</summary>
/// <param name="Fault">The fault, with the library's or profile's prior.</param>
/// <param name="Revision">Board revision, or blank for all.</param>
/// <param name="Found">Units in which it was confirmed.</param>
/// <param name="Units">Closed units of the model with a confirmed cause.</param>
/// <param name="Base">Share expected from the starting weight, 0 to 1.</param>
/// <param name="Learned">Share believed now, 0 to 1.</param>
/// <param name="Low">Lower end of its 90 % interval.</param>
/// <param name="High">Upper end of it.</param>
public sealed record Pattern(PartFault Fault, string Revision, int Found, int Units, double Base, double Learned, double Low, double High)
{
    /// <summary>The shop's own share, 0 to 1.</summary>
    public double Own => Units > 0 ? Found / (double)Units : 0;
}

/// <summary>
/// Learning from the shop's own closed jobs. The share of the units brought in that have a fault is Beta-shaped around
/// the starting weight: Beta(c, c·(1 − p)/p) has the mean p and weighs as much as c cases found, so that a rare fault is
/// not forgotten because thirty units did not have it. Confirmed causes count for their part and mode, every other
/// closed unit of the model against (conjugate updating of a Beta prior by binomial counts). Pooling goes upward: what
/// other models show of the same kind of part moves the starting point (Gamma–Poisson on the ratio of found to
/// expected), another model of the same build counts full at the same part, another revision half, the same revision full: so a
/// model without history leans on its build's, and its own cases outweigh it as they come.
/// </summary>
public sealed class ShopLessons
{
    /// <summary>Cases found that the library's weight is worth, when the shop does not say otherwise.</summary>
    public const double DefaultStrength = 2;

    private const double OtherRevision = 0.5;
    private const double Highest = 0.95;

    private readonly IReadOnlyList<LessonGroup> _groups;
    private readonly double _strength;
    private readonly Dictionary<string, Told> _byProfile;

    /// <summary>Takes what was counted.</summary>
    /// <param name="groups">Counts by model and revision; groups without units are left out.</param>
    /// <param name="strength">Cases found that the starting weight is worth, above 0.</param>
    public ShopLessons(IEnumerable<LessonGroup> groups, double strength = DefaultStrength)
    {
        (_groups, _strength) = (groups.Where(g => g.Units > 0).ToList(), strength);
        _byProfile = _groups.GroupBy(g => g.Model.Profile.Id).ToDictionary(g => g.Key, g => new Told(g.ToList()));
    }

    /// <summary>Counts lessons.</summary>
    /// <param name="lessons">Jobs with at least one confirmed cause.</param>
    /// <param name="library">Library the profiles are compiled against.</param>
    /// <param name="strength">Cases found that the starting weight is worth, above 0.</param>
    public ShopLessons(IEnumerable<Lesson> lessons, TradeLibrary library, double strength = DefaultStrength)
        : this(Counted(lessons, library), strength) { }

    /// <summary>Chance of every fault of a model, by index.</summary>
    /// <param name="model">Model.</param>
    /// <param name="revision">Board revision, or blank when it is not known.</param>
    public double[] Priors(DeviceModel model, string revision)
    {
        if (_groups.Count == 0)
            return model.Faults.Select(f => f.Prior).ToArray();
        var brought = BroughtIn.Of(model);
        return model
            .Faults.Select(
                (fault, f) =>
                    fault.Prior is <= 0 or >= 1
                        ? fault.Prior
                        : Math.Min(Highest, brought.Prior(f, Mean(Shape(model, brought, f, revision))))
            )
            .ToArray();
    }

    /// <summary>What the shop has learned of a model: every fault found at least once, and all that were expected but never found;
    /// the most telling first.</summary>
    public IReadOnlyList<Pattern> Patterns(DeviceModel model, string revision)
    {
        var own = _groups.Where(g => g.Model.Profile.Id == model.Profile.Id && (revision.Length == 0 || g.Revision == revision)).ToList();
        var units = own.Sum(g => g.Units);
        var brought = BroughtIn.Of(model);
        var patterns = new List<Pattern>();
        for (var f = 0; f < model.Faults.Count; f++)
        {
            var fault = model.Faults[f];
            if (fault.Prior is <= 0 or >= 1)
                continue;
            var found = own.Sum(g => g.Found.GetValueOrDefault((fault.Part.Id, fault.Mode.Id)));
            var start = brought.Share(f, fault.Prior);
            if (found == 0 && units * start < 1)
                continue;
            var (a, b) = Shape(model, brought, f, revision);
            patterns.Add(new Pattern(fault, revision, found, units, start, Mean((a, b)), Beta.InvCDF(a, b, 0.05), Beta.InvCDF(a, b, 0.95)));
        }

        return patterns.OrderByDescending(p => Math.Abs(Math.Log(p.Learned / p.Base))).ToList();
    }

    /// <summary>Parameters of the Beta distribution of a share.</summary>
    private (double A, double B) Shape(DeviceModel model, BroughtIn brought, int index, string revision)
    {
        var fault = model.Faults[index];
        var start = Math.Min(Highest, brought.Share(index, fault.Prior) * KindRatio(model, fault));
        var (a, b) = (_strength, _strength * (1 - start) / start);
        foreach (var sibling in _byProfile.Values.Where(t => IsSibling(model, t) && t.HasPart(fault.Part)))
        foreach (var (_, units, found) in sibling.Of(fault.Part.Id, fault.Mode.Id))
            (a, b) = (a + found, b + units - found);
        if (!_byProfile.TryGetValue(model.Profile.Id, out var told))
            return (a, b);
        foreach (var (theirs, units, found) in told.Of(fault.Part.Id, fault.Mode.Id))
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
        double found = 0,
            expected = 0;
        foreach (var (profileId, told) in _byProfile)
        {
            // What its build tells of the very part is counted there.
            if (profileId == model.Profile.Id || IsSibling(model, told) && told.HasPart(fault.Part))
                continue;
            found += told.FoundOfKind(fault.Part.Kind, fault.Mode.Id);
            expected += told.ExpectedOfKind(fault.Part.Kind, fault.Mode.Id);
        }

        return (_strength + found) / (_strength + expected);
    }

    private static bool IsSibling(DeviceModel model, Told told) =>
        told.Profile.Id != model.Profile.Id && model.Profile.BuildId is { } build && told.Profile.BuildId == build;

    private static double Mean((double A, double B) shape) => shape.A / (shape.A + shape.B);

    private static IEnumerable<LessonGroup> Counted(IEnumerable<Lesson> lessons, TradeLibrary library) =>
        lessons
            .GroupBy(l => (l.Profile, l.Revision))
            .Select(g => new LessonGroup(
                new DeviceModel(g.Key.Profile, library),
                g.Key.Revision,
                g.Count(),
                g.SelectMany(l => l.Causes.Distinct()).CountBy(c => c).ToDictionary()
            ));

    /// <summary>What the lessons of one profile tell.</summary>
    private sealed class Told
    {
        private readonly IReadOnlyList<LessonGroup> _groups;
        private readonly Dictionary<(string Kind, string Mode), double> _expected = [];
        private readonly Dictionary<(string Kind, string Mode), int> _found = [];

        public Told(IReadOnlyList<LessonGroup> groups)
        {
            _groups = groups;
            var model = groups[^1].Model;
            var brought = BroughtIn.Of(model);
            var units = groups.Sum(g => g.Units);
            for (var f = 0; f < model.Faults.Count; f++)
                Add(_expected, (model.Faults[f].Part.Kind, model.Faults[f].Mode.Id), units * brought.Share(f, model.Faults[f].Prior));
            foreach (var group in groups)
            foreach (var ((part, mode), count) in group.Found)
                if (group.Model.Profile.FindPart(part) is { } known)
                    Add(_found, (known.Kind, mode), count);
        }

        /// <summary>The profile in its latest version that taught.</summary>
        public DeviceProfile Profile => _groups[^1].Model.Profile;

        /// <summary>True when the profile has this very part.</summary>
        public bool HasPart(Part part) => Profile.FindPart(part.Id)?.Kind == part.Kind;

        public IEnumerable<(string Revision, int Units, int Found)> Of(PartId partId, string modeId) =>
            _groups.Select(g => (g.Revision, g.Units, g.Found.GetValueOrDefault((partId, modeId))));

        public int FoundOfKind(string kind, string modeId) => _found.GetValueOrDefault((kind, modeId));

        public double ExpectedOfKind(string kind, string modeId) => _expected.GetValueOrDefault((kind, modeId));

        private static void Add<TNumber>(Dictionary<(string, string), TNumber> sums, (string, string) key, TNumber more)
            where TNumber : struct, System.Numerics.INumber<TNumber> => sums[key] = sums.GetValueOrDefault(key) + more;
    }
}
