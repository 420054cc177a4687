using Mendro.Core.Jobs;
using Mendro.Core.Money;

namespace Mendro.Shop;

/// <summary>What a repair is charged at: the one sum that stands on the sheet, at the counter and in the books.</summary>
public static class JobCharge
{
    /// <summary>Work and parts, at most what its owner agreed to; nothing where the owner declined. In the job's currency: work in another
    /// goes by the rate.</summary>
    /// <param name="records">What was filed.</param>
    /// <param name="minutes">Minutes worked.</param>
    /// <param name="perHour">What an hour cost, in the shop's currency.</param>
    /// <param name="currency">The job's currency.</param>
    /// <param name="rate">What one of it was worth in the shop's currency, or null where that is not known.</param>
    /// <returns>Null where work has no price in the job's currency.</returns>
    public static Amount? Of(IReadOnlyList<BenchRecord> records, double minutes, Amount perHour, Currency currency, decimal? rate)
    {
        var parts = records.Sum(r => r.Cost ?? 0);
        var work =
            Labour.For(minutes, perHour, currency)
            ?? (rate is > 0 and var worth ? new Amount(Labour.Exact(minutes, perHour).Value / worth, currency).Rounded() : default(Amount?));
        var sum = work is { } labour ? labour + new Amount(parts, currency).Rounded() : default(Amount?);
        var agreed = OwnerAgreement.Of(records.Select(r => r.Body), sum);
        if (agreed.State == AgreementState.Declined)
            return new Amount(0, currency);
        return agreed.Limit is { } limit && limit.Currency == currency && sum is { } all && limit.Value < all.Value ? limit : sum;
    }
}
