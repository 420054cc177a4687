using System.Globalization;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>What an export from elsewhere may bring in: text without control characters, numbers within bounds, amounts that are
/// amounts.</summary>
internal static class TransferGate
{
    private static readonly string[] Amounts = ["paid", "asking", "value_working", "value_as_is", "value_parts", "cost"];

    /// <summary>The value as it may be stored.</summary>
    /// <exception cref="FormatException">It may not; the message names the column.</exception>
    public static object? Pass(object? value, TransferColumn column)
    {
        switch (value)
        {
            case double number when !(Math.Abs(number) <= QuantityText.Most):
                throw new FormatException(string.Create(CultureInfo.InvariantCulture, $"{column.Name}: {number} is too large a number."));
            case string text when Amounts.Contains(column.Name):
                return decimal.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out _)
                    ? text
                    : throw new FormatException($"{column.Name}: “{PlainText.Clean(text)}” is no amount.");
            case string text:
                return PlainText.Clean(text);
            default:
                return value;
        }
    }
}
