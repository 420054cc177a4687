using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Stock;

/// <summary>A line of what a supplier has.</summary>
/// <param name="Number">The supplier's number of it, or blank.</param>
/// <param name="Part">Part, by the shop's name.</param>
/// <param name="Price">Price of one.</param>
/// <param name="From">Least number at which the price holds, 1 or more.</param>
/// <param name="Available">How many there are; null where it is not told.</param>
public sealed record PriceLine(string Number, string Part, decimal Price, int From, int? Available);

/// <summary>What a supplier answers: its terms and what it has.</summary>
/// <param name="Currency">ISO 4217 code.</param>
/// <param name="Postage">Postage of a parcel.</param>
/// <param name="FreeFrom">Worth of goods from which there is none, or null.</param>
/// <param name="LeadDays">Days until it is here.</param>
/// <param name="Offers">What it has.</param>
public sealed record SupplierAnswer(string Currency, decimal Postage, decimal? FreeFrom, int LeadDays, IReadOnlyList<PriceLine> Offers);

/// <summary>Price lists: as CSV <c>part,price,number,from,available</c>, and as JSON <c>mendro.prices/1</c>.</summary>
public static class PriceList
{
    /// <summary>The format name.</summary>
    public const string FormatName = "mendro.prices/1";

    /// <summary>Most lines of a list.</summary>
    public const int MostLines = 2000;

    private const int LongestText = 120;
    private const decimal MostPrice = 1_000_000;
    private const int MostDays = 365;

    /// <summary>Reads a CSV file.</summary>
    /// <param name="text">The file.</param>
    /// <param name="problems">Every line and field that cannot be taken.</param>
    public static IReadOnlyList<PriceLine> Read(string text, out IReadOnlyList<string> problems) =>
        CsvTable.Read(
            text,
            MostLines,
            columns =>
                columns.Contains("part") && columns.Contains("price")
                    ? null
                    : "the columns must be part and price, and number, from, available if you like.",
            field =>
            {
                if (NumberText.ReadDecimal(field("price")) is not { } price)
                    return Outcome<PriceLine>.Fail($"price: “{field("price")}” is no amount such as 0.35.");
                var (from, available) = (NumberText.ReadCount(field("from")), NumberText.ReadCount(field("available")));
                if (from is null && field("from").Length > 0)
                    return Outcome<PriceLine>.Fail($"from: “{field("from")}” is no number.");
                if (available is null && field("available").Length > 0)
                    return Outcome<PriceLine>.Fail($"available: “{field("available")}” is no number.");
                var line = new PriceLine(field("number"), field("part"), price, from ?? 1, available);
                return Wrong(line) is { } wrong ? Outcome<PriceLine>.Fail(wrong) : Outcome<PriceLine>.Ok(line);
            },
            out problems
        );

    /// <summary>Reads an answer. What comes from outside is checked to the last field: half an answer is none.</summary>
    public static Outcome<SupplierAnswer> ReadAnswer(string json)
    {
        static Outcome<SupplierAnswer> Fail(string problem) => Outcome<SupplierAnswer>.Fail(problem);

        if (ProfileJson.Deserialize<Document>(json, out var told) is { } unreadable)
            return Fail(unreadable);
        if (told?.Format != FormatName)
            return Fail($"format: expected “{FormatName}”.");
        if (!Money.Currency.IsCode(told.Currency))
            return Fail("currency: three letters, such as EUR.");
        if (told.Postage is not (>= 0 and <= MostPrice) || told.FreeFrom is < 0 || told.LeadDays is not (>= 0 and <= MostDays))
            return Fail($"postage and freeFrom: nothing or more; leadDays: 0 to {MostDays}.");
        if (told.Offers is not { Count: <= MostLines } offers)
            return Fail($"offers: a list of at most {MostLines}.");
        var lines = new List<PriceLine>();
        for (var n = 0; n < offers.Count; n++)
        {
            if (offers[n] is not { Part: { } part, Price: { } price } offer)
                return Fail($"offers[{n}]: a part and a price are needed.");
            var line = new PriceLine(offer.Number ?? "", part, price, offer.From ?? 1, offer.Available);
            if (Wrong(line) is { } wrong)
                return Fail($"offers[{n}].{wrong}");
            lines.Add(line);
        }

        return Outcome<SupplierAnswer>.Ok(new SupplierAnswer(told.Currency!, told.Postage!.Value, told.FreeFrom, told.LeadDays!.Value, lines));
    }

    private static string? Wrong(PriceLine line) =>
        line.Part.Length is 0 or > LongestText || !PlainText.IsPlain(line.Part) ? $"part: 1 to {LongestText} plain characters."
        : line.Number.Length > LongestText || !PlainText.IsPlain(line.Number) ? $"number: up to {LongestText} plain characters."
        : line.Price is < 0 or > MostPrice || decimal.Round(line.Price, OrderFile.MostDigits) != line.Price
            ? $"price: 0 to a million, with at most {OrderFile.MostDigits} digits after the point."
        : line.From is < 1 or > OrderFile.MostCount ? "from: 1 or more."
        : line.Available is < 0 or > 10_000_000 ? "available: 0 or more."
        : null;

    private sealed record Told(string? Number, string? Part, decimal? Price, int? From, int? Available);

    private sealed record Document(string? Format, string? Currency, decimal? Postage, decimal? FreeFrom, int? LeadDays, IReadOnlyList<Told?>? Offers);
}
