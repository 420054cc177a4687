using System.Globalization;
using Mendro.Core.Boards;
using Mendro.Core.Capacitors;
using Mendro.Core.Profiles;
using Mendro.Shop;

namespace Mendro.Web.Drawing;

/// <summary>A board to scale with its capacitors as they will sit: stripe at the minus, a plus beside the plus.</summary>
public static class RecapDrawing
{
    /// <summary>The board from above.</summary>
    /// <param name="sheet">The job.</param>
    /// <param name="board">Board.</param>
    /// <param name="selected">Key of the chosen position, or null.</param>
    /// <param name="link">Address for a position; null to draw it without links.</param>
    /// <param name="trueScale">True to make it as large as the board itself, for print.</param>
    public static string Above(RecapSheet sheet, Board board, string? selected, Func<string, string>? link, bool trueScale = false)
    {
        // Letters of one size on the page, whatever the size of the board.
        var svg = new BoardCanvas(board, letter: trueScale ? 2.2 : null);
        svg.Ground(board, "top");
        foreach (var line in sheet.Lines.Where(l => l.Position.Board.Id == board.Id))
            Capacitor(svg, board, line, line.Position.Key == selected, link);
        return svg.Whole("rb", $"{board.Name} from above, to scale", link is not null, trueScale);
    }

    /// <summary>From the side: the top of each new part against what is allowed there.</summary>
    public static string Heights(RecapSheet sheet, Board board, string? selected)
    {
        var lines = sheet
            .Renewed.Where(l => l.Position.Board.Id == board.Id && l.Placed is not null)
            .OrderBy(l => l.Position.Capacitor.Pads!.Plus[0])
            .ToList();
        if (lines.Count == 0)
            return "";
        double Limit(RecapLine line) =>
            BoardClearance.Over(board, line.Placed!.Body.Select(p => new BoardPoint(p[0], p[1])).ToList());
        var most = Math.Max(6, lines.Max(l => Math.Max(l.Placed!.Top, double.IsPositiveInfinity(Limit(l)) ? 0 : Limit(l))));
        var (step, high) = (16.0, 70.0);
        var svg = new Svg(lines.Count * step + 34, high + 22, $"{board.Name} from the side: tops against limits");
        svg.Path($"M26 {Svg.At(high)}H{Svg.At(lines.Count * step + 32)}", "rs-ground");
        for (var mm = 0; mm <= most; mm += most > 14 ? 10 : 4)
            svg.Text(22, high - mm / most * (high - 10) + 3, $"{mm}", "rs-axis", "end");
        for (var n = 0; n < lines.Count; n++)
        {
            var (line, x) = (lines[n], 28 + n * step);
            var h = line.Placed!.Top / most * (high - 10);
            var css = line.Position.Key == selected ? "rs-bar lit" : line.Placed.Pose == FitPose.Lying ? "rs-bar lying" : "rs-bar";
            svg.Box(x + 2, high - h, step - 4, h, css, 1);
            if (Limit(line) is var limit and < 1000)
                svg.Path($"M{Svg.At(x)} {Svg.At(high - limit / most * (high - 10))}h{Svg.At(step)}", "rs-limit");
            svg.Text(x + step / 2, high + 9 + (n % 2) * 8, line.Position.Capacitor.Refdes, "rs-name");
        }

        return svg.ToString();
    }

    private static void Capacitor(BoardCanvas svg, Board board, RecapLine line, bool lit, Func<string, string>? link)
    {
        if (line.Position.Capacitor.Pads is not { } pads)
            return;
        var refdes = line.Position.Capacitor.Refdes;
        var state = !line.Renewed ? "stays"
            : line.IsIn ? "in"
            : line.Unplaced is not null ? "out"
            : line.Placed is null ? "open"
            : "planned";
        if (link is not null)
            svg.Open(link(line.Position.Key), $"{refdes}, {Words(line)}", lit);
        var css = $"rb-cap rb-{state}{(lit ? " lit" : "")}";
        svg.Dot("rb-pad", pads.Plus[0], pads.Plus[1], 0.6);
        svg.Dot("rb-pad", pads.Minus[0], pads.Minus[1], 0.6);
        var (mx, my) = ((pads.Plus[0] + pads.Minus[0]) / 2, (pads.Plus[1] + pads.Minus[1]) / 2);
        var below = Math.Max(1.8, (line.Position.Capacitor.DiameterMm ?? 4) / 2);
        var (tx, ty) = (mx, my - below - svg.Letter * 0.9);
        if (line is { Renewed: true, Placed: { } placed })
        {
            if (placed.Pose == FitPose.Upright)
            {
                var r = (placed.Body.Max(p => p[0]) - placed.Body.Min(p => p[0])) / 2;
                svg.Dot(css, mx, my, r);
                ty = my - r - svg.Letter * 0.9;
                if (line.Position.Capacitor.Polar)
                    svg.Stripe(mx, my, r, Math.Atan2(pads.Minus[1] - my, pads.Minus[0] - mx));
            }
            else
            {
                if (line.Part is { } part && LeadPath.Of(board, line.Position.Capacitor, placed, part.DiameterMm) is { } legs)
                {
                    foreach (var (pad, can) in ((BoardPoint, BoardPoint)[])[legs.Plus, legs.Minus])
                        svg.Line(legs.WantsSleeves ? "rb-leg sleeved" : "rb-leg", [[pad.X, pad.Y], [can.X, can.Y]]);
                    svg.Polygon(css, placed.Body);
                    if (line.Position.Capacitor.Polar)
                        svg.Line("rb-stripe", Edge(placed, legs));
                }
                else
                    svg.Polygon(css, placed.Body);
                (tx, ty) = (placed.Body.Average(p => p[0]), placed.Body.Average(p => p[1]) - svg.Letter * 0.35);
            }
        }
        else
            svg.Dot(css, mx, my, below);
        if (line.Position.Capacitor.Polar)
        {
            var (dx, dy) = (pads.Plus[0] - mx, pads.Plus[1] - my);
            var far = Math.Max(0.1, Math.Sqrt(dx * dx + dy * dy));
            svg.Plus(pads.Plus[0] + dx / far * 1.3, pads.Plus[1] + dy / far * 1.3);
        }

        if (line.Unplaced is not null && line.Renewed)
            svg.Cross(mx, my, 2);
        svg.Text(lit ? "rb-ref lit" : "rb-ref", tx, ty, refdes);
        if (link is not null)
            svg.Close();
    }

    /// <summary>The long edge of a lying can that lies on the side of its minus leg.</summary>
    private static IReadOnlyList<IReadOnlyList<double>> Edge(FitPlacement placed, LeadPath legs)
    {
        var b = placed.Body;
        double Far(IReadOnlyList<double> p) => legs.Minus.Can.To(new BoardPoint(p[0], p[1]));
        // Corners in turn: lead end low, far low, far high, lead end high.
        return Far(b[0]) < Far(b[3]) ? [In(b[0], b[3]), In(b[1], b[2])] : [In(b[3], b[0]), In(b[2], b[1])];
    }

    private static double[] In(IReadOnlyList<double> edge, IReadOnlyList<double> other) =>
        [edge[0] + (other[0] - edge[0]) * 0.12, edge[1] + (other[1] - edge[1]) * 0.12];

    /// <summary>Where a position stands, in words.</summary>
    public static string Words(RecapLine line) =>
        !line.Renewed ? "stays in"
        : line.IsIn ? "new one is in"
        : line.Unplaced is { } lost ? $"does not fit: {lost.Reason}"
        : line.Placed is not { } placed ? "not placed yet"
        : placed.Pose == FitPose.Upright ? FormattableString.Invariant($"upright, {placed.Top:0.#} mm high")
        : FormattableString.Invariant($"lying {Toward(placed.Angle)}, {placed.Top:0.#} mm high, bend {placed.DistanceMm:0.#} mm from the pads");

    /// <summary>A direction in words, with its degrees: 0 is to the right, counterclockwise.</summary>
    public static string Toward(double angle)
    {
        string[] ways = [
            "to the right",
            "to the upper right",
            "upward",
            "to the upper left",
            "to the left",
            "to the lower left",
            "downward",
            "to the lower right",
        ];
        var way = ways[(int)Math.Round(angle / 45) % ways.Length];
        return angle % 45 == 0 ? way : FormattableString.Invariant($"{way}, {angle:0}°");
    }
}
