using System.Globalization;
using System.Text;
using Mendro.Core.Calculators;
using Mendro.Core.Quantities;
using static Mendro.Web.Drawing.Svg;

namespace Mendro.Web.Drawing;

/// <summary>Packs, regulators, rectifiers and plugs.</summary>
internal static class SupplyDrawings
{
    private const int MostCellsDrawn = 8;

    /// <summary>Cells in a row over the scale from empty to fresh.</summary>
    public static string Pack(int cells, CalculatorAnswer answer, double? measured)
    {
        var svg = new Svg(
            560,
            150,
            measured is null ? $"{cells} cells in series" : $"{cells} cells in series, measured {measured:0.##} volts"
        );
        var drawn = Math.Min(cells, MostCellsDrawn);
        for (var n = 0; n < drawn; n++)
            svg.Box(20 + n * 62, 14, 50, 26, "cd body", 3)
                .Box(70 + n * 62, 21, 5, 12, "cd solid")
                .Text(38 + n * 62, 32, "−", "small-text")
                .Text(58 + n * 62, 32, "+", "small-text");
        if (cells > drawn)
            svg.Text(530, 32, $"… {cells}", "small-text");
        var (empty, fresh) = (answer.Number("empty"), answer.Number("fresh"));
        double X(double volts) => 60 + Math.Clamp((volts - empty) / (fresh - empty), -0.12, 1.12) * 420;
        svg.Box(X(answer.Number("low")), 84, X(fresh) - X(answer.Number("low")), 16, "cd good-area")
            .Box(X(empty), 84, X(answer.Number("low")) - X(empty), 16, "cd doubt-area")
            .Path("M10 92H550");
        foreach (var (name, label) in new[] { ("empty", "empty"), ("low", "weak"), ("nominal", "nominal"), ("fresh", "fresh") })
            svg.Path($"M{At(X(answer.Number(name)))} 82v20")
                .Text(X(answer.Number(name)), 118, label, "small-text")
                .Text(
                    X(answer.Number(name)),
                    134,
                    answer.Number(name).ToString("0.##", CultureInfo.InvariantCulture) + " V",
                    "small-text mono"
                );
        if (measured is { } volts)
            svg.Path($"M{At(X(volts))} 80l-8 -14h16z", "cd pointer")
                .Text(X(volts), 60, volts.ToString("0.##", CultureInfo.InvariantCulture) + " V", "value");
        return svg.ToString();
    }

    /// <summary>A three-leg regulator from the front.</summary>
    public static string Regulator(string vin, string vout, string watts, string junction, bool fits) =>
        new Svg(560, 190, $"Regulator: {vin} in, {vout} out, {watts} of heat, junction {junction}")
            .Box(220, 10, 120, 34, "cd metal", 4)
            .Dot(280, 27, 9)
            .Box(220, 44, 120, 66, "cd dark", 2)
            .Path("M244 110V168M280 110V168M316 110V168")
            .Text(280, 72, watts, "chip-text")
            .Text(280, 96, junction, fits ? "chip-text" : "chip-text warn")
            .Text(206, 164, $"in {vin}", "value", "end")
            .Text(280, 186, "ground", "small-text")
            .Text(354, 164, $"out {vout}", "value", "start")
            .ToString();

    /// <summary>The way from AC to DC: sine, bridge, reservoir, what is left.</summary>
    public static string Rectified(string acVolts, double peak, double? ripple)
    {
        var svg = new Svg(560, 170, $"{acVolts} AC through a bridge gives a peak of {peak:0.##} volts");
        var sine = new StringBuilder("M16 80");
        for (var x = 1; x <= 110; x++)
            sine.Append(CultureInfo.InvariantCulture, $"L{16 + x} {80 - 46 * Math.Sin(x / 110.0 * 4 * Math.PI):0.#}");
        svg.Path("M10 80H136").Path(sine.ToString(), "cd curve").Text(72, 158, $"{acVolts} AC, r.m.s.", "small-text");
        svg.Path("M140 80H168M206 80H232")
            .Box(168, 58, 38, 44)
            .Path("M176 92L198 68M178 70h8M182 66v8M190 92h8", "cd thin-line")
            .Text(187, 158, "bridge: two drops", "small-text");
        svg.Path("M262 80V96M246 96H278M246 104H278M262 104V122M252 122H272")
            .Text(286, 106, "C", "small-text", "start")
            .Path("M232 80H330");
        // The reservoir holds the peak and falls by the ripple until the next half-wave.
        var sag = ripple is { } r && peak > 0 ? Math.Min(1, r / peak) : 0;
        double Y(double part) => 120 - 84 * part;
        var line = new StringBuilder($"M340 {At(Y(1))}");
        for (var n = 0; n < 3; n++)
            line.Append(
                CultureInfo.InvariantCulture,
                $"L{340 + n * 64 + 46} {Y(1 - sag):0.#}Q{340 + n * 64 + 58} {Y(1 - sag * 0.4):0.#} {340 + (n + 1) * 64} {Y(1):0.#}"
            );
        svg.Path("M336 120H548M336 120V28")
            .Path($"M340 {At(Y(1))}H544", "cd dashed")
            .Path(line.ToString(), "cd curve")
            .Text(440, 22, $"peak {peak.ToString("0.##", CultureInfo.InvariantCulture)} V", "value");
        return svg.Text(
                440,
                158,
                ripple is { } v ? $"ripple {v.ToString("0.##", CultureInfo.InvariantCulture)} V" : "no load: the peak stays",
                "small-text"
            )
            .ToString();
    }

    /// <summary>What a unit draws, on a scale from nothing over what it was made for to the limit of the supply.</summary>
    /// <param name="amps">What is drawn, amperes; null while the output is off.</param>
    /// <param name="ratedAmps">What the unit was made for.</param>
    /// <param name="limitAmps">Limit the supply is set to.</param>
    public static string Draw(double? amps, double ratedAmps, double limitAmps)
    {
        var end = 1.15 * Math.Max(2 * ratedAmps, Math.Max(limitAmps, amps ?? 0));
        double X(double a) => 20 + a / end * 520;
        string Words(double a) => Reading.Format(a, "A");
        var svg = new Svg(
            560,
            104,
            amps is { } drawn
                ? $"{Words(drawn)} drawn; made for {Words(ratedAmps)}, limit {Words(limitAmps)}"
                : $"Output off; made for {Words(ratedAmps)}, limit {Words(limitAmps)}"
        )
            .Box(X(0), 46, X(ratedAmps) - X(0), 16, "cd good-area")
            .Box(X(ratedAmps), 46, X(2 * ratedAmps) - X(ratedAmps), 16, "cd doubt-area")
            .Path("M20 54H540")
            .Path($"M{At(X(ratedAmps))} 44v20M{At(X(0))} 44v20")
            .Text(X(ratedAmps), 80, "made for", "small-text")
            .Text(X(ratedAmps), 96, Words(ratedAmps), "small-text mono")
            .Text(X(0), 80, "nothing", "small-text", "start")
            .Path($"M{At(X(limitAmps))} 36v36", "cd dashed")
            .Text(
                X(limitAmps) + (limitAmps > 0.8 * end ? -14 : 14),
                34,
                $"limit {Words(limitAmps)}",
                "small-text",
                limitAmps > 0.8 * end ? "end" : "start"
            );
        if (amps is { } a)
            svg.Path($"M{At(X(a))} 42l-8 -14h16z", "cd pointer").Text(Math.Clamp(X(a), 40, 520), 16, Words(a), "value");
        return svg.ToString();
    }

    /// <summary>The plug that is there beside the one that is wanted: pin and sleeve.</summary>
    public static string Plugs(string? has, string? needs, string kind, string needKind)
    {
        var svg = new Svg(560, 140, $"Plug {kind} {has}, wanted {needKind} {needs}");
        Plug(svg, 150, "it gives", kind, has);
        Plug(svg, 410, "the unit wants", needKind, needs);
        return svg.ToString();
    }

    private static void Plug(Svg svg, double x, string title, string kind, string? polarity)
    {
        svg.Dot(x, 62, 36, "cd metal")
            .Dot(x, 62, 24, "cd ground")
            .Dot(x, 62, 6, "cd solid")
            .Text(x, 14, title, "small-text")
            .Text(x, 128, polarity ?? kind.ToUpperInvariant(), "value");
        if (kind == "dc" && polarity is "centre-positive" or "centre-negative")
            svg.Text(x, 52, polarity == "centre-positive" ? "+" : "−", "value")
                .Text(x + 50, 68, polarity == "centre-positive" ? "−" : "+", "value");
        if (kind == "ac")
            svg.Text(x + 52, 68, "~", "value");
    }
}
