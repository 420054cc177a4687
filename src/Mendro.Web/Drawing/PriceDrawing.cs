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
    /// <param name="estimate">Estimate.</param>
    /// <param name="grade">Condition of the unit: the prices of others are brought to it.</param>
    /// <param name="seen">Prices of others and own ones.</param>
    /// <param name="breakEven">Price at which it pays for itself, or null.</param>
    public static string Draw(PriceEstimate estimate, ConditionGrade grade, IReadOnlyList<PriceSeen> seen, Amount? breakEven)
    {
        var brought = seen.Select(s => (At: s.Price.Value * (decimal)(grade.Worth / s.Grade.Worth), Own: s.Id is null)).ToList();
        List<double> all =
        [
            (double)estimate.Low.Value,
            (double)estimate.High.Value,
            .. brought.Select(s => (double)s.At),
            .. breakEven is { } even ? [(double)even.Value] : Array.Empty<double>(),
        ];
        var (from, to) = (all.Min() * 0.92, all.Max() * 1.05);
        double X(decimal value) => Left + ((double)value - from) / Math.Max(1e-9, to - from) * (Width - 2 * Left);
        var svg = new Svg(Width, 118, $"Prices: expected {estimate.Expected}, eight of ten between {estimate.Low} and {estimate.High}");
        svg.Box(X(estimate.Low.Value), Line - 14, X(estimate.High.Value) - X(estimate.Low.Value), 28, "price-band", 3);
        svg.Path(FormattableString.Invariant($"M{Left} {Line}H{Width - Left}"), "price-line");
        foreach (var (at, own) in brought)
            svg.Path(FormattableString.Invariant($"M{X(at):0.##} {Line - 9}v18"), own ? "price-own" : "price-seen");
        foreach (var (amount, word) in ((Amount, string)[])[(estimate.Least, "least"), (estimate.Expected, "expect"), (estimate.Asking, "ask")])
        {
            svg.Path(FormattableString.Invariant($"M{X(amount.Value):0.##} {Line - 24}v24"), "price-mark");
            // Side by side they would run into each other: each stands on its own side.
            var (dx, dy, anchor) = word switch
            {
                "least" => (-4.0, -28.0, "end"),
                "ask" => (4.0, -28.0, "start"),
                _ => (0.0, -44.0, "middle"),
            };
            svg.Text(X(amount.Value) + dx, Line + dy, word, "price-word", anchor);
        }

        if (breakEven is { } pays)
        {
            svg.Path(FormattableString.Invariant($"M{X(pays.Value):0.##} {Line}v26"), "price-even");
            var at = X(pays.Value);
            svg.Text(at, Line + 40, "pays for itself", "price-word", at < Width / 4 ? "start" : at > Width * 3 / 4 ? "end" : "middle");
        }

        return svg.ToString();
    }
}
