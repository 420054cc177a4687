namespace Mendro.Core.Money;

/// <summary>What one like it fetched.</summary>
/// <param name="DaysAgo">Days ago, 0 or more.</param>
/// <param name="Grade">Its condition.</param>
/// <param name="Price">Price, above 0.</param>
/// <param name="Own">True for an own sale.</param>
public sealed record SoldPrice(double DaysAgo, ConditionGrade Grade, decimal Price, bool Own = false);

/// <summary>What a unit may fetch.</summary>
/// <param name="Expected">Expected: half fetch more.</param>
/// <param name="Low">One of ten fetches less.</param>
/// <param name="High">One of ten fetches more.</param>
/// <param name="Asking">Asking price: one of four fetches it.</param>
/// <param name="Least">Least to take: three of four fetch more.</param>
/// <param name="RestsOn">Prices it rests on.</param>
/// <param name="Worth">How many of today they are worth: old ones count for less.</param>
public sealed record PriceEstimate(Amount Expected, Amount Low, Amount High, Amount Asking, Amount Least, int RestsOn, double Worth)
{
    /// <summary>Days in which a price loses half its weight (value from memory).</summary>
    public const double HalfLifeDays = 180;

    /// <summary>Fewer prices than this are little more than a guess (common practice, no source).</summary>
    public const int Few = 3;

    // From the median deviation to the spread of a normal distribution; the error of a median; points of the normal distribution.
    private const double MadToSigma = 1.4826;
    private const double MedianError = 1.2533;
    private const double TenthPoint = 1.2816;
    private const double QuarterPoint = 0.6745;

    // Prices of like things differ by a quarter or so (value from memory): what few prices say of the spread is drawn towards it.
    private const double UsualSpread = 0.25;
    private const double SpreadStrength = 3;

    /// <summary>
    /// Works it out: prices are brought to one condition, their logarithms weighted by age; the weighted median stands for the middle, the
    /// weighted median deviation for the spread (Rousseeuw and Croux, JASA 88, 1993), so that one freak price moves little.
    /// </summary>
    /// <param name="prices">Prices of like units, all in one currency.</param>
    /// <param name="grade">Condition of this unit.</param>
    /// <param name="currency">Currency.</param>
    /// <returns>Null without any price.</returns>
    public static PriceEstimate? Of(IReadOnlyList<SoldPrice> prices, ConditionGrade grade, Currency currency)
    {
        if (prices.Count == 0)
            return null;
        var told = prices
            .Select(p => (At: Math.Log((double)p.Price * grade.Worth / p.Grade.Worth), Weight: Math.Pow(2, -p.DaysAgo / HalfLifeDays)))
            .ToList();
        var (sum, squares) = (told.Sum(t => t.Weight), told.Sum(t => t.Weight * t.Weight));
        var worth = sum * sum / squares;
        var middle = Median(told);
        var seen = MadToSigma * Median([.. told.Select(t => (Math.Abs(t.At - middle), t.Weight))]);
        var spread = Math.Sqrt(
            ((worth - 1) * seen * seen + SpreadStrength * UsualSpread * UsualSpread) / (worth - 1 + SpreadStrength)
        );
        // How one more sale may come out: its own spread, and that the middle itself is not known well. Old prices say less of today.
        var error = MedianError * spread / Math.Sqrt(Math.Min(worth, Math.Max(sum, 1e-3)));
        var all = Math.Sqrt(spread * spread + error * error);
        Amount At(double points) => new Amount((decimal)Math.Exp(Math.Clamp(middle + points * all, -20, 20)), currency).Rounded();
        return new PriceEstimate(At(0), At(-TenthPoint), At(TenthPoint), At(QuarterPoint), At(-QuarterPoint), prices.Count, worth);
    }

    /// <summary>The weighted median: half of the weight lies on each side; between two values, their mean.</summary>
    internal static double Median(IReadOnlyList<(double At, double Weight)> told)
    {
        var sorted = told.OrderBy(t => t.At).ToList();
        var (half, sum) = (sorted.Sum(t => t.Weight) / 2, 0.0);
        for (var n = 0; n < sorted.Count; n++)
        {
            sum += sorted[n].Weight;
            if (Math.Abs(sum - half) <= 1e-12 * half && n + 1 < sorted.Count)
                return (sorted[n].At + sorted[n + 1].At) / 2;
            if (sum > half)
                return sorted[n].At;
        }

        return sorted[^1].At;
    }
}
