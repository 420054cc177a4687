using Mendro.Core.Electrical;

namespace Mendro.Core.Calculators;

/// <summary>Wires and board traces.</summary>
internal static class CopperCalculators
{
    private const string Group = "Copper";

    public static IReadOnlyList<Calculator> All { get; } =
    [
        new(
            "wire",
            "Jumper wire",
            Group,
            "d = 0.127 mm × 92^((36 − n) / 39); R = ρ L / A, copper at 20 °C; U = I × R",
            "ASTM B258; IEC 60028 (1.7241 × 10⁻⁸ Ω m)",
            [
                new("awg", "Gauge", "", "30")
                {
                    Low = -3,
                    High = 50,
                    Whole = true,
                    Help = "AWG; 0, −1, −2, −3 are 1/0 to 4/0",
                },
                new("lengthMm", "Length", "mm", "60") { Low = 0, High = 1e6 },
                new("current", "Current", "A", "0.1")
                {
                    Low = 0,
                    High = 1000,
                    Optional = true,
                },
            ],
            Wire
        ),
        new(
            "trace-width",
            "Trace width",
            Group,
            "I = k × ΔT^0.44 × A^0.725, A in square mils; k = 0.048 outer, 0.024 inner",
            "IPC-2221",
            [
                new("current", "Current", "A", "1")
                {
                    Low = 0,
                    High = 100,
                    Above = true,
                },
                new("rise", "Rise in temperature", "K", "10")
                {
                    Low = 0,
                    High = 500,
                    Above = true,
                },
                new("copperMicrometres", "Copper", "µm", "35")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                    Standard = "35",
                    Help = "35 µm is one ounce",
                },
                new("layer", "Layer", "", "outer") { Choices = ["outer", "inner"], Standard = "outer" },
            ],
            given =>
                Ok(
                    new CalculatorOutput(
                        "widthMm",
                        "Least width",
                        TraceWidth.WidthMm(given["current"], given["rise"], given["copperMicrometres"], given.Text("layer") == "outer"),
                        "mm"
                    )
                )
        ),
    ];

    private static Outcome<CalculatorAnswer> Wire(CalculatorInputs given)
    {
        var wire = CopperWire.OfGauge(given["awg"], given["lengthMm"]);
        CalculatorOutput[] outputs = [new("diameterMm", "Bare diameter", wire.DiameterMm, "mm"), new("ohms", "Resistance", wire.Ohms, "Ω")];
        return given.Maybe("current") is { } amps ? Ok([.. outputs, new("dropVolts", "Drop", amps * wire.Ohms, "V")]) : Ok(outputs);
    }

    private static Outcome<CalculatorAnswer> Ok(params CalculatorOutput[] outputs) =>
        Outcome<CalculatorAnswer>.Ok(new CalculatorAnswer(outputs));
}
