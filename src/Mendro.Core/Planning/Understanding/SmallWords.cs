namespace Mendro.Core.Planning;

/// <summary>Words that say little by themselves: that it works, how many, or nothing of a unit.</summary>
internal static class SmallWords
{
    private static readonly HashSet<string> GoodWords = Set(
        """
        works work ok okay fine good great excellent alright flawless superb perfect perfectly clean there well normal lights comes on
        """
    );

    private static readonly HashSet<string> Fillers = Set(
        """
        a an the is are was it its it's i my this that has have had with of to in at for and or so very just still all
        always sometimes mostly now get gets goes does do when if be been will would he she they says said owner
        customer please after from there some any unit thing too up as by then also again you we problem issue fault
        faulty broken only once no not second about out off line both their them last week yesterday suddenly since
        today day one whatsoever torch makes make much bit little old dropped into seems like shows show game cartridge console handheld
        every each other stays remains pls fix help thanks red green amber orange through else unless can even
        """
    );

    private static readonly Dictionary<string, int> Numbers = new()
    {
        ["once"] = 1,
        ["one"] = 1,
        ["two"] = 2,
        ["twice"] = 2,
        ["three"] = 3,
        ["four"] = 4,
        ["five"] = 5,
        ["six"] = 6,
        ["seven"] = 7,
        ["eight"] = 8,
        ["nine"] = 9,
        ["ten"] = 10,
        ["twenty"] = 20,
    };

    /// <summary>True for a word that says that something works.</summary>
    public static bool IsGood(string word) => GoodWords.Contains(word);

    /// <summary>True for a word that says nothing of a unit.</summary>
    public static bool IsFiller(string word) => Fillers.Contains(word);

    /// <summary>True for a word that is no slip of another: “three” is not “there”.</summary>
    public static bool IsKnown(string word) => IsGood(word) || IsFiller(word) || Number(word) is not null;

    /// <summary>The number that a word or figures say, or null.</summary>
    public static int? Number(string word) =>
        int.TryParse(word, out var n) ? n
        : Numbers.TryGetValue(word, out var told) ? told
        : null;

    private static HashSet<string> Set(string words) => [.. words.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)];
}
