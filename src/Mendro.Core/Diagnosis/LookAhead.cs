using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>A check as the look-ahead sees it.</summary>
/// <param name="Id">Id.</param>
/// <param name="Title">What to do, in words.</param>
/// <param name="Minutes">Minutes for the check alone.</param>
/// <param name="State">How far the unit must be apart.</param>
/// <param name="Leak">Chance that it shows something with nothing wrong.</param>
/// <param name="Shows">Chance that each fault shows in it, by fault index.</param>
internal sealed record PlannedCheck(string Id, string Title, double Minutes, AccessState State, double Leak, IReadOnlyList<(int Fault, double P)> Shows);

/// <summary>
/// What is to be expected from a state on, when a check may come before the repairs. The first step of any move is
/// weighed with the exact posterior; what lies behind it is looked at on the single-cause view, where one fault has
/// the blame and a check splits the shares. That is cheap enough to try every check after every answer.
/// </summary>
internal sealed class LookAhead(IReadOnlyList<RepairOption> options, IReadOnlyList<PlannedCheck> checks, Preparation preparation, BenchCosts costs)
{
    /// <summary>Checks that may follow the first step before the repairs begin; a second one was measured to gain nothing.</summary>
    private const int Depth = 1;

    /// <summary>Cost to the end from here, and what would come first.</summary>
    /// <param name="shares">Share of the blame by fault index.</param>
    /// <param name="state">How far the unit is apart.</param>
    /// <param name="done">Id of a check that was just done.</param>
    /// <param name="depth">How many more checks may come before the repairs.</param>
    public (double Expected, RepairPlan Plan, PlannedCheck? Check) From(double[] shares, AccessState state, string? done, int depth = Depth)
    {
        var plan = RepairPlan.Make(shares, options, preparation, state, costs);
        var (best, first) = (plan.ExpectedMinutes, (PlannedCheck?)null);
        // Nothing can be gained by more than what the repairs would cost.
        if (depth <= 0 || plan.ExpectedMinutes < 4) return (best, plan, null);
        foreach (var check in checks)
        {
            if (check.Id == done) continue;
            var minutes = check.Minutes + preparation.Minutes(state, check.State);
            if (minutes >= best) continue;
            var reached = check.State > state ? check.State : state;
            var (present, yes, no) = Split(shares, check);
            if (present is < 0.02 or > 0.98) continue;
            var expected = minutes + present * From(yes, reached, check.Id, depth - 1).Expected;
            if (expected >= best) continue;
            expected += (1 - present) * From(no, reached, check.Id, depth - 1).Expected;
            if (expected < best) (best, first) = (expected, check);
        }

        return (best, plan, first);
    }

    /// <summary>Cost of a repair and of what follows when it did not help.</summary>
    public (double Expected, PlannedCheck? Check) After(RepairOption option, double[] shares, AccessState state)
    {
        var cost = option.CostMinutes + preparation.Minutes(state, option.Method.State);
        var left = (double[])shares.Clone();
        foreach (var (fault, success) in option.Cures) left[fault] *= 1 - success;
        var failing = 1 - shares.Sum() + left.Sum();
        if (failing <= RepairOption.Negligible) return (cost, null);
        for (var f = 0; f < left.Length; f++) left[f] /= failing;
        var then = new LookAhead(options.Where(o => o != option).ToList(), checks, preparation, costs)
            .From(left, option.Method.State > state ? option.Method.State : state, null);
        return (cost + failing * then.Expected, then.Check);
    }

    private static (double Present, double[] Yes, double[] No) Split(double[] shares, PlannedCheck check)
    {
        var (yes, no) = (new double[shares.Length], new double[shares.Length]);
        for (var f = 0; f < shares.Length; f++) (yes[f], no[f]) = (shares[f] * check.Leak, shares[f] * (1 - check.Leak));
        foreach (var (fault, p) in check.Shows)
        {
            var absent = (1 - check.Leak) * (1 - p);
            (yes[fault], no[fault]) = (shares[fault] * (1 - absent), shares[fault] * absent);
        }

        var unexplained = Math.Max(0, 1 - shares.Sum());
        var present = yes.Sum() + unexplained * check.Leak;
        for (var f = 0; f < shares.Length; f++)
        {
            if (present > 0) yes[f] /= present;
            if (present < 1) no[f] /= 1 - present;
        }

        return (present, yes, no);
    }
}
