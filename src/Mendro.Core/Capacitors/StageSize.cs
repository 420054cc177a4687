namespace Mendro.Core.Capacitors;

/// <summary>
/// After how many new parts to power up: a test for each group, and every part of a group that fails looked at again (Dorfman, “The
/// detection of defective members of large populations”, Annals of Mathematical Statistics 14, 1943).
/// </summary>
public static class StageSize
{
    /// <summary>Largest group that is looked at.</summary>
    public const int MostParts = 10_000;

    /// <summary>Expected minutes a part for groups of a size.</summary>
    /// <param name="size">Parts in a group, 1 or more. A group of one that fails has nothing left to be told apart.</param>
    /// <param name="faultChance">Chance that one part was put in badly, 0 to 1.</param>
    /// <param name="testMinutes">Minutes to power up and try.</param>
    /// <param name="inspectMinutes">Minutes to look at one part of a group that failed.</param>
    public static double MinutesPerPart(int size, double faultChance, double testMinutes, double inspectMinutes) =>
        size <= 1 ? testMinutes : testMinutes / size + (1 - Math.Pow(1 - faultChance, size)) * inspectMinutes;

    /// <summary>The best size and its minutes a part; the smaller one of two alike.</summary>
    /// <param name="faultChance">Chance that one part was put in badly, above 0 and below 1.</param>
    /// <param name="testMinutes">Minutes to power up and try, above 0.</param>
    /// <param name="inspectMinutes">Minutes to look at one part of a group that failed, above 0.</param>
    public static (int Size, double MinutesPerPart) Best(double faultChance, double testMinutes, double inspectMinutes)
    {
        var (best, least) = (1, testMinutes);
        for (var size = 2; size <= MostParts; size++)
        {
            var minutes = MinutesPerPart(size, faultChance, testMinutes, inspectMinutes);
            if (minutes < least - 1e-12)
                (best, least) = (size, minutes);
            // From here on the share of groups that fail costs more than the best found: larger groups only grow dearer.
            if ((1 - Math.Pow(1 - faultChance, size)) * inspectMinutes > least)
                break;
        }

        return (best, least);
    }
}
