using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// Ranks what to do next by expected cost to the end, one step ahead: a check is worth it when the expected cost
/// after its answers, plus its own, is lower (Heckerman, Breese and Rommelse 1995). That theory assumes one fault;
/// here one failing function is worked on at a time, the most upstream first.
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

    /// <summary>Advice for a unit.</summary>
    /// <param name="diagnosis">Diagnosis of the unit.</param>
    /// <param name="state">How far the unit is apart now.</param>
    public Advice Advise(UnitDiagnosis diagnosis, AccessState state)
    {
        if (diagnosis.Target is not { } target) return new Advice(Untried(diagnosis, state), null);
        var unit = diagnosis.Case;
        var profile = unit.Model.Profile;
        var options = RepairPlan.Options(unit, diagnosis.Suspects, costs);
        var plan = RepairPlan.Make(diagnosis.Suspects, options, profile.Preparation, state, costs);
        var moves = new List<Move>();
        foreach (var option in options.Where(o => o.Chance >= LeastChance)) moves.Add(Repair(diagnosis, target, option, options, state));
        var fresh = unit.FreshReadings();
        foreach (var probe in profile.Probes.Where(p => !fresh.ContainsKey(p.Id) && !Settled(unit.Model, p, fresh)))
            if (Check(diagnosis, options, state, probe) is { } move) moves.Add(move);
        foreach (var function in profile.Functions.Where(f => diagnosis.Functions[f.Id] == FunctionState.NotTried))
            if (Trial(diagnosis, options, state, function) is { } move) moves.Add(move);
        return new Advice(moves.OrderBy(m => m.ExpectedMinutes).ThenBy(m => m.Minutes).ToList(), plan);
    }

    private static List<Move> Untried(UnitDiagnosis diagnosis, AccessState state) => diagnosis.Case.Model.Profile.Functions
        .Where(f => diagnosis.Functions[f.Id] == FunctionState.NotTried)
        .OrderBy(f => diagnosis.Case.Model.Closure(f.Id).Count)
        .Select(f => new Move($"fn:{f.Id}", $"Try: {f.Name}", "Baseline first: what works clears everything it depends on.",
            f.Minutes, 0, 0, f.Minutes, [], null, Function: f)).ToList();

    private Move Repair(UnitDiagnosis diagnosis, DeviceFunction target, RepairOption option, IReadOnlyList<RepairOption> options, AccessState state)
    {
        var unit = diagnosis.Case;
        var preparation = unit.Model.Profile.Preparation;
        var plan = RepairPlan.Make(diagnosis.Suspects, options, preparation, state, costs, option);
        var prepare = preparation.Minutes(state, option.Method.State);
        // Exact over several faults: treated faults count only with what the method leaves of them.
        var fails = unit.Model.FunctionFails(target);
        var success = option.Cures.ToDictionary(c => diagnosis.Suspects[c.Suspect].FaultIndex, c => c.Success);
        var works = (1 - fails.Leak) * diagnosis.Posterior.ExpectedProduct(fails.Links.Select(l =>
            (unit.UncuredPiece(l.Fault), success.TryGetValue(l.Fault, out var s) ? s + (1 - s) * (1 - l.P) : 1 - l.P)));
        var after = plan.Sequence.Count > 1 ? plan.Sequence[1].Method.Name : null;
        var minutes = option.Method.Minutes + costs.RetestMinutes + prepare;
        var aim = string.Join(" or ", option.Cures.Where(c => diagnosis.Suspects[c.Suspect].Share > 0.01)
            .Select(c => diagnosis.Suspects[c.Suspect].Fault.Words).Take(2));
        var why = $"Against {(aim.Length > 0 ? aim : option.Part.Name)}."
            + (option.Method.TradeOff is { } tradeOff ? $" {tradeOff}" : "")
            + (prepare > 0 ? $" {prepare:0} min of it to take the unit apart." : "");
        return new Move($"fix:{option.Part.Id}:{option.Method.Id}", option.Method.Name, why, minutes, prepare, option.Method.PartsCost,
            plan.ExpectedMinutes,
            [new MoveOutcome($"{target.Name} works", works, [], null), new MoveOutcome("still fails", 1 - works, [], after)],
            new Outlook(plan.ChanceToCure, plan.WorkMinutes, plan.StopMinutes), Repair: option, ChanceToWork: works);
    }

    private Move? Check(UnitDiagnosis diagnosis, IReadOnlyList<RepairOption> options, AccessState state, Probe probe)
    {
        var template = diagnosis.Case.Model.ProbeAbnormal(probe);
        var prepare = diagnosis.Case.Model.Profile.Preparation.Minutes(state, probe.State);
        var reached = probe.State > state ? probe.State : state;
        var weighed = Weigh(diagnosis, options, template, reached, probe.Minutes,
            (MoveWords.BadAnswer(probe), new ProbeTaken(0, probe.Id, ProbeOutcome.Abnormal)), (MoveWords.GoodAnswer(probe), new ProbeTaken(0, probe.Id, ProbeOutcome.Normal)));
        if (weighed is not { } w) return null;
        var minutes = probe.Minutes + prepare;
        return new Move($"probe:{probe.Id}", MoveWords.CheckTitle(probe), MoveWords.CheckReason(diagnosis, probe, w.Outcomes[0].Probability, prepare, state),
            minutes, prepare, 0, minutes + w.ExpectedMinutes, w.Outcomes, After(w.Outlook, minutes), Probe: probe);
    }

    private Move? Trial(UnitDiagnosis diagnosis, IReadOnlyList<RepairOption> options, AccessState state, DeviceFunction function)
    {
        var template = diagnosis.Case.Model.FunctionFails(function);
        var weighed = Weigh(diagnosis, options, template, state, function.Minutes,
            ("fails", new FunctionTried(0, function.Id, false)), ("works", new FunctionTried(0, function.Id, true)));
        if (weighed is not { } w) return null;
        return new Move($"fn:{function.Id}", $"Try: {function.Name}", "What works clears everything it depends on.",
            function.Minutes, 0, 0, function.Minutes + w.ExpectedMinutes, w.Outcomes, After(w.Outlook, function.Minutes), Function: function);
    }

    private (double ExpectedMinutes, IReadOnlyList<MoveOutcome> Outcomes, Outlook Outlook)? Weigh(
        UnitDiagnosis diagnosis, IReadOnlyList<RepairOption> options, FindingTemplate template, AccessState reached, double ownMinutes,
        (string Answer, BenchEvent Event) ifPresent, (string Answer, BenchEvent Event) ifAbsent)
    {
        var unit = diagnosis.Case;
        var present = unit.ProbabilityNow(diagnosis.Posterior, template);
        if (present < Math.Max(TooSure, LeastOverLeak * template.Leak) || present > 1 - TooSure) return null;
        var blame = diagnosis.Suspects.Where(s => s.Share > 0).ToDictionary(s => s.FaultIndex, s => s.Share);
        if (template.Links.Sum(l => blame.GetValueOrDefault(l.Fault) * l.P) < LeastBlame) return null;
        double expected = 0, chance = 0, work = 0, stop = 0;
        var outcomes = new List<MoveOutcome>();
        foreach (var ((answer, happened), probability) in new[] { (ifPresent, present), (ifAbsent, 1 - present) })
        {
            var after = new UnitCase(unit.Model, [.. unit.Events, happened]);
            var posterior = after.Infer();
            if (!posterior.IsOk) return null;
            var suspects = UnitDiagnosis.Blame(after, posterior.Value, diagnosis.Target, out _);
            var plan = RepairPlan.Make(suspects, RepairPlan.Options(after, suspects, costs), unit.Model.Profile.Preparation, reached, costs);
            expected += probability * plan.ExpectedMinutes;
            chance += probability * plan.ChanceToCure;
            work += probability * plan.WorkMinutes;
            stop = Math.Max(stop, plan.StopMinutes);
            outcomes.Add(new MoveOutcome(answer, probability, suspects.Where(s => s.Share > 0.05).Take(2).ToList(),
                plan.Sequence.Count > 0 ? plan.Sequence[0].Method.Name : null));
        }

        // What the answer itself is worth: the case would be open after either, so that does not count.
        var without = RepairPlan.Make(diagnosis.Suspects, options, unit.Model.Profile.Preparation, reached, costs);
        return without.ExpectedMinutes - expected >= LeastSaving * ownMinutes ? (expected, outcomes, new Outlook(chance, work, stop)) : null;
    }

    private static Outlook After(Outlook outlook, double minutes) =>
        outlook with { WorkMinutes = outlook.WorkMinutes + minutes, StopMinutes = outlook.StopMinutes + minutes };

    /// <summary>Volts before a point where they are good are good, and behind one where they are missing they are missing.</summary>
    private static bool Settled(DeviceModel model, Probe probe, IReadOnlyDictionary<string, ProbeOutcome> fresh)
    {
        if (probe.Kind != ProbeKind.Volts || probe.At is null) return false;
        var upstream = model.Graph.Upstream(probe.At, powerOnly: true);
        foreach (var other in model.Profile.Probes.Where(p => p.Kind == ProbeKind.Volts && p.At is not null && p.At != probe.At))
        {
            if (!fresh.TryGetValue(other.Id, out var outcome)) continue;
            if (outcome == ProbeOutcome.Normal && model.Graph.Upstream(other.At!, powerOnly: true).Contains(probe.At)) return true;
            if (outcome == ProbeOutcome.Abnormal && upstream.Contains(other.At!)) return true;
        }

        return false;
    }
}
