using System.Globalization;

namespace Mendro.Core.Quantities;

/// <summary>Numbers as the bench writes them.</summary>
public static class NumberText
{
    /// <summary>An amount as it is typed or stands in a file: digits with a point or comma and no sign, or null.</summary>
    public static decimal? ReadDecimal(string text) =>
        decimal.TryParse(text.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value) ? value : null;

    /// <summary>A count: digits alone, or null.</summary>
    public static int? ReadCount(string text) => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var count) ? count : null;

    /// <summary>Writes a number with a decimal point and a true minus sign; what the format rounds to nothing has no sign.</summary>
    /// <param name="value">Number.</param>
    /// <param name="format">Custom format without a sign of its own, such as <c>0.##</c>.</param>
    public static string Write(double value, string format)
    {
        var text = Math.Abs(value).ToString(format, CultureInfo.InvariantCulture);
        return value < 0 && text.AsSpan().ContainsAnyInRange('1', '9') ? "−" + text : text;
    }
}
