using System.Globalization;
using System.Net;
using System.Text;
using Mendro.Core.Profiles;

namespace Mendro.Web.Drawing;

/// <summary>A board being drawn to scale: millimetres up from its left corner turned to millimetres down from the top; mirrored when it
/// lies on its face.</summary>
internal sealed class BoardCanvas
{
    private const double Margin = 3;

    private readonly StringBuilder _text = new();
    private readonly double _left;
    private readonly double _top;
    private readonly double _width;
    private readonly double _height;
    private readonly bool _mirrored;

    /// <summary>Begins.</summary>
    /// <param name="board">Board.</param>
    /// <param name="mirrored">True to show it from below.</param>
    /// <param name="letter">Size of letters, mm; null for one size on the page, whatever the size of the board.</param>
    /// <param name="smallest">Smallest letters, mm.</param>
    public BoardCanvas(Board board, bool mirrored = false, double? letter = null, double smallest = 1.1)
    {
        var (x0, x1) = (board.Outline.Min(p => p[0]), board.Outline.Max(p => p[0]));
        var (y0, y1) = (board.Outline.Min(p => p[1]), board.Outline.Max(p => p[1]));
        (_left, _top, _width, _height) = (x0 - Margin, y1 + Margin, x1 - x0 + 2 * Margin, y1 - y0 + 2 * Margin);
        _mirrored = mirrored;
        Letter = letter ?? Math.Round(Math.Clamp(_width / 60, smallest, 2.4), 2);
    }

    /// <summary>Size of letters, mm.</summary>
    public double Letter { get; }

    /// <summary>The board with its lines, height limits and parts.</summary>
    public void Ground(Board board, string side)
    {
        Polygon("rb-board", board.Outline);
        Group("bm-lines");
        foreach (var drawing in (board.Drawings ?? []).Where(d => d.Side == side))
        {
            foreach (var line in drawing.Lines)
                Line("rb-line", line);
            if (drawing is { Label: { } label, Lines: [var first, ..] })
                Text("rb-word", Start(first.Min(p => p[0]) + 0.7, first.Max(p => p[0]) - 0.7), first.Max(p => p[1]) - Letter, label, "start");
        }

        Close("g");
        Group("bm-limits");
        // A limit over the whole board is said once below, not across everything.
        foreach (var zone in (board.Zones ?? []).Where(z => !IsWhole(board, z) && (z.Side == "both" || z.Side == side)))
        {
            Polygon(zone.ClearanceMm <= 0 ? "rb-zone rb-none" : "rb-zone", zone.Polygon);
            if (zone.ClearanceMm <= 0)
                continue;
            var (x0, x1) = (zone.Polygon.Min(p => p[0]) + 0.6, zone.Polygon.Max(p => p[0]) - 0.6);
            var limit = zone.ClearanceMm.ToString("0.#", CultureInfo.InvariantCulture) + " mm";
            Text("rb-limit", Start(x0, x1), zone.Polygon.Max(p => p[1]) - Letter * 1.1, limit, "start");
        }

        Close("g");
        Group(side == "top" ? "bm-parts" : "bm-parts behind");
        foreach (var part in board.Parts ?? [])
        {
            Polygon("rb-part", part.Polygon);
            Text("rb-word", part.Polygon.Average(p => p[0]), part.Polygon.Average(p => p[1]) - Letter * 0.35, part.Refdes);
        }

        Close("g");
    }

    /// <summary>True for a limit over the whole board.</summary>
    public static bool IsWhole(Board board, BoardZone zone) =>
        zone.Polygon.Count == board.Outline.Count && zone.Polygon.Zip(board.Outline).All(z => z.First.SequenceEqual(z.Second));

    /// <summary>The drawing.</summary>
    /// <param name="css">Class.</param>
    /// <param name="name">What it shows.</param>
    /// <param name="linked">True when something in it is chosen by a link.</param>
    /// <param name="trueScale">True to make it as large as the board itself, for print.</param>
    public string Whole(string css, string name, bool linked, bool trueScale = false)
    {
        var size = trueScale ? FormattableString.Invariant($" width=\"{_width:0.##}mm\" height=\"{_height:0.##}mm\"") : "";
        return string.Create(
            CultureInfo.InvariantCulture,
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" class=\"{css}\" font-size=\"{Letter}\" viewBox=\"0 0 {_width:0.##} {_height:0.##}\"{size} "
                + $"role=\"{(linked ? "group" : "img")}\" aria-label=\"{WebUtility.HtmlEncode(name)}\">{_text}</svg>"
        );
    }

    /// <summary>Begins a link.</summary>
    public void Open(string href, string title, bool lit, string css = "") =>
        _text.Append(
            CultureInfo.InvariantCulture,
            $"<a href=\"{WebUtility.HtmlEncode(href)}\" aria-label=\"{WebUtility.HtmlEncode(title)}\"{(lit ? " aria-current=\"true\"" : "")}"
                + $"{(css.Length > 0 ? $" class=\"{css}\"" : "")}>"
        );

    /// <summary>Begins a group.</summary>
    public void Group(string css) => _text.Append(CultureInfo.InvariantCulture, $"<g class=\"{css}\">");

    /// <summary>Ends a link or a group.</summary>
    public void Close(string tag = "a") => _text.Append(CultureInfo.InvariantCulture, $"</{tag}>");

    public void Polygon(string css, IReadOnlyList<IReadOnlyList<double>> points) =>
        _text.Append(CultureInfo.InvariantCulture, $"<polygon class=\"{css}\" points=\"{Points(points)}\"/>");

    public void Line(string css, IReadOnlyList<IReadOnlyList<double>> points) =>
        _text.Append(CultureInfo.InvariantCulture, $"<polyline class=\"{css}\" points=\"{Points(points)}\"/>");

    /// <summary>Many straight pieces as one.</summary>
    public void Pieces(string css, IEnumerable<(double X1, double Y1, double X2, double Y2)> pieces)
    {
        var d = string.Concat(pieces.Select(p => $"M{X(p.X1)} {Y(p.Y1)}L{X(p.X2)} {Y(p.Y2)}"));
        if (d.Length > 0)
            _text.Append(CultureInfo.InvariantCulture, $"<path class=\"{css}\" d=\"{d}\"/>");
    }

    public void Dot(string css, double x, double y, double r) =>
        _text.Append(CultureInfo.InvariantCulture, $"<circle class=\"{css}\" cx=\"{X(x)}\" cy=\"{Y(y)}\" r=\"{r:0.##}\"/>");

    /// <summary>A square, upright or on its corner.</summary>
    public void Square(string css, double x, double y, double r, bool onCorner = false)
    {
        var d = onCorner
            ? $"M{X(x - r)} {Y(y)}L{X(x)} {Y(y + r)}L{X(x + r)} {Y(y)}L{X(x)} {Y(y - r)}Z"
            : $"M{X(x - r)} {Y(y - r)}L{X(x - r)} {Y(y + r)}L{X(x + r)} {Y(y + r)}L{X(x + r)} {Y(y - r)}Z";
        _text.Append(CultureInfo.InvariantCulture, $"<path class=\"{css}\" d=\"{d}\"/>");
    }

    /// <summary>The segment of a disc that is printed at its minus.</summary>
    public void Stripe(double x, double y, double r, double angle)
    {
        var (a, b) = (angle - 0.6, angle + 0.6);
        _text.Append(
            CultureInfo.InvariantCulture,
            $"<path class=\"rb-stripe-fill\" d=\"M{X(x + r * Math.Cos(a))} {Y(y + r * Math.Sin(a))}"
                + $"A{r:0.##} {r:0.##} 0 0 0 {X(x + r * Math.Cos(b))} {Y(y + r * Math.Sin(b))}Z\"/>"
        );
    }

    public void Plus(double x, double y) =>
        _text.Append(
            CultureInfo.InvariantCulture,
            $"<path class=\"rb-plus\" d=\"M{X(x - 0.7)} {Y(y)}H{X(x + 0.7)}M{X(x)} {Y(y - 0.7)}V{Y(y + 0.7)}\"/>"
        );

    public void Cross(double x, double y, double r, string css = "rb-cross") =>
        Pieces(css, [(x - r, y - r, x + r, y + r), (x - r, y + r, x + r, y - r)]);

    public void Text(string css, double x, double y, string words, string anchor = "middle") =>
        _text.Append(
            CultureInfo.InvariantCulture,
            $"<text class=\"{css}\" x=\"{X(x)}\" y=\"{Y(y)}\" text-anchor=\"{anchor}\">{WebUtility.HtmlEncode(words)}</text>"
        );

    /// <summary>Where a text begins that stands to the right of an edge, as it is seen.</summary>
    private double Start(double left, double right) => _mirrored ? right : left;

    private string Points(IReadOnlyList<IReadOnlyList<double>> points) => string.Join(' ', points.Select(p => $"{X(p[0])},{Y(p[1])}"));

    private string X(double x) => (_mirrored ? _width - (x - _left) : x - _left).ToString("0.##", CultureInfo.InvariantCulture);

    private string Y(double y) => (_top - y).ToString("0.##", CultureInfo.InvariantCulture);
}
