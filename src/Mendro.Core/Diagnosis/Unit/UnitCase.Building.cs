using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <content>Builds the network: gear and damage as faults, faults split by repairs, events as findings.</content>
public sealed partial class UnitCase
{
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
                .Select(mode => AddFault(new PartFault(part, mode, GearWear.Prior(kind, mode, item)), -1))
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
        var repairs = Events.Select((e, at) => (Event: e, at)).Where(x => x.Event is RepairDone or FunctionTried { Passed: true }).ToList();
        for (var i = 0; i < _faults.Count; i++)
        {
            var fault = _faults[i];
            var left = fault.Prior;
            List<int> pieces = [];
            var timesDone = new Dictionary<string, int>();
            var before = new List<Method>();
            foreach (var (done, at) in repairs)
            {
                if (at > _createdAt[i] && fault.Mode.GoneWith is { } kind && done is FunctionTried tried && Is(tried, kind))
                    Cured(EvidenceWeights.GoneWith);
                if (
                    done is not RepairDone repair
                    || at <= _createdAt[i]
                    || repair.PartId != fault.Part.Id
                    || Model.Library.FindMethod(repair.MethodId) is not { } method
                )
                    continue;
                // What another says he did counts half, and leaves one's own work its first chance.
                var times = timesDone.GetValueOrDefault(method.Id);
                var success = EvidenceWeights.Success(method, fault, times, before) * (repair.Claimed ? EvidenceWeights.Hearsay : 1);
                if (!repair.Claimed)
                {
                    timesDone[method.Id] = times + 1;
                    before.Add(method);
                }

                if (success > 0)
                    Cured(success);

                void Cured(double share)
                {
                    pieces.Add(_pieces.Count);
                    _pieces.Add(new FaultPiece($"{fault.Id}@{at}", left * share, _createdAt[i], at));
                    left *= 1 - share;
                }
            }

            pieces.Add(_pieces.Count);
            _pieces.Add(new FaultPiece(_createdAt[i] < 0 ? fault.Id : $"{fault.Id}#{_createdAt[i]}", left, _createdAt[i], int.MaxValue));
            _piecesOf.Add(pieces);
            _faultOf.AddRange(Enumerable.Repeat(i, pieces.Count));
        }
    }

    private bool Is(FunctionTried tried, string kind) => Model.Profile.FindFunction(tried.FunctionId)?.Kind == kind;

    private void Observe()
    {
        void Add(string key, int at, FindingTemplate template, bool present, IReadOnlyList<Link>? links = null) =>
            AddTrial(key, new Trial(at, template, links ?? LinksOf(template).ToList(), present, 1));
        void AddTrial(string key, Trial trial)
        {
            if (!_series.TryGetValue(key, out var list))
                _series[key] = list = new TrialSeries(RepairBetween);
            list.Add(trial);
        }

        void Taken(int at, ProbeTaken taken, Probe probe)
        {
            var picture = Model.PictureSeen(probe, taken);
            // A screen that is dead altogether says nothing of its light.
            if (picture == false)
                return;
            if (picture == true)
                Add($"lamp:{probe.Id}", at, Model.PictureUnderALamp(Model.Lit!), false);
            var shown = Model.Shown(probe, taken);
            Add($"probe:{probe.Id}", at, shown, taken.Outcome == ProbeOutcome.Abnormal, shown.Momentary ? _moment!.Links(at, taken, LinksOf(shown)) : null);
        }

        var facts = new BenchFacts(Model, Events);
        var conditions = new Conditions(Model, _faults, facts, Events.Count);
        var moment = _moment = new SameMoment(Model, _faults, facts, Events.Count);
        var without = new WorkedWithout(Model, _faults, facts, Events.Count, moment);
        for (var at = 0; at < Events.Count; at++)
        {
            switch (facts[at])
            {
                case RepairDone repair:
                    moment.Over();
                    // What an eye has missed at a part it misses again.
                    if (repair.Held is { } held && Model.LeftUncured(repair.PartId, repair.MethodId) is { } uncured)
                        Add($"held:{repair.PartId}", at, uncured, !held);
                    break;
                case FunctionTried tried when Model.Profile.FindFunction(tried.FunctionId) is { } function:
                    var look = !tried.Passed && !facts.LookSpent(at) && Model.HasLook(function, tried.LookId) ? tried.LookId : null;
                    var template = look is null ? Model.FunctionFails(function) : Model.FunctionLooks(function, look);
                    var inMoment = conditions.Links(at, tried, moment.Links(at, tried, LinksOf(template)));
                    if (!tried.Passed)
                        inMoment = without.Links(at, function.Id, inMoment);
                    AddTrial($"fn:{function.Id}", new Trial(at, template, inMoment, !tried.Passed, tried.Starts, look));
                    if (!tried.Passed && Model.Contradicted(function, tried.LookId) is { } contradicted)
                        Add($"proves:{function.Id}:{tried.LookId}", at, contradicted, false);
                    break;
                case Provoked provoked when Model.Profile.FindFunction(provoked.FunctionId) is { } function:
                    Add($"provoked:{function.Id}:{provoked.How}", at, Model.ChangesWhen(function, provoked.How), provoked.Changed);
                    // What comes and goes worked for a moment: that clears whatever pressing or warming does nothing to.
                    if (provoked.Changed)
                        Add($"steady:{function.Id}:{provoked.How}", at, Model.FailsThroughout(function, provoked.How), false);
                    break;
                // What a switch shows when off says nothing of whether it conducts when on.
                case ProbeTaken { On: false }:
                    break;
                case ProbeTaken taken when Model.Profile.FindProbe(taken.ProbeId) is { } probe:
                    if (taken.Outcome == ProbeOutcome.Jumps)
                        Add($"jumps:{probe.Id}", at, Model.ProbeJumps(probe), true);
                    else
                        Taken(at, taken, probe);
                    break;
                case MarkSeen seen when Model.Library.FindMark(seen.MarkId) is { } mark:
                    Add($"mark:{mark.Id}:{seen.Place}", at, Model.Mark(mark, seen.Grade, Model.PartAt(mark, seen.Place)), true);
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

    private bool RepairBetween(int from, int to)
    {
        for (var at = from + 1; at < to; at++)
            if (Events[at] is RepairDone)
                return true;
        return false;
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
