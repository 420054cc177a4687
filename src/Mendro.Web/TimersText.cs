namespace Mendro.Web;

/// <summary>What is left of a timer, as the strip shows it.</summary>
public static class TimersText
{
    /// <summary>Time that went by: <c>0:42</c>, <c>1:02:00</c>.</summary>
    /// <param name="seconds">Seconds, 0 or more.</param>
    public static string Gone(double seconds) => Left(-Math.Max(0, seconds)).TrimStart('+');

    /// <summary><c>12:05</c>, <c>1:02:00</c> from an hour on, and <c>+0:40</c> once it is over.</summary>
    /// <param name="seconds">Seconds left.</param>
    public static string Left(double seconds)
    {
        var whole = (long)Math.Ceiling(Math.Abs(seconds) - (seconds < 0 ? 0.999 : 0));
        var (hours, minutes) = (whole / 3600, whole / 60 % 60);
        var text =
            hours > 0
                ? FormattableString.Invariant($"{hours}:{minutes:00}:{whole % 60:00}")
                : FormattableString.Invariant($"{minutes}:{whole % 60:00}");
        return seconds <= 0 ? "+" + text : text;
    }
}
