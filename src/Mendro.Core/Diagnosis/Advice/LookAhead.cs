using Mendro.Core.Dismantling;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Diagnosis;

/// <summary>A check as the look-ahead sees it.</summary>
/// <param name="Id">Id.</param>
/// <param name="Title">What to do, in words.</param>
/// <param name="Minutes">Minutes for the check alone.</param>
/// <param name="Goal">Goal of taking apart: where it can be made.</param>
/// <param name="Leak">Chance that it shows something with nothing wrong.</param>
/// <param name="Shows">Chance that each fault shows in it, by fault index.</param>
/// <param name="Optimism">Minutes by which the single-cause view was seen to flatter it.</param>
/// <param name="SettledIfBad">Checks, itself among them, that have nothing left to tell once it shows something.</param>
/// <param name="SettledIfGood">Checks, itself among them, that have nothing left to tell once it shows nothing.</param>
internal sealed record PlannedCheck(
    string Id,
    string Title,
    double Minutes,
    int Goal,
    double Leak,
    IReadOnlyList<(int Fault, double P)> Shows,
    IReadOnlySet<string> SettledIfBad,
    IReadOnlySet<string> SettledIfGood,
    double Optimism = 0
);

/// <summary>
/// What is to be expected from a state on, when a check may come before the repairs. The first step of any move is
/// weighed with the exact posterior; what lies behind it is looked at on the single-cause view, where one fault has
/// the blame and a check splits the shares. That is cheap enough to try every check after every answer.
/// </summary>
internal sealed class LookAhead(
    IReadOnlyList<RepairOption> options,
    IReadOnlyList<PlannedCheck> checks,
    Reach preparation,
    BenchCosts costs
)
{
    /// <summary>Checks that may follow the first step before the repairs begin; a second one was measured to gain nothing.</summary>
    private const int Depth = 1;

    /// <summary>What is to be expected from here, and what would come first.</summary>
    /// <param name="shares">Share of the blame by fault index.</param>
    /// <param name="state">How far the unit is apart.</param>
    /// <param name="settled">Checks with nothing left to tell.</param>
    /// <param name="depth">How many more checks may come before the repairs.</param>
    public Ahead From(double[] shares, Apart state, IReadOnlySet<string>? settled, int depth = Depth)
    {
        var plan = RepairPlan.Make(shares, options, preparation, state, costs);
        var best = new Ahead(plan.ExpectedMinutes, plan.Outlook, null, plan.Sequence.Count > 0 ? plan.Sequence[0] : null);
        // Nothing can be gained by more than what the repairs would cost.
        if (depth <= 0 || plan.ExpectedMinutes < 4)
            return best;
        foreach (var check in checks)
        {
            if (settled?.Contains(check.Id) == true)
                continue;
            var minutes = check.Minutes + preparation.Minutes(state, check.Goal);
            var charged = minutes + check.Optimism;
            if (charged >= best.Expected)
                continue;
            var reached = preparation.After(state, check.Goal);
            var (present, yes, no) = Split(shares, check);
            if (present is < 0.02 or > 0.98)
                continue;
            var ifYes = From(yes, reached, check.SettledIfBad, depth - 1);
            if (charged + present * ifYes.Expected >= best.Expected)
                continue;
            var ifNo = From(no, reached, check.SettledIfGood, depth - 1);
            var expected = charged + present * ifYes.Expected + (1 - present) * ifNo.Expected;
            if (expected < best.Expected)
                best = new Ahead(expected, Outlook.Of(minutes, present, ifYes.Outlook, ifNo.Outlook), check, null);
        }

        return best;
    }

    /// <summary>
    /// Expected cost when a check comes first and only repairs follow, on the single-cause view. Set against the exact
    /// value it shows how much that view flatters the check; without charging for that, a check would always look better
    /// as the second step than as the first.
    /// </summary>
    public double Flattered(PlannedCheck check, double[] shares, Apart state)
    {
        var reached = preparation.After(state, check.Goal);
        var (present, yes, no) = Split(shares, check);
        return check.Minutes
            + preparation.Minutes(state, check.Goal)
            + present * From(yes, reached, null, 0).Expected
            + (1 - present) * From(no, reached, null, 0).Expected;
    }

    /// <summary>What is to be expected of a repair, and what follows when it did not help.</summary>
    public Ahead After(RepairOption option, double[] shares, Apart state)
    {
        var opened = preparation.Minutes(state, option.Goal);
        var left = (double[])shares.Clone();
        foreach (var (fault, success) in option.Cures)
            left[fault] *= 1 - success;
        var failing = 1 - shares.Sum() + left.Sum();
        var work = option.Method.Minutes + costs.RetestMinutes + opened;
        var parts = (double)option.Method.PartsCost;
        if (failing <= RepairOption.Negligible)
            return new Ahead(option.CostMinutes + opened, new Outlook(1, work, work, parts), null, null);
        for (var f = 0; f < left.Length; f++)
            left[f] /= failing;
        var then = new LookAhead(options.Where(o => o != option).ToList(), checks, preparation, costs).From(
            left,
            preparation.After(state, option.Goal),
            null
        );
        return new Ahead(
            option.CostMinutes + opened + failing * then.Expected,
            new Outlook(
                1 - failing + failing * then.Outlook.ChanceToCure,
                work + failing * then.Outlook.WorkMinutes,
                work + then.Outlook.StopMinutes,
                parts + failing * then.Outlook.Parts
            ),
            then.Check,
            then.Repair
        );
    }

    /// <summary>Chance of an answer and the shares after either, when one fault has the blame.</summary>
    internal static (double Present, double[] Yes, double[] No) Split(double[] shares, PlannedCheck check)
    {
        var (yes, no) = (new double[shares.Length], new double[shares.Length]);
        for (var f = 0; f < shares.Length; f++)
            (yes[f], no[f]) = (shares[f] * check.Leak, shares[f] * (1 - check.Leak));
        foreach (var (fault, p) in check.Shows)
        {
            var absent = (1 - check.Leak) * (1 - p);
            (yes[fault], no[fault]) = (shares[fault] * (1 - absent), shares[fault] * absent);
        }

        var unexplained = Math.Max(0, 1 - shares.Sum());
        var present = yes.Sum() + unexplained * check.Leak;
        for (var f = 0; f < shares.Length; f++)
        {
            if (present > 0)
                yes[f] /= present;
            if (present < 1)
                no[f] /= 1 - present;
        }

        return (present, yes, no);
    }
}

/// <summary>What lies ahead of a state.</summary>
/// <param name="Expected">Cost to the end, minutes.</param>
/// <param name="Outlook">Chance, work, point to stop and parts on the way.</param>
/// <param name="Check">Check that would come first, or null.</param>
/// <param name="Repair">Repair that would come first, or null.</param>
internal sealed record Ahead(double Expected, Outlook Outlook, PlannedCheck? Check, RepairOption? Repair)
{
    /// <summary>Title of what would come first.</summary>
    public string? Title => Check?.Title ?? Repair?.Method.Name;
}
