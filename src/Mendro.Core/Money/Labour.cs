namespace Mendro.Core.Money;

/// <summary>What work costs. The one place where minutes become money.</summary>
public static class Labour
{
    /// <summary>Work at an hourly rate, rounded to what can be paid.</summary>
    /// <param name="minutes">Minutes, 0 or more and finite.</param>
    /// <param name="perHour">Rate an hour.</param>
    public static Amount Of(double minutes, Amount perHour) => Exact(minutes, perHour).Rounded();

    /// <summary>Work at an hourly rate for a job that is reckoned in a currency.</summary>
    /// <returns>The amount, or null when the rate is in another currency: nothing here knows a rate of exchange.</returns>
    public static Amount? For(double minutes, Amount perHour, Currency currency) =>
        perHour.Currency == currency ? Of(minutes, perHour) : null;

    /// <summary>The same before rounding, to be added to.</summary>
    public static Amount Exact(double minutes, Amount perHour) => perHour with { Value = perHour.Value * (decimal)minutes / 60 };
}
