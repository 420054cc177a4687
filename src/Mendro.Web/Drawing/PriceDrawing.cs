using Mendro.Core.Money;
using Mendro.Shop;

namespace Mendro.Web.Drawing;

/// <summary>Prices on one line: what others fetched as strokes, the middle eight of ten as a band, asking, expected and least as marks.</summary>
internal static class PriceDrawing
{
    private const double Width = 620;
    private const double Left = 24;
    private const double Line = 62;

    /// <summary>Draws it.</summary>
    public static string Draw(PriceEstimate estimate, IReadOnlyList<PriceSeen> seen, Amount? breakEven)
    {
        List<double> all =
        [
            (double)estimate.Low.Value,
            (double)estimate.High.Value,
            .. seen.Select(s => (double)s.Price.Value),
            .. breakEven is { } even ? [(double)even.Value] : Array.Empty<double>(),
        ];
        var (from, to) = (all.Min() * 0.92, all.Max() * 1.05);
        double X(decimal value) => Left + ((double)value - from) / Math.Max(1e-9, to - from) * (Width - 2 * Left);
        var svg = new Svg(Width, 118, $"Prices: expected {estimate.Expected}, eight of ten between {estimate.Low} and {estimate.High}");
        svg.Box(X(estimate.Low.Value), Line - 14, X(estimate.High.Value) - X(estimate.Low.Value), 28, "price-band", 3);
        svg.Path(FormattableString.Invariant($"M{Left} {Line}H{Width - Left}"), "price-line");
        foreach (var one in seen)
            svg.Path(FormattableString.Invariant($"M{X(one.Price.Value):0.##} {Line - 9}v18"), one.Id is null ? "price-own" : "price-seen");
        foreach (var (amount, word) in ((Amount, string)[])[(estimate.Least, "least"), (estimate.Expected, "expect"), (estimate.Asking, "ask")])
        {
            svg.Path(FormattableString.Invariant($"M{X(amount.Value):0.##} {Line - 24}v24"), "price-mark");
            svg.Text(X(amount.Value), word == "expect" ? Line - 44 : Line - 28, word, "price-word");
        }

        if (breakEven is { } pays)
        {
            svg.Path(FormattableString.Invariant($"M{X(pays.Value):0.##} {Line}v26"), "price-even");
            svg.Text(X(pays.Value), Line + 40, "pays for itself", "price-word");
        }

        return svg.ToString();
    }
}
