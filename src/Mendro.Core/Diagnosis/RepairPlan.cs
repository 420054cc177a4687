using Mendro.Core.Methods;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>What counts as a cost at the bench, put into minutes.</summary>
/// <param name="RatePerHour">Value of an hour of work, in the shop's currency.</param>
/// <param name="OriginalityMinutes">Minutes of work the shop would give to avoid a full loss of originality.</param>
/// <param name="HarmMinutes">Minutes lost when a step does damage.</param>
/// <param name="UncuredMinutes">What a unit that stays uncured costs, in minutes; the repairs stop when going on costs more.</param>
/// <param name="RetestMinutes">Minutes to try the unit after a repair.</param>
public sealed record BenchCosts(
    double RatePerHour = 30, double OriginalityMinutes = 60, double HarmMinutes = 60, double UncuredMinutes = 120, double RetestMinutes = 1)
{
    /// <summary>Cost of a method in minutes, without taking the unit apart.</summary>
    public double Minutes(Method method) =>
        method.Minutes + RetestMinutes + (double)method.PartsCost / RatePerHour * 60
        + method.Harm * HarmMinutes + method.OriginalityLoss * OriginalityMinutes;
}

/// <summary>A method for one part, with its chances.</summary>
/// <param name="Part">Part.</param>
/// <param name="Method">Method.</param>
/// <param name="Chance">Chance that the function worked on works afterwards, 0 to 1, on the single-cause view.</param>
/// <param name="CostMinutes">All costs in minutes, without preparation.</param>
/// <param name="Cures">Suspects it helps against, with the success on each.</param>
public sealed record RepairOption(Part Part, Method Method, double Chance, double CostMinutes, IReadOnlyList<(int Suspect, double Success)> Cures);

/// <summary>
/// The expected cost of going on with repairs only: always the one with the best chance per cost next, the
/// preparation paid once, until going on costs more than it is worth. Order by probability per cost is optimal for a
/// single fault with independent repairs (Heckerman, Breese and Rommelse, “Decision-theoretic troubleshooting”,
/// Communications of the ACM 38(3), 1995).
/// </summary>
/// <param name="ExpectedMinutes">Expected cost including the loss when uncured, minutes.</param>
/// <param name="WorkMinutes">Expected work alone, minutes.</param>
/// <param name="StopMinutes">Work after which it is no longer worth going on, minutes.</param>
/// <param name="ChanceToCure">Chance that the sequence cures the function, 0 to 1.</param>
/// <param name="Sequence">The repairs in order.</param>
public sealed record RepairPlan(
    double ExpectedMinutes, double WorkMinutes, double StopMinutes, double ChanceToCure, IReadOnlyList<RepairOption> Sequence)
{
    private const double Negligible = 1e-4;

    /// <summary>All methods that may help against the suspects.</summary>
    public static IReadOnlyList<RepairOption> Options(UnitCase unit, IReadOnlyList<Suspect> suspects, BenchCosts costs)
    {
        var options = new List<RepairOption>();
        for (var s = 0; s < suspects.Count; s++)
        {
            if (suspects[s].Share < Negligible) continue;
            var part = suspects[s].Fault.Part;
            if (options.Any(o => o.Part.Id == part.Id)) continue;
            foreach (var method in unit.Model.Library.MethodsFor(part.Kind))
            {
                var cures = Enumerable.Range(0, suspects.Count)
                    .Where(n => suspects[n].Fault.Part.Id == part.Id && suspects[n].Share > 0)
                    .Select(n => (n, unit.SuccessNow(method.Id, suspects[n].FaultIndex))).Where(c => c.Item2 > 0).ToList();
                var chance = cures.Sum(c => suspects[c.n].Share * c.Item2);
                if (chance > Negligible) options.Add(new RepairOption(part, method, chance, costs.Minutes(method), cures));
            }
        }

        return options;
    }

    /// <summary>Plans the repairs.</summary>
    /// <param name="suspects">Suspects with their shares.</param>
    /// <param name="options">Methods that may help.</param>
    /// <param name="preparation">Minutes to take the unit apart.</param>
    /// <param name="state">How far it is apart now.</param>
    /// <param name="costs">Costs.</param>
    /// <param name="first">A repair to begin with, or null for the best.</param>
    public static RepairPlan Make(
        IReadOnlyList<Suspect> suspects, IReadOnlyList<RepairOption> options, Preparation preparation, AccessState state,
        BenchCosts costs, RepairOption? first = null)
    {
        var left = suspects.Select(s => s.Share).ToArray();
        var failing = 1.0;
        double expected = 0, work = 0, spent = 0;
        var sequence = new List<RepairOption>();
        var waiting = options.ToList();
        while (waiting.Count > 0)
        {
            RepairOption? best = null;
            double bestRatio = 0, bestChance = 0, bestCost = 0;
            foreach (var option in first is not null && sequence.Count == 0 ? [first] : waiting)
            {
                var chance = 0.0;
                foreach (var (suspect, success) in option.Cures) chance += left[suspect] * success;
                var cost = option.CostMinutes + preparation.Minutes(state, option.Method.State);
                if (chance / cost <= bestRatio) continue;
                (best, bestRatio, bestChance, bestCost) = (option, chance / cost, chance, cost);
            }

            // Going on is worth it while the loss it averts is more than what it costs.
            if (best is null || (bestChance * costs.UncuredMinutes < bestCost * failing && !(first is not null && sequence.Count == 0))) break;
            waiting.Remove(best);
            sequence.Add(best);
            expected += bestCost * failing;
            var minutes = best.Method.Minutes + costs.RetestMinutes + preparation.Minutes(state, best.Method.State);
            work += minutes * failing;
            spent += minutes;
            foreach (var (suspect, success) in best.Cures) left[suspect] *= 1 - success;
            failing = Math.Max(0, failing - bestChance);
            if (best.Method.State > state) state = best.Method.State;
            if (failing < Negligible) break;
        }

        return new RepairPlan(expected + failing * costs.UncuredMinutes, work, spent, 1 - failing, sequence);
    }
}
