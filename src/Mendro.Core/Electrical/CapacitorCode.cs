using System.Globalization;
using System.Text.RegularExpressions;
using Mendro.Core.Quantities;

namespace Mendro.Core.Electrical;

/// <summary>A capacitor read from its printed code.</summary>
/// <param name="Farads">Capacitance, farads.</param>
/// <param name="ToleranceMinus">Largest shortfall, fraction, when lettered.</param>
/// <param name="TolerancePlus">Largest excess, fraction, when lettered.</param>
public sealed partial record CapacitorCode(double Farads, double? ToleranceMinus, double? TolerancePlus)
{
    [GeneratedRegex(@"^(?<figures>[0-9]{2})(?<zeros>[0-9])(?<tol>[BCDFGJKMZ])?$")]
    private static partial Regex DigitsPattern();

    [GeneratedRegex(@"^(?<whole>[0-9]{0,4})(?<mark>[RpnuµμmUP])(?<part>[0-9]{0,3})(?<farad>F)?(?<tol>[BCDFGJKMZ])?$")]
    private static partial Regex LetterPattern();

    [GeneratedRegex(@"^(?<value>[0-9]{1,2}|[0-9]{0,2}\.[0-9]{1,3})(?<tol>[BCDFGJKMZ])?$")]
    private static partial Regex PlainPattern();

    /// <summary>
    /// Reads three digits in picofarads (<c>104</c>, with <c>225K</c>; 8 and 9 as third digit are 0.01 and 0.1), a prefix at
    /// the decimal point (<c>4n7</c>, <c>2u2</c>, <c>4R7</c> in picofarads), one or two digits (picofarads) or a decimal
    /// fraction (microfarads: <c>.47</c>), or a value with its prefix written out (<c>0.1uF</c>).
    /// </summary>
    public static Outcome<CapacitorCode> Read(string code)
    {
        var text = code.Trim().Replace(',', '.');
        var upper = text.ToUpperInvariant();
        if (DigitsPattern().Match(upper) is { Success: true } digits)
        {
            var exponent = digits.Groups["zeros"].Value[0] switch
            {
                '8' => -2,
                '9' => -1,
                var zeros => zeros - '0',
            };
            return Ok(double.Parse(digits.Groups["figures"].Value, CultureInfo.InvariantCulture), exponent - 12, digits);
        }

        if (LetterPattern().Match(text) is { Success: true } letter && letter.Groups["whole"].Length + letter.Groups["part"].Length > 0)
        {
            var exponent = letter.Groups["mark"].Value switch
            {
                "n" => -9,
                "u" or "µ" or "μ" or "U" => -6,
                "m" => -3,
                _ => -12,
            };
            var figures = double.Parse($"0{letter.Groups["whole"].Value}{letter.Groups["part"].Value}", CultureInfo.InvariantCulture);
            return Ok(figures, exponent - letter.Groups["part"].Length, letter);
        }

        if (PlainPattern().Match(upper) is { Success: true } plain)
        {
            var value = plain.Groups["value"].Value;
            var places = value.Contains('.', StringComparison.Ordinal)
                ? value.Length - value.IndexOf('.', StringComparison.Ordinal) - 1
                : 0;
            var figures = double.Parse("0" + value.Replace(".", "", StringComparison.Ordinal), CultureInfo.InvariantCulture);
            return Ok(figures, places > 0 ? -6 - places : -12, plain);
        }

        // Written out on larger cases: 0.1uF, 2.2 µF.
        if (QuantityText.Parse(text, "F") is { } farads and > 0 && text.Any(char.IsLetter))
            return Outcome<CapacitorCode>.Ok(new CapacitorCode(farads, null, null));
        return Outcome<CapacitorCode>.Fail($"“{code}” is no capacitor code. Try 104, 225K or 4n7.");
    }

    private static Outcome<CapacitorCode> Ok(double figures, int exponent, Match match)
    {
        var farads = PowerOfTen.Scale(figures, exponent);
        if (farads <= 0)
            return Outcome<CapacitorCode>.Fail("a capacitor of nothing does not exist.");
        if (!match.Groups["tol"].Success)
            return Outcome<CapacitorCode>.Ok(new CapacitorCode(farads, null, null));
        var letter = match.Groups["tol"].Value[0];
        if (letter == 'Z')
            return Outcome<CapacitorCode>.Ok(new CapacitorCode(farads, 0.2, 0.8));
        // Below 10 pF the letters B to F are picofarads, not per cent (IEC 60062).
        double? picofarads = letter switch
        {
            'B' => 0.1,
            'C' => 0.25,
            'D' => 0.5,
            'F' => 1,
            _ => null,
        };
        var tolerance = farads < 10e-12 && picofarads is { } absolute ? absolute * 1e-12 / farads : ToleranceLetter.Fraction(letter)!.Value;
        return Outcome<CapacitorCode>.Ok(new CapacitorCode(farads, tolerance, tolerance));
    }
}
