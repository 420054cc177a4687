using System.Text.RegularExpressions;

namespace Mendro.Core.Planning;

/// <summary>Turns what was typed into plain words: one spelling, one way of saying no, clauses told apart.</summary>
internal static partial class SaidWords
{
    /// <summary>Ends a clause.</summary>
    public const string Break = "|";

    /// <summary>Ends a clause that the next one contrasts with.</summary>
    public const string But = "|but";

    /// <summary>Ends a clause to which the next one is the exception.</summary>
    public const string Except = "|except";

    private static readonly (string Said, string Meant)[] Spellings =
    [
        ("glitchy", "garbled"),
        ("color", "colour"),
        ("colors", "colours"),
        ("gray", "grey"),
        ("colored", "coloured"),
        ("caps", "capacitors"),
        ("center", "centre"),
        ("centered", "centre"),
        ("recognized", "recognised"),
        ("recognize", "recognise"),
        ("recognizes", "recognise"),
        ("recognises", "recognise"),
        ("tv", "screen"),
        ("lcd", "screen"),
        ("monitor", "screen"),
        ("cart", "cartridge"),
        ("carts", "cartridge"),
        ("cartridges", "cartridge"),
        ("games", "game"),
        ("headphone", "headphones"),
        ("speakers", "speaker"),
        ("loudspeaker", "speaker"),
        ("loudspeakers", "speaker"),
        ("earbuds", "headphones"),
        ("booting", "boot"),
        ("starting", "start"),
        ("turning", "turn"),
        ("powering", "power"),
        ("working", "work"),
        ("responding", "respond"),
        ("pwr", "power"),
        ("disp", "display"),
        ("batt", "battery"),
        ("batts", "batteries"),
        ("btn", "button"),
        ("btns", "buttons"),
        ("spkr", "speaker"),
        ("sec", "second"),
        ("secs", "seconds"),
        ("telly", "screen"),
        ("television", "screen"),
        ("reading", "read"),
        ("everytime", "always"),
        ("soud", "sound"),
        ("verticle", "vertical"),
        ("horizonal", "horizontal"),
        ("lite", "light"),
        ("lamp", "light"),
        ("bulb", "light"),
        ("tone", "sound"),
        ("loudness", "volume"),
        ("pic", "picture"),
        ("dosent", "not"),
        ("dosnt", "not"),
    ];

    private static readonly Dictionary<string, string> Spelled = Spellings.ToDictionary(s => s.Said, s => s.Meant);

    private static readonly HashSet<string> Contrasts = ["but", "though", "although", "however", "yet", "while", "whereas"];

    private static readonly HashSet<string> Exceptions = ["except", "apart", "bar", "besides", "minus"];

    /// <summary>The words, with marks where a clause ends.</summary>
    public static List<string> Of(string text)
    {
        var plain = text.ToLowerInvariant().Replace('’', '\'');
        // “It's not the sound, it's the picture that is missing.”
        plain = NotThis().Replace(plain, m => $" {Break} {m.Groups[2].Value} not works {Break} ");
        // “It is not bad, but the sound is.”
        plain = NotBadBut().Replace(plain, $" is good {Break} $1 not works ");
        plain = plain.Replace("not bad", "good", StringComparison.Ordinal);
        // A condition goes on with what was said, whatever stands before it.
        plain = OnlyIf().Replace(plain, " only $1 ");
        plain = NowAndThen().Replace(plain, " sometimes ");
        plain = AsLongAs().Replace(plain, " when ");
        plain = SupplyOf().Replace(plain, "$1");
        plain = VoltsOf().Replace(plain, "$1 v ");
        plain = SecondsOf().Replace(plain, "$1 seconds ");
        // What one cannot read oneself is not what the unit does not read.
        plain = Illegible().Replace(plain, " illegible ");
        plain = Not().Replace(plain, " not ");
        plain = plain.Replace("unresponsive", "not respond", StringComparison.Ordinal);
        plain = Behind().Replace(plain, " backlight ");
        plain = TurnsOn().Replace(plain, " powers on ");
        plain = Neither().Replace(plain, $" no $1 {Break} no ");
        // A point or a comma within a number ends no clause.
        plain = Decimal().Replace(plain, "-");
        // “…, then off” goes on with what was said.
        plain = Then().Replace(plain, " then ");
        plain = Punctuation().Replace(plain, $" {Break} ");
        plain = Other().Replace(plain, " ");
        var words = new List<string>();
        foreach (var word in plain.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var one = word.Trim('\'', '-');
            if (one.Length == 0)
                continue;
            // “All bar one”, but a black bar is a bar.
            var aBar = one == "bar" && words.LastOrDefault() is "black" or "dark" or "solid" or "white" or "grey" or "a" or "the";
            words.Add(
                Contrasts.Contains(one) ? But
                : Exceptions.Contains(one) && !aBar ? Except
                : Spelled.GetValueOrDefault(one, one)
            );
        }

        return words;
    }

    /// <summary>The one spelling of a word.</summary>
    public static string Spelt(string word) => Spelled.GetValueOrDefault(word, word);

    /// <summary>True for a mark between clauses.</summary>
    public static bool IsBreak(string word) => word.StartsWith('|');

    /// <summary>The known word that a slip of the pen stands for, or the word itself.</summary>
    /// <param name="word">Word typed.</param>
    /// <param name="known">Words that mean something.</param>
    public static string Mended(string word, IReadOnlySet<string> known)
    {
        if (word.Length < 5 || known.Contains(word) || SaidConcepts.Shipped.Own.Contains(word))
            return word;
        var near = known.Where(k => k.Length >= 5 && Math.Abs(k.Length - word.Length) <= 1 && Spelling.IsSlip(word, k)).Take(2).ToList();
        return near.Count == 1 ? near[0] : word;
    }

    [GeneratedRegex(
        @"\b(?:does|do|did|is|are|was|were|will|would|can|could|has|have|had)\s*n[o']t\b"
            + @"|\b(?:doesnt|dont|didnt|isnt|arent|wasnt|wont|cant|cannot|couldnt|hasnt)\b|\b(?:won't|can't|ain't|aint)\b"
            + @"|\b(?:no longer|refuses to|fails to|failed to|unable to)\b|\b(?:will|can|does|do|is|are) not\b"
    )]
    private static partial Regex Not();

    [GeneratedRegex(@"\b(?:is|are) not (?:bad|broken|dead|faulty)[,;]? but (?:the )?(\w+) (?:is|are)\b(?! (?:\w+ )?(?:bad|broken|dead|ok|fine|good))")]
    private static partial Regex NotBadBut();

    [GeneratedRegex(@"[,;]?\s*\b(?:but|and|though)?\s*(?:then |even then )?\bonly (if|when|while|after|with|until)\b")]
    private static partial Regex OnlyIf();

    [GeneratedRegex(
        @"\b(?:(?:every )?now and (?:then|again)|from time to time|once in a while|(?:comes and|come and) go(?:es)?"
            + @"|half (?:of )?the time|most of the time|most times|every other time|at times)\b"
    )]
    private static partial Regex NowAndThen();

    [GeneratedRegex(@"\b(?:as|so) long as\b")]
    private static partial Regex AsLongAs();

    [GeneratedRegex(@"\bpower (supply|adapter|adaptor|brick|cord|cable|lead|pack)\b")]
    private static partial Regex SupplyOf();

    [GeneratedRegex(@"\b(\d+)\s*v(?:olts?)?\b")]
    private static partial Regex VoltsOf();

    [GeneratedRegex(@"\b(\d+(?:[.,]\d+)?)\s*(?:s|secs?)\b")]
    private static partial Regex SecondsOf();

    [GeneratedRegex(@"\b(?:cannot|can't|can not|hard to|hardly|barely) read(?= it\b| anything\b| the (?:text|screen)\b|\s*[,;.]|\s*$)")]
    private static partial Regex Illegible();

    [GeneratedRegex(@"\b(?:it'?s|it is|its) not (?:the |a )?([\w-]+(?: [\w-]+)?)[,;]? (?:but |it'?s |it is |its )+(?:the |a )?([\w-]+)"
        + @"(?: that)?(?: is)?(?: missing| gone| dead| broken| bad)?\b")]
    private static partial Regex NotThis();

    [GeneratedRegex(@"\b(?:light|lamp) (?:behind|of|for|in) (?:the )?(?:screen|picture|display|lcd)\b|\bscreen (?:light|lamp)\b|\bback light\b")]
    private static partial Regex Behind();

    [GeneratedRegex(@"\bneither ((?:\w+ ){1,2})nor\b")]
    private static partial Regex Neither();

    [GeneratedRegex(@"\b(?:turns|switches) on\b")]
    private static partial Regex TurnsOn();

    [GeneratedRegex(@"(?<=\d)[.,](?=\d)")]
    private static partial Regex Decimal();

    [GeneratedRegex(@"[,;]\s*(?:and\s+)?then\b")]
    private static partial Regex Then();

    [GeneratedRegex(@"[,;:.!?()\n/]+|\s[-–—]\s")]
    private static partial Regex Punctuation();

    [GeneratedRegex(@"[^a-z0-9'|\- ]+")]
    private static partial Regex Other();
}
