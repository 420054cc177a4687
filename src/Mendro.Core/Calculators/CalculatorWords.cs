using Mendro.Core.Quantities;

namespace Mendro.Core.Calculators;

/// <summary>Results as people read them.</summary>
public static class CalculatorWords
{
    private static readonly HashSet<string> Prefixed = ["V", "A", "Ω", "F", "Hz", "W", "1"];

    private static readonly HashSet<string> Fractions =
    [
        "tolerance",
        "toleranceMinus",
        "tolerancePlus",
        "deviation",
        "upperFailureRate",
        "confidence",
        "maxFailureRate",
    ];

    /// <summary>A value with its unit: <c>4.7 kΩ</c>, <c>8.3 %</c>, <c>116.6 °C</c>.</summary>
    public static string Value(string name, object value, string unit) =>
        value switch
        {
            double number when Prefixed.Contains(unit) => Reading.Format(number, unit == "1" ? "" : unit).TrimEnd(),
            double number when Fractions.Contains(name) => Plain(number * 100) + " %",
            double number => unit.Length > 0 ? $"{Plain(number)} {unit}" : Plain(number),
            IReadOnlyList<string> lines => string.Join(" ", lines),
            _ => value.ToString() ?? "",
        };

    /// <summary>Inputs and results in one line, for a record.</summary>
    public static string InAndOut(Calculation calculation)
    {
        var inputs = calculation
            .Calculator.Keys.Where(k => calculation.Inputs.ContainsKey(k.Name))
            .Select(k => $"{k.Label.ToLowerInvariant()} {Value(k.Name, calculation.Inputs[k.Name], k.Unit)}");
        var outputs = calculation.Answer.Outputs.Select(o => $"{o.Label.ToLowerInvariant()} {Value(o.Name, o.Value, o.Unit)}");
        return $"{string.Join(", ", inputs)} → {string.Join(", ", outputs)}";
    }

    private static string Plain(double number)
    {
        if (number == 0)
            return "0";
        var digits = Math.Clamp(3 - (int)Math.Floor(Math.Log10(Math.Abs(number)) + 1e-9), 0, 10);
        return NumberText.Write(Math.Round(number, digits, MidpointRounding.AwayFromZero), "0.##########");
    }
}
