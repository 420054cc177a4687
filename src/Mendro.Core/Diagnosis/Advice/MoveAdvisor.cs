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
public sealed partial class MoveAdvisor(BenchCosts costs)
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
}
