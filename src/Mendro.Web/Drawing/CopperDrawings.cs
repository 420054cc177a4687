using System.Globalization;
using static Mendro.Web.Drawing.Svg;

namespace Mendro.Web.Drawing;

/// <summary>Wires and traces to scale, liquids, and the bound of a run.</summary>
internal static class CopperDrawings
{
    /// <summary>Cross-section of a wire beside a trace of 0.25 mm and 35 µm, to one scale.</summary>
    public static string Wire(double diameterMm, string ohms)
    {
        // One scale for both, so chosen that the larger fills the height.
        var scale = Math.Min(90 / Math.Max(diameterMm, 0.05), 300);
        var svg = new Svg(560, 150, $"Wire of {diameterMm:0.###} mm beside a trace of 0.25 mm");
        svg.Path("M20 120H540").Dot(150, 120 - diameterMm * scale / 2, diameterMm * scale / 2, "cd copper");
        svg.Text(150, 142, $"wire {diameterMm.ToString("0.###", CultureInfo.InvariantCulture)} mm, {ohms}", "small-text");
        svg.Box(400 - 0.125 * scale, 120 - 0.035 * scale, 0.25 * scale, 0.035 * scale, "cd copper")
            .Text(400, 142, "trace 0.25 mm × 35 µm, same scale", "small-text");
        return svg.ToString();
    }

    /// <summary>A trace from above, to scale, beside a 30 AWG wire.</summary>
    public static string Trace(double widthMm, double micrometres)
    {
        var scale = Math.Min(70 / Math.Max(widthMm, 0.05), 140);
        return new Svg(560, 150, $"Trace {widthMm:0.###} mm wide")
            .Box(30, 62 - widthMm * scale / 2, 320, widthMm * scale, "cd copper")
            .Text(
                190,
                130,
                $"trace {widthMm.ToString("0.###", CultureInfo.InvariantCulture)} mm × {micrometres.ToString("0.#", CultureInfo.InvariantCulture)} µm",
                "small-text"
            )
            .Box(390, 62 - 0.2546 * scale / 2, 130, 0.2546 * scale, "cd copper", 0.1273 * scale)
            .Text(455, 130, "30 AWG, 0.255 mm, same scale", "small-text")
            .ToString();
    }

    /// <summary>A measuring cylinder with two liquids.</summary>
    public static string Cylinder(double below, double above, string belowName, string aboveName)
    {
        var top = 120 * above / (below + above);
        string Ml(double ml) => ml.ToString("0.#", CultureInfo.InvariantCulture) + " ml";
        return new Svg(560, 160, $"{belowName} {Ml(below)}, {aboveName} {Ml(above)}")
            .Box(230, 20, 70, top, "cd water-area")
            .Box(230, 20 + top, 70, 120 - top, "cd copper-area")
            .Path("M230 12V140H300V12M214 140H316")
            .Text(316, Math.Clamp(24 + top / 2, 26, 130), $"{aboveName} {Ml(above)}", "value", "start")
            .Text(214, Math.Clamp(84 + top / 2, 40, 136), $"{belowName} {Ml(below)}", "value", "end")
            .ToString();
    }

    /// <summary>Failure rates that a run of starts leaves open.</summary>
    public static string Bound(double successes, double failures, double upper)
    {
        double X(double rate) => 40 + rate * 480;
        var seen = failures / (successes + failures);
        return new Svg(560, 100, $"Failure rate between 0 and {upper * 100:0.#} per cent")
            .Box(X(0), 36, X(upper) - X(0), 16, "cd doubt-area")
            .Path("M40 44H520M40 34v20M520 34v20")
            .Dot(X(seen), 44, 6, "cd pointer")
            .Path($"M{At(X(upper))} 28v32", "cd curve")
            .Text(40, 74, "never fails", "small-text", "start")
            .Text(520, 74, "always fails", "small-text", "end")
            .Text(Math.Clamp(X(upper), 70, 490), 20, $"at most {(upper * 100).ToString("0.#", CultureInfo.InvariantCulture)} %", "value")
            .ToString();
    }
}
