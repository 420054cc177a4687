using Mendro.Core.Jobs;
using Mendro.Core.Money;

namespace Mendro.Shop;

/// <summary>What a repair is charged at: the one sum that stands on the sheet, at the counter, on the bill and in the books.</summary>
/// <param name="Sum">The sum, as prices are named, in the job's currency.</param>
/// <param name="Why">Why it is not work and parts; blank when it is.</param>
public sealed record JobCharge(Amount Sum, string Why)
{
    /// <summary>Work and parts, at most what its owner agreed to; nothing where the owner declined. A final price stands over all. In the
    /// job's currency: work in another goes by the rate.</summary>
    /// <param name="records">What was filed.</param>
    /// <param name="minutes">Minutes worked.</param>
    /// <param name="perHour">What an hour cost, in the shop's currency.</param>
    /// <param name="currency">The job's currency.</param>
    /// <param name="rate">What one of it was worth in the shop's currency, or null where that is not known.</param>
    /// <returns>Null where work has no price in the job's currency.</returns>
    public static JobCharge? Of(IReadOnlyList<BenchRecord> records, double minutes, Amount perHour, Currency currency, decimal? rate)
    {
        if (records.LastOrDefault(r => r.Body is FinalPrice)?.Body is FinalPrice final && final.Currency == currency.Code)
            return new JobCharge(final.Amount, final.Why);
        var sum = Labour.For(minutes, perHour, currency, rate) is { } labour
            ? labour + new Amount(records.Sum(r => r.Cost ?? 0), currency).Rounded()
            : default(Amount?);
        var agreed = OwnerAgreement.Of(records.Select(r => r.Body), sum);
        if (agreed.State == AgreementState.Declined)
            return new JobCharge(new Amount(0, currency), "as declined");
        if (agreed.Limit is { } limit && limit.Currency == currency && sum is { } all && limit.Value < all.Value)
            return new JobCharge(limit, "as agreed at most");
        return sum is { } whole ? new JobCharge(whole, "") : null;
    }
}
