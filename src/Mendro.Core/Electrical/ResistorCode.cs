using System.Globalization;
using System.Text.RegularExpressions;
using Mendro.Core.Quantities;

namespace Mendro.Core.Electrical;

/// <summary>A resistor read from its printed code.</summary>
/// <param name="Ohms">Resistance, ohms.</param>
/// <param name="Tolerance">Tolerance, fraction: as lettered, else usual for this way of marking.</param>
/// <param name="Marking">Way of marking, in words.</param>
public sealed partial record ResistorCode(double Ohms, double Tolerance, string Marking)
{
    [GeneratedRegex(@"^(?<figures>[0-9]{2,3})(?<zeros>[0-9])(?<tol>[BCDFGJ])?$")]
    private static partial Regex DigitsPattern();

    [GeneratedRegex(@"^(?<whole>[0-9]{0,3})(?<mark>[RKMGT])(?<part>[0-9]{0,3})(?<tol>[BCDFGJKM])?$")]
    private static partial Regex LetterPattern();

    [GeneratedRegex(@"^(?<number>[0-9]{2})(?<multiplier>[ZYRXSABHCDEF])$")]
    private static partial Regex Eia96Pattern();

    /// <summary>
    /// Reads 3 or 4 digits (<c>103</c>, <c>1002</c>), R notation (<c>4R7</c>, <c>4K7</c>, <c>R47</c>, <c>47R</c>) or EIA-96
    /// (<c>01C</c>). Two digits and R are R notation, as IEC 60062 has it, not the EIA-96 multiplier.
    /// </summary>
    public static Outcome<ResistorCode> Read(string code)
    {
        var text = code.Trim().ToUpperInvariant();
        if (text is "0" or "00")
            return Outcome<ResistorCode>.Ok(new ResistorCode(0, 0, "link"));
        if (LetterPattern().Match(text) is { Success: true } letter && letter.Groups["whole"].Length + letter.Groups["part"].Length > 0)
        {
            var figures = double.Parse($"0{letter.Groups["whole"].Value}{letter.Groups["part"].Value}", CultureInfo.InvariantCulture);
            var exponent = letter.Groups["mark"].Value[0] switch
            {
                'K' => 3,
                'M' => 6,
                'G' => 9,
                'T' => 12,
                _ => 0,
            };
            return Ok(PowerOfTen.Scale(figures, exponent - letter.Groups["part"].Length), letter, 0.05, "letter at the decimal point");
        }

        if (DigitsPattern().Match(text) is { Success: true } digits)
        {
            var figures = double.Parse(digits.Groups["figures"].Value, CultureInfo.InvariantCulture);
            var fine = digits.Groups["figures"].Length == 3;
            return Ok(
                PowerOfTen.Scale(figures, digits.Groups["zeros"].Value[0] - '0'),
                digits,
                fine ? 0.01 : 0.05,
                fine ? "three figures and zeros" : "two figures and zeros"
            );
        }

        if (
            Eia96Pattern().Match(text) is { Success: true } eia
            && int.Parse(eia.Groups["number"].Value, CultureInfo.InvariantCulture) is >= 1 and <= 96 and var number
        )
        {
            var exponent = eia.Groups["multiplier"].Value[0] switch
            {
                'Z' => -3,
                'Y' or 'R' => -2,
                'X' or 'S' => -1,
                'A' => 0,
                'B' or 'H' => 1,
                'C' => 2,
                'D' => 3,
                'E' => 4,
                _ => 5,
            };
            return Outcome<ResistorCode>.Ok(
                new ResistorCode(PowerOfTen.Scale(PreferredSeries.E96.Steps[number - 1], exponent), 0.01, "EIA-96")
            );
        }

        // Written out on larger bodies: 4.7k, 0.22 Ω.
        if (text.AsSpan().ContainsAny('.', ',') && QuantityText.Parse(code, "Ω") is { } ohms and >= 0)
            return Outcome<ResistorCode>.Ok(new ResistorCode(ohms, 0.05, "written out"));
        return Outcome<ResistorCode>.Fail($"“{code}” is no resistor code. Try 103, 1002, 4R7 or 01C.");
    }

    private static Outcome<ResistorCode> Ok(double ohms, Match match, double usual, string marking) =>
        Outcome<ResistorCode>.Ok(
            new ResistorCode(
                ohms,
                match.Groups["tol"].Success ? ToleranceLetter.Fraction(match.Groups["tol"].Value[0])!.Value : usual,
                marking
            )
        );
}
