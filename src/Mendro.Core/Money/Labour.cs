namespace Mendro.Core.Money;

/// <summary>What work costs. The one place where minutes become money.</summary>
public static class Labour
{
    /// <summary>Work at an hourly rate, rounded to what can be paid.</summary>
    /// <param name="minutes">Minutes, 0 or more and finite.</param>
    /// <param name="perHour">Rate an hour.</param>
    public static Amount Of(double minutes, Amount perHour) => Exact(minutes, perHour).Rounded();

    /// <summary>Work at an hourly rate for a job that is reckoned in a currency.</summary>
    /// <param name="minutes">Minutes, 0 or more and finite.</param>
    /// <param name="perHour">Rate an hour.</param>
    /// <param name="currency">The job's currency.</param>
    /// <param name="worth">What one of it is worth in the currency of the rate; null where that is not known.</param>
    /// <returns>The amount, or null when the rate is in another currency of which no worth is known.</returns>
    public static Amount? For(double minutes, Amount perHour, Currency currency, decimal? worth = null) =>
        perHour.Currency == currency ? Of(minutes, perHour)
        : worth is > 0 and var one ? new Amount(Exact(minutes, perHour).Value / one, currency).Rounded()
        : null;

    /// <summary>The same before rounding, to be added to.</summary>
    public static Amount Exact(double minutes, Amount perHour) => perHour with { Value = perHour.Value * (decimal)minutes / 60 };
}
