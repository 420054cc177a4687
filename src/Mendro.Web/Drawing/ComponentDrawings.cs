using Mendro.Core.Electrical;
using static Mendro.Web.Drawing.Svg;

namespace Mendro.Web.Drawing;

/// <summary>Resistors, capacitors, dividers.</summary>
internal static class ComponentDrawings
{
    // Paint of a band; the name stands beside it, so that nobody has to tell the colours apart.
    private static readonly Dictionary<string, string> Paint = new()
    {
        ["black"] = "#1b1b1b",
        ["brown"] = "#7a4a21",
        ["red"] = "#c0271c",
        ["orange"] = "#e07a1f",
        ["yellow"] = "#e8cf2a",
        ["green"] = "#2f7d3b",
        ["blue"] = "#2457a8",
        ["violet"] = "#7c3f98",
        ["grey"] = "#8d8d8d",
        ["white"] = "#fafafa",
        ["gold"] = "#b8923a",
        ["silver"] = "#b9bdc0",
        ["pink"] = "#e79ab0",
    };

    /// <summary>Colours a band may be painted in, in the order of their figures.</summary>
    public static IEnumerable<string> Colours => ResistorBands.AllColours.Where(Paint.ContainsKey);

    /// <summary>A small patch of a colour, to stand beside its name.</summary>
    public static string Swatch(string colour) =>
        $"<svg viewBox=\"0 0 12 16\" width=\"12\" height=\"16\" aria-hidden=\"true\"><rect class=\"cd thin\" x=\"1\" y=\"1\" "
        + $"width=\"10\" height=\"14\" fill=\"{Paint[colour]}\"/></svg>";

    /// <summary>A resistor with its bands and their names.</summary>
    public static string Bands(IReadOnlyList<string> bands, string ohms)
    {
        var read = ResistorBands.Read(bands);
        var colours = read.Value?.Colours ?? [];
        var svg = new Svg(560, 130, $"Resistor, {string.Join(", ", colours)}: {ohms}");
        svg.Path("M10 50H110M450 50H550").Box(110, 22, 340, 56, "cd body", 16);
        for (var n = 0; n < colours.Count; n++)
        {
            // The tolerance band stands apart, as on the part itself.
            var last = colours.Count > 3 && n >= (colours.Count >= 5 ? 4 : 3);
            var x = 140 + n * 46 + (last ? 40 : 0);
            if (Paint.TryGetValue(colours[n], out var paint))
                svg.Box(x, 22, 20, 56, "cd thin", 0, paint);
            svg.Text(x + 10, n % 2 == 0 ? 98 : 114, colours[n], "small-text");
        }

        return svg.ToString();
    }

    /// <summary>A chip resistor with its code.</summary>
    public static string Chip(string code, string ohms) =>
        new Svg(560, 110, $"Chip marked {code}: {ohms}")
            .Box(190, 20, 24, 66, "cd metal")
            .Box(346, 20, 24, 66, "cd metal")
            .Box(214, 20, 132, 66, "cd dark")
            .Text(280, 63, code.Trim().ToUpperInvariant(), "chip-code")
            .ToString();

    /// <summary>Where a measured capacitor lies between its limits.</summary>
    public static string Ruler(double deviation, double tolerance)
    {
        double X(double part) => 280 + Math.Clamp(part, -1, 1) * 250;
        var svg = new Svg(560, 96, $"Deviation {deviation * 100:0.#} per cent, tolerance {tolerance * 100:0.#} per cent");
        svg.Box(X(-tolerance), 32, X(tolerance) - X(-tolerance), 20, "cd good-area").Path("M30 42H530");
        foreach (var mark in new[] { -1, -0.5, 0, 0.5, 1 })
            svg.Path($"M{At(X(mark))} 34v16")
                .Text(X(mark), 72, mark == 0 ? "printed value" : $"{(mark > 0 ? "+" : "−")}{Math.Abs(mark) * 100:0} %", "small-text");
        return svg.Path($"M{At(X(deviation))} 30l-8 -14h16z", "cd pointer")
            .Text(X(deviation), 12, Math.Abs(deviation) > 1 ? "beyond" : "measured", "small-text")
            .ToString();
    }

    /// <summary>A divider of two resistors.</summary>
    public static string Divider(string vin, string r1, string r2, string volts) =>
        new Svg(560, 180, $"Divider: {vin} over {r1} and {r2} gives {volts}")
            .Path("M200 20V40M200 80V106M200 146V164M176 164H224M186 170H214")
            .Box(186, 40, 28, 40)
            .Box(186, 106, 28, 40)
            .Text(186, 16, vin, "value", "end")
            .Text(174, 65, r1, "value", "end")
            .Text(174, 131, r2, "value", "end")
            .Path("M200 93H330")
            .Dot(200, 93, 4, "cd solid")
            .Dot(334, 93, 4)
            .Text(348, 98, volts, "value big", "start")
            .ToString();
}
