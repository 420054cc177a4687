using Mendro.Core.Dismantling;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A job with everything computed from it, as numbers and words.</summary>
/// <param name="Job">The job.</param>
/// <param name="Model">Its model.</param>
/// <param name="Records">Bench records that hold, in order.</param>
/// <param name="Access">How far it is apart.</param>
/// <param name="Apart">The same to the step.</param>
/// <param name="Diagnosis">What the diagnosis says, or null when the evidence contradicts itself.</param>
/// <param name="Problem">Why there is no diagnosis.</param>
/// <param name="Advice">Next moves.</param>
/// <param name="Worth">Worth line, or null when nothing fails.</param>
/// <param name="Proof">Proof sheet.</param>
public sealed record JobView(
    Job Job,
    DeviceModel Model,
    IReadOnlyList<BenchRecord> Records,
    AccessState Access,
    Apart Apart,
    UnitVerdict? Diagnosis,
    string? Problem,
    Advice Advice,
    WorthLine? Worth,
    ProofSheet Proof
)
{
    /// <summary>Volts at the shop's wall.</summary>
    public double WallVolts { get; init; } = MainsFit.UsualWall;

    /// <summary>Profile of the unit.</summary>
    public DeviceProfile Profile => Model.Profile;

    /// <summary>Currency of the job.</summary>
    public Currency Currency => new(Job.Currency);

    /// <summary>Minutes logged so far.</summary>
    public double MinutesSpent => Records.Sum(r => r.Minutes);

    /// <summary>Parts cost logged so far.</summary>
    public Amount PartsCost => new Amount(Records.Sum(r => r.Cost ?? 0), Currency).Rounded();

    /// <summary>Records of one kind, in order.</summary>
    public IEnumerable<(BenchRecord Record, TBody Body)> All<TBody>()
        where TBody : RecordBody => Records.Where(r => r.Body is TBody).Select(r => (r, (TBody)r.Body));

    /// <summary>The last record of every probe, by probe.</summary>
    public IReadOnlyDictionary<ProbeId, (BenchRecord Record, ProbeReading Body)> LastReadings =>
        All<ProbeReading>().GroupBy(r => r.Body.Probe).ToDictionary(g => g.Key, g => g.Last());

    /// <summary>Probes whose last reading still holds.</summary>
    public IReadOnlySet<ProbeId> Fresh => Freshness.Readings(Model.Graph, BenchRecord.Events(Records)).Keys.ToHashSet();

    /// <summary>Cautions that the readings call for, as long as they hold and no later one at the same point is good.</summary>
    public IEnumerable<string> StopsOfReadings
    {
        get
        {
            var fresh = Fresh;
            return LastReadings.Where(r => fresh.Contains(r.Key)).Select(r => r.Value.Body.Stop).OfType<string>();
        }
    }

    /// <summary>What can hurt someone in this unit: by its model, its parts, and the marks noted on it.</summary>
    public UnitHazards Hazards => UnitHazards.Of(Profile, Model.Library, All<MarkNoted>().Select(m => m.Body.Mark), WallVolts);

    /// <summary>What is met at a move.</summary>
    public IReadOnlyList<Caution> CautionsOf(Move move) => Hazards.At(move, Profile);
}
