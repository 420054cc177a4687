using Mendro.Core.Dismantling;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
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

    private static double BlameOn(UnitCase unit, double[] shares, PartId part) =>
        Enumerable.Range(0, shares.Length).Where(f => unit.Faults[f].Part.Id == part).Sum(f => shares[f]);

    private static Candidate Check(UnitDiagnosis diagnosis, Probe probe)
    {
        var template = diagnosis.Case.Model.ProbeAbnormal(probe);
        var goal = diagnosis.Case.Model.Disassembly.Goal(probe);
        return new Candidate(
            probe,
            null,
            template,
            Planned($"probe:{probe.Id}", MoveWords.CheckTitle(probe), probe.Minutes, goal, diagnosis.Case, template, probe),
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
            Planned($"fn:{function.Id}", $"Try: {function.Name}", function.Minutes, Disassembly.Nothing, unit, template),
            "fails",
            "works"
        );
    }

    /// <summary>Ways to make an intermittent show itself: where no finger has told yet, and no part can be asked by itself.</summary>
    private static IEnumerable<Candidate> Provocations(UnitCase unit, DeviceFunction target, double[] shares)
    {
        var closure = unit.Model.Closure(target.Id);
        var since = unit
            .Events.Reverse()
            .TakeWhile(e => e is not RepairDone && (e is not FunctionTried { Passed: true } passed || passed.FunctionId != target.Id))
            .ToList();
        // A part that answered to a finger, or a picture that comes when the case is pressed, is the same fact.
        var moved = since.Any(e =>
            e is FunctionTried { Passed: false, LookId: "pressed" }
            || e is ProbeTaken { Outcome: not ProbeOutcome.Normal } taken
                && unit.Model.Profile.FindProbe(taken.ProbeId) is { Kind: ProbeKind.Press } probe
                && probe.PartIds().Any(closure.Contains)
        );
        var pressable = unit.Model.Profile.Probes.Where(p => p.Kind == ProbeKind.Press).SelectMany(p => p.PartIds()).ToHashSet();
        var loose = Enumerable
            .Range(0, shares.Length)
            .Where(f => unit.Faults[f].Mode.Effect == ModeEffect.Intermittent && !pressable.Contains(unit.Faults[f].Part.Id))
            .Sum(f => shares[f]);
        foreach (var how in new[] { Provocation.Pressed, Provocation.Warmed })
        {
            if (since.OfType<Provoked>().Any(p => p.How == how || p.How != Provocation.Warmed && how != Provocation.Warmed))
                continue;
            if (how == Provocation.Pressed && (moved || loose < LooseEnough))
                continue;
            // What is told to fail when warm need not be warmed to see it.
            if (how == Provocation.Warmed && since.Any(e => e is FunctionTried { Passed: false, LookId: "warm" }))
                continue;
            var template = unit.Model.ChangesWhen(target, how);
            var planned = Planned(
                $"provoke:{target.Id}:{how.ToString().ToLowerInvariant()}",
                MoveWords.ProvokeTitle(target, how),
                MoveWords.ProvokeMinutes(target, how),
                Disassembly.Nothing,
                unit,
                template
            );
            yield return new Candidate(null, target, template, planned, "it changes", "nothing changes", how);
        }
    }

    /// <summary>Trials with another piece in the place of one that comes out without a tool.</summary>
    private static IEnumerable<Candidate> Swaps(UnitCase unit, DeviceFunction target)
    {
        foreach (var part in SwapPlanner.Swappable(unit.Model, target.Id).Where(p => SwapPlanner.ByHand(unit.Model, p)))
        {
            var chain = SwapPlanner.Chain(unit.Model, target.Id, [part.Id]);
            var tried = unit
                .Events.Reverse()
                .TakeWhile(e => e is not RepairDone repair || repair.PartId != part.Id)
                .Any(e => e is SwapTried swap && swap.FunctionId == target.Id && !swap.Chain.Contains(part.Id));
            // What was changed for another already is swapped.
            var changed = unit.Events.OfType<RepairDone>().Any(r => r.PartId == part.Id && IsSwap(unit, r));
            if (tried || changed)
                continue;
            var template = SwapPlanner.Spare(unit, target, part, chain);
            yield return new Candidate(
                null,
                target,
                template,
                Planned($"swap:{part.Id}", MoveWords.SwapTitle(target, part), target.Minutes + 1, Disassembly.Nothing, unit, template),
                "still fails",
                "works",
                SwapOut: part.Id
            );
        }
    }

    private static bool IsSwap(UnitCase unit, RepairDone repair) =>
        unit.Model.Library.FindMethod(repair.MethodId)?.Type is MethodType.Swap or MethodType.Replace;

    private static PlannedCheck Planned(
        string id,
        string title,
        double minutes,
        int goal,
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

        return new PlannedCheck(id, title, minutes, goal, template.Leak, unit.PlannedLinks(template), bad, good);
    }

    /// <summary>Weighs a check one step ahead, with the exact posterior after either answer; null when it cannot tell enough.</summary>
    private Weighed? Weigh(
        UnitDiagnosis diagnosis,
        BlameShares blame,
        double[] shares,
        IReadOnlyList<RepairOption> options,
        Apart state,
        Candidate check,
        bool anyway = false
    )
    {
        var blamed = check.SwapOut is { } part
            ? BlameOn(diagnosis.Case, shares, part)
            : check.Planned.Shows.Sum(s => shares[s.Fault] * s.P);
        if (!anyway && blamed < LeastBlame)
            return null;
        var what = diagnosis.Case.WhatIf(diagnosis.Posterior, check.Template);
        // Nothing changes behind something solid, which noisy-OR cannot say: there the single-cause view is the truer one.
        var (present, yes, no) = check.Provoke is not null
            ? LookAhead.Split(shares, check.Planned)
            : (1 - what.ProbabilityAbsent, blame.Of(what.IfPresent, out _), blame.Of(what.IfAbsent, out _));
        if (
            !anyway
            && (
                present < Math.Max(TooSure, LeastOverLeak * check.Template.Leak)
                || present > (check.Function is not null && check.Provoke is null && check.SwapOut is null ? SureToFail : 1 - TooSure)
            )
        )
            return null;
        var preparation = Preparing(diagnosis.Case.Model);
        var reached = preparation.After(state, check.Planned.Goal);
        var (planYes, planNo) = (
            RepairPlan.Make(yes, options, preparation, reached, _ranking),
            RepairPlan.Make(no, options, preparation, reached, _ranking)
        );
        var minutes = check.Planned.Minutes + preparation.Minutes(state, check.Planned.Goal);
        var taken = check.Planned.Minutes + diagnosis.Case.Model.Disassembly.Minutes(state, check.Planned.Goal);
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
            taken,
            minutes + present * planYes.ExpectedMinutes + (1 - present) * planNo.ExpectedMinutes
        );
    }

    private Move? CheckMove(
        UnitDiagnosis diagnosis,
        Weighed w,
        LookAhead? ahead,
        double[] shares,
        IReadOnlyList<RepairOption> options,
        Apart state,
        bool anyway = false
    )
    {
        var id = w.Check.Planned.Id;
        var ifYes = ahead?.From(w.Yes, w.Reached, w.Check.Planned.SettledIfBad) ?? OfPlan(w.PlanYes);
        var ifNo = ahead?.From(w.No, w.Reached, w.Check.Planned.SettledIfGood) ?? OfPlan(w.PlanNo);
        var expected = w.Minutes + w.Present * ifYes.Expected + (1 - w.Present) * ifNo.Expected;

        // What the answer itself is worth: the case would be open after either, so that does not count.
        var without = RepairPlan.Make(shares, options, Preparing(diagnosis.Case.Model), w.Reached, _ranking);
        if (!anyway && without.ExpectedMinutes - (expected - w.Minutes) < LeastSaving * w.Check.Planned.Minutes)
            return null;
        var prepare = w.Taken - w.Check.Planned.Minutes;
        var reason =
            w.Check.Probe is { } probe ? MoveWords.CheckReason(diagnosis, probe, w.Present, prepare, state != default)
            : w.Check.Provoke is { } how ? MoveWords.ProvokeReason(how)
            : w.Check.SwapOut is not null ? MoveWords.SwapReason
            : "What works clears everything it depends on.";
        return new Move(
            id,
            w.Check.Planned.Title,
            reason,
            w.Taken,
            prepare,
            0,
            expected,
            [
                Outcome(w.Check.Bad, w.Present, w.Yes, w.What.IfPresent, ifYes),
                Outcome(w.Check.Good, 1 - w.Present, w.No, w.What.IfAbsent, ifNo),
            ],
            Outlook.Of(w.Taken, w.Present, ifYes.Outlook, ifNo.Outlook),
            Probe: w.Check.Probe,
            Function: w.Check.Function,
            Provoke: w.Check.Provoke,
            SwapOut: w.Check.SwapOut
        );

        static Ahead OfPlan(RepairPlan plan) =>
            new(plan.ExpectedMinutes, plan.Outlook, null, plan.Sequence.Count > 0 ? plan.Sequence[0] : null);

        MoveOutcome Outcome(string answer, double probability, double[] blamed, Func<int, double> posterior, Ahead then) =>
            new(answer, probability, Leading(diagnosis.Case, blamed, f => posterior(diagnosis.Case.UncuredPiece(f))), then.Title);
    }

    private sealed record Candidate(
        Probe? Probe,
        DeviceFunction? Function,
        FindingTemplate Template,
        PlannedCheck Planned,
        string Bad,
        string Good,
        Provocation? Provoke = null,
        PartId? SwapOut = null
    );

    private sealed record Weighed(
        Candidate Check,
        WhatIf What,
        double Present,
        double[] Yes,
        double[] No,
        RepairPlan PlanYes,
        RepairPlan PlanNo,
        Apart Reached,
        double Minutes,
        double Taken,
        double Expected
    );
}
