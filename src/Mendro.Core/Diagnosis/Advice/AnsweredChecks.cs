using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>Checks whose answer is known already: taken, seen at the door, or told with the cause.</summary>
internal sealed class AnsweredChecks
{
    private readonly DeviceModel _model;
    private readonly IReadOnlyDictionary<ProbeId, ProbeOutcome> _fresh;
    private readonly HashSet<ProbeId> _looked = [];
    private readonly HashSet<PartId> _seen = [];
    private readonly HashSet<PartId> _told = [];
    private readonly Dictionary<FunctionId, IReadOnlySet<PartId>> _shown = [];

    /// <summary>Goes through what happened to a unit.</summary>
    public AnsweredChecks(UnitCase unit, IReadOnlyDictionary<ProbeId, ProbeOutcome> fresh)
    {
        (_model, _fresh) = (unit.Model, fresh);
        foreach (var happened in unit.Events)
        {
            switch (happened)
            {
                case ProbeTaken { On: not false } taken when _model.Profile.FindProbe(taken.ProbeId) is { } probe:
                    if (TradeLibrary.Of(probe.Kind).ByEye)
                        _looked.Add(probe.Id);
                    break;
                case MarkSeen seen:
                    // A mark at the door tells what a look at the part would, where it can be no other part.
                    var marked = _model.Profile.Parts.Select(p => p.Id).Where(p => _model.Marked(seen, p)).ToList();
                    if (marked is [var only])
                        Tell(only);
                    break;
                case CauseConfirmed confirmed:
                    Tell(confirmed.PartId);
                    break;
                case FunctionTried { Passed: false, LookId: { } look } tried when _model.Profile.FindFunction(tried.FunctionId) is { } function:
                    _shown[function.Id] = _model.Shown(function, look);
                    break;
                case FunctionTried { Passed: true } works:
                    _shown.Remove(works.FunctionId);
                    break;
                // What another says he did tells nothing of what is there.
                case RepairDone { Claimed: false } repair:
                    // Cleaning shows by itself what there was to see, and what is new needs no look; other work makes the part worth one.
                    var method = _model.Library.FindMethod(repair.MethodId);
                    _told.Remove(repair.PartId);
                    if (method is { Type: MethodType.Clean })
                    {
                        Tell(repair.PartId);
                    }
                    else if (method is { Renews: true })
                    {
                        _seen.Add(repair.PartId);
                    }
                    else
                    {
                        _seen.Remove(repair.PartId);
                        _looked.RemoveWhere(id => _model.Profile.FindProbe(id)?.Spans?.Contains(repair.PartId) == true);
                    }

                    break;
            }
        }
    }

    private void Tell(PartId part)
    {
        _seen.Add(part);
        _told.Add(part);
    }

    /// <summary>True when a check has nothing new to tell.</summary>
    public bool Has(Probe probe)
    {
        if (_fresh.ContainsKey(probe.Id) || _looked.Contains(probe.Id))
            return true;
        if (probe.Kind == ProbeKind.Look && probe.Spans is { Count: > 0 } spans && spans.All(_seen.Contains))
            return true;
        return Settled(probe);
    }

    /// <summary>True when volts were found off that still hold.</summary>
    public bool VoltsOff =>
        _fresh.Any(f => f.Value == ProbeOutcome.Abnormal && _model.Profile.FindProbe(f.Key)?.Kind == ProbeKind.Volts);

    /// <summary>True when an eye, a finger or the meter has found something at a part itself since it was last worked on.</summary>
    public bool Showed(PartId part) => _told.Contains(part) || BadAt(part).Any();

    /// <summary>True when a finger has found something at a part, alone or with the parts beside it.</summary>
    public bool Felt(PartId part) => BadAt(part).Any(p => p.Kind == ProbeKind.Press);

    /// <summary>Checks of a part, alone or with others, that were bad and still hold; with others only where the same check of this part
    /// alone was not good.</summary>
    private IEnumerable<Probe> BadAt(PartId part)
    {
        IEnumerable<Probe> Fresh(bool bad) =>
            _fresh
                .Where(f => f.Value != ProbeOutcome.Normal == bad)
                .Select(f => _model.Profile.FindProbe(f.Key))
                .OfType<Probe>()
                .Where(p => p.Spans?.Contains(part) == true);
        var good = Fresh(bad: false).Where(p => p.Spans!.Count == 1).Select(p => p.Kind).ToHashSet();
        return Fresh(bad: true).Where(p => p.Spans!.Count == 1 || !good.Contains(p.Kind));
    }

    /// <summary>Volts before a point where they are good are good, and behind one where they are missing they are missing.</summary>
    private bool Settled(Probe probe)
    {
        if (probe is not { Kind: ProbeKind.Volts, At: { } at })
            return false;
        // A picture on the screen needs no supply checks.
        if (_shown.Values.Any(s => s.Contains(at)))
            return true;
        var upstream = _model.Graph.Upstream(at, powerOnly: true);
        foreach (var other in _model.Profile.Probes.Where(p => p.Kind == ProbeKind.Volts && p.At is not null && p.At != probe.At))
        {
            if (!_fresh.TryGetValue(other.Id, out var outcome))
                continue;
            if (outcome == ProbeOutcome.Normal && _model.Graph.Upstream(other.At!.Value, powerOnly: true).Contains(at))
                return true;
            if (outcome == ProbeOutcome.Abnormal && upstream.Contains(other.At!.Value))
                return true;
        }

        return false;
    }
}
