using System.Globalization;
using System.Net;
using System.Text;
using Mendro.Core.Profiles;

namespace Mendro.Web.Drawing;

/// <summary>
/// Draws where the screws of a model sit: a face each, every head by its shape, its length to scale beside it. Hidden ones have a
/// broken ring and say under what; holes that stay empty are crossed out; those that are out are pale.
/// </summary>
public static class ScrewMapSvg
{
    private const int Wide = 300;
    private const int High = 210;
    private const int Gap = 26;
    private const int Top = 24;
    private const double PixelsPerMm = 2.4;

    /// <summary>Draws the map.</summary>
    /// <param name="fasteners">Fasteners with a place.</param>
    /// <param name="out_">Ids of those that are out.</param>
    /// <param name="now">Ids of those that come out next.</param>
    public static string Draw(IReadOnlyList<Fastener> fasteners, IReadOnlySet<string> out_, IReadOnlySet<string> now)
    {
        var faces = fasteners.Where(f => f is { X: not null, Y: not null }).GroupBy(f => f.Face ?? "back").ToList();
        if (faces.Count == 0)
            return "";
        var columns = Math.Min(2, faces.Count);
        var rows = (faces.Count + columns - 1) / columns;
        var (width, height) = (columns * (Wide + Gap) - Gap, rows * (High + Top + Gap) - Gap);
        var svg = new StringBuilder();
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<svg class=\"screws\" viewBox=\"0 0 {width} {height}\" role=\"img\" aria-label=\"{Told(fasteners, out_)}\">"
        );
        for (var n = 0; n < faces.Count; n++)
        {
            var (x, y) = (n % columns * (Wide + Gap), n / columns * (High + Top + Gap));
            svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"translate({x} {y})\"><text class=\"face\" x=\"2\" y=\"15\">");
            svg.Append(WebUtility.HtmlEncode(faces[n].Key)).Append("</text>");
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<rect class=\"outline\" x=\"1\" y=\"{Top}\" width=\"{Wide - 2}\" height=\"{High - 2}\" rx=\"16\"/>"
            );
            foreach (var fastener in faces[n])
                Screw(svg, fastener, out_.Contains(fastener.Id), now.Contains(fastener.Id));
            svg.Append("</g>");
        }

        return svg.Append("</svg>").ToString();
    }

    private static void Screw(StringBuilder svg, Fastener fastener, bool isOut, bool isNow)
    {
        // A margin, so that heads and words stay on the face.
        var x = 26 + fastener.X!.Value / 100 * (Wide - 52);
        var y = Top + 24 + fastener.Y!.Value / 100 * (High - 60);
        var kind =
            fastener.NoScrew ? "hole"
            : isOut ? "out"
            : isNow ? "now"
            : "in";
        svg.Append(CultureInfo.InvariantCulture, $"<g class=\"screw {kind}\" transform=\"translate({x:0.#} {y:0.#})\">");
        if (fastener.Under is not null)
            svg.Append("<circle class=\"cover\" r=\"15\"/>");
        svg.Append("<circle class=\"head\" r=\"10\"/>").Append(Shape(fastener));
        // To scale, away from the edge that is near.
        if (fastener.LengthMm is { } mm)
        {
            var away = fastener.X > 50 ? -1 : 1;
            var (from, to) = (away * 14.0, away * (14 + mm * PixelsPerMm));
            svg.Append(CultureInfo.InvariantCulture, $"<line class=\"shank\" x1=\"{from:0.#}\" y1=\"0\" x2=\"{to:0.#}\" y2=\"0\"/>");
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<text class=\"mm\" x=\"{to + away * 4:0.#}\" y=\"4\" text-anchor=\"{(away > 0 ? "start" : "end")}\">{mm:0.#}</text>"
            );
        }

        svg.Append(CultureInfo.InvariantCulture, $"<text class=\"id\" y=\"26\" text-anchor=\"middle\">");
        svg.Append(WebUtility.HtmlEncode(fastener.Under is { } under ? $"{fastener.Id}, under {under}" : fastener.Id))
            .Append("</text></g>");
    }

    private static string Shape(Fastener fastener) =>
        fastener switch
        {
            { NoScrew: true } => "<path d=\"M-7 -7 L7 7 M7 -7 L-7 7\"/>",
            { Head: "cross" } => "<path d=\"M-6 0 H6 M0 -6 V6\"/>",
            { Head: "slot" } => "<path d=\"M-6 0 H6\"/>",
            { Head: "tri-wing" } => "<path d=\"M0 0 V-6.5 M0 0 L5.6 3.3 M0 0 L-5.6 3.3\"/>",
            { Head: "six-lobe" } =>
                "<path d=\"M0 -6 L1.8 -3.1 5.2 -3 3.6 0 5.2 3 1.8 3.1 0 6 -1.8 3.1 -5.2 3 -3.6 0 -5.2 -3 -1.8 -3.1 Z\"/>",
            { Head: "security" } => "<circle r=\"5.5\" class=\"socket\"/><circle r=\"1.6\" class=\"pin\"/>",
            { Head: "hex" } => "<path d=\"M0 -6 L5.2 -3 5.2 3 0 6 -5.2 3 -5.2 -3 Z\"/>",
            { Driver: null } => "<path d=\"M-5 -3 H5 V3 H-5 Z\"/>",
            _ => "<circle r=\"3\"/>",
        };

    private static string Told(IReadOnlyList<Fastener> fasteners, IReadOnlySet<string> out_) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"Screw map: {fasteners.Count(f => !f.NoScrew)} fasteners, {fasteners.Count(f => out_.Contains(f.Id) && !f.NoScrew)} of them out"
        );
}
