using System.Globalization;
using System.Text.RegularExpressions;

namespace Mendro.Core.Quantities;

/// <summary>
/// Reads what a technician types at a probe: <c>5.02</c>, <c>5,02 V</c>, <c>4k7</c>, <c>22u</c>, <c>beep</c>,
/// <c>open</c>, <c>OL</c>, <c>0.43 diode</c>, and <c>jumps</c> after any of them.
/// </summary>
public static partial class ReadingParser
{
    // Volts, ohms, farads or amperes; insulation of a teraohm is the most that an instrument names.
    private const double Most = 1e12;

    private const int LongestReading = 40;

    // What an eye sees may take a sentence.
    private const int LongestWords = 160;

    [GeneratedRegex(
        @"^(?<sign>[-−+]?)(?<whole>[0-9]{1,9})(?:(?<mark>[.,])(?<part>[0-9]{0,9}))?(?:[eE](?<exponent>[-+]?[0-9]{1,2}))?"
            + @"\s*(?<prefix>[GMkKmuUµμnNpPr]?)(?<infix>[0-9]{0,3})\s*(?<unit>V|v|[Vv]olts?|Ω|[Oo]hms?|R|F|f|[Ff]arads?|A|a|[Aa]mps?)?$"
    )]
    private static partial Regex NumberPattern();

    [GeneratedRegex(@"^(?<sign>[-−+]?)(?<whole>[0-9]{1,9})(?<unit>[RΩV])(?<infix>[0-9]{1,3})$")]
    private static partial Regex UnitAsPointPattern();

    [GeneratedRegex(@"(?<!\b(?:no|never|not) )\b(?:jumps|jumping|jumpy)$", RegexOptions.IgnoreCase)]
    private static partial Regex Jumping();

    /// <summary>Parses a typed reading.</summary>
    /// <param name="text">What was typed.</param>
    /// <param name="assumed">Unit of a bare number, from the selected probe.</param>
    /// <returns>The reading, or why it could not be understood.</returns>
    public static Outcome<Reading> Parse(string? text, ReadingUnit assumed)
    {
        var typed = (text ?? "").Trim();
        if (typed.Length == 0)
            return Outcome<Reading>.Fail("Type a reading, or a word such as beep or open.");
        if (typed.Length > (assumed == ReadingUnit.Word ? LongestWords : LongestReading))
            return Outcome<Reading>.Fail("That is too long for a reading.");

        // At a look or a push, what jumps may be part of a sentence: only what ends so is a reading that jumps.
        bool jumps;
        (typed, jumps) =
            assumed != ReadingUnit.Word ? BenchTalk.Strip(typed)
            : Jumping().Match(typed) is { Success: true } end ? (typed[..end.Index].TrimEnd(' ', ','), true)
            : (typed, false);

        if (typed.Length == 0)
            return Outcome<Reading>.Ok(new Reading(ReadingUnit.Word, null, null, true));

        switch (typed.ToLowerInvariant())
        {
            // A junction that beeps is a short.
            case "beep" or "beeps" or "buzzes" when assumed == ReadingUnit.DiodeVolts:
                return Outcome<Reading>.Ok(new Reading(assumed, 0, null, jumps));
            case "beep" or "beeps" or "b" or "buzz" or "buzzes" or "continuity":
                return Outcome<Reading>.Ok(new Reading(ReadingUnit.Beep, 1, null, jumps));
            case "no beep" or "silent" or "nb" or "no buzz" or "no continuity":
                return Outcome<Reading>.Ok(new Reading(ReadingUnit.Beep, 0, null, jumps));
            case "open" or "ol" or "o.l" or "o.l." or "0l" or "over" when assumed != ReadingUnit.Word:
            case "over range" or "infinite" or "infinity" or "inf" or "∞" when assumed != ReadingUnit.Word:
                return Outcome<Reading>.Ok(new Reading(ReadingUnit.OverRange, null, null, jumps));
            case "zero" or "nothing" or "none" or "no volts" when assumed == ReadingUnit.Volts:
                return Outcome<Reading>.Ok(new Reading(ReadingUnit.Volts, 0, null, jumps));
        }

        if (BenchTalk.SaysNoWay(typed) && assumed is ReadingUnit.Ohms or ReadingUnit.DiodeVolts)
            return Outcome<Reading>.Ok(new Reading(ReadingUnit.OverRange, null, null, jumps));
        if (BenchTalk.SaysNoWay(typed) && assumed == ReadingUnit.Beep)
            return Outcome<Reading>.Ok(new Reading(ReadingUnit.Beep, 0, null, jumps));
        if (BenchTalk.SaysShort(typed) && assumed is ReadingUnit.Ohms or ReadingUnit.DiodeVolts)
            return Outcome<Reading>.Ok(new Reading(assumed, 0, null, jumps));

        if (assumed == ReadingUnit.Word)
            return Outcome<Reading>.Ok(new Reading(ReadingUnit.Word, null, typed, jumps));

        var diode = false;
        foreach (var word in new[] { "diode", "d" })
        {
            if (!typed.EndsWith(word, StringComparison.OrdinalIgnoreCase))
                continue;
            diode = true;
            typed = typed[..^word.Length].TrimEnd();
            break;
        }

        var number = ParseNumber(typed, assumed);
        if (number is null)
            return Outcome<Reading>.Fail($"“{typed}” is not a reading. Try 5.02 V, 4k7, 22u, beep or open.");
        var (value, unit) = number.Value;
        if (diode && unit is not (ReadingUnit.Volts or ReadingUnit.DiodeVolts) && unit != assumed)
            return Outcome<Reading>.Fail("A diode reading is in volts, such as 0.43 diode.");
        if (diode)
            unit = ReadingUnit.DiodeVolts;
        return Outcome<Reading>.Ok(new Reading(unit, value, null, jumps));
    }

    private static (double Value, ReadingUnit Unit)? ParseNumber(string typed, ReadingUnit assumed)
    {
        var asPoint = UnitAsPointPattern().Match(typed);
        if (asPoint.Success)
        {
            // 4R7 and 3V3: the unit stands where the decimal point would.
            var digits = $"{asPoint.Groups["whole"].Value}.{asPoint.Groups["infix"].Value}";
            var unit = asPoint.Groups["unit"].Value == "V" ? ReadingUnit.Volts : ReadingUnit.Ohms;
            return (Signed(asPoint, digits), unit);
        }

        var match = NumberPattern().Match(typed);
        if (!match.Success)
            return null;
        var infix = match.Groups["infix"].Value;
        var prefix = match.Groups["prefix"].Value;
        var mark = match.Groups["mark"].Success || match.Groups["exponent"].Success;
        if (infix.Length > 0 && (mark || prefix.Length == 0))
            return null;
        var whole = match.Groups["whole"].Value;
        var fraction = infix.Length > 0 ? infix : match.Groups["part"].Value;
        var value = Signed(match, fraction.Length > 0 ? $"{whole}.{fraction}" : whole);
        var given = match.Groups["unit"].Value;
        var found =
            given.Length == 0
                ? ByPrefix(prefix, assumed == ReadingUnit.Beep ? ReadingUnit.Ohms : assumed)
                : char.ToUpperInvariant(given[0]) switch
                {
                    'V' => assumed == ReadingUnit.DiodeVolts ? ReadingUnit.DiodeVolts : ReadingUnit.Volts,
                    'F' => ReadingUnit.Farads,
                    'A' => ReadingUnit.Amps,
                    _ => ReadingUnit.Ohms,
                };
        var exponent = match.Groups["exponent"] is { Success: true } power
            ? int.Parse(power.ValueSpan, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture)
            : 0;
        var read = value * Math.Pow(10, SiPrefix.Exponent(prefix) + exponent);
        // What no meter on a bench shows is a slip of the finger.
        return Math.Abs(read) <= Most ? (read, found) : null;
    }

    /// <summary>
    /// What a number with a prefix and no unit is: 4k7 is a resistor and 22u a capacitor, unless the probe wants something
    /// that comes in such sizes. Kilovolts do not: without this, 4k7 at a volts point would be 4.7 kV.
    /// </summary>
    private static ReadingUnit ByPrefix(string prefix, ReadingUnit assumed) =>
        prefix switch
        {
            "k" or "K" or "M" or "G" or "r" => ReadingUnit.Ohms,
            "n" or "N" or "p" or "P" => ReadingUnit.Farads,
            "u" or "U" or "µ" or "μ" => assumed == ReadingUnit.Amps ? assumed : ReadingUnit.Farads,
            _ => assumed,
        };

    private static double Signed(Match match, string digits)
    {
        var value = double.Parse(digits, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);
        return match.Groups["sign"].Value is "-" or "−" ? -value : value;
    }
}
