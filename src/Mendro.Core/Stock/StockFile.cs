using System.Globalization;
using Mendro.Core.Quantities;

namespace Mendro.Core.Stock;

/// <summary>A bin as a line of a file tells it.</summary>
/// <param name="Spec">What is in it.</param>
/// <param name="Bin">Where it lies.</param>
/// <param name="Count">How many.</param>
/// <param name="Low">Number below which more is ordered, or null.</param>
/// <param name="Cost">Own cost of one, or null.</param>
/// <param name="Source">Where it came from.</param>
public sealed record StockLine(StockSpec Spec, string Bin, int Count, int? Low, decimal? Cost, string Source);

/// <summary>The stock as CSV: <c>name,sort,value,volts,watts,size,mount,colour,pins,model,revision,bin,count,low,cost,source</c>.</summary>
public static class StockFile
{
    /// <summary>Most lines of a file.</summary>
    public const int MostLines = 2000;

    /// <summary>Longest text of a field, characters.</summary>
    public const int LongestText = 120;

    /// <summary>Most of a part.</summary>
    public const int MostCount = 100_000;

    private static readonly string[] Columns =
    [
        "name", "sort", "value", "volts", "watts", "size", "mount", "colour", "pins", "model", "revision", "bin", "count", "low", "cost", "source",
    ];

    private static readonly string[] Texts = ["name", "sort", "size", "mount", "colour", "pins", "model", "revision", "bin", "source"];

    /// <summary>Writes it.</summary>
    public static string Write(IEnumerable<StockLine> lines) =>
        CsvTable.Write(
            Columns,
            lines.Select(l =>
                (IReadOnlyList<string>)
                    [
                        SpreadsheetText.Write(l.Spec.Name),
                        SpreadsheetText.Write(l.Spec.Sort),
                        N(l.Spec.Value),
                        N(l.Spec.Volts),
                        N(l.Spec.Watts),
                        SpreadsheetText.Write(l.Spec.Size),
                        l.Spec.Mount,
                        SpreadsheetText.Write(l.Spec.Colour),
                        SpreadsheetText.Write(l.Spec.Pins),
                        l.Spec.Model,
                        SpreadsheetText.Write(l.Spec.Revision),
                        SpreadsheetText.Write(l.Bin),
                        l.Count.ToString(CultureInfo.InvariantCulture),
                        l.Low?.ToString(CultureInfo.InvariantCulture) ?? "",
                        l.Cost?.ToString(CultureInfo.InvariantCulture) ?? "",
                        SpreadsheetText.Write(l.Source),
                    ]
            )
        );

    /// <summary>Reads a file.</summary>
    /// <param name="text">The file.</param>
    /// <param name="problems">Every line and field that cannot be taken.</param>
    public static IReadOnlyList<StockLine> Read(string text, out IReadOnlyList<string> problems) =>
        CsvTable.Read(
            text,
            MostLines,
            columns => columns.Contains("name") && columns.Contains("count") ? null : "the columns must be name and count, and more if you like.",
            Line,
            out problems
        );

    /// <summary>Reads one line from its fields.</summary>
    public static Outcome<StockLine> Line(Func<string, string> field)
    {
        static Outcome<StockLine> Fail(string problem) => Outcome<StockLine>.Fail(problem);

        if (field("name").Length == 0)
            return Fail("name: it is missing.");
        if (Texts.FirstOrDefault(t => field(t).Length > LongestText || !PlainText.IsPlain(field(t))) is { } bad)
            return Fail($"{bad}: up to {LongestText} plain characters.");
        var sort = field("sort").ToLowerInvariant();
        double? value = null;
        if (field("value").Length > 0)
        {
            if (StockSpec.UnitOf(sort) is not { } unit)
                return Fail("value: only a capacitor or a resistor has one; say the sort.");
            value = QuantityText.Parse(field("value"), unit);
            if (value is not > 0)
                return Fail($"value: “{field("value")}” is no value such as {(unit == "F" ? "22u" : "4k7")}.");
        }

        if (!Number(field("volts"), out var volts) || !Number(field("watts"), out var watts))
            return Fail("volts and watts: numbers such as 16 or 0.25.");
        if (NumberText.ReadCount(field("count")) is not (<= MostCount and var count))
            return Fail($"count: “{field("count")}” is no number of 0 to {MostCount}.");
        int? low = null;
        if (field("low").Length > 0)
        {
            if (NumberText.ReadCount(field("low")) is not (<= MostCount and var least))
                return Fail($"low: “{field("low")}” is no number of 0 to {MostCount}.");
            low = least;
        }

        decimal? cost = null;
        if (field("cost").Length > 0)
        {
            if (NumberText.ReadDecimal(field("cost")) is not (<= 1_000_000 and var told))
                return Fail($"cost: “{field("cost")}” is no amount such as 0.35.");
            cost = told;
        }

        var spec = new StockSpec(
            field("name"),
            sort,
            value,
            volts,
            watts,
            field("size"),
            field("mount").ToLowerInvariant(),
            field("colour"),
            field("pins"),
            field("model"),
            field("revision")
        );
        return Outcome<StockLine>.Ok(new StockLine(spec, field("bin"), count, low, cost, field("source")));
    }

    private static bool Number(string text, out double? number)
    {
        number = null;
        if (text.Length == 0)
            return true;
        if (!double.TryParse(text.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var told) || !(told is > 0 and < 1e6))
            return false;
        number = told;
        return true;
    }

    private static string N(double? value) => value?.ToString("R", CultureInfo.InvariantCulture) ?? "";
}
