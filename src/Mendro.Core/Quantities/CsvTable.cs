using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace Mendro.Core.Quantities;

/// <summary>
/// Tables as CSV (RFC 4180): a first line with column names, then a record a line. Semicolons between fields are understood too;
/// texts are written so that no spreadsheet takes them for formulas.
/// </summary>
public static class CsvTable
{
    /// <summary>Writes a table.</summary>
    /// <param name="columns">Column names.</param>
    /// <param name="rows">Fields of each record; numbers as text of the invariant culture.</param>
    public static string Write(IReadOnlyList<string> columns, IEnumerable<IReadOnlyList<string>> rows)
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
            foreach (var row in rows.Prepend(columns))
            {
                foreach (var field in row)
                    csv.WriteField(field);
                csv.NextRecord();
            }

        return text.ToString();
    }

    /// <summary>Reads a table.</summary>
    /// <param name="text">The file.</param>
    /// <param name="mostRows">Most lines taken.</param>
    /// <param name="missing">What is wrong with the column names, or null.</param>
    /// <param name="line">Makes something of a line from its fields by column name; blank where there is no such column.</param>
    /// <param name="problems">Every line that could not be read, with its number.</param>
    /// <returns>What was made of the lines without problems.</returns>
    public static IReadOnlyList<T> Read<T>(
        string text,
        int mostRows,
        Func<IReadOnlyList<string>, string?> missing,
        Func<Func<string, string>, Outcome<T>> line,
        out IReadOnlyList<string> problems
    )
        where T : class
    {
        var (found, wrong) = (new List<T>(), new List<string>());
        problems = wrong;
        var head = text.Split('\n', 2)[0];
        using var csv = new CsvReader(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter =
                    head.Contains('\t', StringComparison.Ordinal) ? "\t"
                    : head.Contains(';', StringComparison.Ordinal) ? ";"
                    : ",",
                TrimOptions = TrimOptions.Trim,
                PrepareHeaderForMatch = args => args.Header?.Trim().ToLowerInvariant() ?? "",
                BadDataFound = null,
                MissingFieldFound = null,
                DetectColumnCountChanges = false,
            }
        );
        try
        {
            var columns = csv.Read() && csv.ReadHeader() ? (csv.HeaderRecord ?? []).Select(h => h.Trim().ToLowerInvariant()).ToList() : [];
            if (missing(columns) is { } why)
            {
                wrong.Add($"line 1: {why}");
                return found;
            }

            while (csv.Read())
            {
                if (found.Count + wrong.Count >= mostRows)
                {
                    wrong.Add($"more than {mostRows} lines.");
                    break;
                }

                var made = line(column => columns.Contains(column) ? SpreadsheetText.Read(csv.GetField(column) ?? "") : "");
                if (made.IsOk)
                    found.Add(made.Value);
                else
                    wrong.Add($"line {csv.Parser.RawRow}: {made.Problem}");
            }
        }
        catch (CsvHelperException ex)
        {
            wrong.Add($"line {csv.Parser.RawRow}: {ex.Message.Split('\n')[0]}");
        }

        return found;
    }
}
