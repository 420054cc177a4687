using System.Globalization;

namespace Mendro.Web;

/// <summary>Numbers and times as the pages write them. A number and its unit never part at the end of a line.</summary>
public static class Words
{
    /// <summary>A share such as <c>71 %</c>; small ones keep a digit.</summary>
    public static string Percent(double share) =>
        share is > 0 and < 0.005 ? "<1\u00A0%" : string.Create(CultureInfo.InvariantCulture, $"{share * 100:0}\u00A0%");

    /// <summary>Minutes such as <c>22 min</c> or <c>2 h 05</c>.</summary>
    public static string Minutes(double minutes)
    {
        var whole = (int)Math.Round(minutes);
        if (minutes is > 0 and < 1)
            return "½\u00A0min";
        return whole < 100
            ? string.Create(CultureInfo.InvariantCulture, $"{whole}\u00A0min")
            : string.Create(CultureInfo.InvariantCulture, $"{whole / 60}\u00A0h\u00A0{whole % 60:00}");
    }

    /// <summary>A size such as <c>310 KB</c> or <c>4.2 MB</c>; a kilobyte is 1,000 bytes.</summary>
    public static string Size(long bytes) =>
        bytes < 1_000_000
            ? string.Create(CultureInfo.InvariantCulture, $"{Math.Max(1, bytes / 1000)}\u00A0KB")
            : string.Create(CultureInfo.InvariantCulture, $"{bytes / 1e6:0.0}\u00A0MB");

    /// <summary>A finite number with point or comma and no sign, or null.</summary>
    public static double? Number(string? text) =>
        double.TryParse(Clean(text).Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value)
        && double.IsFinite(value)
            ? value
            : null;

    /// <summary>A whole number below a thousand million with no sign, or null.</summary>
    public static int? Whole(string? text) => Number(text) is { } number and < 1e9 && number % 1 == 0 ? (int)number : null;

    /// <summary>Trims; a missing text is an empty one.</summary>
    public static string Clean(string? text) => (text ?? "").Trim();
}
