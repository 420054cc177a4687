using Mendro.Shop;

namespace Mendro.Web.Drawing;

/// <summary>What single purchases would leave, as a row of columns, with the price asked and both offers as marks.</summary>
internal static class OfferDrawing
{
    private const double Width = 620;
    private const double Height = 120;
    private const double Floor = 92;
    private const int Columns = 40;

    /// <summary>Draws it.</summary>
    public static string Draw(OfferSheet sheet)
    {
        var (worth, terms) = (sheet.Worth, sheet.Terms);
        var asked = terms.Costs(terms.Asking);
        var marks = new[]
        {
            (At: asked, Word: "asked"),
            (At: terms.Costs(worth.HighestOffer(terms)), Word: "at most"),
        };
        var from = Math.Min(worth.Draws[0], marks.Min(m => m.At));
        var to = Math.Max(worth.Draws[^1], marks.Max(m => m.At));
        var step = Math.Max(0.01m, (to - from) / Columns);
        double X(decimal at) => 10 + (double)((at - from) / (step * Columns)) * (Width - 20);
        var counts = new int[Columns];
        foreach (var draw in worth.Draws)
            counts[(int)Math.Clamp((draw - from) / step, 0, Columns - 1)]++;
        var svg = new Svg(
            Width,
            Height,
            FormattableString.Invariant(
                $"What one purchase leaves before its price: eight of ten between {worth.Tenth:0.00} and {worth.Ninetieth:0.00}; asked {asked:0.00}"
            )
        );
        for (var n = 0; n < Columns; n++)
        {
            if (counts[n] == 0)
                continue;
            var high = Math.Max(1.5, 70.0 * counts[n] / counts.Max());
            var at = from + n * step;
            svg.Box(X(at) + 0.5, Floor - high, (Width - 20) / Columns - 1, high, at + step <= asked ? "draw-loss" : "draw-gain", 0);
        }

        svg.Path(FormattableString.Invariant($"M10 {Floor}H{Width - 10}"), "price-line");
        foreach (var (at, word) in marks)
        {
            svg.Path(FormattableString.Invariant($"M{X(at):0.##} 16V{Floor + 4}"), word == "asked" ? "price-even" : "price-mark");
            var anchor = X(at) > Width * 0.8 ? "end" : X(at) < Width * 0.2 ? "start" : "middle";
            svg.Text(X(at), word == "asked" ? Height - 10 : 12, FormattableString.Invariant($"{word} {at:0.00}"), "price-word", anchor);
        }

        return svg.ToString();
    }
}
