using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>What the map says of a part.</summary>
public enum PartState
{
    /// <summary>Nothing speaks for or against it yet.</summary>
    Unknown,

    /// <summary>What was seen clears it.</summary>
    Proved,

    /// <summary>It may be the cause.</summary>
    Suspect,

    /// <summary>It is the cause, confirmed or near certain.</summary>
    Failed,
}

/// <summary>What is known of a function.</summary>
public enum FunctionState
{
    /// <summary>Not tried yet.</summary>
    NotTried,

    /// <summary>Works.</summary>
    Works,

    /// <summary>Fails.</summary>
    Fails,
}

/// <summary>A fault that may explain the failure worked on.</summary>
/// <param name="FaultIndex">Index in the model.</param>
/// <param name="Fault">The fault.</param>
/// <param name="Posterior">Chance that it is there now, 0 to 1.</param>
/// <param name="Share">Its share of the blame for the function worked on, 0 to 1; all shares and the unknown make 1.</param>
public sealed record Suspect(int FaultIndex, PartFault Fault, double Posterior, double Share);

/// <summary>A part as the map shows it.</summary>
/// <param name="Part">Part.</param>
/// <param name="State">State.</param>
/// <param name="Share">Share of the blame, 0 to 1.</param>
/// <param name="Posterior">Chance that anything is wrong with it, 0 to 1.</param>
public sealed record PartVerdict(Part Part, PartState State, double Share, double Posterior);

/// <summary>The stretch of the supply in which the fault must lie.</summary>
/// <param name="LastGood">Probe that was still good, or null when none was.</param>
/// <param name="FirstBad">Probe that was first bad.</param>
/// <param name="Parts">Parts between the two.</param>
public sealed record FaultStretch(Probe? LastGood, Probe FirstBad, IReadOnlyList<Part> Parts);

/// <summary>
/// What the diagnosis says of a unit, in numbers alone: small enough to be kept for every unit on the bench, while the tables
/// it was worked out with are let go.
/// </summary>
/// <param name="Target">The open complaint worked on; null when there is none.</param>
/// <param name="Complaints">What the unit was found to fail at, and how each stands now.</param>
/// <param name="Suspects">Suspects for the target, by share of blame. Without a target: by posterior, shares 0.</param>
/// <param name="Unexplained">Share of the blame that no fault of the profile takes, 0 to 1.</param>
/// <param name="Functions">State of every function.</param>
/// <param name="Parts">State of every part.</param>
/// <param name="Stretch">Where the supply is lost, when probes tell.</param>
/// <param name="Fresh">Last outcome of every probe that still holds.</param>
/// <param name="Sampled">True when too many findings hang together for the exact sum: the numbers are then good to about 0.01.</param>
public sealed record UnitVerdict(
    DeviceFunction? Target,
    IReadOnlyList<Complaint> Complaints,
    IReadOnlyList<Suspect> Suspects,
    double Unexplained,
    IReadOnlyDictionary<FunctionId, FunctionState> Functions,
    IReadOnlyDictionary<PartId, PartVerdict> Parts,
    FaultStretch? Stretch,
    IReadOnlyDictionary<ProbeId, ProbeOutcome> Fresh,
    bool Sampled
)
{
    /// <summary>True while a function that failed was not tried since it was worked on.</summary>
    public bool Waits(DeviceFunction function) =>
        Complaints.Any(c => c.Function.Id == function.Id && c.State == ComplaintState.NotTriedSince);
}

/// <summary>Everything the diagnosis says of a unit at this moment, with the network and the tables to ask more of it.</summary>
public sealed class UnitDiagnosis
{
    private UnitDiagnosis(UnitCase unit, Posterior posterior, DeviceFunction? target)
    {
        (Case, Posterior) = (unit, posterior);
        var suspects = new BlameShares(unit, target).Suspects(posterior.Fault, out var unexplained);
        var functions = unit.Model.Profile.Functions.ToDictionary(f => f.Id, f => StateOf(unit.Events, f.Id));
        Verdict = new UnitVerdict(
            target,
            unit.Complaints,
            suspects,
            unexplained,
            functions,
            Judge(suspects, target),
            Localise(),
            unit.FreshReadings(),
            posterior.Sampled
        );
    }

    /// <summary>The unit's network.</summary>
    public UnitCase Case { get; }

    /// <summary>The posterior.</summary>
    public Posterior Posterior { get; }

    /// <summary>What it comes to.</summary>
    public UnitVerdict Verdict { get; }

    /// <inheritdoc cref="UnitVerdict.Target"/>
    public DeviceFunction? Target => Verdict.Target;

    /// <inheritdoc cref="UnitVerdict.Complaints"/>
    public IReadOnlyList<Complaint> Complaints => Verdict.Complaints;

    /// <inheritdoc cref="UnitVerdict.Suspects"/>
    public IReadOnlyList<Suspect> Suspects => Verdict.Suspects;

    /// <inheritdoc cref="UnitVerdict.Unexplained"/>
    public double Unexplained => Verdict.Unexplained;

    /// <inheritdoc cref="UnitVerdict.Functions"/>
    public IReadOnlyDictionary<FunctionId, FunctionState> Functions => Verdict.Functions;

    /// <inheritdoc cref="UnitVerdict.Parts"/>
    public IReadOnlyDictionary<PartId, PartVerdict> Parts => Verdict.Parts;

    /// <inheritdoc cref="UnitVerdict.Stretch"/>
    public FaultStretch? Stretch => Verdict.Stretch;

    /// <summary>Diagnoses a unit.</summary>
    /// <param name="model">Its model.</param>
    /// <param name="events">What happened, in order of time.</param>
    /// <param name="context">What the shop knows beyond the model.</param>
    /// <returns>The diagnosis, or why the evidence cannot be true together.</returns>
    public static Outcome<UnitDiagnosis> Make(DeviceModel model, IReadOnlyList<BenchEvent> events, CaseContext? context = null)
    {
        var unit = new UnitCase(model, events, context);
        var outcome = unit.Infer();
        return outcome.IsOk
            ? Outcome<UnitDiagnosis>.Ok(new UnitDiagnosis(unit, outcome.Value, ChooseTarget(model, events)))
            : Outcome<UnitDiagnosis>.Fail(outcome.Problem!);
    }

    /// <summary>The failing function worked on: of the complaints the one that depends on the fewest parts, for with no power nobody
    /// looks at the cartridge.</summary>
    public static DeviceFunction? ChooseTarget(DeviceModel model, IReadOnlyList<BenchEvent> events) => Goal.Choose(model, events);

    /// <summary>True when a function can be tried as things stand: nothing that fails keeps it from being tried.</summary>
    public static bool CanBeTried(DeviceModel model, DeviceFunction function, IReadOnlyList<BenchEvent> events) =>
        !model.Profile.Functions.Any(f =>
            f.Kind is "power-light" or "start-up" or "cartridge"
            && f.Id != function.Id
            && StateOf(events, f.Id) == FunctionState.Fails
            && !Goal.CanBeTried(model, function, f, Goal.Starts(model, events))
        );

    /// <summary>True when a function wants a start to be tried at all.</summary>
    public static bool WantsStart(DeviceModel model, DeviceFunction function, DeviceFunction start) =>
        !Goal.CanBeTried(model, function, start, false);

    /// <summary>State of a function after the events.</summary>
    public static FunctionState StateOf(IReadOnlyList<BenchEvent> events, FunctionId functionId)
    {
        for (var at = events.Count - 1; at >= 0; at--)
            if (events[at] is FunctionTried tried && tried.FunctionId == functionId)
                return tried.Passed ? FunctionState.Works : FunctionState.Fails;
        return FunctionState.NotTried;
    }

    /// <summary>Chance from which that of a part is summed exactly over its modes.</summary>
    private const double WorthSumming = 0.4;

    private Dictionary<PartId, PartVerdict> Judge(IReadOnlyList<Suspect> suspects, DeviceFunction? target)
    {
        var verdicts = new Dictionary<PartId, PartVerdict>();
        var touched = Case.Events.Any(e => e is not MarkSeen);
        foreach (var group in suspects.GroupBy(s => s.Fault.Part.Id))
        {
            var part = group.First().Fault.Part;
            double healthy = 1,
                before = 1;
            foreach (var suspect in group)
            {
                healthy *= 1 - suspect.Posterior;
                before *= 1 - suspect.Fault.Prior;
            }

            // Of two ways to fail it is mostly the one or the other: together they are surer than as if each came by itself.
            if (group.Count() > 1 && 1 - healthy >= WorthSumming)
                healthy = Posterior.ExpectedProduct(group.Select(s => (Case.UncuredPiece(s.FaultIndex), 0.0)));
            var (posterior, prior, share) = (1 - healthy, 1 - before, group.Sum(s => s.Share));
            var state =
                posterior >= 0.97 ? PartState.Failed
                : touched && posterior <= 0.05 && posterior <= prior / 4 && share < 0.05 ? PartState.Proved
                : target is not null && share >= 0.02 ? PartState.Suspect
                : PartState.Unknown;
            verdicts[part.Id] = new PartVerdict(part, state, share, posterior);
        }

        foreach (var part in Case.Model.Profile.Parts.Where(p => !verdicts.ContainsKey(p.Id)))
            verdicts[part.Id] = new PartVerdict(part, PartState.Unknown, 0, 0);
        return verdicts;
    }

    private FaultStretch? Localise()
    {
        var model = Case.Model;
        var last = Case.FreshReadings();
        var volts = model
            .Profile.Probes.Where(p => p.Kind == ProbeKind.Volts && p.At is not null && last.ContainsKey(p.Id))
            .Select(p => (Probe: p, Up: model.Graph.Upstream(p.At!.Value, powerOnly: true)))
            .ToList();
        var bad = volts.Where(v => last[v.Probe.Id] == ProbeOutcome.Abnormal).OrderBy(v => v.Up.Count).Select(v => v).FirstOrDefault();
        if (bad.Probe is null)
            return null;
        var good = volts
            .Where(v => last[v.Probe.Id] == ProbeOutcome.Normal && v.Probe.At != bad.Probe.At && bad.Up.Contains(v.Probe.At!.Value))
            .OrderByDescending(v => v.Up.Count)
            .Select(v => v)
            .FirstOrDefault();
        var between = bad.Up.Where(id => good.Probe is null || !good.Up.Contains(id)).ToHashSet();
        return new FaultStretch(good.Probe, bad.Probe, model.Profile.Parts.Where(p => between.Contains(p.Id)).ToList());
    }
}
