using System.Globalization;
using System.Net;
using System.Text;

namespace Mendro.Web.Drawing;

/// <summary>A small SVG being written; coordinates in user units, texts encoded.</summary>
internal sealed class Svg(double width, double height, string title, string role = "img")
{
    private readonly StringBuilder _body = new();

    /// <summary>A line through points, or a path as it stands.</summary>
    public Svg Path(string d, string css = "cd")
    {
        _body.Append(CultureInfo.InvariantCulture, $"<path class=\"{css}\" d=\"{d}\"/>");
        return this;
    }

    /// <summary>A rectangle.</summary>
    public Svg Box(double x, double y, double w, double h, string css = "cd", double radius = 0, string? fill = null)
    {
        var paint = fill is null ? "" : $" fill=\"{WebUtility.HtmlEncode(fill)}\"";
        _body.Append(
            CultureInfo.InvariantCulture,
            $"<rect class=\"{css}\" x=\"{x:0.##}\" y=\"{y:0.##}\" width=\"{Math.Max(0, w):0.##}\" "
                + $"height=\"{Math.Max(0, h):0.##}\" rx=\"{radius:0.##}\"{paint}/>"
        );
        return this;
    }

    /// <summary>A circle.</summary>
    public Svg Dot(double x, double y, double r, string css = "cd")
    {
        _body.Append(CultureInfo.InvariantCulture, $"<circle class=\"{css}\" cx=\"{x:0.##}\" cy=\"{y:0.##}\" r=\"{r:0.##}\"/>");
        return this;
    }

    /// <summary>A text.</summary>
    public Svg Text(double x, double y, string words, string css = "", string anchor = "middle")
    {
        _body.Append(
            CultureInfo.InvariantCulture,
            $"<text class=\"{css}\" x=\"{x:0.##}\" y=\"{y:0.##}\" text-anchor=\"{anchor}\">{WebUtility.HtmlEncode(words)}</text>"
        );
        return this;
    }

    /// <summary>Markup that is encoded already.</summary>
    public Svg Raw(string markup)
    {
        _body.Append(markup);
        return this;
    }

    /// <summary>The markup.</summary>
    public override string ToString() =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"<svg viewBox=\"0 0 {width:0.##} {height:0.##}\" role=\"{role}\" aria-label=\"{WebUtility.HtmlEncode(title)}\">{_body}</svg>"
        );

    /// <summary>A number for a path.</summary>
    public static string At(double value) => value.ToString("0.##", CultureInfo.InvariantCulture);
}
