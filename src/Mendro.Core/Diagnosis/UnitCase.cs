using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// One unit's network: the model's faults split by the repairs done, and the findings in their own epochs.
/// <para>
/// A repair that cures a fault of prior p with success s splits it into a cured part p·s, which can only have caused
/// what was seen before, and an uncured part p·(1 − s), which can have caused everything. A function that still fails
/// after a repair is the same finding with the cured part taken out, so of several failures in a row only the last
/// counts, and the number of present findings does not grow with every retest.
/// </para>
/// </summary>
public sealed class UnitCase
{
    private readonly List<Piece> _pieces = [];
    private readonly List<int>[] _piecesOf;
    private readonly List<Finding> _findings = [];
    private readonly List<Observed> _observed = [];

    /// <summary>Builds the network of a unit.</summary>
    /// <param name="model">Its model.</param>
    /// <param name="events">What happened, in order of time.</param>
    public UnitCase(DeviceModel model, IReadOnlyList<BenchEvent> events)
    {
        (Model, Events) = (model, events);
        _piecesOf = new List<int>[model.Faults.Count];
        Split();
        Observe();
        Network = new FaultNetwork(_pieces.Select(p => new Fault(p.Id, p.Prior)).ToList(), _findings);
    }

    /// <summary>The model.</summary>
    public DeviceModel Model { get; }

    /// <summary>The events.</summary>
    public IReadOnlyList<BenchEvent> Events { get; }

    /// <summary>The network, every finding of which was observed.</summary>
    public FaultNetwork Network { get; }

    /// <summary>Posterior over the pieces, or why there is none.</summary>
    public Outcome<Posterior> Infer() => NoisyOrInference.Infer(Network, _observed);

    /// <summary>Index of the piece of a fault that no repair has cured: the one that may still be there now.</summary>
    public int UncuredPiece(int fault) => _piecesOf[fault][^1];

    /// <summary>Links of a finding as it would be made now.</summary>
    public IEnumerable<Link> LinksNow(FindingTemplate template) => template.Links.Select(l => l with { Fault = UncuredPiece(l.Fault) });

    /// <summary>Chance that a finding would be present if looked for now.</summary>
    public double ProbabilityNow(Posterior posterior, FindingTemplate template) => Math.Clamp(
        1 - (1 - template.Leak) * posterior.ExpectedProduct(LinksNow(template).Select(l => (l.Fault, 1 - l.P))), 0, 1);

    /// <summary>Success of a method on a fault, less for every time it was already tried on that part.</summary>
    public double SuccessNow(string methodId, int fault)
    {
        var method = Model.Library.FindMethod(methodId);
        if (method is null) return 0;
        var done = Events.OfType<RepairDone>().Count(r => r.MethodId == methodId && r.PartId == Model.Faults[fault].Part.Id);
        return EvidenceWeights.Success(method, Model.Faults[fault], done);
    }

    /// <summary>
    /// Last outcome of every probe that still holds: a repair makes stale what was measured on the part or behind it.
    /// </summary>
    public IReadOnlyDictionary<string, ProbeOutcome> FreshReadings()
    {
        var fresh = new Dictionary<string, ProbeOutcome>();
        foreach (var happened in Events)
        {
            if (happened is ProbeTaken taken) fresh[taken.ProbeId] = taken.Outcome;
            if (happened is not RepairDone repair) continue;
            foreach (var id in fresh.Keys.Where(id => Touches(repair.PartId, Model.Profile.FindProbe(id))).ToList()) fresh.Remove(id);
        }

        return fresh;
    }

    private bool Touches(string partId, Probe? probe)
    {
        if (probe is null) return true;
        if (probe.Spans?.Contains(partId) == true || probe.Rail is not null) return true;
        return probe.At is not null && Model.Graph.Upstream(probe.At, powerOnly: true).Contains(partId);
    }

    private void Split()
    {
        var repairs = Events.Select((e, at) => (Repair: e as RepairDone, at)).Where(x => x.Repair is not null).ToList();
        for (var i = 0; i < Model.Faults.Count; i++)
        {
            var fault = Model.Faults[i];
            var left = fault.Prior;
            _piecesOf[i] = [];
            var tried = new Dictionary<string, int>();
            foreach (var (repair, at) in repairs)
            {
                if (repair!.PartId != fault.Part.Id || Model.Library.FindMethod(repair.MethodId) is not { } method) continue;
                var times = tried[method.Id] = tried.GetValueOrDefault(method.Id) + 1;
                var success = EvidenceWeights.Success(method, fault, times - 1);
                if (success <= 0) continue;
                _piecesOf[i].Add(_pieces.Count);
                _pieces.Add(new Piece($"{fault.Id}@{at}", left * success, at));
                left *= 1 - success;
            }

            _piecesOf[i].Add(_pieces.Count);
            _pieces.Add(new Piece(fault.Id, left, int.MaxValue));
        }
    }

    private void Observe()
    {
        var functions = new Dictionary<string, List<(int At, FindingTemplate Template, bool Present)>>();
        void Add(string key, int at, FindingTemplate template, bool present)
        {
            if (!functions.TryGetValue(key, out var list)) functions[key] = list = [];
            list.Add((at, template, present));
        }

        for (var at = 0; at < Events.Count; at++)
        {
            switch (Events[at])
            {
                case FunctionTried tried when Model.Profile.FindFunction(tried.FunctionId) is { } function:
                    Add($"fn:{function.Id}", at, Model.Shown(function, tried), !tried.Passed);
                    break;
                case ProbeTaken taken when Model.Profile.FindProbe(taken.ProbeId) is { } probe:
                    if (taken.Outcome == ProbeOutcome.Jumps) Add($"jumps:{probe.Id}", at, Model.ProbeJumps(probe), true);
                    else Add($"probe:{probe.Id}", at, Model.ProbeAbnormal(probe), taken.Outcome == ProbeOutcome.Abnormal);
                    break;
                case MarkSeen seen when Model.Library.FindMark(seen.MarkId) is { } mark:
                    Add($"mark:{mark.Id}", at, Model.Mark(mark), true);
                    break;
                case SwapTried swap when Model.Profile.FindFunction(swap.FunctionId) is { } function:
                    Add($"swap:{at}", at, Model.SwapFails(function, swap.Chain, at), !swap.Passed);
                    break;
                case CauseConfirmed confirmed:
                    Add($"cause:{confirmed.PartId}.{confirmed.ModeId}", at, Model.Confirmed(confirmed.PartId, confirmed.ModeId), confirmed.Present);
                    break;
            }
        }

        foreach (var series in functions.Values)
        {
            for (var n = 0; n < series.Count; n++)
            {
                // Of several results alike in a row the last one holds: a persistent cause is one finding, not many.
                if (n + 1 < series.Count && series[n + 1].Present == series[n].Present) continue;
                // Results that differ with no repair between are both kept: only an intermittent explains them.
                var (at, template, present) = series[n];
                _observed.Add(new Observed(_findings.Count, present));
                _findings.Add(new Finding($"{template.Id}#{at}", template.Leak, LinksAt(template, at)));
            }
        }
    }

    private List<Link> LinksAt(FindingTemplate template, int at)
    {
        var links = new List<Link>(template.Links.Count);
        foreach (var link in template.Links)
            foreach (var piece in _piecesOf[link.Fault])
                if (_pieces[piece].CuredAt > at) links.Add(new Link(piece, link.P));
        return links;
    }

    private sealed record Piece(string Id, double Prior, int CuredAt);
}
