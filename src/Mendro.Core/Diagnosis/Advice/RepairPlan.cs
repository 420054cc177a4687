using Mendro.Core.Dismantling;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>A repair of a plan.</summary>
/// <param name="Minutes">Minutes with opening and trying it afterwards.</param>
/// <param name="Parts">Cost of its parts, in the shop's currency.</param>
/// <param name="Cures">Chance that the plan comes so far and it cures, 0 to 1.</param>
public sealed record PlanStep(double Minutes, decimal Parts, double Cures);

/// <summary>
/// The expected cost of going on with repairs only, until going on costs more than it is worth. Order by probability
/// per cost is optimal for a single fault with independent repairs (Heckerman, Breese and Rommelse, “Decision-theoretic
/// troubleshooting”, Communications of the ACM 38(3), 1995). Taking the unit apart is paid once and comes before what
/// it makes possible; the best next step is then the beginning of the group of repairs with the best ratio, opening
/// included (Horn, “Single-machine job sequencing with treelike precedence ordering”, SIAM J. Appl. Math. 23, 1972).
/// </summary>
/// <param name="ExpectedMinutes">Expected cost including the loss when uncured, minutes.</param>
/// <param name="WorkMinutes">Expected work alone, minutes.</param>
/// <param name="StopMinutes">Work after which it is no longer worth going on, minutes.</param>
/// <param name="ChanceToCure">Chance that the sequence cures the function, 0 to 1.</param>
/// <param name="ExpectedParts">Expected cost of parts, in the shop's currency.</param>
/// <param name="Sequence">The repairs in order.</param>
public sealed record RepairPlan(
    double ExpectedMinutes,
    double WorkMinutes,
    double StopMinutes,
    double ChanceToCure,
    double ExpectedParts,
    IReadOnlyList<RepairOption> Sequence
)
{
    /// <summary>The same repairs with what each takes and the chance that it is the one that cures.</summary>
    public IReadOnlyList<PlanStep> Steps { get; init; } = [];

    // So many repairs are looked at without asking for memory.
    private const int Few = 48;

    /// <summary>The plan as an outlook.</summary>
    public Outlook Outlook => new(ChanceToCure, WorkMinutes, StopMinutes, ExpectedParts);

    /// <summary>Plans the repairs.</summary>
    /// <param name="shares">Share of the blame by fault index.</param>
    /// <param name="options">Methods that may help.</param>
    /// <param name="preparation">What taking the unit apart costs.</param>
    /// <param name="state">How far it is apart now.</param>
    /// <param name="costs">Costs.</param>
    /// <param name="first">A repair to begin with, or null for the best.</param>
    public static RepairPlan Make(
        IReadOnlyList<double> shares,
        IReadOnlyList<RepairOption> options,
        Reach preparation,
        Apart state,
        BenchCosts costs,
        RepairOption? first = null
    )
    {
        var left = shares.ToArray();
        var failing = 1.0;
        double expected = 0,
            work = 0,
            spent = 0,
            parts = 0;
        var sequence = new List<RepairOption>();
        var steps = new List<PlanStep>();
        var waiting = options.ToList();
        var chances = new double[options.Count];
        while (waiting.Count > 0)
        {
            var (best, bestChance) =
                first is not null && sequence.Count == 0
                    ? (first, Chance(first, left))
                    : Next(waiting, left, chances, preparation, state, costs, failing);
            if (best is null)
                break;
            var bestCost = best.CostMinutes + preparation.Minutes(state, best.Goal);
            waiting.Remove(best);
            sequence.Add(best);
            expected += bestCost * failing;
            parts += (double)best.Method.PartsCost * failing;
            var minutes = best.Method.Minutes + costs.RetestMinutes + preparation.Minutes(state, best.Goal);
            steps.Add(new PlanStep(minutes, best.Method.PartsCost, Math.Min(bestChance, failing)));
            work += minutes * failing;
            spent += minutes;
            foreach (var (fault, success) in best.Cures)
                left[fault] *= 1 - success;
            failing = Math.Max(0, failing - bestChance);
            state = preparation.After(state, best.Goal);
            if (failing < RepairOption.Negligible)
                break;
        }

        return new RepairPlan(expected + failing * costs.UncuredMinutes, work, spent, 1 - failing, parts, sequence)
        {
            Steps = steps,
        };
    }

    private static (RepairOption? Option, double Chance) Next(
        List<RepairOption> waiting,
        double[] left,
        double[] chances,
        Reach preparation,
        Apart state,
        BenchCosts costs,
        double failing
    )
    {
        for (var n = 0; n < waiting.Count; n++)
            chances[n] = Chance(waiting[n], left);
        var order = Enumerable
            .Range(0, waiting.Count)
            .Where(n => chances[n] > RepairOption.Negligible / 10)
            .OrderByDescending(n => chances[n] / waiting[n].CostMinutes)
            .ToArray();
        var (best, ratio) = Leading(waiting, chances, order, preparation, state);
        // Going on is worth it while the loss it averts is more than what it costs.
        if (best < 0 || ratio * costs.UncuredMinutes < failing)
            return (null, 0);
        // Opened one step further the question is asked again: what that step alone makes possible may come first.
        for (var opened = state; preparation.After(opened, waiting[best].Goal) != opened; )
        {
            opened = preparation.Of.Toward(opened, waiting[best].Goal);
            (best, _) = Leading(waiting, chances, order, preparation, opened);
        }

        return (waiting[best], chances[best]);
    }

    /// <summary>First repair of the group with the best chance per cost, opening included, and that ratio.</summary>
    private static (int Option, double Ratio) Leading(
        List<RepairOption> waiting,
        double[] chances,
        int[] order,
        Reach preparation,
        Apart state
    )
    {
        var (best, bestRatio) = (-1, 0.0);
        Span<(int Set, double Minutes)> states = order.Length < Few ? stackalloc (int, double)[Few] : new (int, double)[order.Length + 1];
        foreach (var (set, opening) in states[..Within(states, waiting, order, preparation, state)])
        {
            var within = preparation.Of.After(new Apart(set));
            double cost = opening,
                chance = 0,
                ratio = 0;
            var lead = -1;
            foreach (var n in order)
            {
                if (within[waiting[n].Goal] != set)
                    continue;
                if (lead < 0)
                    lead = n;
                cost += waiting[n].CostMinutes;
                chance += chances[n];
                if (chance / cost <= ratio)
                    break;
                ratio = chance / cost;
            }

            if (lead >= 0 && ratio > bestRatio * (1 + 1e-12))
                (best, bestRatio) = (lead, ratio);
        }

        return (best, bestRatio);
    }

    /// <summary>As it is now, and every further state that a repair asks for, with the minutes to it; those less far first. Their number
    /// comes back.</summary>
    private static int Within(
        Span<(int Set, double Minutes)> states,
        List<RepairOption> waiting,
        int[] order,
        Reach preparation,
        Apart state
    )
    {
        states[0] = (state.Index, 0);
        var count = 1;
        var after = preparation.Of.After(state);
        foreach (var n in order)
        {
            var goal = waiting[n].Goal;
            var set = after[goal];
            var known = false;
            for (var s = 0; s < count && !known; s++)
                known = states[s].Set == set;
            if (known)
                continue;
            var minutes = preparation.Minutes(state, goal);
            var at = count++;
            for (; at > 1 && states[at - 1].Minutes > minutes; at--)
                states[at] = states[at - 1];
            states[at] = (set, minutes);
        }

        return count;
    }

    private static double Chance(RepairOption option, double[] left)
    {
        var chance = 0.0;
        foreach (var (fault, success) in option.Cures)
            chance += left[fault] * success;
        return chance;
    }
}
