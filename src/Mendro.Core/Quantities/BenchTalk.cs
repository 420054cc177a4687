using System.Text.RegularExpressions;

namespace Mendro.Core.Quantities;

/// <summary>Takes off what people say around a reading: “about 4.6 V”, “5.1 V, good”, “12 V dc”. Wording: common practice, no
/// source.</summary>
internal static partial class BenchTalk
{
    /// <summary>A reading without the words around it, and whether they say that it does not hold still.</summary>
    /// <param name="typed">What was typed for a meter, trimmed.</param>
    public static (string Bare, bool Jumps) Strip(string typed)
    {
        var jumps = Unsteady().Match(typed);
        if (jumps.Success)
            typed = typed[..jumps.Index].TrimEnd(' ', ',', ';');
        typed = Before().Replace(typed, "");
        typed = Behind().Replace(typed, "");
        return (DirectVolts().Replace(typed, "$1 V"), jumps.Success);
    }

    /// <summary>True when words say that nothing goes through: what a meter shows on a way that is open.</summary>
    /// <param name="typed">What was typed for ohms, a diode or a buzzer.</param>
    public static bool SaysNoWay(string typed) => NoWay().IsMatch(typed);

    /// <summary>True when words say that it is as good as a wire.</summary>
    /// <param name="typed">What was typed for ohms or a diode.</param>
    public static bool SaysShort(string typed) => Short().IsMatch(typed);

    [GeneratedRegex(
        @"^(?:it )?(?:is )?(?:no (?:reading|value|ohms|resistance|connection|contact|sound|tone|signal)(?: at all)?"
            + @"|open circuit|nothing(?: at all)?|none|dead|not connected|off(?: the)? scale|out of range|infinite ohms)$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex NoWay();

    [GeneratedRegex(@"^(?:it )?(?:is )?(?:a )?(?:dead |full |hard )?short(?:ed)?(?: circuit)?(?: to ground)?$", RegexOptions.IgnoreCase)]
    private static partial Regex Short();

    [GeneratedRegex(
        @"(?<!\b(?:no|never|not) )\b(?:and )?(?:it )?(?:jump(?:s|ing|y|ed)|fluctuat\w*|unstable|unsteady|not steady|wanders|intermittent"
            + @"|comes and goes|cuts in and out|cuts out)\b.*$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Unsteady();

    [GeneratedRegex(
        @"^(?:[~≈<>]|(?:about|approx(?:imately)?\.?|around|roughly|ca\.?|circa|nearly|almost|only|just|less than|under|reads|a)\b)\s*",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Before();

    [GeneratedRegex(
        @"(?<=[\w.Ω])[,;]?\s+(?:ok|okay|good|fine|steady|as expected|only|low|too low|high|too high|bad"
            + @"|(?:in )?(?:both|either|each)(?: the)? (?:ways?|directions?))$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Behind();

    [GeneratedRegex(@"([0-9])\s*V\s?dc$", RegexOptions.IgnoreCase)]
    private static partial Regex DirectVolts();
}
