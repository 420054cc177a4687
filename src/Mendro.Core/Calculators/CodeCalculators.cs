using Mendro.Core.Electrical;

namespace Mendro.Core.Calculators;

/// <summary>Bands, printed codes and preferred values.</summary>
internal static class CodeCalculators
{
    private const string Group = "Codes";

    public static IReadOnlyList<Calculator> All { get; } =
    [
        new(
            "resistor-bands",
            "Resistor bands",
            Group,
            "figures × 10^multiplier ± tolerance",
            "IEC 60062",
            [
                new("bands", "Colours, from the end where they begin", "", "brown,black,orange,gold")
                {
                    IsText = true,
                    Help = "3 to 6, by name or two letters (BN BK OG GD); 3 bands are ±20 %",
                },
                new("measured", "Measured", "Ω", "9k8")
                {
                    Optional = true,
                    Low = 0,
                    High = 1e15,
                },
            ],
            Bands
        ),
        new(
            "resistor-code",
            "Resistor code",
            Group,
            "two or three figures, then the number of zeros; R, K, M at the decimal point; EIA-96: number in the E96 series and a multiplier letter",
            "IEC 60062; EIA-96",
            [
                new("code", "Printed code", "", "103") { IsText = true, Help = "103, 1002, 4R7 or 01C" },
                new("measured", "Measured", "Ω", "9k8")
                {
                    Optional = true,
                    Low = 0,
                    High = 1e15,
                },
            ],
            Code
        ),
        new(
            "capacitor-code",
            "Capacitor code",
            Group,
            "two figures, then the number of zeros, in picofarads; a prefix at the decimal point",
            "IEC 60062; EIA-198 for 8, 9 and the letter Z",
            [new("code", "Printed code", "", "104") { IsText = true, Help = "104, 225K or 4n7" }],
            Capacitor
        ),
        new(
            "preferred-value",
            "Preferred value",
            Group,
            "nearest by ratio; the next down and the next up",
            "IEC 60063",
            [
                new("value", "Value", "1", "5000")
                {
                    Low = 1e-15,
                    High = 1e15,
                    Help = "ohms, farads or a bare number; with prefix: 4k7",
                },
                new("series", "Series", "", "E12") { Standard = "E24", Choices = PreferredSeries.All.Select(s => s.Name).ToList() },
            ],
            Preferred
        ),
    ];

    private static Outcome<CalculatorAnswer> Bands(CalculatorInputs given)
    {
        var read = ResistorBands.Read(given.Text("bands").Split([',', ' ', ';'], StringSplitOptions.RemoveEmptyEntries));
        if (!read.IsOk)
            return Outcome<CalculatorAnswer>.Fail($"bands: {read.Problem}");
        var outputs = new List<CalculatorOutput>
        {
            new("ohms", "Resistance", read.Value.Ohms, "Ω"),
            new("tolerance", "Tolerance", read.Value.Tolerance),
        };
        if (read.Value.PartsPerMillionPerKelvin is { } coefficient)
            outputs.Add(new("partsPerMillionPerKelvin", "Temperature coefficient", coefficient, "10⁻⁶/K"));
        return WithinTolerance(outputs, read.Value.Ohms, read.Value.Tolerance, given.Maybe("measured"));
    }

    private static Outcome<CalculatorAnswer> Code(CalculatorInputs given)
    {
        var read = ResistorCode.Read(given.Text("code"));
        if (!read.IsOk)
            return Outcome<CalculatorAnswer>.Fail($"code: {read.Problem}");
        return WithinTolerance(
            [
                new("ohms", "Resistance", read.Value.Ohms, "Ω"),
                new("tolerance", "Tolerance, lettered or usual", read.Value.Tolerance),
                new("marking", "Marked with", read.Value.Marking),
            ],
            read.Value.Ohms,
            read.Value.Tolerance,
            given.Maybe("measured")
        );
    }

    private static Outcome<CalculatorAnswer> WithinTolerance(
        List<CalculatorOutput> outputs,
        double ohms,
        double tolerance,
        double? measured
    )
    {
        if (measured is not { } value || ohms <= 0)
            return Outcome<CalculatorAnswer>.Ok(new CalculatorAnswer(outputs));
        var deviation = value / ohms - 1;
        outputs.Add(new("deviation", "Deviation", deviation));
        // Megohms across what should be a small resistor usually mean that the part is a capacitor (common practice).
        var verdict =
            Math.Abs(deviation) <= tolerance + 1e-9 ? "within tolerance"
            : value >= 1e6 && ohms < 1e5 ? "far too high: open, or a capacitor"
            : deviation > 0 ? "too high"
            : "too low: something beside it, or shorted";
        outputs.Add(new("verdict", "Verdict", verdict));
        return Outcome<CalculatorAnswer>.Ok(new CalculatorAnswer(outputs, verdict, Math.Abs(deviation) <= tolerance + 1e-9));
    }

    private static Outcome<CalculatorAnswer> Capacitor(CalculatorInputs given)
    {
        var read = CapacitorCode.Read(given.Text("code"));
        if (!read.IsOk)
            return Outcome<CalculatorAnswer>.Fail($"code: {read.Problem}");
        var outputs = new List<CalculatorOutput> { new("farads", "Capacitance", read.Value.Farads, "F") };
        if (read.Value is { ToleranceMinus: { } minus, TolerancePlus: { } plus })
        {
            if (minus == plus)
                outputs.Add(new("tolerance", "Tolerance", plus));
            else
                outputs.AddRange([new("toleranceMinus", "Tolerance, down", minus), new("tolerancePlus", "Tolerance, up", plus)]);
        }

        return Outcome<CalculatorAnswer>.Ok(new CalculatorAnswer(outputs));
    }

    private static Outcome<CalculatorAnswer> Preferred(CalculatorInputs given)
    {
        var around = PreferredSeries.Find(given.Text("series"))!.Around(given["value"]);
        return Outcome<CalculatorAnswer>.Ok(
            new CalculatorAnswer([
                new("nearest", "Nearest", around.Nearest, "1"),
                new("below", "Next down", around.Below, "1"),
                new("above", "Next up", around.Above, "1"),
            ])
        );
    }
}
