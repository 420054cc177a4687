using System.Globalization;
using System.Net;
using System.Text;
using Mendro.Core.Pictures;
using Mendro.Storage;

namespace Mendro.Web.Drawing;

/// <summary>A picture with its marks drawn over it; the picture itself is never changed.</summary>
internal static class PictureDrawing
{
    /// <summary>Draws it.</summary>
    /// <param name="picture">Picture.</param>
    /// <param name="id">Id of the element, for the script that takes taps; null for none.</param>
    public static string Draw(UnitPicture picture, string? id = null)
    {
        var (w, h) = ((double)picture.Width, (double)picture.Height);
        // Marks are as large on a small picture as on a large one.
        var unit = Math.Max(w, h) / 100;
        var svg = new StringBuilder();
        var name = picture.Caption.Length > 0 ? picture.Caption : "Picture";
        var marks = picture.Drawn;
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<svg class=\"picture\"{(id is null ? "" : $" id=\"{id}\"")} viewBox=\"0 0 {w:0} {h:0}\" role=\"img\" aria-label=\"{Encode(name)}\">"
                + $"<image href=\"/Pictures/{picture.Hash}\" width=\"{w:0}\" height=\"{h:0}\"/>"
        );
        var number = 0;
        foreach (var mark in marks)
            svg.Append(One(mark, w, h, unit, mark.Shape == MarkShape.Number ? ++number : 0));
        return svg.Append("</svg>").ToString();
    }

    private static string One(PictureMark mark, double w, double h, double unit, int number)
    {
        var (x, y) = (mark.X * w, mark.Y * h);
        return mark.Shape switch
        {
            MarkShape.Ring => Both($"<circle cx=\"{N(x)}\" cy=\"{N(y)}\" r=\"{N(4 * unit)}\"", unit) + Words(mark.Text, x, y - 5 * unit, unit, w),
            MarkShape.Arrow => Arrow(mark, x, y, w, h, unit),
            MarkShape.Number => $"<circle class=\"pm-fill\" cx=\"{N(x)}\" cy=\"{N(y)}\" r=\"{N(2.4 * unit)}\"/>"
                + $"<text class=\"pm-number\" x=\"{N(x)}\" y=\"{N(y + unit)}\" font-size=\"{N(3 * unit)}\">{number}</text>"
                + Words(mark.Text, x, y - 3.4 * unit, unit, w),
            _ => Words(mark.Text, x, y, unit, w),
        };
    }

    private static string Arrow(PictureMark mark, double x, double y, double w, double h, double unit)
    {
        // From the side with more room, unless it was said.
        var fx = mark.FromX * w ?? x + (x < w / 2 ? 12 : -12) * unit;
        var fy = mark.FromY * h ?? y + (y < h / 2 ? 9 : -9) * unit;
        var length = Math.Max(1e-6, Math.Sqrt((x - fx) * (x - fx) + (y - fy) * (y - fy)));
        var (ux, uy) = ((x - fx) / length, (y - fy) / length);
        var (bx, by) = (x - ux * 3 * unit, y - uy * 3 * unit);
        var head =
            $"M{N(x)} {N(y)}L{N(bx - uy * 1.6 * unit)} {N(by + ux * 1.6 * unit)}M{N(x)} {N(y)}L{N(bx + uy * 1.6 * unit)} {N(by - ux * 1.6 * unit)}";
        return Both($"<path d=\"M{N(fx)} {N(fy)}L{N(x)} {N(y)}{head}\"", unit) + Words(mark.Text, fx, fy - unit, unit, w);
    }

    // Light under dark, so that a mark is seen on any ground.
    private static string Both(string shape, double unit) =>
        $"{shape} class=\"pm-under\" stroke-width=\"{N(1.1 * unit)}\"/>{shape} class=\"pm-line\" stroke-width=\"{N(0.6 * unit)}\"/>";

    private static string Words(string text, double x, double y, double unit, double w) =>
        text.Length == 0
            ? ""
            : $"<text class=\"pm-words\" x=\"{N(x)}\" y=\"{N(Math.Max(3.2 * unit, y))}\" font-size=\"{N(3 * unit)}\" stroke-width=\"{N(0.9 * unit)}\""
                + $" text-anchor=\"{(x < w * 0.2 ? "start" : x > w * 0.8 ? "end" : "middle")}\">{Encode(text)}</text>";

    private static string N(double value) => value.ToString("0.#", CultureInfo.InvariantCulture);

    private static string Encode(string text) => WebUtility.HtmlEncode(text);
}
