using System.Globalization;
using System.Text.Json;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Core.Stock;

namespace Mendro.Storage;

/// <summary>What each column of an export may hold, as strictly as a form would take it.</summary>
internal static class TransferCheck
{
    private static readonly HashSet<string> Amounts =
    [
        "paid", "asking", "value_working", "value_as_is", "value_parts", "cost", "price", "fees", "postage", "packing", "working", "otherwise", "per_hour",
        "free_from", "hour_at_close", "amount", "rate", "percent", "reduced", "tax_percent", "buy_fee", "highest", "cautious", "in_parts", "weight",
    ];

    private static readonly HashSet<string> AmountsOfTable = ["orders.tax", "stock_moves.value"];

    private static readonly HashSet<string> Days =
        ["promised", "day", "own_day", "bought_on", "expected_on", "until", "due"];

    // Words of a closed list; the first stands where nothing is told.
    private static readonly Dictionary<string, string[]> Words = new()
    {
        ["jobs.stage"] = Enum.GetNames<WorkStage>(),
        ["jobs.shelf"] = Enum.GetNames<Shelf>(),
        ["jobs.ending"] = Enum.GetNames<JobEnd>(),
        ["bench_records.stage"] = Enum.GetNames<WorkStage>(),
        ["sales.state"] = Enum.GetNames<SaleState>(),
        ["sales.tax"] = ["", .. Enum.GetNames<TaxTreatment>()],
        ["lots.way"] = Enum.GetNames<SpreadWay>(),
        ["offers.state"] = Enum.GetNames<OfferState>(),
        ["journal.tax_code"] = ["", .. Enum.GetNames<TaxTreatment>()],
        ["journal_lines.account"] = Enum.GetNames<Account>(),
        ["tax_rules.treatment"] = Enum.GetNames<TaxTreatment>(),
        ["payments.kind"] = ["payment", "deposit", "refund"],
        ["payments.way"] = ["", "cash", "bank"],
        ["own_entries.kind"] = ["cost", "brought", "drawn", "to-bank", "from-bank", "counted"],
        ["own_entries.way"] = ["", "cash", "bank"],
        ["donor_parts.state"] = ["there", "taken", "sold", "bad"],
        ["orders.state"] = ["Sent"],
        ["pictures.side"] = ["", "before", "after"],
        ["profiles.origin"] = ["library", "shop"],
    };

    private static readonly Dictionary<string, Func<string, string?>> Texts = new()
    {
        ["profiles.json"] = text => ProfileJson.Read(text) is { IsOk: false } wrong ? wrong.Problem : null,
        ["shop_methods.json"] = Reads<Method>(ProfileJson.Options),
        ["stock_items.spec"] = Reads<StockSpec>(JsonSerializerOptions.Web),
        ["soaks.noted"] = Reads<List<Interruption>>(JsonSerializerOptions.Default),
        ["runs.seconds"] = Reads<List<double>>(JsonSerializerOptions.Default),
        ["offers.profiles"] = Reads<List<string>>(JsonSerializerOptions.Default),
        ["stand_in_truths.faults"] = Reads<List<string>>(JsonSerializerOptions.Default),
        ["bench_records.payload"] = IsObject,
        ["capacitor_plans.json"] = IsJson,
        ["trace_plans.json"] = IsJson,
        ["start_runs.json"] = IsJson,
        ["pictures.marks"] = IsJson,
        ["pictures.hash"] = text => PictureFiles.IsHash(text) ? null : "is no name of a picture",
        ["bills.paper"] = text => Bill.Read(text) is { Format: Bill.FormatId, Lines: not null } ? null : "is no bill",
        ["month_locks.month"] = text => DayText.Read(text + "-01") is null ? "is no month such as 2026-11" : null,
        ["suppliers.address"] = text => text.Length == 0 || InstrumentAddress.Parse(text) is not null ? null : "is no address such as 127.0.0.1:5901",
    };

    /// <summary>Says what is wrong with a value; null when it may come in.</summary>
    /// <param name="table">Table.</param>
    /// <param name="column">Column.</param>
    /// <param name="text">Value; null for none.</param>
    public static string? Wrong(string table, TransferColumn column, string? text)
    {
        if (text is null)
            return null;
        if (column.Type == "INTEGER")
            return long.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out _) ? null : "is no whole number";
        if (column.Type == "REAL")
            return double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && Math.Abs(number) <= QuantityText.Most
                ? null
                : "is no number that could be";
        var name = $"{table}.{column.Name}";
        if (Texts.TryGetValue(name, out var check))
            return check(text);
        if (Words.TryGetValue(name, out var words))
            return words.Contains(text) ? null : $"is none of {string.Join(", ", words.Where(w => w.Length > 0))}";
        if (Amounts.Contains(column.Name) || AmountsOfTable.Contains(name))
            return decimal.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out _) ? null : "is no amount";
        if (column.Name == "currency")
            return Currency.IsCode(text) ? null : "is no currency such as EUR";
        if (Days.Contains(column.Name))
            return text.Length == 0 || DayText.Read(text) is not null ? null : "is no day such as 2026-11-26";
        if (column.Name is "at" || name is "runs.since" or "shelf_waits.since" || column.Name.EndsWith("_at", StringComparison.Ordinal))
            return IsMoment(text) ? null : "is no time such as 2026-11-26T10:00:00Z";
        return null;
    }

    private static bool IsMoment(string text) =>
        DateTimeOffset.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var at) && at.Year is > 1970 and < 9000;

    private static string? IsJson(string text) => Parsed(text, _ => true);

    private static string? IsObject(string text) => Parsed(text, root => root.ValueKind == JsonValueKind.Object);

    private static string? Parsed(string text, Func<JsonElement, bool> fits)
    {
        try
        {
            using var document = JsonDocument.Parse(text);
            return fits(document.RootElement) ? null : "is not what belongs there";
        }
        catch (JsonException)
        {
            return "cannot be read as JSON";
        }
    }

    private static Func<string, string?> Reads<T>(JsonSerializerOptions options)
        where T : class =>
        text =>
        {
            try
            {
                return JsonSerializer.Deserialize<T>(text, options) is null ? "is empty" : null;
            }
            catch (Exception ex) when (ex is JsonException or NotSupportedException or FormatException or ArgumentException)
            {
                return "cannot be read as JSON of its kind";
            }
        };
}
