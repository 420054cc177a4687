using System.Globalization;

namespace Mendro.Core.Quantities;

/// <summary>One reading as understood: a value in its SI base unit, or a word such as <c>beep</c>.</summary>
/// <param name="Unit">What was measured.</param>
/// <param name="Value">Value in volts, ohms, farads or amperes; 1 or 0 for a beep; null for words and over range.</param>
/// <param name="Word">The word, when <paramref name="Unit"/> is <see cref="ReadingUnit.Word"/>.</param>
/// <param name="Jumps">True when the reading changed while the probe pressed or the board flexed.</param>
public sealed record Reading(ReadingUnit Unit, double? Value, string? Word = null, bool Jumps = false)
{
    private static readonly (double Scale, string Prefix)[] Prefixes =
    [
        (1e9, "G"),
        (1e6, "M"),
        (1e3, "k"),
        (1, ""),
        (1e-3, "m"),
        (1e-6, "µ"),
        (1e-9, "n"),
        (1e-12, "p"),
    ];

    /// <summary>The reading as the bench writes it: <c>6.21 V</c>, <c>4.7 kΩ</c>, <c>22 µF</c>, <c>beep</c>, <c>OL</c>.</summary>
    public override string ToString()
    {
        var text = Unit switch
        {
            ReadingUnit.OverRange => "OL",
            ReadingUnit.Word => Word ?? "",
            ReadingUnit.Beep => Value > 0 ? "beep" : "no beep",
            ReadingUnit.DiodeVolts => Format(Value ?? 0, "V") + " diode",
            ReadingUnit.Volts => Format(Value ?? 0, "V"),
            ReadingUnit.Ohms => Format(Value ?? 0, "Ω"),
            ReadingUnit.Farads => Format(Value ?? 0, "F"),
            ReadingUnit.Amps => Format(Value ?? 0, "A"),
            _ => "",
        };
        return Jumps && text.Length > 0 ? text + ", jumps"
            : Jumps ? "jumps"
            : text;
    }

    /// <summary>Writes a value with an engineering prefix and at most four significant digits.</summary>
    /// <param name="value">Value in the base unit.</param>
    /// <param name="unit">Unit symbol.</param>
    public static string Format(double value, string unit)
    {
        // Hundredths of a volt are read as "0.02 V" on a meter, so millivolts are kept in volts.
        var smallVolts = unit == "V" && Math.Abs(value) < 1;
        var scale = 1.0;
        var prefix = "";
        if (value != 0 && !smallVolts)
        {
            var magnitude = Math.Abs(value);
            foreach (var (candidate, name) in Prefixes)
            {
                (scale, prefix) = (candidate, name);
                // 0.99995 of a step already rounds up to it at four digits.
                if (magnitude >= candidate * 0.99995)
                    break;
            }
        }

        var scaled = value / scale;
        var digits = scaled == 0 ? 0 : Math.Clamp(3 - (int)Math.Floor(Math.Log10(Math.Abs(scaled)) + 1e-9), 0, 4);
        var rounded = Math.Round(scaled, digits, MidpointRounding.AwayFromZero);
        return $"{NumberText.Write(rounded, "0.####")} {prefix}{unit}";
    }
}
