namespace Mendro.Core.Lots;

/// <summary>How many of a lot are cured in the end: to be expected, and between which numbers nine times in ten.</summary>
/// <param name="Expected">To be expected.</param>
/// <param name="Low">Fewest.</param>
/// <param name="High">Most.</param>
public sealed record CuredRange(double Expected, int Low, int High)
{
    /// <summary>Part of the cases that lie within.</summary>
    public const double Covers = 0.9;

    /// <summary>Of some that are cured already and the chances of the others: the number of successes of unlike trials (Poisson binomial),
    /// its 5 % and 95 % points.</summary>
    /// <param name="cured">Cured already.</param>
    /// <param name="chances">Chance of each that is open, 0 to 1.</param>
    public static CuredRange Of(int cured, IReadOnlyList<double> chances)
    {
        var of = new double[chances.Count + 1];
        of[0] = 1;
        for (var n = 0; n < chances.Count; n++)
            for (var k = n + 1; k >= 0; k--)
                of[k] = of[k] * (1 - chances[n]) + (k > 0 ? of[k - 1] * chances[n] : 0);
        return new CuredRange(cured + chances.Sum(), cured + Point(of, (1 - Covers) / 2), cured + Point(of, (1 + Covers) / 2));
    }

    private static int Point(double[] of, double share)
    {
        var sum = 0.0;
        for (var k = 0; k < of.Length; k++)
            if ((sum += of[k]) >= share - 1e-12)
                return k;
        return of.Length - 1;
    }
}
