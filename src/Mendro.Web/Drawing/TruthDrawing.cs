using Mendro.Core.Offers;

namespace Mendro.Web.Drawing;

/// <summary>Chances given against what came true: on the slanted line they are right.</summary>
internal static class TruthDrawing
{
    private const double Size = 210;
    private const double Edge = 26;

    /// <summary>Draws it.</summary>
    public static string Draw(string what, Calibration truth)
    {
        double X(double share) => Edge + share * (Size - 2 * Edge);
        double Y(double share) => Size - Edge - share * (Size - 2 * Edge);
        var svg = new Svg(Size + 90, Size, $"{what}: said against came true, {truth.Count} cases");
        svg.Path(FormattableString.Invariant($"M{X(0)} {Y(0)}L{X(1)} {Y(1)}"), "price-line");
        svg.Path(FormattableString.Invariant($"M{X(0)} {Y(1)}V{Y(0)}H{X(1)}"), "truth-axis");
        foreach (var group in truth.Groups)
        {
            var style = group.IsOff ? "truth-off" : "truth-on";
            svg.Path(FormattableString.Invariant($"M{X(group.Said):0.##} {Y(group.Came.Low):0.##}V{Y(group.Came.High):0.##}"), style);
            svg.Text(X(group.Said), Y(group.Came.Share) + 4, group.IsOff ? "✕" : "●", style + "-mark", "middle");
        }

        svg.Text(X(0), Size - 8, "said 0", "price-word", "start");
        svg.Text(X(1), Size - 8, "100 %", "price-word", "end");
        svg.Text(X(1) + 6, Y(1) + 4, "came true", "price-word", "start");
        return svg.ToString();
    }
}
