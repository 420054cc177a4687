namespace Mendro.Core.Proving;

/// <summary>Something to be tried, as far as the order matters.</summary>
/// <param name="Id">Id.</param>
/// <param name="Fails">Chance that it fails, 0 to 1.</param>
/// <param name="Minutes">Minutes it takes, 0 or more.</param>
/// <param name="SetUp">What must be laid out for it; blank for nothing.</param>
public sealed record Trial(string Id, double Fails, double Minutes, string SetUp = "");

/// <summary>
/// The order of trials that costs least. The first failure sends the unit back to Find, and all is tried again after the repair; what
/// counts is therefore the expected time until the first failure or the end. Without set-up it is least when trials go by chance of
/// failing per minute (L. Mitten, An analytic solution to the least cost testing sequence problem, J. Industrial Engineering 11, 1960).
/// Trials that share a set-up stay together, so that each is laid out once; a group counts as one trial, by the same rule.
/// </summary>
public static class TestOrder
{
    /// <summary>Minutes to lay something out (value from memory).</summary>
    public const double SetUpMinutes = 1;

    /// <summary>Arranges trials; among equal ones those told first come first.</summary>
    public static IReadOnlyList<Trial> Arrange(IReadOnlyList<Trial> trials) =>
        trials
            .GroupBy(t => t.SetUp)
            .Select(g => g.Select((t, n) => (t, n)).OrderByDescending(x => Worth(x.t.Fails, x.t.Minutes)).ThenBy(x => x.n).Select(x => x.t).ToList())
            .Select((group, n) => (group, n))
            .OrderByDescending(x => Worth(1 - x.group.Aggregate(1.0, (all, t) => all * (1 - t.Fails)), ExpectedMinutes(x.group)))
            .ThenBy(x => x.n)
            .SelectMany(x => x.group)
            .ToList();

    /// <summary>Expected minutes until the first failure or the end, set-ups among them: one at each change.</summary>
    public static double ExpectedMinutes(IEnumerable<Trial> trials)
    {
        var (reached, sum, setUp) = (1.0, 0.0, "");
        foreach (var trial in trials)
        {
            sum += reached * (trial.Minutes + (trial.SetUp.Length > 0 && trial.SetUp != setUp ? SetUpMinutes : 0));
            setUp = trial.SetUp;
            reached *= 1 - trial.Fails;
        }

        return sum;
    }

    private static double Worth(double fails, double minutes) => minutes > 0 ? fails / minutes : double.PositiveInfinity;
}
