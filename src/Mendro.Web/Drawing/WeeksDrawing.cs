using System.Globalization;
using Mendro.Core.Scheduling;

namespace Mendro.Web.Drawing;

/// <summary>Weeks as pairs of columns: hands solid, what went on by itself hatched.</summary>
internal static class WeeksDrawing
{
    private const double Width = 620;
    private const double Height = 150;
    private const double Foot = 22;
    private const double Head = 16;

    /// <summary>Draws it.</summary>
    public static string Draw(IReadOnlyList<WeekPast> weeks)
    {
        var most = Math.Max(60, weeks.Max(w => Math.Max(w.Active, w.Passive)));
        var step = Width / weeks.Count;
        var said = weeks.Select(w => FormattableString.Invariant($"{Name(w)} {w.Active / 60:0.#} of hands, {w.Passive / 60:0.#} by itself"));
        var svg = new Svg(Width, Height, "Hours by week: " + string.Join(", ", said));
        svg.Raw(DayDrawing.Hatch);
        for (var n = 0; n < weeks.Count; n++)
        {
            void Column(double minutes, double left, string css, string? fill = null)
            {
                var high = minutes / most * (Height - Foot - Head);
                if (high < 0.5)
                    return;
                svg.Box(left, Height - Foot - high, step / 2 - 6, high, css, fill: fill);
                svg.Text(left + step / 4 - 3, Height - Foot - high - 4, (minutes / 60).ToString("0.#", CultureInfo.InvariantCulture), "day-word");
            }

            Column(weeks[n].Active, n * step + 4, "day-active");
            Column(weeks[n].Passive, n * step + step / 2 + 1, "day-passive", "url(#hatch)");
            svg.Text(n * step + step / 2, Height - 6, Name(weeks[n]), "day-word");
        }

        svg.Path(FormattableString.Invariant($"M0 {Height - Foot}H{Width}"), "price-line");
        return svg.ToString();
    }

    private static string Name(WeekPast week) => week.Monday.ToString("d MMM", CultureInfo.InvariantCulture);
}
