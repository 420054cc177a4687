using System.Globalization;
using System.Text.RegularExpressions;
using Mendro.Core.Electrical;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Capacitors;

/// <summary>
/// Capacitors as CSV: a kit or drawer (<c>value,volts,diameter,height,count</c> and, where known, <c>size</c> for both, <c>lead</c>,
/// <c>mount</c>, <c>polar</c>, <c>celsius</c>, <c>esr</c>, <c>price</c>, <c>name</c>), and the list of a unit without a model
/// (<c>refdes,value,volts</c> and <c>board</c>, <c>section</c>, <c>diameter</c>, <c>height</c>, <c>mount</c>, <c>polar</c>).
/// </summary>
public static partial class CapacitorFile
{
    /// <summary>Most lines of a file.</summary>
    public const int MostRows = 500;

    private const double MostFarads = 10;

    private static readonly string[] Needed = ["value", "volts"];

    [GeneratedRegex(@"^(?<d>[0-9.,]+)\s*(?:mm)?\s*[x×*]\s*(?<h>[0-9.,]+)\s*(?:mm)?$", RegexOptions.IgnoreCase)]
    private static partial Regex SizePattern();

    [GeneratedRegex("^[0-9]{3}[A-Z]?$", RegexOptions.IgnoreCase)]
    private static partial Regex PrintedPattern();

    /// <summary>Reads a kit or the shop's drawer.</summary>
    /// <param name="text">File.</param>
    /// <param name="source">Where they come from.</param>
    /// <param name="problems">What could not be read, by line.</param>
    public static IReadOnlyList<CapacitorPart> ReadParts(string text, CapacitorSource source, out IReadOnlyList<string> problems)
    {
        var n = 0;
        return CsvTable.Read(
            text,
            MostRows,
            columns =>
                !Needed.All(columns.Contains) || !(columns.Contains("size") || (columns.Contains("diameter") && columns.Contains("height")))
                    ? "the columns must be value, volts, diameter, height (or size) and, where known, count, mount, polar, celsius, esr, lead, price, name."
                    : null,
            field => Part(column => field(column).Trim(), $"{source.ToString().ToLowerInvariant()}-{++n}", source),
            out problems
        );
    }

    /// <summary>Reads the list of a unit without a model.</summary>
    /// <returns>Boards without outlines' measures: their capacitors have no places.</returns>
    public static IReadOnlyList<Board> ReadList(string text, out IReadOnlyList<string> problems)
    {
        var rows = CsvTable.Read(
            text,
            MostRows,
            columns =>
                columns.Contains("refdes") && columns.Contains("value")
                    ? null
                    : "the columns must be refdes, value, volts and, where known, board, section, diameter, height, mount, polar.",
            field => Position(column => field(column).Trim()),
            out problems
        );
        var twice = rows.GroupBy(r => (r.Board, r.Capacitor.Refdes)).Where(g => g.Count() > 1).Select(g => $"“{g.Key.Refdes}” is there twice.");
        problems = [.. problems, .. twice];
        return rows.GroupBy(r => r.Board)
            .Select((g, n) => new Board(
                $"board-{n + 1}",
                g.Key,
                [[0, 0], [1, 0], [1, 1]],
                Capacitors: g.Select(r => r.Capacitor).DistinctBy(c => c.Refdes).ToList()
            ))
            .ToList();
    }

    /// <summary>Writes what was measured on the way out, for the next unit.</summary>
    public static string WriteList(IEnumerable<RecapPosition> positions) =>
        CsvTable.Write(
            ["board", "section", "refdes", "value", "volts", "diameter", "height", "mount", "polar"],
            positions.Select(p =>
                (IReadOnlyList<string>)
                    [
                        SpreadsheetText.Write(p.Board.Name),
                        SpreadsheetText.Write(p.Capacitor.Section ?? ""),
                        SpreadsheetText.Write(p.Capacitor.Refdes),
                        p.Capacitor.Farads is { } farads ? CapacitorPart.Value(farads).Replace(" ", "", StringComparison.Ordinal) : "",
                        N(p.Capacitor.Volts),
                        N(p.Capacitor.DiameterMm),
                        N(p.Capacitor.HeightMm),
                        SpreadsheetText.Write(p.Capacitor.Mount ?? ""),
                        p.Capacitor.Polar ? "yes" : "no",
                    ]
            )
        );

    /// <summary>A value as it is printed or typed: 22u, 4u7, 0.1 µF, 104; a bare number is microfarads on an electrolytic.</summary>
    public static double? Farads(string typed)
    {
        var isPrinted = PrintedPattern().IsMatch(typed) && typed[2] != '0';
        var bare = double.TryParse(typed.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var plain);
        var farads =
            bare && !isPrinted ? plain * 1e-6
            : isPrinted ? CapacitorCode.Read(typed).Value?.Farads
            : QuantityText.Parse(typed.Replace("MFD", "u", StringComparison.OrdinalIgnoreCase), "F");
        return farads is > 0 and <= MostFarads ? farads : null;
    }

    /// <summary>A size such as 5x11 or 6.3 × 7 mm: diameter and height in mm, or null.</summary>
    public static (double? DiameterMm, double? HeightMm)? Size(string typed) =>
        SizePattern().Match(typed) is { Success: true } size
            ? (Number(size.Groups["d"].Value, "mm"), Number(size.Groups["h"].Value, "mm"))
            : null;

    private static Outcome<CapacitorPart> Part(Func<string, string> field, string id, CapacitorSource source)
    {
        static Outcome<CapacitorPart> Fail(string why) => Outcome<CapacitorPart>.Fail(why);
        if (Farads(field("value")) is not { } farads)
            return Fail($"“{field("value")}” is no capacitance.");
        var volts = Number(field("volts"), "V");
        if (volts is not > 0)
            return Fail($"“{field("volts")}” is no voltage.");
        var (d, h) = Size(field("size")) is { } size ? size : (Number(field("diameter"), "mm"), Number(field("height"), "mm"));
        if (d is not (> 0 and <= 100) || h is not (> 0 and <= 200))
            return Fail("a size has a diameter and a height in mm.");
        var count = field("count").Length == 0 ? 1 : NumberText.ReadCount(field("count")) ?? -1;
        if (count is < 0 or > 100_000)
            return Fail($"“{field("count")}” is no number of parts.");
        decimal? price = null;
        if (field("price").Length > 0)
        {
            if (NumberText.ReadDecimal(field("price")) is not { } paid)
                return Fail($"“{field("price")}” is no price.");
            price = paid;
        }

        var name = field("name");
        return Outcome<CapacitorPart>.Ok(
            new CapacitorPart(
                id,
                farads,
                volts.Value,
                d.Value,
                h.Value,
                Number(field("lead"), "mm") ?? (IsSurface(field("mount")) ? 0 : 10),
                IsSurface(field("mount")) ? "surface" : "through-hole",
                !IsNo(field("polar")),
                Number(field("celsius"), "°C") ?? 105,
                Number(field("esr"), "Ω"),
                count,
                price,
                source,
                name.Length is > 0 and <= 80 ? name : null
            )
        );
    }

    private sealed record Row(string Board, BoardCapacitor Capacitor);

    private static Outcome<Row> Position(Func<string, string> field)
    {
        if (field("refdes").Length is 0 or > 20)
            return Outcome<Row>.Fail("refdes is missing.");
        if (Farads(field("value")) is not { } farads)
            return Outcome<Row>.Fail($"“{field("value")}” is no capacitance.");
        if (field("volts").Length > 0 && Number(field("volts"), "V") is not > 0)
            return Outcome<Row>.Fail($"“{field("volts")}” is no voltage.");
        var (board, section) = (field("board"), field("section"));
        return Outcome<Row>.Ok(
            new Row(
                board.Length is > 0 and <= 60 ? board : "Board",
                new BoardCapacitor(
                    field("refdes"),
                    section.Length is > 0 and <= 40 ? section : null,
                    farads,
                    Number(field("volts"), "V"),
                    null,
                    !IsNo(field("polar")),
                    field("mount").Length == 0 ? null : IsSurface(field("mount")) ? "surface" : "through-hole",
                    Number(field("diameter"), "mm"),
                    Number(field("height"), "mm")
                )
            )
        );
    }

    private static bool IsNo(string word) => word.ToLowerInvariant() is "no" or "false" or "0" or "bipolar" or "unpolar" or "np" or "bp";

    private static bool IsSurface(string word) => word.ToLowerInvariant() is "surface" or "smd" or "smt" or "can";

    private static double? Number(string typed, string unit) => QuantityText.Parse(typed, unit);

    private static string N(double? value) => value?.ToString("0.####", CultureInfo.InvariantCulture) ?? "";
}
