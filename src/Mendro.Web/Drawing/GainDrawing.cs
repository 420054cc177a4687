using System.Globalization;
using Mendro.Core.Money;

namespace Mendro.Web.Drawing;

/// <summary>What each month of a year brought: columns up and down from a line.</summary>
internal static class GainDrawing
{
    private const double Width = 620;
    private const double Height = 110;

    /// <summary>Draws it.</summary>
    public static string Draw(IReadOnlyList<(DateOnly Month, decimal Gain)> year, string currency)
    {
        var (most, least) = (Math.Max(1, year.Max(m => m.Gain)), Math.Min(0, year.Min(m => m.Gain)));
        double Y(decimal value) => 16 + (double)((most - value) / (most - least)) * (Height - 40);
        var step = Width / year.Count;
        var svg = new Svg(
            Width,
            Height,
            "Gain by month: " + string.Join(", ", year.Select(m => $"{Name(m.Month)} {new Amount(m.Gain, currency).Rounded()}"))
        );
        for (var n = 0; n < year.Count; n++)
        {
            var (month, gain) = year[n];
            var high = Math.Abs(Y(gain) - Y(0));
            if (high > 0.5)
                svg.Box(n * step + 6, Math.Min(Y(gain), Y(0)), step - 12, high, gain < 0 ? "draw-loss" : "draw-gain", 0);
            svg.Text(n * step + step / 2, Height - 6, Name(month), "price-word", "middle");
            if (gain != 0)
                svg.Text(n * step + step / 2, Math.Min(Y(gain), Y(0)) - 3, gain.ToString("0", CultureInfo.InvariantCulture), "price-word", "middle");
        }

        svg.Path(FormattableString.Invariant($"M0 {Y(0):0.##}H{Width}"), "price-line");
        return svg.ToString();
    }

    private static string Name(DateOnly month) => month.ToString("MMM", CultureInfo.InvariantCulture);
}
