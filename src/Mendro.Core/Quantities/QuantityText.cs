using System.Globalization;
using System.Text.RegularExpressions;

namespace Mendro.Core.Quantities;

/// <summary>
/// A number with or without its unit, as typed into a field: <c>5.02</c>, <c>5,02 V</c>, <c>4k7</c>, <c>22u</c>,
/// <c>1e-6</c>, <c>20 %</c>. A comma is a decimal comma; thousands are not separated.
/// </summary>
public static partial class QuantityText
{
    private const int Longest = 40;

    /// <summary>Largest value taken, either way: no quantity at a bench comes near it.</summary>
    public const double Most = 1e15;

    // The units that take a prefix; millimetres, per cent, degrees and hours do not.
    private static readonly HashSet<string> Prefixed = ["V", "A", "Ω", "F", "Hz", "W", "1"];

    [GeneratedRegex(
        @"^(?<sign>[-−+]?)(?<whole>[0-9]{1,20})(?:[.,](?<part>[0-9]{0,20}))?(?:[eE](?<exponent>[-+]?[0-9]{1,3}))?\s*(?<rest>[^0-9]*)$"
    )]
    private static partial Regex PlainPattern();

    [GeneratedRegex($@"^(?<sign>[-−+]?)(?<whole>[0-9]{{1,9}})(?<prefix>{SiPrefix.Class}|R|V)(?<part>[0-9]{{1,6}})\s*(?<rest>[^0-9]*)$")]
    private static partial Regex PrefixAsPointPattern();

    [GeneratedRegex($@"^(?<sign>[-−+]?)[.,](?<part>[0-9]{{1,20}})\s*(?<rest>[^0-9]*)$")]
    private static partial Regex PointFirstPattern();

    /// <summary>Reads a quantity.</summary>
    /// <param name="text">What was typed.</param>
    /// <param name="unit">Unit expected: V, A, Ω, F, Hz, W and 1, a bare number (these take prefixes), another unit as it is
    /// written, or empty for a fraction.</param>
    /// <returns>The value in the unit, or null when the text is no such quantity.</returns>
    public static double? Parse(string? text, string unit)
    {
        var typed = (text ?? "").Trim();
        if (typed.Length is 0 or > Longest)
            return null;
        if (PrefixAsPointPattern().Match(typed) is { Success: true } middle)
        {
            var mark = middle.Groups["prefix"].Value;
            var fits = mark switch
            {
                "R" => unit == "Ω",
                "V" => unit == "V",
                _ => Prefixed.Contains(unit),
            };
            if (!fits || !(middle.Groups["rest"].Value is "" || IsUnit(middle.Groups["rest"].Value, unit)))
                return null;
            return Value(middle, middle.Groups["whole"].Value, middle.Groups["part"].Value, SiPrefix.Exponent(mark));
        }

        var match = PlainPattern().Match(typed);
        if (!match.Success)
            match = PointFirstPattern().Match(typed);
        if (!match.Success)
            return null;
        if (Exponent(match.Groups["rest"].Value.Trim(), unit) is not { } exponent)
            return null;
        if (match.Groups["exponent"].Success)
            exponent += int.Parse(match.Groups["exponent"].Value, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture);
        return Value(match, match.Groups["whole"].Success ? match.Groups["whole"].Value : "0", match.Groups["part"].Value, exponent);
    }

    private static int? Exponent(string rest, string unit)
    {
        if (rest.Length == 0 || IsUnit(rest, unit))
            return 0;
        if (unit.Length == 0)
            return rest == "%" ? -2 : null;
        if (!Prefixed.Contains(unit))
            return null;
        var exponent = SiPrefix.Exponent(rest[..1]);
        return exponent != 0 && (rest.Length == 1 || IsUnit(rest[1..], unit)) ? exponent : null;
    }

    private static bool IsUnit(string text, string unit) =>
        unit.Length > 0
        && (
            text == unit
            || unit switch
            {
                "Ω" => text.ToLowerInvariant() is "r" or "ohm" or "ohms",
                "V" => text == "v",
                "A" => text == "a",
                "F" => text == "f",
                "°C" => text is "C" or "c",
                "µA" => text is "uA" or "μA",
                "µm" => text is "um" or "μm",
                _ => false,
            }
        );

    private static double? Value(Match match, string whole, string part, int exponent)
    {
        // Parsed as one decimal text, so that 22u is the nearest double to 0.000022 and prints back as typed.
        var value = double.Parse($"{whole}.{part}0e{exponent}", NumberStyles.Float, CultureInfo.InvariantCulture);
        if (value > Most)
            return null;
        return match.Groups["sign"].Value is "-" or "−" ? -value : value;
    }
}
