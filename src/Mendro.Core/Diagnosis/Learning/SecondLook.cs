using Mendro.Core.Dismantling;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>When a unit that was given up is worth another look.</summary>
/// <param name="Minutes">Minutes of work within which it should be cured.</param>
/// <param name="Chance">Chance from which it is worth a look, 0 to 1.</param>
public sealed record SecondLookLine(double Minutes = 20, double Chance = 0.4)
{
    /// <summary>True when new experience lifts the chance over the line.</summary>
    public bool Crossed(double before, double after) => before < Chance && after >= Chance;
}

/// <summary>Scores a unit again in the light of what was learned elsewhere.</summary>
public static class SecondLook
{
    /// <summary>Chance that the failing function of a unit is cured within some minutes of work, checks left out; 0 when none
    /// fails.</summary>
    /// <param name="model">Its model.</param>
    /// <param name="events">What happened to it.</param>
    /// <param name="context">What the shop knows.</param>
    /// <param name="state">How far it is apart.</param>
    /// <param name="costs">Costs.</param>
    /// <param name="minutes">Minutes of work.</param>
    public static double ChanceWithin(
        DeviceModel model,
        IReadOnlyList<BenchEvent> events,
        CaseContext context,
        Apart state,
        BenchCosts costs,
        double minutes
    )
    {
        var outcome = UnitDiagnosis.Make(model, events, context);
        if (!outcome.IsOk || outcome.Value.Target is not { } target)
            return 0;
        var shares = new BlameShares(outcome.Value.Case, target).Of(outcome.Value.Posterior.Fault, out _);
        var options = RepairOption.For(outcome.Value.Case, shares, costs);
        return Math.Clamp(
            Math.Max(
                Greedy(shares, options, model.Disassembly, state, costs, minutes),
                options
                    .Where(o => Takes(o, model.Disassembly, state, costs) <= minutes)
                    .Select(o => o.Chance)
                    .DefaultIfEmpty(0)
                    .Max()
            ),
            0,
            1
        );
    }

    /// <summary>Share of the blame from which a cause found in a like unit is worth its check here.</summary>
    public const double WorthTheCheck = 0.05;

    /// <summary>A check shows a fault that it finds at least this often.</summary>
    private const double Shows = 0.5;

    /// <summary>The check that would show a cause found in a like unit, when it was not made here yet.</summary>
    /// <param name="model">The unit's model.</param>
    /// <param name="events">What happened to it.</param>
    /// <param name="context">What the shop knows.</param>
    /// <param name="cause">True for a fault that is the one found.</param>
    /// <param name="state">How far it is apart.</param>
    /// <returns>The quickest such check, and the share of the blame that these faults bear; null when nothing fails here, when the
    /// share is below <see cref="WorthTheCheck"/>, or when the checks were made.</returns>
    public static (Probe Check, double Share)? Undone(
        DeviceModel model,
        IReadOnlyList<BenchEvent> events,
        CaseContext context,
        Func<PartFault, bool> cause,
        Apart state
    )
    {
        var faults = model.Faults.Where(cause).ToList();
        if (faults.Count == 0 || UnitDiagnosis.Make(model, events, context) is not { IsOk: true, Value: { Target: not null } diagnosis })
            return null;
        var share = diagnosis.Suspects.Where(s => faults.Any(f => f.Id == s.Fault.Id)).Sum(s => s.Share);
        if (share < WorthTheCheck)
            return null;
        var answered = new AnsweredChecks(diagnosis.Case, diagnosis.Case.FreshReadings());
        var checks = model
            .Profile.Probes.Where(p =>
                faults.Any(f => p.Spans?.Contains(f.Part.Id) == true && DeviceModel.Detects(f.Mode, p.Kind) >= Shows)
            )
            .OrderBy(p => model.Disassembly.Minutes(state, model.Disassembly.Goal(p)) + p.Minutes)
            .ToList();
        return checks.Count == 0 || checks.Any(answered.Has) ? null : (checks[0], share);
    }

    /// <summary>
    /// What the repairs that fit into the time can cure: always the one with the best chance a minute among those that
    /// still fit. Never less than half of the best choice when the best single repair is considered too (the greedy rule
    /// for the knapsack problem).
    /// </summary>
    private static double Greedy(
        double[] shares,
        IReadOnlyList<RepairOption> options,
        Disassembly preparation,
        Apart state,
        BenchCosts costs,
        double minutes
    )
    {
        var left = (double[])shares.Clone();
        var waiting = options.ToList();
        double cured = 0;
        while (true)
        {
            double Chance(RepairOption o) => o.Cures.Sum(c => left[c.Fault] * c.Success);
            var now = state;
            var best = waiting
                .Where(o => Takes(o, preparation, now, costs) <= minutes)
                .OrderByDescending(o => Chance(o) / Takes(o, preparation, now, costs))
                .FirstOrDefault();
            if (best is null || Chance(best) <= RepairOption.Negligible)
                return cured;
            cured += Chance(best);
            minutes -= Takes(best, preparation, now, costs);
            state = preparation.After(state, best.Goal);
            foreach (var (fault, success) in best.Cures)
                left[fault] *= 1 - success;
            waiting.Remove(best);
        }
    }

    private static double Takes(RepairOption option, Disassembly preparation, Apart state, BenchCosts costs) =>
        option.Method.Minutes + costs.RetestMinutes + preparation.Minutes(state, option.Goal);
}
