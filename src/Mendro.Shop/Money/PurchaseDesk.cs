using System.Globalization;
using Mendro.Core;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A line of the purchase book, with its margin.</summary>
/// <param name="Of">What was bought.</param>
/// <param name="Bought">Day.</param>
/// <param name="Sold">Day of its sale, or null.</param>
/// <param name="Margin">Price less what was paid, or null where it is not sold.</param>
public sealed record Purchase(PurchaseLine Of, DateOnly Bought, DateOnly? Sold, decimal? Margin);

/// <summary>The purchase book: of whom each unit was bought, for how much, and what became of it.</summary>
public sealed class PurchaseDesk(PurchaseStore purchases, JobStore jobs, LotStore lots, SettingsStore settings, Ledger ledger, TimeProvider time)
{
    /// <summary>Longest words of a field.</summary>
    public const int Longest = 300;

    /// <summary>Lines, the newest first.</summary>
    /// <param name="open">True for those only of whom no seller is told.</param>
    /// <param name="skip">How many to leave out.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<Purchase> Lines(bool open, int skip, int most) => [.. purchases.Lines(open, skip, most).Select(Of)];

    /// <summary>Keeps of whom a unit was bought, or with it its whole lot.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="wholeLot">True for all units of its lot.</param>
    /// <param name="seller">Name.</param>
    /// <param name="address">Address.</param>
    /// <param name="proof">What proves it.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Keep(long number, bool wholeLot, string seller, string address, string proof, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (jobs.Find(number) is not { ShopStock: true } job)
                    return Refusal.Missing;
                if (new[] { seller, address, proof }.Any(t => t.Length > Longest))
                    return Refusal.Invalid($"Each takes {Longest} characters.");
                var lot = wholeLot && job.Lot.Length > 0 ? lots.Find(job.Lot) : null;
                purchases.Keep(lot is null ? job.Id : null, lot?.Id, seller, address, proof);
                return new Done(lot is null ? $"Job {number}: kept." : $"Lot {lot.Name}: kept.");
            }
        );

    /// <summary>The purchase book as CSV.</summary>
    public string Csv() =>
        CsvTable.Write(
            ["job", "unit", "serial", "lot", "bought", "seller", "address", "proof", "paid", "currency", "sold", "price", "margin"],
            Lines(false, 0, int.MaxValue)
                .Select(p =>
                    (IReadOnlyList<string>)
                        [
                            p.Of.Number.ToString(CultureInfo.InvariantCulture),
                            SpreadsheetText.Write(p.Of.Unit),
                            SpreadsheetText.Write(p.Of.Serial),
                            SpreadsheetText.Write(p.Of.Lot),
                            DayText.Write(p.Bought),
                            SpreadsheetText.Write(p.Of.Seller),
                            SpreadsheetText.Write(p.Of.Address),
                            SpreadsheetText.Write(p.Of.Proof),
                            N(p.Of.Paid),
                            p.Of.Currency,
                            p.Sold is { } sold ? DayText.Write(sold) : "",
                            p.Of.Price is { } price ? N(price) : "",
                            p.Margin is { } margin ? N(margin) : "",
                        ]
                )
        );

    private Purchase Of(PurchaseLine line) =>
        new(
            line,
            line.LotDay ?? ShopZone.Day(line.ReceivedAt, settings, time),
            line.SoldAt is { } at ? ShopZone.Day(at, settings, time) : null,
            line.Price is { } price ? price - line.Paid : null
        );

    private static string N(decimal value) => value.ToString("0.00##", CultureInfo.InvariantCulture);
}
