using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// One unit's network: the model's faults split by the repairs done, gear that stood in for parts, damage that a
/// step may have done, and the findings in their own epochs.
/// <para>
/// A repair that cures a fault of prior p with success s splits it into a cured part p·s, which can only have caused
/// what was seen before, and an uncured part p·(1 − s), which can have caused everything. A function that still fails
/// after a repair is the same finding with the cured part taken out, so of several failures in a row only the last
/// counts, and the number of present findings does not grow with every retest (<see cref="TrialSeries"/>). A repair
/// that may do harm brings a fault of its own, which can only have caused what was seen after it.
/// </para>
/// </summary>
public sealed partial class UnitCase
{
    private readonly List<PartFault> _faults;
    private readonly List<int> _createdAt;
    private readonly List<FaultPiece> _pieces = [];
    private readonly List<List<int>> _piecesOf = [];
    private readonly List<int> _faultOf = [];
    private readonly List<Finding> _findings = [];
    private readonly List<Observed> _observed = [];
    private readonly List<int> _findingEvent = [];
    private readonly Dictionary<int, int> _unknownOf = [];
    private readonly Dictionary<string, TrialSeries> _series = [];
    private readonly Dictionary<PartId, List<int>> _damageOf = [];
    private readonly Dictionary<string, List<int>> _gearFaults = [];
    private SameMoment? _moment;
    private IReadOnlyList<Complaint>? _complaints;

    /// <summary>Builds the network of a unit.</summary>
    /// <param name="model">Its model.</param>
    /// <param name="events">What happened, in order of time.</param>
    /// <param name="context">What the shop knows beyond the model.</param>
    public UnitCase(DeviceModel model, IReadOnlyList<BenchEvent> events, CaseContext? context = null)
    {
        (Model, Events, Context) = (model, events, context ?? CaseContext.None);
        var priors = Context.Priors;
        _faults = priors is null ? [.. model.Faults] : model.Faults.Select((f, i) => f with { Prior = priors[i] }).ToList();
        foreach (var (i, times) in EatenBeside.Odds(model, events))
            _faults[i] = _faults[i] with { Prior = EatenBeside.Weighed(_faults[i].Prior, times) };
        _createdAt = Enumerable.Repeat(-1, _faults.Count).ToList();
        AddGear();
        AddDamage();
        Split();
        Observe();
        Network = new FaultNetwork(_pieces.Select(p => new Fault(p.Id, p.Prior)).ToList(), _findings);
    }

    /// <summary>The model.</summary>
    public DeviceModel Model { get; }

    /// <summary>Share of what a fault does to a function that it still does in the moment as it is, 0 to 1.</summary>
    public double Leaves(FunctionId function, int fault) => _moment?.Leaves(function, fault) ?? 1;

    /// <summary>The events.</summary>
    public IReadOnlyList<BenchEvent> Events { get; }

    /// <summary>True for a method that is never done on a unit with a mark noted on this one, such as charging a swollen cell.</summary>
    public bool Forbids(Method method) => Forbids(method.NotWith);

    /// <summary>True for a function that is never tried on a unit with a mark noted on this one.</summary>
    public bool Forbids(DeviceFunction function) => Forbids(Model.Library.FindFunctionKind(function.Kind)?.NotWith);

    private bool Forbids(IReadOnlyList<string>? cautions) =>
        cautions is not null
        && Events.OfType<MarkSeen>().Any(m => Model.Library.FindMark(m.MarkId)?.Caution is { } caution && cautions.Contains(caution));

    /// <summary>What the shop knows beyond the model.</summary>
    public CaseContext Context { get; }

    /// <summary>The model's faults in their order, with the priors of this case; then those of the gear and of the steps.</summary>
    public IReadOnlyList<PartFault> Faults => _faults;

    /// <summary>The network, every finding of which was observed.</summary>
    public FaultNetwork Network { get; }

    /// <summary>What was observed of the network's findings.</summary>
    public IReadOnlyList<Observed> Observed => _observed;

    /// <summary>Posterior over the pieces, or why there is none.</summary>
    /// <param name="stateLimit">States up to which a group of findings is summed exactly.</param>
    public Outcome<Posterior> Infer(long stateLimit = NoisyOrInference.PageStateLimit) =>
        NoisyOrInference.Infer(Network, _observed, stateLimit);

    /// <summary>Index of the event that a finding of the network was made by; of several alike the last.</summary>
    public int EventOf(int finding) => _findingEvent[finding];

    /// <summary>Index of the piece of a fault that no repair has cured: the one that may still be there now.</summary>
    public int UncuredPiece(int fault) => _piecesOf[fault][^1];

    /// <summary>Piece that stands for a cause of a failure that the profile lacks; null for other findings.</summary>
    public int? UnknownPiece(int finding) => _unknownOf.TryGetValue(finding, out var piece) ? piece : null;

    /// <summary>What the unit was found to fail at, and how it stands.</summary>
    public IReadOnlyList<Complaint> Complaints => _complaints ??= Diagnosis.Complaints.Of(Model, Events);

    /// <summary>Finding of the last failure of a function, or −1 when it is no open complaint.</summary>
    public int FailureOf(FunctionId functionId)
    {
        if (!Complaints.Any(c => c.Open && c.Function.Id == functionId))
            return -1;
        var last = -1;
        for (var at = 0; at < Events.Count; at++)
            if (BenchFacts.Restated(Model, Events[at]) is FunctionTried { Passed: false } tried && tried.FunctionId == functionId)
                last = at;
        for (var f = 0; f < _findings.Count; f++)
            if (_observed[f].Present && _findingEvent[f] == last)
                return f;
        return -1;
    }

    /// <summary>Finding of the bad reading nearest the source on the supply of a function, else of a dead short on one of its rails when
    /// nothing was tried yet; −1 when none holds.</summary>
    public int BadRail(FunctionId functionId)
    {
        var closure = Model.Closure(functionId);
        // Cells or a pack that nothing charges are low: that is the charging's failure and no rail of its own.
        var uncharged = Model.Profile.Functions.Any(f =>
            f.Kind == "charging" && UnitDiagnosis.StateOf(Events, f.Id) == FunctionState.Fails
        );
        var readings = Freshness.Readings(Model.Graph, Events);
        var best = (Finding: -1, Depth: int.MaxValue);
        foreach (var (id, taken) in readings)
        {
            if (
                taken.Outcome != ProbeOutcome.Abnormal
                || Model.Profile.FindProbe(id) is not { Kind: ProbeKind.Volts, At: { } at }
                || !closure.Contains(at)
                || uncharged && Model.Graph.ChargeWays(Model.Graph.Upstream(at, powerOnly: true)).Count > 0
            )
                continue;
            var depth = Model.Graph.Upstream(at, powerOnly: true).Count;
            if (depth < best.Depth && BadReading(id) is >= 0 and var finding)
                best = (finding, depth);
        }

        if (best.Finding >= 0 || FailureOf(functionId) >= 0)
            return best.Finding;
        return readings
            .Values.Where(taken => Model.ShortedBy(taken).Overlaps(closure))
            .Select(taken => BadReading(taken.ProbeId))
            .FirstOrDefault(finding => finding >= 0, -1);
    }

    /// <summary>First finding that a bad reading of a probe made, or −1.</summary>
    private int BadReading(ProbeId probeId)
    {
        for (var f = 0; f < _findings.Count; f++)
            if (_observed[f].Present && Events[_findingEvent[f]] is ProbeTaken told && told.ProbeId == probeId)
                return f;
        return -1;
    }

    /// <summary>Fault that a piece of the network belongs to; −1 for a cause that the profile lacks.</summary>
    public int FaultOf(int piece) => _faultOf[piece];

    /// <summary>All pieces of a fault, the uncured one last.</summary>
    public IReadOnlyList<int> PiecesOf(int fault) => _piecesOf[fault];

    /// <summary>Faults of a piece of gear; none when it took no part.</summary>
    public IReadOnlyList<int> GearFaults(string gearId) => _gearFaults.TryGetValue(gearId, out var list) ? list : [];

    /// <summary>Links of a template to the faults of this case, damage done by steps included.</summary>
    public IEnumerable<Link> LinksOf(FindingTemplate template)
    {
        foreach (var link in template.Links)
            yield return link;
        foreach (var (part, faults) in _damageOf)
            if (template.Damage?.TryGetValue(part, out var p) == true)
                foreach (var fault in faults)
                    yield return new Link(fault, p);
    }

    /// <summary>
    /// Links of a finding as it would be made now. Where it was absent before, a lasting fault that was there then
    /// would not show now either: looking again tells only of intermittent faults and of newer damage.
    /// </summary>
    public IEnumerable<Link> LinksNow(FindingTemplate template) =>
        TellingNow(template).Select(l => l with { Fault = UncuredPiece(l.Fault) });

    /// <summary>The same links by fault index.</summary>
    internal IReadOnlyList<(int Fault, double P)> PlannedLinks(FindingTemplate template) =>
        TellingNow(template).Select(l => (l.Fault, l.P)).ToList();

    private IEnumerable<Link> TellingNow(FindingTemplate template)
    {
        var before = _series.GetValueOrDefault(template.Id);
        return LinksOf(template)
            // What may be failing just now would show in a trial or in volts just now.
            .Select(l =>
                template.Momentary
                && l.P > 0
                && _faults[l.Fault].Mode.Effect == ModeEffect.Intermittent
                && _moment?.MayFailNow(l.Fault) == true
                    ? l with
                    {
                        P = Math.Max(l.P, EvidenceWeights.ClearsAtTheMoment),
                    }
                    : l
            )
            .Select(l => template.Momentary && _moment is not null ? l with { P = l.P * _moment.MayBeEmpty(template.Id, l.Fault) } : l)
            .Where(l =>
                before is not { LastAbsent: true }
                || _faults[l.Fault].Mode.Effect == ModeEffect.Intermittent
                || _createdAt[l.Fault] >= before.LastAt
            );
    }

    /// <summary>What would be believed after looking for a finding now.</summary>
    public WhatIf WhatIf(Posterior posterior, FindingTemplate template) =>
        posterior.IfAbsent(template.Leak, LinksNow(template).Select(l => (l.Fault, 1 - l.P)));

    /// <summary>Success of a method on a fault, less for every time it was already tried on that part.</summary>
    public double SuccessNow(MethodId methodId, int fault)
    {
        var method = Model.Library.FindMethod(methodId);
        if (method is null)
            return 0;
        var part = _faults[fault].Part.Id;
        var done = Events.OfType<RepairDone>().Where(r => !r.Claimed && r.PartId == part).ToList();
        var success = EvidenceWeights.Success(
            method,
            _faults[fault],
            done.Count(r => r.MethodId == methodId),
            done.Select(r => Model.Library.FindMethod(r.MethodId)).OfType<Method>()
        );
        return EvidenceWeights.Graded(success, method, GradeOf(part));
    }

    /// <summary>How bad a part was said to look when it was last looked at.</summary>
    public SeenGrade GradeOf(PartId part)
    {
        for (var at = Events.Count - 1; at >= 0; at--)
            switch (Events[at])
            {
                case ProbeTaken { Outcome: ProbeOutcome.Abnormal, Words: { Length: > 0 } words } taken
                    when Model.Profile.FindProbe(taken.ProbeId) is { Kind: ProbeKind.Look } look && look.Spans?.Contains(part) == true:
                    return SeenWords.Grade(words);
                case MarkSeen { Grade: not SeenGrade.Untold } seen when Model.Marked(seen, part):
                    return seen.Grade;
            }

        return SeenGrade.Untold;
    }

    /// <summary>Last outcome of every probe that still holds.</summary>
    public IReadOnlyDictionary<ProbeId, ProbeOutcome> FreshReadings() =>
        Freshness.Readings(Model.Graph, Events).ToDictionary(r => r.Key, r => r.Value.Outcome);

    /// <summary>A swap trial as a finding: the parts that stayed, and the gear that stood in.</summary>
    /// <param name="function">Function tried.</param>
    /// <param name="swap">What was, or would be, tried.</param>
    /// <param name="id">Number of the trial.</param>
    /// <param name="now">True for a trial that is only thought of.</param>
    internal FindingTemplate Swapped(DeviceFunction function, SwapTried swap, long id, bool now = false)
    {
        var template = Model.SwapFails(function, swap.Chain, id, swap.Flickers, now);
        var gear = (swap.Gear ?? [])
            .SelectMany(GearFaults)
            .Select(f => new Link(f, EvidenceWeights.Fails(_faults[f].Mode) * (swap.Flickers ? DeviceModel.Flickers(_faults[f].Mode) : 1)));
        return template with { Links = [.. template.Links, .. gear] };
    }
}
