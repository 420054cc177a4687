using System.Globalization;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>The reading of a good unit at one probe.</summary>
/// <param name="Profile">Profile id.</param>
/// <param name="Revision">Board revision, or empty.</param>
/// <param name="Probe">Probe id.</param>
/// <param name="Unit">V, ohm, F, A or diode.</param>
/// <param name="Value">Value in the SI base unit; null for over range.</param>
/// <param name="GoodUnit">Name of the unit, so that it counts once.</param>
public sealed record GoodReading(string Profile, string Revision, string Probe, string Unit, double? Value, string GoodUnit);

/// <summary>Readings of good units as CSV: <c>profile,revision,probe,unit,value,good_unit</c>; <c>OL</c> for over range.</summary>
public static class GoodReadingFile
{
    private const int MostRows = 20_000;

    private static readonly string[] Columns = ["profile", "revision", "probe", "unit", "value", "good_unit"];

    /// <summary>Units a reading may have.</summary>
    public static IReadOnlyList<string> Units { get; } = ["V", "ohm", "F", "A", "diode"];

    /// <summary>Unit word of a metered reading, or null when it is none.</summary>
    public static string? UnitOf(ReadingUnit unit) =>
        unit switch
        {
            ReadingUnit.Volts => "V",
            ReadingUnit.Ohms or ReadingUnit.Beep or ReadingUnit.OverRange => "ohm",
            ReadingUnit.Farads => "F",
            ReadingUnit.Amps => "A",
            ReadingUnit.DiodeVolts => "diode",
            _ => null,
        };

    /// <summary>Writes the file.</summary>
    public static string Write(IEnumerable<GoodReading> readings) =>
        CsvTable.Write(
            Columns,
            readings.Select(reading =>
                (IReadOnlyList<string>)
                    [
                        SpreadsheetText.Write(reading.Profile),
                        SpreadsheetText.Write(reading.Revision),
                        SpreadsheetText.Write(reading.Probe),
                        SpreadsheetText.Write(reading.Unit),
                        reading.Value?.ToString("R", CultureInfo.InvariantCulture) ?? "OL",
                        SpreadsheetText.Write(reading.GoodUnit),
                    ]
            )
        );

    /// <summary>Reads the file; a decimal comma and a semicolon between fields are understood too.</summary>
    /// <param name="text">The file.</param>
    /// <param name="problems">Every line that could not be read, with its number.</param>
    /// <returns>The readings of the lines without problems.</returns>
    public static IReadOnlyList<GoodReading> Read(string text, out IReadOnlyList<string> problems) =>
        CsvTable.Read(
            text,
            MostRows,
            columns => Columns.All(columns.Contains) ? null : $"the columns must be {string.Join(", ", Columns)}.",
            Line,
            out problems
        );

    private static Outcome<GoodReading> Line(Func<string, string> field)
    {
        var (unit, typed, name) = (field("unit"), field("value"), field("good_unit").Trim());
        if (field("profile").Length == 0 || field("probe").Length == 0)
            return Outcome<GoodReading>.Fail("profile and probe are missing.");
        if (!Units.Contains(unit))
            return Outcome<GoodReading>.Fail($"“{unit}” is no unit; known: {string.Join(", ", Units)}.");
        if (name.Length is 0 or > 80)
            return Outcome<GoodReading>.Fail("good_unit names the unit, in up to 80 characters.");
        var over = typed.Equals("OL", StringComparison.OrdinalIgnoreCase);
        var value = over
            ? null
            : QuantityText.Parse(
                typed,
                unit switch
                {
                    "ohm" => "Ω",
                    "diode" => "V",
                    _ => unit,
                }
            );
        if (!over && value is null)
            return Outcome<GoodReading>.Fail($"“{typed}” is no value in {unit}.");
        return Outcome<GoodReading>.Ok(new GoodReading(field("profile"), field("revision"), field("probe"), unit, value, name));
    }
}
