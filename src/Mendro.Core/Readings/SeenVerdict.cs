using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Readings;

/// <summary>
/// Whether what an eye or a finger tells is good or bad: said outright (“ok”, “bad, green crust”), or in the words of the
/// bench (“one leg moves”, “no crust”, “nothing changes”). Wording: common practice, no source.
/// </summary>
public static class SeenVerdict
{
    /// <summary>What to type where nothing was understood.</summary>
    public const string Hint = "Begin with ok or bad, then say what you see: “bad, green crust”.";

    /// <summary>What to type where yes and no could mean either.</summary>
    public const string YesOrNo = "Yes or no could mean either here: say ok or bad, then what you see.";

    private static readonly HashSet<string> Good = ["ok", "okay", "good", "clean", "fine", "pass", "same", "steady", "g"];

    private static readonly HashSet<string> Bad =
    [
        "bad",
        "dirty",
        "fail",
        "fails",
        "fault",
        "faulty",
        "changes",
        "cracked",
        "loose",
        "black",
        "swollen",
        "bulging",
        "puffed",
        "x",
    ];

    private static readonly HashSet<string> Either = ["yes", "no", "y", "n", "not"];

    // Said of a part that is as it should be, wherever it stands in what was typed.
    private static readonly string[] GoodSigns =
    [
        "ok",
        "good",
        "clean",
        "fine",
        "bright",
        "intact",
        "firm",
        "solid",
        "sound",
        "steady",
        "stays",
        "same",
        "still",
        "tight",
        "whole",
        "straight",
        "smooth",
        "as it should",
        "as new",
        "looks new",
    ];

    private static readonly string[] BadSigns =
    [
        "bad",
        "dirt",
        "fault",
        "damage",
        "worse",
        "wrong",
        "crack",
        "loose",
        "bent",
        "broken",
        "burn",
        "eaten",
        "corro*",
        "rust",
        "leak",
        "torn",
        "worn",
        "melted",
        "lifting",
    ];

    // Under a finger: whatever moves, gives or comes and goes.
    private static readonly string[] Reacts =
    [
        "move",
        "chang*",
        "jump",
        "flicker",
        "flash",
        "cut",
        "come",
        "give",
        "wobbl*",
        "crackl*",
        "works when",
        "works if",
        "only",
    ];

    // Answers that are whole when nothing follows.
    private static readonly HashSet<string> Nothing = ["nothing", "none", "nope", "nothing seen", "nothing to see", "no difference", "no effect"];

    /// <summary>True for good, false for bad, null when the words do not say.</summary>
    /// <param name="probe">Probe it was typed for.</param>
    /// <param name="text">What was typed.</param>
    /// <param name="profile">Profile of the unit, whose parts have words that name a way of failing; null for none.</param>
    public static bool? Of(Probe probe, string text, DeviceProfile? profile)
    {
        var said = text.Trim().ToLowerInvariant().Replace('’', '\'');
        var first = said.Split([' ', ',', ';', '.', ':'], 2)[0];
        if (Good.Contains(first))
            return true;
        if (Bad.Contains(first))
            return false;
        // What the two keys beside the field say may be typed as well.
        if (said is "as it should be" or "not so")
            return said == "as it should be";
        if (Either.Contains(said))
            return null;
        if (IsExpected(probe, said))
            return true;
        bool Any(Func<string, string, bool> says, IEnumerable<string> words) => words.Any(w => says(said, w));
        var bad = (profile is null ? [] : Signs(profile, probe)).Concat(BadSigns).Concat(probe.Kind == ProbeKind.Press ? Reacts : []).ToList();
        if (Any(SeenWords.Says, bad) || Any(SeenWords.Denies, GoodSigns))
            return false;
        return Nothing.Contains(said) || Any(SeenWords.Denies, bad) || Any(SeenWords.Says, GoodSigns) ? true : null;
    }

    /// <summary>Why some words were not understood.</summary>
    /// <param name="text">What was typed.</param>
    public static string Problem(string text) => Either.Contains(text.Trim().ToLowerInvariant()) ? YesOrNo : Hint;

    /// <summary>Words that name a way of failing of what a probe touches.</summary>
    private static IEnumerable<string> Signs(DeviceProfile profile, Probe probe)
    {
        var wanted = probe.Expect.Text?.ToLowerInvariant() ?? "";
        return probe
            .PartIds()
            .Select(profile.FindPart)
            .OfType<Part>()
            .SelectMany(p => TradeLibrary.Shipped.FindPartKind(p.Kind)?.Modes ?? [])
            .SelectMany(m => m.Words ?? [])
            // “Flat and dry” is how capacitors should look, though flat cells and dried capacitors are bad.
            .Where(w => !SeenWords.Says(wanted, w));
    }

    /// <summary>True when what was typed is what the profile says should be seen, or one of its clauses.</summary>
    private static bool IsExpected(Probe probe, string said) =>
        probe.Expect.Text?.ToLowerInvariant() is { } wanted
        && (wanted == said || wanted.Split([",", " and "], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Contains(said));
}
