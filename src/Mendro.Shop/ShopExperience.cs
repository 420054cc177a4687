using System.Collections.Concurrent;
using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;

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
        var now = new Snapshot(this, lessons.Causes(), gear.All(), strength, stamp);
        Volatile.Write(ref _last, now);
        return now;
    }

    /// <summary>Lessons from confirmed causes, one a job; excluded ones are left out.</summary>
    public ShopLessons Learn(IEnumerable<ConfirmedCause> causes, double strength) =>
        new(
            causes
                .Where(c => !c.Excluded)
                .GroupBy(c => c.JobId)
                .Select(g => new Lesson(
                    models.Get(g.First().ProfileId, g.First().ProfileVersion).Profile,
                    g.First().Revision,
                    g.Select(c => (new PartId(c.PartId), c.ModeId)).Distinct().ToList(),
                    g.First().Number
                ))
                .ToList(),
            library,
            strength
        );

    /// <summary>What is known at one moment.</summary>
    public sealed class Snapshot(
        ShopExperience owner,
        IReadOnlyList<ConfirmedCause> causes,
        IReadOnlyList<Gear> gear,
        double strength,
        string stamp
    )
    {
        private readonly HashSet<JobId> _teaching = causes.Where(c => !c.Excluded).Select(c => c.JobId).ToHashSet();

        /// <summary>Changes whenever anything known changes.</summary>
        public string Stamp => stamp;

        /// <summary>Confirmed causes, excluded ones too.</summary>
        public IReadOnlyList<ConfirmedCause> Causes => causes;

        /// <summary>Strength of the starting weights.</summary>
        public double Strength => strength;

        /// <summary>Gear in use.</summary>
        public IEnumerable<Gear> Gear => gear.Where(g => g.RetiredAt is null);

        /// <summary>All that bears on one job.</summary>
        public CaseContext For(Job job, DeviceModel model, IEnumerable<BenchRecord> records)
        {
            // A practice unit is drawn from the library's own weights.
            var priors = job.PracticeSeed is not null ? null : Priors(job, model);
            return new CaseContext(
                priors,
                records
                    .SelectMany(r => r.Body.Pieces)
                    .DistinctBy(g => g.Id)
                    .Select(g => new GearItem(g.Id, g.Name, g.Kind, gear.FirstOrDefault(p => p.Id == g.GearId)?.Uses ?? 0))
                    .ToList()
            );
        }

        private double[] Priors(Job job, DeviceModel model)
        {
            var own = _teaching.Contains(job.Id) ? job.Id : default;
            // Few combinations live at a time; an old stamp is never asked for again.
            if (owner._priors.Count > MostPriors)
                owner._priors.Clear();
            return owner._priors.GetOrAdd(
                string.Create(CultureInfo.InvariantCulture, $"{job.ProfileId}|{job.ProfileVersion}|{job.Revision}|{own}|{stamp}"),
                _ => Worn(model, owner.Learn(causes.Where(c => c.JobId != own), strength).Priors(model, job.Revision))
            );
        }

        /// <summary>The standard piece of each kind stands in every chain; the more it was used, the more it is suspect.</summary>
        private double[] Worn(DeviceModel model, double[] priors)
        {
            var standard = gear.Where(g => g is { Standard: true, RetiredAt: null }).ToDictionary(g => g.Kind, g => g.Uses);
            for (var f = 0; f < priors.Length; f++)
            {
                if (owner.GearKind(model.Faults[f].Part.Kind) is { } kind && standard.TryGetValue(kind.Kind, out var uses))
                    priors[f] = GearWear.Prior(priors[f], kind, uses);
            }

            return priors;
        }
    }

    private PartKind? GearKind(string kind) => library.FindPartKind(kind) is { Gear: true } gearKind ? gearKind : null;
}
