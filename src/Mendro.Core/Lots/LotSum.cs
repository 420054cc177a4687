using Mendro.Core.Money;
using Mendro.Core.Proving;

namespace Mendro.Core.Lots;

/// <summary>What a lot has come to, and what it will.</summary>
/// <param name="Counted">Items that count: those set apart do not.</param>
/// <param name="Cured">Cured.</param>
/// <param name="Failed">Given up.</param>
/// <param name="Open">Open, those that wait among them.</param>
/// <param name="Rate">Share cured of those decided, 90 % interval.</param>
/// <param name="End">Cured in the end: those that are, and the chances of the open ones.</param>
/// <param name="PartsWorth">Most that parts for the open ones may cost in all before an hour on them brings less than it should; null where
/// the worth of an item is not known.</param>
/// <param name="Minutes">Work so far.</param>
/// <param name="MinutesMore">Work to expect on the open items that are worth it.</param>
/// <param name="Spent">Price, and parts so far.</param>
/// <param name="Received">What is left of sales.</param>
/// <param name="SoFar">Received less spent.</param>
/// <param name="Expected">What it comes to in the end; null where the worth of an item is not known.</param>
/// <param name="ExpectedAnHour">The same for every hour worked by then; null likewise, and without any work.</param>
public sealed record LotSum(
    int Counted,
    int Cured,
    int Failed,
    int Open,
    ShareInterval Rate,
    CuredRange End,
    Amount? PartsWorth,
    double Minutes,
    double MinutesMore,
    Amount Spent,
    Amount Received,
    Amount SoFar,
    Amount? Expected,
    Amount? ExpectedAnHour
)
{
    /// <summary>Adds a lot up.</summary>
    /// <param name="items">Its items.</param>
    /// <param name="price">What was paid for it, with postage.</param>
    /// <param name="perHour">The shop's rate: what brings less an hour is not gone on with. In another currency all is gone on with.</param>
    public static LotSum Of(IReadOnlyList<LotItem> items, Amount price, Amount perHour)
    {
        var counted = items.Where(i => !i.Apart).ToList();
        var (cured, failed) = (counted.Count(i => i.State == LotState.Cured), counted.Count(i => i.State == LotState.Failed));
        var worth = items.Select(i => Ending(i, price.Currency, perHour)).ToList();
        var spent = price.Value + items.Sum(i => i.Parts);
        var received = items.Sum(i => i.Left ?? 0);
        Amount In(decimal value) => new Amount(value, price.Currency).Rounded();
        var more = worth.Sum(w => w.Minutes);
        var minutes = items.Sum(i => i.Minutes);
        var expected = worth.All(w => w.Brings is not null) ? worth.Sum(w => w.Brings!.Value - w.Parts) - spent : (decimal?)null;
        return new LotSum(
            counted.Count,
            cured,
            failed,
            counted.Count - cured - failed,
            ShareInterval.Make(cured, cured + failed),
            CuredRange.Of(cured, [.. counted.Where(i => i.IsOpen).Select(i => i.Chance ?? 0)]),
            PartsFor(counted, perHour) is { } most && perHour.Currency == price.Currency ? In(most) : null,
            minutes,
            more,
            In(spent),
            In(received),
            In(received - spent),
            expected is { } end ? In(end) : null,
            expected is { } sum && minutes + more > 0 ? In(sum / (decimal)((minutes + more) / 60)) : null
        );
    }

    /// <summary>Open items by what an hour on them brings, the best first; those that bring less than the shop's hour are where to stop.
    /// What has no figure stands last.</summary>
    public static IReadOnlyList<LotItem> ByGain(IEnumerable<LotItem> items) =>
        items.Where(i => i.IsOpen).OrderByDescending(i => i.GainAnHour ?? decimal.MinValue).ThenBy(i => i.Number).ToList();

    /// <summary>True when an hour on it brings less than an hour is worth.</summary>
    public static bool IsNotWorthIt(LotItem item, Currency currency, Amount perHour) =>
        perHour.Currency == currency && item.GainAnHour is { } gain && gain < perHour.Value;

    // What curing adds by its chance, less the hours: what is left may go into parts.
    private static decimal? PartsFor(IReadOnlyList<LotItem> items, Amount perHour)
    {
        var open = items.Where(i => i is { IsOpen: true, Chance: not null }).ToList();
        return open.Count == 0 || open.Exists(i => i.Working is null)
            ? null
            : open.Sum(i =>
                Math.Max(0, (decimal)i.Chance!.Value * Math.Max(0, i.Working!.Value - i.Otherwise) - (decimal)(i.MinutesMore / 60) * perHour.Value)
            );
    }

    private static (decimal? Brings, decimal Parts, double Minutes) Ending(LotItem item, Currency currency, Amount perHour) =>
        !item.IsOpen ? (item.Brings, 0, 0)
        : IsNotWorthIt(item, currency, perHour) ? (item.Left ?? item.Otherwise, 0, 0)
        : (item.Brings, item.PartsMore, item.MinutesMore);
}
