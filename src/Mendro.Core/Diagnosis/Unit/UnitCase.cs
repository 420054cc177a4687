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
public sealed class UnitCase
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

    /// <summary>Builds the network of a unit.</summary>
    /// <param name="model">Its model.</param>
    /// <param name="events">What happened, in order of time.</param>
    /// <param name="context">What the shop knows beyond the model.</param>
    public UnitCase(DeviceModel model, IReadOnlyList<BenchEvent> events, CaseContext? context = null)
    {
        (Model, Events, Context) = (model, events, context ?? CaseContext.None);
        var priors = Context.Priors;
        _faults = priors is null ? [.. model.Faults] : model.Faults.Select((f, i) => f with { Prior = priors[i] }).ToList();
        _createdAt = Enumerable.Repeat(-1, _faults.Count).ToList();
        AddGear();
        AddDamage();
        Split();
        Observe();
        Network = new FaultNetwork(_pieces.Select(p => new Fault(p.Id, p.Prior)).ToList(), _findings);
    }

    /// <summary>The model.</summary>
    public DeviceModel Model { get; }

    /// <summary>The events.</summary>
    public IReadOnlyList<BenchEvent> Events { get; }

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

    /// <summary>Finding of the last failure of a function, or −1 when it did not fail when last tried.</summary>
    public int FailureOf(FunctionId functionId)
    {
        var last = -1;
        for (var at = 0; at < Events.Count; at++)
            if (Events[at] is FunctionTried tried && tried.FunctionId == functionId)
                last = at;
        for (var f = 0; f < _findings.Count; f++)
            if (_observed[f].Present && _findingEvent[f] == last)
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
        var done = Events.OfType<RepairDone>().Count(r => r.MethodId == methodId && r.PartId == _faults[fault].Part.Id);
        return EvidenceWeights.Success(method, _faults[fault], done);
    }

    /// <summary>Last outcome of every probe that still holds.</summary>
    public IReadOnlyDictionary<ProbeId, ProbeOutcome> FreshReadings() =>
        Freshness.Readings(Model.Graph, Events).ToDictionary(r => r.Key, r => r.Value.Outcome);

    private int AddFault(PartFault fault, int createdAt)
    {
        _faults.Add(fault);
        _createdAt.Add(createdAt);
        return _faults.Count - 1;
    }

    private void AddGear()
    {
        foreach (var item in Context.Gear ?? [])
        {
            var part = new Part(item.PartId, item.Name, item.Kind);
            var kind = Model.Library.FindPartKind(item.Kind);
            _gearFaults[item.Id] = (kind?.Modes ?? [])
                .Select(mode => AddFault(new PartFault(part, mode, GearWear.Prior(kind, mode, item.UsesSinceCleaning)), -1))
                .ToList();
        }
    }

    /// <summary>Work that may do harm is a suspect itself; it can only have caused what came after it.</summary>
    private void AddDamage()
    {
        for (var at = 0; at < Events.Count; at++)
        {
            if (Events[at] is not RepairDone repair || Model.Profile.FindPart(repair.PartId) is not { } part)
                continue;
            if (Model.Library.FindMethod(repair.MethodId) is not { Harm: > 0 } method)
                continue;
            var mode = new FailureMode(
                EvidenceWeights.StepDamage,
                $"upset by the last work ({method.Name.ToLowerInvariant()})",
                ModeEffect.Dead,
                method.Harm,
                null,
                null,
                null,
                method.Source
            );
            if (!_damageOf.TryGetValue(part.Id, out var list))
                _damageOf[part.Id] = list = [];
            list.Add(AddFault(new PartFault(part, mode, method.Harm), at));
        }
    }

    private void Split()
    {
        var repairs = Events.Select((e, at) => (Repair: e as RepairDone, at)).Where(x => x.Repair is not null).ToList();
        for (var i = 0; i < _faults.Count; i++)
        {
            var fault = _faults[i];
            var left = fault.Prior;
            List<int> pieces = [];
            var tried = new Dictionary<string, int>();
            foreach (var (repair, at) in repairs)
            {
                if (at <= _createdAt[i] || repair!.PartId != fault.Part.Id || Model.Library.FindMethod(repair.MethodId) is not { } method)
                    continue;
                var times = tried[method.Id] = tried.GetValueOrDefault(method.Id) + 1;
                var success = EvidenceWeights.Success(method, fault, times - 1);
                if (success <= 0)
                    continue;
                pieces.Add(_pieces.Count);
                _pieces.Add(new FaultPiece($"{fault.Id}@{at}", left * success, _createdAt[i], at));
                left *= 1 - success;
            }

            pieces.Add(_pieces.Count);
            _pieces.Add(new FaultPiece(_createdAt[i] < 0 ? fault.Id : $"{fault.Id}#{_createdAt[i]}", left, _createdAt[i], int.MaxValue));
            _piecesOf.Add(pieces);
            _faultOf.AddRange(Enumerable.Repeat(i, pieces.Count));
        }
    }

    private void Observe()
    {
        void Add(string key, int at, FindingTemplate template, bool present, int trials = 1)
        {
            if (!_series.TryGetValue(key, out var list))
                _series[key] = list = new TrialSeries();
            list.Add(new Trial(at, template, LinksOf(template).ToList(), present, trials));
        }

        for (var at = 0; at < Events.Count; at++)
        {
            switch (Events[at])
            {
                case FunctionTried tried when Model.Profile.FindFunction(tried.FunctionId) is { } function:
                    Add($"fn:{function.Id}", at, Model.Shown(function, tried), !tried.Passed, tried.Starts);
                    break;
                case Provoked provoked when Model.Profile.FindFunction(provoked.FunctionId) is { } function:
                    Add($"provoked:{function.Id}:{provoked.How}", at, Model.ChangesWhen(function, provoked.How), provoked.Changed);
                    // What comes and goes worked for a moment: that clears whatever pressing or warming does nothing to.
                    if (provoked.Changed)
                        Add($"steady:{function.Id}:{provoked.How}", at, Model.FailsThroughout(function, provoked.How), false);
                    break;
                case ProbeTaken taken when Model.Profile.FindProbe(taken.ProbeId) is { } probe:
                    if (taken.Outcome == ProbeOutcome.Jumps)
                        Add($"jumps:{probe.Id}", at, Model.ProbeJumps(probe), true);
                    else
                        Add($"probe:{probe.Id}", at, Model.ProbeAbnormal(probe), taken.Outcome == ProbeOutcome.Abnormal);
                    break;
                case MarkSeen seen when Model.Library.FindMark(seen.MarkId) is { } mark:
                    Add($"mark:{mark.Id}", at, Model.Mark(mark), true);
                    break;
                case SwapTried swap when Model.Profile.FindFunction(swap.FunctionId) is { } function:
                    Add($"swap:{at}", at, Swapped(function, swap, at), !swap.Passed);
                    break;
                case CauseConfirmed confirmed:
                    Add($"cause:{confirmed.PartId}.{confirmed.ModeId}", at, Confirmed(confirmed), confirmed.Present);
                    break;
            }
        }

        foreach (var finding in _series.Values.SelectMany(s => s.Findings(_faults, _piecesOf, _pieces)))
        {
            _observed.Add(new Observed(_findings.Count, finding.Present));
            _findingEvent.Add(finding.At);
            _findings.Add(finding.Present && Events[finding.At] is FunctionTried ? WithUnknownCause(finding.Finding) : finding.Finding);
        }
    }

    /// <summary>
    /// The leak of a failure as a fault of its own: “a cause that the profile lacks”. The same distribution, but its
    /// posterior says what no fault explains, and goes on to say it whatever is imagined next.
    /// </summary>
    private Finding WithUnknownCause(Finding failure)
    {
        _unknownOf[_findings.Count] = _pieces.Count;
        _faultOf.Add(-1);
        _pieces.Add(new FaultPiece($"unknown:{failure.Id}", failure.Leak, -1, int.MaxValue));
        return failure with { Leak = 0, Links = [.. failure.Links, new Link(_pieces.Count - 1, 1)] };
    }

    /// <summary>A swap trial as a finding: the parts that stayed, and the gear that stood in.</summary>
    internal FindingTemplate Swapped(DeviceFunction function, SwapTried swap, long id)
    {
        var template = Model.SwapFails(function, swap.Chain, id, swap.Flickers);
        var gear = (swap.Gear ?? [])
            .SelectMany(GearFaults)
            .Select(f => new Link(f, EvidenceWeights.Fails(_faults[f].Mode) * (swap.Flickers ? DeviceModel.Flickers(_faults[f].Mode) : 1)));
        return template with { Links = [.. template.Links, .. gear] };
    }

    private FindingTemplate Confirmed(CauseConfirmed confirmed)
    {
        var template = Model.Confirmed(confirmed.PartId, confirmed.ModeId);
        if (confirmed.ModeId != EvidenceWeights.StepDamage)
            return template;
        return template with
        {
            Links = _damageOf.GetValueOrDefault(confirmed.PartId, []).Select(f => new Link(f, EvidenceWeights.Confirmation)).ToList(),
        };
    }
}

/// <summary>A part of a fault's chance: what one repair cured of it, or what none has.</summary>
/// <param name="Id">Id.</param>
/// <param name="Prior">Chance before anything is seen, 0 to 1.</param>
/// <param name="CreatedAt">Event after which it may be there; −1 from the beginning.</param>
/// <param name="CuredAt">Event that cured it; the largest integer when none has.</param>
internal sealed record FaultPiece(string Id, double Prior, int CreatedAt, int CuredAt)
{
    /// <summary>True when it can have caused what was seen at an event.</summary>
    public bool AliveAt(int at) => CreatedAt < at && at < CuredAt;
}
