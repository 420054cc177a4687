using System.Text.RegularExpressions;

namespace Mendro.Core.Evidence;

/// <summary>Reads what an eye or a finger says: “bad, heavy green crust”.</summary>
public static partial class SeenWords
{
    private static readonly string[] Slight = ["slight", "light", "a little", "a bit", "trace", "spot", "thin film", "some"];

    private static readonly string[] Heavy =
    [
        "heavy",
        "heavily",
        "thick",
        "badly",
        "all over",
        "solid",
        "caked",
        "deeply",
        "lots",
        "both bays",
        "everywhere",
        "right through",
        "cracked through",
        "eaten through",
        "rusted through",
        "edge to edge",
        "end to end",
    ];

    private static readonly string[] Loose = ["comes", "goes", "flicker", "changes", "cuts", "starts", "returns", "appears"];

    /// <summary>True when some words tell of something that comes and goes.</summary>
    /// <param name="text">Text in lower case.</param>
    public static bool ComesAndGoes(string text) => Loose.Any(w => Says(text, w));

    /// <summary>The grade that some words give.</summary>
    public static SeenGrade Grade(string words)
    {
        var text = words.ToLowerInvariant();
        return Heavy.Any(w => Says(text, w)) ? SeenGrade.Heavy
            : Slight.Any(w => Says(text, w)) ? SeenGrade.Slight
            : SeenGrade.Untold;
    }

    /// <summary>True when a text has a word that begins like this one, and no “no” before it.</summary>
    /// <param name="text">Text in lower case.</param>
    /// <param name="word">Beginning of a word, in lower case.</param>
    public static bool Says(string text, string word) => Places(text, word).Any(before => !IsTurned(before));

    /// <summary>True when a text has a word that begins like this one, with a “no” before it.</summary>
    /// <param name="text">Text in lower case.</param>
    /// <param name="word">Beginning of a word, in lower case.</param>
    public static bool Denies(string text, string word) => Places(text, word).Any(IsTurned);

    /// <summary>What stands before each word that begins like this one.</summary>
    private static IEnumerable<string> Places(string text, string word)
    {
        for (var at = text.IndexOf(word, StringComparison.Ordinal); at >= 0; at = text.IndexOf(word, at + 1, StringComparison.Ordinal))
            if (at == 0 || !char.IsLetter(text[at - 1]))
                yield return text[..at];
    }

    private static bool IsTurned(string before) => Turned().IsMatch(before);

    // A “no” reaches over up to three words, unless one of them turns it back: “none of them moves”, but “not dirty but worn”.
    [GeneratedRegex(@"(?:\b(?:no|not|none|nothing|never|without|nor|neither)|n['’]t)(?: (?!but\b|only\b|just\b|though\b|yet\b)[\w-]+){0,3} $")]
    private static partial Regex Turned();
}
