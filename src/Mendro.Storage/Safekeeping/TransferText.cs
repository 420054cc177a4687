using System.Globalization;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>
/// A value of the database as a field of CSV and back, without loss: <c>\N</c> for no value, a leading backslash doubled, and an
/// apostrophe before text that a spreadsheet would take for a formula.
/// </summary>
public static class TransferText
{
    private const string NoValue = @"\N";

    /// <summary>Writes a value.</summary>
    public static string Write(object? value, bool isText) =>
        value switch
        {
            null or DBNull => NoValue,
            string text when isText => SpreadsheetText.IsNeutral(text) ? Escaped(text) : SpreadsheetText.Write(text),
            string text => Escaped(text),
            double number => number.ToString("R", CultureInfo.InvariantCulture),
            IFormattable number => number.ToString(null, CultureInfo.InvariantCulture),
            _ => Escaped(value.ToString() ?? ""),
        };

    /// <summary>Reads a field.</summary>
    public static string? Read(string field) =>
        field switch
        {
            NoValue => null,
            ['\'' or '\\', .. var rest] => rest,
            _ => field,
        };

    /// <summary>Reads a field of a column by its type; a number is read here, because the database's own reading of text may be off
    /// by the last bit.</summary>
    internal static object? Read(string field, TransferColumn column) =>
        Read(field) is { } text && column.Type == "REAL"
            ? double.Parse(text, NumberStyles.Float, CultureInfo.InvariantCulture)
            : Read(field);

    private static string Escaped(string text) => text.StartsWith('\\') ? @"\" + text : text;
}
