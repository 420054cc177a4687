using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// Ranks what to do next by expected cost to the end: a check is worth it when the expected cost after its answers,
/// plus its own, is lower (Heckerman, Breese and Rommelse 1995). That theory assumes one fault; here one failing
/// function is worked on at a time, the most upstream first. The first step is weighed with the exact posterior over
/// several faults, the steps behind it with <see cref="LookAhead"/>.
/// </summary>
public sealed class MoveAdvisor(BenchCosts costs)
{
    /// <summary>A check whose chance of either answer is below this tells too little to be listed.</summary>
    private const double TooSure = 0.004;

    /// <summary>A check that saves less than this share of its own minutes is not worth listing.</summary>
    private const double LeastSaving = 0.1;

    /// <summary>A check that touches less than this share of the blame is not listed: it could hardly help.</summary>
    private const double LeastBlame = 0.05;

    /// <summary>A repair with less chance than this is kept for the plan but not proposed.</summary>
    private const double LeastChance = 0.01;

    /// <summary>A check that would show something hardly more often than by bench error is not listed.</summary>
    private const double LeastOverLeak = 2.5;

    /// <summary>Trying a function whose failure is surer than this is no test.</summary>
    private const double SureToFail = 0.8;

    /// <summary>Share of the expected cost within which moves are as good as equal: the look-ahead is no more exact.</summary>
    private const double AsGoodAs = 0.07;

    /// <summary>A look that shows something less often than this is no preparation for a repair.</summary>
    private const double Likely = 0.15;

    /// <summary>A check of at most this many minutes is quick.</summary>
    private const double Quick = 2;

    /// <summary>How many checks and repairs are looked at more than one step ahead.</summary>
    private const int Deeply = 8;

    /// <summary>Advice for a unit.</summary>
    /// <param name="diagnosis">Diagnosis of the unit.</param>
    /// <param name="state">How far the unit is apart now.</param>
    public Advice Advise(UnitDiagnosis diagnosis, AccessState state)
    {
        if (diagnosis.Target is not { } target)
            return new Advice(Untried(diagnosis), null);
        var unit = diagnosis.Case;
        var profile = unit.Model.Profile;
        var blame = new BlameShares(unit, target);
        var shares = blame.Of(diagnosis.Posterior.Fault, out _);
        var options = RepairOption.For(unit, shares, costs);
        var plan = RepairPlan.Make(shares, options, profile.Preparation, state, costs);
        var fresh = unit.FreshReadings();
        var weighed = profile
            .Probes.Where(p => !fresh.ContainsKey(p.Id) && !Settled(unit.Model, p, fresh))
            .Select(p => Check(diagnosis, p))
            .Concat(profile.Functions.Where(f => diagnosis.Functions[f.Id] == FunctionState.NotTried).Select(f => Trial(unit, f)))
            .Concat(Provocations(unit, target, shares, fresh))
            .Select(c => Weigh(diagnosis, blame, shares, options, state, c))
            .OfType<Weighed>()
            .OrderBy(w => w.Expected - w.Minutes * 0.001)
            .ToList();
        var single = new LookAhead(options, [], profile.Preparation, costs);
        var ahead = new LookAhead(
            options,
            weighed
                .Take(Deeply)
                .Select(w => w.Check.Planned with { Optimism = Math.Max(0, w.Expected - single.Flattered(w.Check.Planned, shares, state)) })
                .ToList(),
            profile.Preparation,
            costs
        );

        var moves = weighed
            .Select((w, n) => CheckMove(diagnosis, w, n < Deeply ? ahead : null, shares, options, state))
            .OfType<Move>()
            .ToList();
        var proposed = options
            .Where(o => o.Chance >= LeastChance)
            .Select(o => (Option: o, Plan: RepairPlan.Make(shares, options, profile.Preparation, state, costs, o)))
            .OrderBy(x => x.Plan.ExpectedMinutes)
            .ToList();
        for (var n = 0; n < proposed.Count; n++)
            moves.Add(
                RepairMove(
                    diagnosis,
                    target,
                    blame,
                    shares,
                    proposed[n].Option,
                    proposed[n].Plan,
                    n < Deeply ? ahead.After(proposed[n].Option, shares, state) : null,
                    state
                )
            );
        return new Advice(Ranked(moves), plan);
    }

    /// <summary>
    /// By expected cost. Where a quick look or reading is as good as the best move, it comes before a repair and before
    /// anything that takes the unit further apart: it can do no harm, and what it tells stays known.
    /// </summary>
    private static List<Move> Ranked(List<Move> moves)
    {
        var ranked = moves.OrderBy(m => m.ExpectedMinutes).ThenBy(m => m.Minutes).ToList();
        if (ranked.Count == 0 || ranked[0] is { Repair: null, PreparationMinutes: <= 0 })
            return ranked;
        var gentle = ranked.FirstOrDefault(m =>
            m is { Repair: null, PreparationMinutes: <= 0, Minutes: <= Quick } && m.Outcomes[0].Probability is > Likely and < 1 - Likely / 2
        );
        if (gentle is null || gentle.ExpectedMinutes > ranked[0].ExpectedMinutes * (1 + AsGoodAs))
            return ranked;
        ranked.Remove(gentle);
        ranked.Insert(0, gentle);
        return ranked;
    }

    private static List<Move> Untried(UnitDiagnosis diagnosis) =>
        diagnosis
            .Case.Model.Profile.Functions.Where(f => diagnosis.Functions[f.Id] == FunctionState.NotTried)
            .OrderBy(f => diagnosis.Case.Model.Closure(f.Id).Count)
            .Select(f => new Move(
                $"fn:{f.Id}",
                $"Try: {f.Name}",
                "Baseline first: what works clears everything it depends on.",
                f.Minutes,
                0,
                0,
                f.Minutes,
                [],
                null,
                Function: f
            ))
            .ToList();

    private Move RepairMove(
        UnitDiagnosis diagnosis,
        DeviceFunction target,
        BlameShares blame,
        double[] shares,
        RepairOption option,
        RepairPlan plan,
        Ahead? ahead,
        AccessState state
    )
    {
        var unit = diagnosis.Case;
        var prepare = unit.Model.Profile.Preparation.Minutes(state, option.Method.State);
        // Exact over several faults: treated faults count only with what the method leaves of them.
        var fails = unit.Model.FunctionFails(target);
        var success = option.Cures.ToDictionary(c => c.Fault, c => c.Success);
        var works =
            (1 - fails.Leak)
            * diagnosis.Posterior.ExpectedProduct(
                unit.LinksOf(fails)
                    .Select(l => (unit.UncuredPiece(l.Fault), success.TryGetValue(l.Fault, out var s) ? s + (1 - s) * (1 - l.P) : 1 - l.P))
                    .Concat(blame.UnknownPiece is { } unknown ? [(unknown, 0.0)] : [])
            );
        if (ahead?.Expected >= plan.ExpectedMinutes)
            ahead = null;
        var after =
            ahead is not null ? ahead.Title
            : plan.Sequence.Count > 1 ? plan.Sequence[1].Method.Name
            : null;
        var aim = string.Join(
            " or ",
            diagnosis.Suspects.Where(s => s.Share > 0.01 && success.ContainsKey(s.FaultIndex)).Select(s => s.Fault.Words).Take(2)
        );
        var why =
            $"Against {(aim.Length > 0 ? aim : option.Part.Name)}."
            + (option.Method.TradeOff is { } tradeOff ? $" {tradeOff}" : "")
            + (prepare > 0 ? $" {prepare:0} min of it to take the unit apart." : "");
        return new Move(
            $"fix:{option.Part.Id}:{option.Method.Id}",
            option.Method.Name,
            why,
            option.Method.Minutes + costs.RetestMinutes + prepare,
            prepare,
            option.Method.PartsCost,
            ahead?.Expected ?? plan.ExpectedMinutes,
            [new MoveOutcome($"{target.Name} works", works, [], null), new MoveOutcome("still fails", 1 - works, LeftOver(), after)],
            ahead?.Outlook ?? plan.Outlook,
            Repair: option,
            ChanceToWork: works
        );

        // When it did not help, what it treats is less to blame and the rest more.
        List<Suspect> LeftOver()
        {
            var left = shares.Select((share, f) => share * (1 - success.GetValueOrDefault(f))).ToArray();
            var failing = 1 - shares.Sum() + left.Sum();
            return failing <= 0 ? [] : Leading(unit, left.Select(x => x / failing).ToArray(), f => left[f] / failing);
        }
    }

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
