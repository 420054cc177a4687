using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
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
    public static string Write(IEnumerable<GoodReading> readings)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (
            var csv = new CsvWriter(
                text,
                new CsvConfiguration(CultureInfo.InvariantCulture)
                {
                    // A lone line feed ends a record for most readers, so it is quoted like any other line end.
                    NewLine = "\r\n",
                    ShouldQuote = args => args.Field?.AsSpan().IndexOfAny(",;\"\r\n") >= 0 || args.Field?.Trim() != args.Field,
                }
            )
        )
        {
            foreach (var column in Columns)
                csv.WriteField(column);
            csv.NextRecord();
            foreach (var reading in readings)
            {
                foreach (
                    var field in (string[])
                        [
                            SpreadsheetText.Write(reading.Profile),
                            SpreadsheetText.Write(reading.Revision),
                            SpreadsheetText.Write(reading.Probe),
                            SpreadsheetText.Write(reading.Unit),
                            reading.Value?.ToString("R", CultureInfo.InvariantCulture) ?? "OL",
                            SpreadsheetText.Write(reading.GoodUnit),
                        ]
                )
                    csv.WriteField(field);
                csv.NextRecord();
            }
        }

        return text.ToString();
    }

    /// <summary>Reads the file; a decimal comma and a semicolon between fields are understood too.</summary>
    /// <param name="text">The file.</param>
    /// <param name="problems">Every line that could not be read, with its number.</param>
    /// <returns>The readings of the lines without problems.</returns>
    public static IReadOnlyList<GoodReading> Read(string text, out IReadOnlyList<string> problems)
    {
        var (found, wrong) = (new List<GoodReading>(), new List<string>());
        problems = wrong;
        var head = text.Split('\n', 2)[0];
        using var csv = new CsvReader(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = head.Contains(';', StringComparison.Ordinal) ? ";" : ",",
                TrimOptions = TrimOptions.Trim,
                BadDataFound = null,
                MissingFieldFound = null,
                DetectColumnCountChanges = false,
            }
        );
        try
        {
            if (
                !csv.Read()
                || !csv.ReadHeader()
                || Columns.FirstOrDefault(c => csv.HeaderRecord?.Contains(c) != true) is { } missing && missing.Length > 0
            )
            {
                wrong.Add($"line 1: the columns must be {string.Join(", ", Columns)}.");
                return found;
            }

            while (csv.Read())
            {
                if (found.Count + wrong.Count >= MostRows)
                {
                    wrong.Add($"more than {MostRows} lines.");
                    break;
                }

                var line = Line(column => SpreadsheetText.Read(csv.GetField(column) ?? ""));
                if (line.IsOk)
                    found.Add(line.Value);
                else
                    wrong.Add($"line {csv.Parser.RawRow}: {line.Problem}");
            }
        }
        catch (CsvHelperException ex)
        {
            wrong.Add($"line {csv.Parser.RawRow}: {ex.Message.Split('\n')[0]}");
        }

        return found;
    }

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
