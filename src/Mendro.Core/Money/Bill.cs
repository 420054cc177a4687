using System.Text.Json;
using System.Text.Json.Serialization;
using Mendro.Core.Papers;

namespace Mendro.Core.Money;

/// <summary>A line of a bill.</summary>
/// <param name="What">What it is for.</param>
/// <param name="Amount">Its sum, as prices are named: with the tax in it or not; below nothing for what is taken off.</param>
public sealed record BillLine(string What, decimal Amount);

/// <summary>
/// A bill as it was given out (<c>mendro.bill/1</c>): its number stands for good, and its sums are those of its day. One that was wrong
/// is reversed by a credit note, a bill of its own with the same sums below nothing.
/// </summary>
public sealed record Bill
{
    /// <summary>Format.</summary>
    public const string FormatId = "mendro.bill/1";

    /// <summary>Format.</summary>
    public string Format { get; init; } = FormatId;

    /// <summary>Number in the year, such as 2026-0007.</summary>
    public string Number { get; init; } = "";

    /// <summary>Day, as 2026-11-26.</summary>
    public string Day { get; init; } = "";

    /// <summary>Number of the bill that it reverses; null for a bill.</summary>
    public string? Reverses { get; init; }

    /// <summary>Shop by name.</summary>
    public string Shop { get; init; } = "";

    /// <summary>Its address and numbers, a line each.</summary>
    public string Sender { get; init; } = "";

    /// <summary>Customer.</summary>
    public string Customer { get; init; } = "";

    /// <summary>Customer's address, phone or mail.</summary>
    public string Contact { get; init; } = "";

    /// <summary>Job by its tag.</summary>
    public string Job { get; init; } = "";

    /// <summary>Unit.</summary>
    public string Unit { get; init; } = "";

    /// <summary>ISO 4217 code.</summary>
    public string Currency { get; init; } = "EUR";

    /// <summary>Lines.</summary>
    public IReadOnlyList<BillLine> Lines { get; init; } = [];

    /// <summary>Sum without tax.</summary>
    public decimal Net { get; init; }

    /// <summary>Tax rate, %; 0 for none.</summary>
    public decimal TaxPercent { get; init; }

    /// <summary>Tax.</summary>
    public decimal Tax { get; init; }

    /// <summary>Sum with tax: what is owed.</summary>
    public decimal Gross { get; init; }

    /// <summary>Paid by its day, ahead or since.</summary>
    public decimal Paid { get; init; }

    /// <summary>What has to be said on it, such as why there is no tax; blank for nothing.</summary>
    public string Note { get; init; } = "";

    /// <summary>Still to pay on its day.</summary>
    [JsonIgnore]
    public decimal Open => Gross - Paid;

    /// <summary>What a small business says that charges no tax; whether these words do is for its adviser to say.</summary>
    public const string NoTax = "No tax is charged: small business.";

    /// <summary>Adds lines up by the tax of the day.</summary>
    /// <param name="lines">Lines as prices are named.</param>
    /// <param name="rule">Tax.</param>
    /// <param name="currency">Currency.</param>
    public static Bill Of(IReadOnlyList<BillLine> lines, TaxRule rule, Currency currency)
    {
        var (net, tax, gross) = rule.Of(lines.Sum(l => l.Amount), currency);
        return new Bill
        {
            Currency = currency.Code,
            Lines = lines,
            Net = net,
            TaxPercent = rule.Rate(TaxTreatment.Standard),
            Note = rule is { Treatment: TaxTreatment.None, Percent: > 0 } ? NoTax : "",
            Tax = tax,
            Gross = gross,
        };
    }

    /// <summary>The credit note that takes it back.</summary>
    public Bill Back(string number, string day) =>
        this with
        {
            Number = number,
            Day = day,
            Reverses = Number,
            Lines = [.. Lines.Select(l => l with { Amount = -l.Amount })],
            Net = -Net,
            Tax = -Tax,
            Gross = -Gross,
            Paid = 0,
        };

    /// <summary>Writes it as JSON.</summary>
    public string ToJson() => JsonSerializer.Serialize(this, Options);

    /// <summary>Reads what was kept; null for what is none.</summary>
    public static Bill? Read(string json)
    {
        try
        {
            return JsonSerializer.Deserialize<Bill>(json, Options);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>The bill as a paper.</summary>
    public Paper ToPaper()
    {
        string Sum(decimal value) => new Amount(value, Currency).ToString();
        var sums = new List<PaperLine>();
        if (TaxPercent != 0)
        {
            sums.Add(new PaperLine("Net", Sum(Net)));
            sums.Add(new PaperLine(FormattableString.Invariant($"Tax, {TaxPercent:0.##} %"), Sum(Tax)));
        }

        sums.Add(new PaperLine(Reverses is null ? "To pay" : "Credit", Sum(Gross)));
        if (Note.Length > 0)
            sums.Add(new PaperLine(Note));
        if (Paid != 0)
            sums.Add(new PaperLine("Paid", Sum(Paid)));
        if (Reverses is null && Paid != 0)
            sums.Add(new PaperLine(Open == 0 ? "Nothing is open" : "Still open", Sum(Open)));
        return new Paper(
            Reverses is null ? "Bill" : "Credit note",
            Number,
            Unit,
            $"{Shop} · {Day}",
            new (string Name, string Value)[]
            {
                ("From", Sender.Replace('\n', ',')),
                ("To", Customer),
                ("Contact", Contact),
                ("Job", Job),
                ("Takes back", Reverses ?? ""),
            }
                .Where(f => f.Value.Length > 0)
                .ToList(),
            [
                new PaperSection("For", [.. Lines.Select(l => new PaperLine(l.What, Sum(l.Amount)))], IsTable: true),
                new PaperSection("Sum", sums, IsTable: true),
            ]
        );
    }

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web) { WriteIndented = true };
}
