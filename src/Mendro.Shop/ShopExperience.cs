using System.Collections.Concurrent;
using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Cause = (Mendro.Core.Profiles.PartId PartId, string ModeId);

namespace Mendro.Shop;

/// <summary>
/// What the shop knows beyond the library: causes confirmed so far, and how worn its test gear is. A cause counts from
/// the moment it is confirmed, not only when its job is closed: the sixth unit of a lot is on the bench before the
/// first five are sold. A job never teaches itself. What was read is kept until a mark in the database says that it changed.
/// </summary>
public sealed class ShopExperience(
    LessonStore lessons,
    GearStore gear,
    SettingsStore settings,
    RevisionStore revisions,
    ModelShelf models,
    TradeLibrary library
)
{
    private const int MostPriors = 500;

    private readonly ConcurrentDictionary<string, double[]> _priors = new();
    private Snapshot? _last;

    /// <summary>What is known at this moment; take it once for several jobs.</summary>
    public Snapshot Now()
    {
        var strength = settings.Get().LearningStrength;
        var stamp = string.Create(CultureInfo.InvariantCulture, $"{revisions.Stamp()}|{strength}");
        if (Volatile.Read(ref _last) is { } last && last.Stamp == stamp)
            return last;
        var now = new Snapshot(this, Groups(), gear.All(), strength, stamp);
        Volatile.Write(ref _last, now);
        return now;
    }

    /// <summary>What all jobs taught, by model and revision.</summary>
    private List<LessonGroup> Groups() =>
        lessons
            .Counts()
            .GroupBy(c => (c.ProfileId, c.ProfileVersion, c.Revision))
            .Select(g => new LessonGroup(
                models.Get(g.Key.ProfileId, g.Key.ProfileVersion),
                g.Key.Revision,
                g.Where(c => c.PartId.Length == 0).Sum(c => c.Found),
                g.Where(c => c.PartId.Length > 0).ToDictionary(c => (new PartId(c.PartId), c.ModeId), c => c.Found)
            ))
            .ToList();

    /// <summary>What is known at one moment.</summary>
    public sealed class Snapshot(
        ShopExperience owner,
        IReadOnlyList<LessonGroup> groups,
        IReadOnlyList<Gear> gear,
        double strength,
        string stamp
    )
    {
        private readonly ConcurrentDictionary<(DeviceModel, string), IReadOnlyList<Pattern>> _patterns = new();
        private readonly Lazy<ShopLessons> _all = new(() => new ShopLessons(groups, strength));

        /// <summary>Changes whenever anything known changes.</summary>
        public string Stamp => stamp;

        /// <summary>What was learned from all jobs.</summary>
        public ShopLessons Lessons => _all.Value;

        /// <summary>What was learned of a model, worked out once.</summary>
        public IReadOnlyList<Pattern> Patterns(DeviceModel model, string revision) =>
            _patterns.GetOrAdd((model, revision), key => Lessons.Patterns(key.Item1, key.Item2));

        /// <summary>What was counted, by model and revision.</summary>
        public IReadOnlyList<LessonGroup> Groups => groups;

        /// <summary>Strength of the starting weights.</summary>
        public double Strength => strength;

        /// <summary>All that bears on one job.</summary>
        public CaseContext For(Job job, DeviceModel model, IReadOnlyList<BenchRecord> records)
        {
            // A practice unit is drawn from the library's own weights.
            var priors = job.PracticeSeed is not null ? null : Priors(job, model, Taught(job, records));
            return new CaseContext(
                priors,
                records
                    .SelectMany(r => r.Body.Pieces)
                    .DistinctBy(g => g.Id)
                    .Select(g =>
                        gear.FirstOrDefault(p => p.Id == g.GearId) is { } piece
                            ? piece.ToItem(job.Id) with
                            {
                                Id = g.Id,
                                Name = g.Name,
                                Kind = g.Kind,
                            }
                            : new GearItem(g.Id, g.Name, g.Kind)
                    )
                    .ToList()
            );
        }

        /// <summary>What was learned from all jobs but one, or from that one with less than it teaches.</summary>
        /// <param name="job">The job.</param>
        /// <param name="taught">Causes that it teaches.</param>
        /// <param name="instead">Causes that it is to teach; none leaves it out.</param>
        public ShopLessons Without(Job job, IReadOnlyCollection<Cause> taught, IReadOnlyCollection<Cause> instead)
        {
            if (taught.Count == 0)
                return Lessons;
            return new ShopLessons(
                groups.Select(group =>
                    group.Model.Profile.Id == job.ProfileId && group.Revision == job.Revision && group.Model == owner.ModelOf(job)
                        ? instead.Count == 0
                            ? group.Without(taught)
                            : group.Without(taught.Except(instead).ToList()) with
                            {
                                Units = group.Units,
                            }
                        : group
                ),
                strength
            );
        }

        /// <summary>A job never teaches itself: what it taught, to be left out. Most units on the bench have taught nothing yet.</summary>
        private IReadOnlyList<Cause> Taught(Job job, IReadOnlyList<BenchRecord> records) =>
            records.Any(r => r.Body is CauseSeen { Present: true }) ? owner.Taught(job.Id) : [];

        private double[] Priors(Job job, DeviceModel model, IReadOnlyList<Cause> taught)
        {
            // Few combinations live at a time; an old stamp is never asked for again.
            if (owner._priors.Count > MostPriors)
                owner._priors.Clear();
            var own = string.Join(',', taught.Select(c => $"{c.PartId.Value}.{c.ModeId}"));
            var standard = gear.Where(g => g is { Standard: true, RetiredAt: null })
                .DistinctBy(g => g.Kind)
                .ToDictionary(g => g.Kind, g => g.ToItem(job.Id));
            owner.RanLately(job, model, gear, standard);
            // What a piece showed with this very unit is evidence already: there the runs of the units before count.
            var runs = string.Join(',', standard.Values.Where(g => g.UsesSinceRun is not null).Select(g => $"{g.Id}:{g.UsesSinceRun}"));
            return owner._priors.GetOrAdd(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{job.ProfileId}|{job.ProfileVersion}|{job.Revision}|{own}{(own.Length > 0 ? job.Id : "")}|{job.Lot}|{runs}|{stamp}"
                ),
                _ => Weighed(model, owner.InLot(job, model, Without(job, taught, []).Priors(model, job.Revision)), standard)
            );
        }

        /// <summary>Chances as the diagnosis takes them: with the wear of the gear, and to three digits, so that a hundredth case of
        /// a cause does not have every unit worked out again for a change that no page would show.</summary>
        private double[] Weighed(DeviceModel model, double[] priors, IReadOnlyDictionary<string, GearItem> standard) =>
            Worn(model, priors, standard).Select((p, f) => p == model.Faults[f].Prior ? p : Rounded(p)).ToArray();

        /// <summary>The standard piece of each kind stands in every chain; the more it was used, the more it is suspect.</summary>
        private double[] Worn(DeviceModel model, double[] priors, IReadOnlyDictionary<string, GearItem> standard)
        {
            for (var f = 0; f < priors.Length; f++)
            {
                if (owner.GearKind(model.Faults[f].Part.Kind) is { } kind && standard.TryGetValue(kind.Kind, out var piece))
                    priors[f] = GearWear.Prior(priors[f], kind, model.Faults[f].Mode, piece.UsesSinceCleaning, piece.UsesSinceRun);
            }

            return priors;
        }
    }

    /// <summary>
    /// What has just run another unit of the model well is out of question, whether it was told in a swap trial or only stood in the
    /// chain as the standard piece does. Uses since then count as they do after a swap trial.
    /// </summary>
    private void RanLately(Job job, DeviceModel model, IReadOnlyList<Gear> pieces, Dictionary<string, GearItem> standard)
    {
        var parts = model.Profile.Parts.Where(p => standard.ContainsKey(p.Kind)).ToList();
        if (parts.Count == 0)
            return;
        var passed = gear.PassedLately(job.ProfileId, job.Id);
        foreach (var part in parts)
        {
            if (passed.FirstOrDefault(p => model.Closure(p.Function).Contains(part.Id)) is not { } ran)
                continue;
            var item = standard[part.Kind];
            var piece = pieces.First(g => Gear.EngineId(g.Id) == item.Id);
            // Before it was cleaned it may have been another piece for all we know of its contacts.
            if (ran.At < piece.CleanedAt)
                continue;
            var since = gear.UsesAfter(piece, ran.Record);
            if (item.UsesSinceRun is not { } told || since < told)
                standard[part.Kind] = item with { UsesSinceRun = since };
        }
    }

    /// <summary>A chance to three digits.</summary>
    public static double Rounded(double chance) =>
        chance <= 0 ? chance : double.Parse(chance.ToString("0.00E+0", CultureInfo.InvariantCulture), CultureInfo.InvariantCulture);

    // What came in one lot lay in one attic and came off one line: what two of it had the third is soon thought to have.
    private double[] InLot(Job job, DeviceModel model, double[] priors)
    {
        if (job.Lot.Length == 0 || lessons.InLot(job.Lot, job.ProfileId, job.Id) is not { Units: > 0 } lot)
            return priors;
        for (var f = 0; f < priors.Length; f++)
            if (lot.Found.TryGetValue((model.Faults[f].Part.Id.Value, model.Faults[f].Mode.Id), out var found) && found >= Repeats)
                priors[f] = Math.Max(priors[f], (LotStrength * priors[f] + found) / (LotStrength + lot.Units));
        return priors;
    }

    /// <summary>Units of a lot from which a cause repeats in it: the first may be chance (common practice, no source).</summary>
    private const int Repeats = 2;

    /// <summary>Units of the same lot that what is known elsewhere is worth (common practice, no source: with the second of a kind one looks
    /// there first).</summary>
    private const double LotStrength = 3;

    private DeviceModel ModelOf(Job job) => models.Of(job);

    /// <summary>Causes that a job teaches.</summary>
    internal IReadOnlyList<Cause> Taught(JobId jobId) =>
        lessons.Of(jobId).Where(c => !c.Excluded).Select(c => (new PartId(c.PartId), c.ModeId)).Distinct().ToList();

    private PartKind? GearKind(string kind) => library.FindPartKind(kind) is { Gear: true } gearKind ? gearKind : null;
}
