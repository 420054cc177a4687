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

    private static readonly string[] Loose =
    [
        "comes",
        "goes",
        "flicker",
        "changes",
        "cuts",
        "starts",
        "returns",
        "appears",
        "crackl*",
        "jumps",
        "intermittent",
        "works when",
        "works if",
        "only when",
        "now and then",
        "sometimes",
    ];

    // What makes a form of a word, and no word of its own. Common English.
    private static readonly HashSet<string> Endings =
    [
        "",
        "s",
        "es",
        "d",
        "ed",
        "n",
        "en",
        "ens",
        "ened",
        "ned",
        "r",
        "er",
        "ier",
        "ing",
        "y",
        "ily",
        "ly",
        "ish",
        "ness",
        "age",
        "less",
    ];

    // What only looks like a form: of crack, low and up.
    private static readonly HashSet<string> OtherWords = ["crackly", "lower", "upper"];

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

    /// <summary>True when a text has this word, or a form of it, and no “no” before it.</summary>
    /// <param name="text">Text in lower case.</param>
    /// <param name="word">Word in lower case: “crack” is said by cracks and cracked, not by crackles. With a star at its end whatever
    /// begins like it: “corro*”.</param>
    public static bool Says(string text, string word) => Places(text, word).Any(before => !IsTurned(before));

    /// <summary>True when a text has this word, or a form of it, whatever stands before: “no click on the left one” names the left.</summary>
    /// <param name="text">Text in lower case.</param>
    /// <param name="word">Word in lower case.</param>
    public static bool Names(string text, string word) => Places(text, word).Any();

    /// <summary>True when a clause of a text says some words, in whatever order: “black ends” is also said by “ends are black”. What
    /// begins with a “no” or a number is said as it stands.</summary>
    /// <param name="text">Text in lower case.</param>
    /// <param name="words">Words in lower case.</param>
    public static bool SaysTogether(string text, string words) =>
        Says(text, words)
        || !AsItStands().IsMatch(words)
            && Clauses().Split(text).Any(clause => words.Split(' ').All(w => Says(clause, w)));

    /// <summary>True when a text has this word, or a form of it, with a “no” before it.</summary>
    /// <param name="text">Text in lower case.</param>
    /// <param name="word">Word in lower case, with a star at its end where only its beginning counts.</param>
    public static bool Denies(string text, string word) => Places(text, word).Any(IsTurned);

    /// <summary>What stands before each place where a word, or a form of it, is said.</summary>
    private static IEnumerable<string> Places(string text, string word)
    {
        var (stem, cut) = word.EndsWith('*') ? (word[..^1], true) : (word, false);
        for (var at = text.IndexOf(stem, StringComparison.Ordinal); at >= 0; at = text.IndexOf(stem, at + 1, StringComparison.Ordinal))
            if ((at == 0 || !char.IsLetter(text[at - 1])) && (cut || IsForm(text, at, stem.Length)))
                yield return text[..at];
    }

    /// <summary>True when the word at a place is this one or a form of it: what follows is an ending, the last letter doubled or not.</summary>
    private static bool IsForm(string text, int at, int length)
    {
        var end = at + length;
        while (end < text.Length && char.IsLetter(text[end]))
            end++;
        if (OtherWords.Contains(text[at..end]))
            return false;
        var left = text[(at + length)..end];
        return Endings.Contains(left) || left.Length > 1 && left[0] == text[at + length - 1] && Endings.Contains(left[1..]);
    }

    [GeneratedRegex(@"\b(?:no|not|at|and|in)\b|[0-9]")]
    private static partial Regex AsItStands();

    [GeneratedRegex("[,;.]")]
    private static partial Regex Clauses();

    private static bool IsTurned(string before) => Turned().IsMatch(before);

    // A “no” reaches over up to three words, unless one of them turns it back: “none of them moves”, but “not dirty but worn”.
    [GeneratedRegex(@"(?:\b(?:no|not|none|nothing|never|without|nor|neither)|n['’]t)(?: (?!but\b|only\b|just\b|though\b|yet\b)[\w-]+){0,3} $")]
    private static partial Regex Turned();
}
