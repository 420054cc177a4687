using System.Globalization;
using System.Xml.Linq;

namespace Mendro.Web.Drawing;

/// <content>The pieces the map is drawn of.</content>
public static partial class PathMapSvg
{
    private static void Label(XElement group, double x, double y, string name, string below)
    {
        if (below.Length > 0)
            group.Add(Text(x, y + 41, below, "below"));
        if (name.Length <= LongestName)
        {
            group.Add(Text(x, y + 24, name, "name"));
            return;
        }

        // Two lines, broken at the space nearest the middle; what does not fit is in the title.
        var at = name.Select((c, i) => (c, i))
            .Where(p => p.c == ' ')
            .Select(p => p.i)
            .OrderBy(i => Math.Abs(i - name.Length / 2))
            .FirstOrDefault(-1);
        var (first, second) = at > 0 ? (name[..at], name[(at + 1)..]) : (name[..LongestName] + "-", name[LongestName..]);
        group.Add(Text(x, y + 17, Cut(first, LongestName + 2), "name tight"));
        group.Add(Text(x, y + 29, Cut(second, LongestName + 2), "name tight"));
    }

    private static string Cut(string text, int length) => text.Length <= length ? text : text[..(length - 1)] + "…";

    private static void Mark(XElement group, double x, double y, bool? good)
    {
        if (good is not { } isGood)
            return;
        var way = isGood
            ? string.Create(CultureInfo.InvariantCulture, $"M{x - 6:0.#} {y:0.#}l4 5l8 -9")
            : string.Create(CultureInfo.InvariantCulture, $"M{x - 5:0.#} {y - 5:0.#}l9 9m0 -9l-9 9");
        group.Add(Element("path", ("class", "mark"), ("d", way)));
    }

    /// <summary>A named group: its title is what a screen reader says and what shows under the pointer.</summary>
    private static XElement Group(string? url, string css, string id, string name)
    {
        var group = url is null
            ? Element("g", ("class", css), ("data-id", id), ("role", "img"))
            : Element("a", ("class", css), ("data-id", id), ("href", url));
        group.Add(Element("title", name));
        return group;
    }

    private static XElement Rect(double x, double y, double width, double height, double radius, string css) =>
        Element("rect", ("class", css), ("x", N(x)), ("y", N(y)), ("width", N(width)), ("height", N(height)), ("rx", N(radius)));

    private static XElement Circle(double x, double y, double radius, string css) =>
        Element("circle", ("class", css), ("cx", N(x)), ("cy", N(y)), ("r", N(radius)));

    private static XElement Text(double x, double y, string words, string css, string anchor = "start")
    {
        var text = Element("text", ("class", css), ("x", N(x)), ("y", N(y)), ("text-anchor", anchor));
        text.Value = words;
        // Inside a named group the title says it all; read twice it would only be noise.
        if (css != "stretch-words")
            text.SetAttributeValue("aria-hidden", "true");
        return text;
    }

    private static XElement Element(string name, string text) => new(Svg + name, text);

    private static XElement Element(string name, params (string Name, string Value)[] attributes) =>
        new(Svg + name, attributes.Select(a => new XAttribute(a.Name, a.Value)));

    private static string N(double value) => value.ToString("0.#", CultureInfo.InvariantCulture);

    private static string Percent(double share) => string.Create(CultureInfo.InvariantCulture, $"{share * 100:0} %");
}
