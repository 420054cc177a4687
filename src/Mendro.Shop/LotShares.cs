using Mendro.Core.Jobs;
using Mendro.Core.Lots;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What of the price of a lot falls to each of its units.</summary>
internal static class LotShares
{
    /// <summary>The shares of the price become what was paid for each. What went bears what it bore: what has changed since falls to those
    /// that are still there.</summary>
    public static void Spread(LotStore lots, Lot lot)
    {
        if (lot.Cost is not { } cost)
            return;
        var places = lots.Places(lot.Name);
        var units = lots.Units(lot.Name).Where(j => j.Currency == lot.Currency).ToList();
        var gone = lots.Gone(lot.Name);
        var counted = units.Where(j => !Of(places, j).Apart && !gone.Contains(j.Id)).ToList();
        var left = Math.Max(0, cost.Rounded().Value - units.Where(j => gone.Contains(j.Id)).Sum(j => j.Paid ?? 0));
        var shares = PriceSpread.Of(
            cost.Rounded() with { Value = left },
            counted
                .Select(j =>
                    lot.Way switch
                    {
                        SpreadWay.Worth => j.ValueWorking ?? lot.Working ?? 0,
                        SpreadWay.Weight => Of(places, j).Weight ?? 1,
                        _ => 1,
                    }
                )
                .ToList()
        );
        lots.SetPaid(
            counted.Select((j, n) => (j.Id, shares[n].Value)).Concat(units.Where(j => Of(places, j).Apart && !gone.Contains(j.Id)).Select(j => (j.Id, 0m)))
        );
    }

    /// <summary>Place of a unit among those of its lot.</summary>
    public static LotPlace Of(IReadOnlyDictionary<JobId, LotPlace> places, Job job) => places.GetValueOrDefault(job.Id) ?? LotPlace.Usual;
}
