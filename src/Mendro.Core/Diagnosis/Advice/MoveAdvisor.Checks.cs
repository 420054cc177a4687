using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Diagnosis;

/// <content>Checks: which there are, what each would tell, and what it is worth.</content>
public sealed partial class MoveAdvisor
{
    /// <summary>The suspects that lead.</summary>
    private static List<Suspect> Leading(UnitCase unit, double[] shares, Func<int, double> posterior) =>
        Enumerable
            .Range(0, shares.Length)
            .Where(f => shares[f] > 0.05)
            .OrderByDescending(f => shares[f])
            .Take(2)
            .Select(f => new Suspect(f, unit.Faults[f], posterior(f), shares[f]))
            .ToList();

    private static Candidate Check(UnitDiagnosis diagnosis, Probe probe)
    {
        var template = diagnosis.Case.Model.ProbeAbnormal(probe);
        return new Candidate(
            probe,
            null,
            template,
            Planned($"probe:{probe.Id}", MoveWords.CheckTitle(probe), probe.Minutes, probe.State, diagnosis.Case, template, probe),
            MoveWords.BadAnswer(probe),
            MoveWords.GoodAnswer(probe)
        );
    }

    private static Candidate Trial(UnitCase unit, DeviceFunction function)
    {
        var template = unit.Model.FunctionFails(function);
        return new Candidate(
            null,
            function,
            template,
            Planned($"fn:{function.Id}", $"Try: {function.Name}", function.Minutes, AccessState.Closed, unit, template),
            "fails",
            "works"
        );
    }

    /// <summary>Ways to make an intermittent show itself that were not tried since the function last worked.</summary>
    private static IEnumerable<Candidate> Provocations(
        UnitCase unit,
        DeviceFunction target,
        double[] shares,
        IReadOnlyDictionary<ProbeId, ProbeOutcome> fresh
    )
    {
        // To press right at the leading suspect tells where; to press the unit as a whole tells only that.
        var leading = unit.Faults[Enumerable.Range(0, shares.Length).MaxBy(f => shares[f])].Part.Id;
        if (unit.Model.Profile.Probes.Any(p => p.Kind == ProbeKind.Press && p.Spans?.Contains(leading) == true && !fresh.ContainsKey(p.Id)))
            yield break;
        var since = unit
            .Events.Reverse()
            .TakeWhile(e => e is not FunctionTried { Passed: true } passed || passed.FunctionId != target.Id)
            .OfType<Provoked>()
            .Where(p => p.FunctionId == target.Id)
            .Select(p => p.How)
            .ToHashSet();
        foreach (var how in new[] { Provocation.Pressed, Provocation.Flexed, Provocation.Warmed }.Where(h => !since.Contains(h)))
        {
            var template = unit.Model.ChangesWhen(target, how);
            var planned = Planned(
                $"provoke:{target.Id}:{how.ToString().ToLowerInvariant()}",
                MoveWords.ProvokeTitle(target, how),
                MoveWords.ProvokeMinutes(target, how),
                how == Provocation.Flexed ? AccessState.Open : AccessState.Closed,
                unit,
                template
            );
            yield return new Candidate(null, target, template, planned, "it changes", "nothing changes", how);
        }
    }

    private static PlannedCheck Planned(
        string id,
        string title,
        double minutes,
        AccessState state,
        UnitCase unit,
        FindingTemplate template,
        Probe? probe = null
    )
    {
        HashSet<string> bad = [id],
            good = [id];
        if (probe is { Kind: ProbeKind.Volts, At: { } at })
        {
            // Where the supply is missing it is missing behind it, where it is good it is good before it.
            var upstream = unit.Model.Graph.Upstream(at, powerOnly: true);
            foreach (var other in unit.Model.Profile.Probes.Where(p => p is { Kind: ProbeKind.Volts, At: not null } && p.Id != probe.Id))
            {
                if (unit.Model.Graph.Upstream(other.At!.Value, powerOnly: true).Contains(at))
                    bad.Add($"probe:{other.Id}");
                if (upstream.Contains(other.At!.Value))
                    good.Add($"probe:{other.Id}");
            }
        }

        return new PlannedCheck(id, title, minutes, state, template.Leak, unit.PlannedLinks(template), bad, good);
    }

    /// <summary>Weighs a check one step ahead, with the exact posterior after either answer; null when it cannot tell enough.</summary>
    private Weighed? Weigh(
        UnitDiagnosis diagnosis,
        BlameShares blame,
        double[] shares,
        IReadOnlyList<RepairOption> options,
        AccessState state,
        Candidate check
    )
    {
        if (check.Planned.Shows.Sum(s => shares[s.Fault] * s.P) < LeastBlame)
            return null;
        var what = diagnosis.Case.WhatIf(diagnosis.Posterior, check.Template);
        // Nothing changes behind something solid, which noisy-OR cannot say: there the single-cause view is the truer one.
        var (present, yes, no) = check.Provoke is not null
            ? LookAhead.Split(shares, check.Planned)
            : (1 - what.ProbabilityAbsent, blame.Of(what.IfPresent, out _), blame.Of(what.IfAbsent, out _));
        if (
            present < Math.Max(TooSure, LeastOverLeak * check.Template.Leak)
            || present > (check.Function is not null && check.Provoke is null ? SureToFail : 1 - TooSure)
        )
            return null;
        var preparation = diagnosis.Case.Model.Profile.Preparation;
        var reached = check.Planned.State > state ? check.Planned.State : state;
        var (planYes, planNo) = (
            RepairPlan.Make(yes, options, preparation, reached, costs),
            RepairPlan.Make(no, options, preparation, reached, costs)
        );
        var minutes = check.Planned.Minutes + preparation.Minutes(state, reached);
        return new Weighed(
            check,
            what,
            present,
            yes,
            no,
            planYes,
            planNo,
            reached,
            minutes,
            minutes + present * planYes.ExpectedMinutes + (1 - present) * planNo.ExpectedMinutes
        );
    }

    private Move? CheckMove(
        UnitDiagnosis diagnosis,
        Weighed w,
        LookAhead? ahead,
        double[] shares,
        IReadOnlyList<RepairOption> options,
        AccessState state
    )
    {
        var id = w.Check.Planned.Id;
        var ifYes = ahead?.From(w.Yes, w.Reached, w.Check.Planned.SettledIfBad) ?? OfPlan(w.PlanYes);
        var ifNo = ahead?.From(w.No, w.Reached, w.Check.Planned.SettledIfGood) ?? OfPlan(w.PlanNo);
        var expected = w.Minutes + w.Present * ifYes.Expected + (1 - w.Present) * ifNo.Expected;

        // What the answer itself is worth: the case would be open after either, so that does not count.
        var without = RepairPlan.Make(shares, options, diagnosis.Case.Model.Profile.Preparation, w.Reached, costs);
        if (without.ExpectedMinutes - (expected - w.Minutes) < LeastSaving * w.Check.Planned.Minutes)
            return null;
        var prepare = w.Minutes - w.Check.Planned.Minutes;
        var reason =
            w.Check.Probe is { } probe ? MoveWords.CheckReason(diagnosis, probe, w.Present, prepare, state)
            : w.Check.Provoke is { } how ? MoveWords.ProvokeReason(how)
            : "What works clears everything it depends on.";
        return new Move(
            id,
            w.Check.Planned.Title,
            reason,
            w.Minutes,
            prepare,
            0,
            expected,
            [
                Outcome(w.Check.Bad, w.Present, w.Yes, w.What.IfPresent, ifYes),
                Outcome(w.Check.Good, 1 - w.Present, w.No, w.What.IfAbsent, ifNo),
            ],
            Outlook.Of(w.Minutes, w.Present, ifYes.Outlook, ifNo.Outlook),
            Probe: w.Check.Probe,
            Function: w.Check.Function,
            Provoke: w.Check.Provoke
        );

        static Ahead OfPlan(RepairPlan plan) =>
            new(plan.ExpectedMinutes, plan.Outlook, null, plan.Sequence.Count > 0 ? plan.Sequence[0] : null);

        MoveOutcome Outcome(string answer, double probability, double[] blamed, Func<int, double> posterior, Ahead then) =>
            new(answer, probability, Leading(diagnosis.Case, blamed, f => posterior(diagnosis.Case.UncuredPiece(f))), then.Title);
    }

    /// <summary>Volts before a point where they are good are good, and behind one where they are missing they are missing.</summary>
    private static bool Settled(DeviceModel model, Probe probe, IReadOnlyDictionary<ProbeId, ProbeOutcome> fresh)
    {
        if (probe is not { Kind: ProbeKind.Volts, At: { } at })
            return false;
        var upstream = model.Graph.Upstream(at, powerOnly: true);
        foreach (var other in model.Profile.Probes.Where(p => p.Kind == ProbeKind.Volts && p.At is not null && p.At != probe.At))
        {
            if (!fresh.TryGetValue(other.Id, out var outcome))
                continue;
            if (outcome == ProbeOutcome.Normal && model.Graph.Upstream(other.At!.Value, powerOnly: true).Contains(at))
                return true;
            if (outcome == ProbeOutcome.Abnormal && upstream.Contains(other.At!.Value))
                return true;
        }

        return false;
    }

    private sealed record Candidate(
        Probe? Probe,
        DeviceFunction? Function,
        FindingTemplate Template,
        PlannedCheck Planned,
        string Bad,
        string Good,
        Provocation? Provoke = null
    );

    private sealed record Weighed(
        Candidate Check,
        WhatIf What,
        double Present,
        double[] Yes,
        double[] No,
        RepairPlan PlanYes,
        RepairPlan PlanNo,
        AccessState Reached,
        double Minutes,
        double Expected
    );
}
