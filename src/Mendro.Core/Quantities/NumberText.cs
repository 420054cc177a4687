using System.Globalization;

namespace Mendro.Core.Quantities;

/// <summary>Numbers as the bench writes them.</summary>
public static class NumberText
{
    /// <summary>Writes a number with a decimal point and a true minus sign; what the format rounds to nothing has no sign.</summary>
    /// <param name="value">Number.</param>
    /// <param name="format">Custom format without a sign of its own, such as <c>0.##</c>.</param>
    public static string Write(double value, string format)
    {
        var text = Math.Abs(value).ToString(format, CultureInfo.InvariantCulture);
        return value < 0 && text.AsSpan().ContainsAnyInRange('1', '9') ? "−" + text : text;
    }
}
