using System.Globalization;
using System.Net;
using Mendro.Shop;

namespace Mendro.Web.Drawing;

/// <summary>The day in lanes, one a job: hands at work solid, what goes on by itself hatched, closed hours grey, a line at now.</summary>
internal static class DayDrawing
{
    private const double Width = 900;
    private const double Names = 210;
    private const double Lane = 24;
    private const double Top = 22;
    private const double NarrowestWord = 34;
    private const double PerLetter = 5.6;
    private const int LongestName = 48;

    /// <summary>The pattern of what goes on by itself.</summary>
    public const string Hatch =
        "<defs><pattern id=\"hatch\" width=\"6\" height=\"6\" patternUnits=\"userSpaceOnUse\" patternTransform=\"rotate(45)\">"
        + "<path class=\"day-hatch\" d=\"M0 0V6\"/></pattern></defs>";

    /// <summary>Draws it.</summary>
    /// <param name="board">The day.</param>
    /// <param name="from">Begin of what is shown, UTC.</param>
    /// <param name="to">End of it.</param>
    /// <param name="zone">The shop's zone.</param>
    /// <param name="address">Address of a piece of work, or null.</param>
    public static string Draw(DayBoard board, DateTimeOffset from, DateTimeOffset to, TimeZoneInfo zone, Func<DayItem, string?> address)
    {
        var shown = board.Entries.Where(e => e.End > from && e.Start < to).ToList();
        var lanes = shown.Select(e => e.Item.Lane).Distinct().ToList();
        var high = Top + lanes.Count * Lane + 6;
        double X(DateTimeOffset at) => Names + Math.Clamp((at - from) / (to - from), 0, 1) * (Width - Names);
        var svg = new Svg(Width, high, $"The day: {lanes.Count} lanes. The table below says the same.", "group");
        svg.Raw(Hatch);
        foreach (var closed in board.Closed)
        {
            var (left, right) = (X(board.Now.AddMinutes(closed.From)), X(board.Now.AddMinutes(closed.To)));
            if (right - left > 0.5)
                svg.Box(left, Top - 4, right - left, high - Top + 4, "day-closed", 0);
        }

        for (var hour = Ceiling(from, zone); hour < to; hour = hour.AddHours(1))
        {
            svg.Path(FormattableString.Invariant($"M{Svg.At(X(hour))} {Top - 4}V{high}"), "day-hour");
            svg.Text(X(hour), 12, TimeZoneInfo.ConvertTime(hour, zone).ToString("HH:mm", CultureInfo.InvariantCulture), "day-word");
        }

        for (var n = 0; n < lanes.Count; n++)
        {
            var y = Top + n * Lane;
            svg.Path(FormattableString.Invariant($"M0 {Svg.At(y + Lane - 1)}H{Width}"), "day-rule");
            svg.Text(2, y + 15, Short(lanes[n]), "day-lane", "start");
        }

        if (board.Now >= from && board.Now <= to)
            svg.Path(FormattableString.Invariant($"M{Svg.At(X(board.Now))} {Top - 8}V{high}"), "day-now");
        foreach (var entry in shown)
            svg.Raw(Piece(entry, Top + lanes.IndexOf(entry.Item.Lane) * Lane, X, address));
        return svg.ToString();
    }

    private static string Piece(DayEntry entry, double y, Func<DateTimeOffset, double> x, Func<DayItem, string?> address)
    {
        var (left, right) = (x(entry.Start), Math.Max(x(entry.End), x(entry.Start) + 2));
        var css = entry.Person is null ? "day-passive" : "day-active";
        var who = entry.Person is { } person ? FormattableString.Invariant($", person {person}") : "";
        var minutes = Math.Round(entry.Item.Task.Minutes);
        var words = WebUtility.HtmlEncode(FormattableString.Invariant($"{entry.Item.Lane}: {entry.Item.Words}, {minutes} min{who}"));
        var letters = (int)((right - left - 6) / PerLetter);
        var said =
            right - left < NarrowestWord ? ""
            : entry.Item.Words.Length <= letters ? entry.Item.Words
            : entry.Item.Words[..Math.Max(0, letters - 1)] + "…";
        var box =
            $"<rect class=\"{css}\" x=\"{Svg.At(left)}\" y=\"{Svg.At(y + 2)}\" width=\"{Svg.At(Math.Max(1.5, right - left - 1))}\" "
            + $"height=\"{Svg.At(Lane - 6)}\"{(entry.Person is null ? " fill=\"url(#hatch)\"" : "")}><title>{words}</title></rect>";
        // Words lie over the box, outside of its link: cut short they are no name for it.
        var over =
            said.Length == 0 ? "" : $"<text class=\"{css}-word\" x=\"{Svg.At(left + 3)}\" y=\"{Svg.At(y + 14)}\">{WebUtility.HtmlEncode(said)}</text>";
        return (address(entry.Item) is { } link ? $"<a href=\"{WebUtility.HtmlEncode(link)}\" aria-label=\"{words}\">{box}</a>" : box) + over;
    }

    private static string Short(string lane) => lane.Length <= LongestName ? lane : lane[..(LongestName - 1)] + "…";

    private static DateTimeOffset Ceiling(DateTimeOffset at, TimeZoneInfo zone)
    {
        var wall = TimeZoneInfo.ConvertTime(at, zone);
        var past = TimeSpan.FromTicks(wall.TimeOfDay.Ticks % TimeSpan.TicksPerHour);
        return past == TimeSpan.Zero ? at : at + TimeSpan.FromHours(1) - past;
    }
}
