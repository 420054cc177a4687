using System.Globalization;
using Mendro.Core.Boards;
using Mendro.Core.Profiles;
using Mendro.Shop;

namespace Mendro.Web.Drawing;

/// <summary>What a board map shows beside the board.</summary>
/// <param name="Lit">Net that is lit, or null.</param>
/// <param name="At">Key of the chosen point, or null.</param>
/// <param name="Wires">Wires still to be soldered, in their order.</param>
/// <param name="Now">The wire that is next, or null.</param>
/// <param name="Link">Address that lights a net, and chooses one of its points when one is told; null to draw without links.</param>
internal sealed record BoardMapView(
    TraceNet? Lit,
    string? At,
    IReadOnlyList<PlannedWire> Wires,
    PlannedWire? Now,
    Func<string, string?, string>? Link
);

/// <summary>
/// The copper of a board from one side: every net thin, one lit; points by shape (pad square, leg and pin round, via a ring, test point on
/// its corner); stretches that beeped solid with a tick, suspects dashed with their share, broken ones crossed; wires over it.
/// </summary>
internal static class BoardMapDrawing
{
    /// <summary>Draws it.</summary>
    /// <param name="sheet">Traces.</param>
    /// <param name="board">Board.</param>
    /// <param name="side">top, or bottom: mirrored, as it lies when turned over.</param>
    /// <param name="view">What is shown.</param>
    /// <param name="trueScale">True for print, as large as the board.</param>
    public static string Draw(TraceSheet sheet, Board board, string side, BoardMapView view, bool trueScale = false)
    {
        var svg = new BoardCanvas(board, side == "bottom", trueScale ? 1.6 : null, 0.4);
        svg.Ground(board, side);
        svg.Group("bm-nets");
        foreach (var net in sheet.Nets.Where(n => n != view.Lit && n.Net.Points.Any(p => p.Board.Id == board.Id)))
            Faint(svg, board, side, net, view.Link);
        svg.Close("g");
        foreach (var crack in sheet.Cracks.Where(c => c.Board == board.Id))
            svg.Line("bm-crack", crack.Line);
        if (view.Lit is { } lit)
            Bright(svg, sheet, board, side, lit, view);
        svg.Group("bm-wires");
        for (var n = 0; n < sheet.Wires.Count; n++)
            if (sheet.Wires[n] is var wire && wire.From.StartsWith(board.Id + "/", StringComparison.Ordinal))
                Wire(svg, wire.Path, $"bm-wire in wire-{Colour(n)}{(wire.Side == side ? "" : " behind")}{(wire.ToBeep ? " warmed" : "")}", "");
        for (var n = 0; n < view.Wires.Count; n++)
        {
            var planned = view.Wires[n];
            if (planned.Wire.Layer.Board != board.Id)
                continue;
            var css = $"bm-wire wire-{Colour(sheet.Wires.Count + n)}{(planned.Wire.Layer.Side == side ? "" : " behind")}"
                + (planned == view.Now ? " now" : "");
            Wire(svg, planned.Wire.Path.Select(p => (IReadOnlyList<double>)[p.X, p.Y]).ToList(), css, $"{n + 1}");
        }

        svg.Close("g");
        return svg.Whole(
            trueScale ? "rb bm" : "map rb bm",
            $"{board.Name} from {(side == "bottom" ? "below, turned over left to right" : "above")}",
            view.Link is not null,
            trueScale
        );
    }

    /// <summary>Number of the colour of a wire: one colour a wire, as far as there are colours.</summary>
    public static int Colour(int wire) => wire % Colours.Count;

    /// <summary>Colours of wires, by name.</summary>
    public static IReadOnlyList<string> Colours { get; } = ["red", "blue", "yellow", "green", "violet", "orange", "white", "brown"];

    private static void Wire(BoardCanvas svg, IReadOnlyList<IReadOnlyList<double>> path, string css, string number)
    {
        if (path.Count == 0)
            return;
        svg.Line("bm-halo", path);
        svg.Line(css, path);
        var r = svg.Letter * 0.34;
        svg.Dot("bm-joint", path[0][0], path[0][1], r);
        svg.Dot("bm-joint", path[^1][0], path[^1][1], r);
        if (number.Length == 0)
            return;
        var middle = path[path.Count / 2];
        var before = path[path.Count / 2 - 1];
        svg.Text("bm-number", (middle[0] + before[0]) / 2, (middle[1] + before[1]) / 2 + svg.Letter * 0.4, number);
    }

    private static void Faint(BoardCanvas svg, Board board, string side, TraceNet net, Func<string, string?, string>? link)
    {
        var state = net.State switch
        {
            NetState.Sound => "sound",
            NetState.Open or NetState.Broken => "broken",
            NetState.Bridged => "bridged",
            _ => "",
        };
        if (link is not null)
            svg.Open(link(net.Net.Id, null), $"{net.Net.Name}, {StateWord(net)}", false, "bm-net " + state);
        svg.Pieces("bm-copper", Stretches(board, net).Select(s => (s.A.X, s.A.Y, s.B.X, s.B.Y)));
        var r = svg.Letter * 0.24;
        foreach (var point in net.Net.Points.Where(p => p.Board.Id == board.Id))
            Shape(svg, point, side, r, "bm-point");
        if (link is not null)
            svg.Close();
    }

    private static void Bright(BoardCanvas svg, TraceSheet sheet, Board board, string side, TraceNet net, BoardMapView view)
    {
        var shares = net.Search.Suspects.ToDictionary(s => (s.A, s.B), s => s.P);
        var letter = svg.Letter;
        foreach (var (stretch, a, b) in Stretches(board, net))
        {
            var share = shares.GetValueOrDefault((stretch.A, stretch.B));
            var broken = net.Search.Broken.Contains(stretch);
            var css =
                broken ? "bm-lit broken"
                : share > 0 ? "bm-lit suspect"
                : net.Search.Cleared.Contains(stretch) ? "bm-lit clear"
                : "bm-lit";
            svg.Pieces(css + (stretch.IsGuess ? " guess" : ""), [(a.X, a.Y, b.X, b.Y)]);
            var (x, y) = ((a.X + b.X) / 2, (a.Y + b.Y) / 2);
            if (broken)
                svg.Cross(x, y, letter * 0.5, "bm-broken");
            else if (share >= 0.005 && net.State == NetState.Open)
                svg.Text("bm-share", x, y + letter * 0.3, share.ToString("0 %", CultureInfo.InvariantCulture));
        }

        var next = net.Next;
        foreach (var point in net.Net.Points.Where(p => p.Board.Id == board.Id))
        {
            var tip = next is not null && (point.Key == next.A || point.Key == next.B);
            if (view.Link is { } link)
                svg.Open(link(net.Net.Id, point.Key), PointWords(sheet, point) + (tip ? ", tip here" : ""), point.Key == view.At, "bm-spot");
            Shape(svg, point, side, letter * 0.42, $"bm-point lit{(tip ? " tip" : "")}{(point.Key == view.At ? " at" : "")}");
            if (!sheet.CanReach(point))
                svg.Dot("bm-hidden", point.Point.X, point.Point.Y, letter * 0.8);
            if (point.IsOff)
                svg.Cross(point.Point.X, point.Point.Y, letter * 0.45, "bm-broken");
            else if (point.State == "corroded")
                svg.Dot("bm-crust", point.Point.X, point.Point.Y, letter * 0.7);
            svg.Text(tip ? "bm-id tip" : "bm-id", point.Point.X, point.Point.Y - letter * 1.25, point.Point.Id);
            if (view.Link is not null)
                svg.Close();
        }
    }

    private static void Shape(BoardCanvas svg, PlacedPoint point, string side, double r, string css)
    {
        var shown = point.Point.Side == "both" || point.Point.Side == side ? css : css + " behind";
        switch (point.Point.Kind)
        {
            case "pad" or "edge":
                svg.Square(shown, point.Point.X, point.Point.Y, r);
                break;
            case "test":
                svg.Square(shown, point.Point.X, point.Point.Y, r * 1.2, onCorner: true);
                break;
            case "via":
                svg.Dot(shown + " via", point.Point.X, point.Point.Y, r * 0.9);
                break;
            default:
                svg.Dot(shown, point.Point.X, point.Point.Y, r);
                break;
        }
    }

    private static IEnumerable<(NetStretch Stretch, BoardPoint A, BoardPoint B)> Stretches(Board board, TraceNet net) =>
        net.Net.Stretches.Where(s => !s.IsJoint && net.Net.ByKey[s.A].Board.Id == board.Id)
            .Select(s => (s, net.Net.ByKey[s.A].At, net.Net.ByKey[s.B].At));

    /// <summary>Where a net stands, in words.</summary>
    public static string StateWord(TraceNet net) =>
        net.State switch
        {
            NetState.Open => "broken, being enclosed",
            NetState.Broken => "broken",
            NetState.Bridged => net.Proof.Count > 0 ? "bridged, to be tested" : "bridged and tested",
            NetState.Sound => "sound",
            NetState.Partly => "beeps so far",
            _ => net.IsMarked ? "marked, not tested" : "not tested",
        };

    /// <summary>A point in words.</summary>
    public static string PointWords(TraceSheet sheet, PlacedPoint point)
    {
        var kind = point.Point.Kind switch
        {
            "test" => "test point",
            var told => told,
        };
        return sheet.Name(point.Key)
            + $", {kind}"
            + (point.Point.Part is { } part ? $" of {part}" : "")
            + (point.Point.Side == "both" ? "" : $", {point.Point.Side} side")
            + (point.State == "sound" ? "" : $", {point.State}")
            + (point.Point.Under is { } under ? sheet.CanReach(point) ? $", under {under} once that is back" : $", hidden under {under}" : "");
    }
}
