using Mendro.Core.Calculators;

namespace Mendro.Web.Drawing;

/// <summary>The drawing beside a calculation, where one helps.</summary>
public static class CalculatorDrawing
{
    /// <summary>The drawing as SVG markup, or null.</summary>
    public static string? Of(Calculation calculation)
    {
        var (inputs, answer) = (calculation.Inputs, calculation.Answer);
        return calculation.Calculator.Name switch
        {
            "resistor-bands" => ComponentDrawings.Bands(
                ((string)inputs["bands"]).Split([',', ' ', ';'], StringSplitOptions.RemoveEmptyEntries),
                Told(calculation, "ohms")
            ),
            "resistor-code" => ComponentDrawings.Chip((string)inputs["code"], Told(calculation, "ohms")),
            "capacitor-check" => ComponentDrawings.Ruler(answer.Number("deviation"), (double)inputs["tolerance"]),
            "divider" => ComponentDrawings.Divider(
                Given(calculation, "vin"),
                Given(calculation, "r1"),
                Given(calculation, "r2"),
                Told(calculation, "volts")
            ),
            "battery-pack" => SupplyDrawings.Pack(
                (int)(double)inputs["cells"],
                answer,
                inputs.TryGetValue("measured", out var volts) ? (double)volts : null
            ),
            "regulator" => SupplyDrawings.Regulator(
                Given(calculation, "vin"),
                Given(calculation, "vout"),
                Told(calculation, "watts"),
                Told(calculation, "junctionCelsius"),
                answer.Good == true
            ),
            "rectified" => SupplyDrawings.Rectified(
                Given(calculation, "acVolts"),
                answer.Number("peakVolts"),
                answer.Outputs.Any(o => o.Name == "rippleVolts") ? answer.Number("rippleVolts") : null
            ),
            "adapter" => SupplyDrawings.Plugs(
                (string?)inputs.GetValueOrDefault("polarity"),
                (string?)inputs.GetValueOrDefault("needPolarity"),
                (string)inputs["kind"],
                (string)inputs["needKind"]
            ),
            "wire" => CopperDrawings.Wire(answer.Number("diameterMm"), Told(calculation, "ohms")),
            "trace-width" => CopperDrawings.Trace(answer.Number("widthMm"), (double)inputs["copperMicrometres"]),
            "dilute" => CopperDrawings.Cylinder(answer.Number("stockMl"), answer.Number("waterMl"), "stock", "water"),
            "ratio" => CopperDrawings.Cylinder(answer.Number("partMl"), answer.Number("restMl"), "agent", "rest"),
            "starts" => CopperDrawings.Bound((double)inputs["successes"], (double)inputs["failures"], answer.Number("upperFailureRate")),
            _ => null,
        };
    }

    private static string Told(Calculation calculation, string output)
    {
        var found = calculation.Answer.Outputs.Single(o => o.Name == output);
        return CalculatorWords.Value(found.Name, found.Value, found.Unit);
    }

    private static string Given(Calculation calculation, string key) =>
        CalculatorWords.Value(key, calculation.Inputs[key], calculation.Calculator.Keys.Single(k => k.Name == key).Unit);
}
