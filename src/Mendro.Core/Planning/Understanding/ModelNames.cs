using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>A model found in a line.</summary>
/// <param name="Profile">The model.</param>
/// <param name="Left">The words behind its name.</param>
internal sealed record NamedModel(DeviceProfile Profile, List<string> Left);

/// <summary>
/// Finds the model that a line names. The name stands at the head: before the first comma, colon or dash, or before the first word that
/// begins a complaint. A model is named by words of its name and nothing else; a word of the complaint names none, and a head with a word
/// that no model has is another model's.
/// </summary>
internal static class ModelNames
{
    private const int ShortestSlip = 5;

    private static readonly string[] Loose = ["any", "with", "save", "cell", "colour"];

    private static readonly HashSet<string> Colours =
        ["black", "white", "grey", "gray", "blue", "red", "green", "yellow", "pink", "purple", "orange", "silver", "gold", "clear", "beige", "brown"];

    private static readonly HashSet<string> Articles = 
    [
        "a", "an", "the", "my", "our", "his", "her", "one", "another", "this", "second", "first", "old", "used", "dusty", "dirty", "dead", "broken",
        "faulty", "cheap", "nice", "little", "poor",
    ];

    private static readonly (string Word, DeviceKind Kind)[] Kinds =
    [
        ("handheld", DeviceKind.Handheld),
        ("portable", DeviceKind.Handheld),
        ("console", DeviceKind.Console),
        ("cartridge", DeviceKind.Cartridge),
        ("pad", DeviceKind.Controller),
        ("controller", DeviceKind.Controller),
        ("cable", DeviceKind.Accessory),
        ("adapter", DeviceKind.Accessory),
    ];

    /// <summary>The model that stands at the head of a line, or null. Of two that fit alike the one with the shorter name, so that a
    /// console is not taken for its cartridge.</summary>
    /// <param name="words">Words of the line.</param>
    /// <param name="profiles">Models.</param>
    /// <param name="isComplaint">True for a word that says something of a unit.</param>
    public static NamedModel? Find(IReadOnlyList<string> words, IReadOnlyList<DeviceProfile> profiles, Func<string, bool> isComplaint)
    {
        var from = 0;
        // “Anna's Lantern” is Anna's; “Lantern's screen” is the Lantern.
        var named = IsNamed(profiles);
        while (from < words.Count && IsBeforeName(words[from]) && !named(words[from]))
            from++;
        var coloured = from;
        while (coloured < words.Count && Colours.Contains(words[coloured]))
            coloured++;
        return ByName(words, from, profiles, isComplaint)
            ?? (coloured > from ? ByName(words, coloured, profiles, isComplaint) : null)
            ?? ByKind(words, coloured, profiles, isComplaint);
    }

    private static NamedModel? ByName(IReadOnlyList<string> words, int from, IReadOnlyList<DeviceProfile> profiles, Func<string, bool> isComplaint)
    {
        var fitting = profiles
            .Where(p => !p.Generic && p.Archetype is null)
            .Select(p => (Profile: p, Names: NameWords(p)))
            .Select(x => (x.Profile, Length: Run(words, from, x.Names), x.Names.Count))
            // A word that any unit shares, such as “cartridge”, names none.
            .Where(x => words.Skip(from).Take(x.Length).Any(w => Kinds.All(k => k.Word != w)))
            .OrderByDescending(x => x.Length)
            .ThenBy(x => x.Count)
            .ToList();
        if (fitting.Count == 0 || IsOfAnother(words, from + fitting[0].Length, isComplaint, IsNamed(profiles)))
            return null;
        // “Zorbo 4” is no Zorbo 3.
        var behind = from + fitting[0].Length;
        var numbers = NameWords(fitting[0].Profile).Where(HasDigit).ToList();
        if (behind < words.Count && HasDigit(words[behind]) && numbers.Count > 0 && !words.Skip(from).Take(fitting[0].Length).Any(numbers.Contains))
            return null;
        var alike = fitting.TakeWhile(x => x.Length == fitting[0].Length).Select(x => x.Profile).ToList();
        // A maker's name alone is the name of none of several.
        return alike.Count > 1 && words.Skip(from).Take(fitting[0].Length).All(w => IsOfMaker(w, alike))
            ? null
            : new NamedModel(alike[0], words.Skip(from + fitting[0].Length).ToList());
    }

    /// <summary>Models whose names are nearest to the head of a line, the nearest first; those without a word in common are left out.</summary>
    /// <param name="line">The line.</param>
    /// <param name="profiles">Models.</param>
    /// <param name="most">At most so many.</param>
    internal static IReadOnlyList<DeviceProfile> Nearest(string line, IReadOnlyList<DeviceProfile> profiles, int most)
    {
        var head = SaidWords.Of(line).TakeWhile(w => !SaidWords.IsBreak(w)).Take(LongestHead).ToList();
        return
        [
            .. profiles
                .Where(p => p is { Generic: false, Archetype: null })
                .Select(p => (Profile: p, Score: NameWords(p).Sum(n => head.Max(w => (double?)Likeness(w, n)) ?? 0)))
                .Where(x => x.Score > 0)
                .OrderByDescending(x => x.Score)
                .ThenBy(x => x.Profile.FullName.Length)
                .Select(x => x.Profile)
                .Take(most),
        ];
    }

    private const int LongestHead = 6;

    /// <summary>1 for the same word, less for a slip, or for one that begins the other.</summary>
    private static double Likeness(string typed, string name) =>
        typed == name ? 1
        : Same(typed, name) ? 0.9
        : typed.Length >= 3 && name.StartsWith(typed, StringComparison.Ordinal) ? 0.6
        : name.Length >= 4 && typed.StartsWith(name, StringComparison.Ordinal) ? 0.5
        : 0;

    /// <summary>“Any cartridge”, or just “cartridge”, as the whole of the head.</summary>
    private static NamedModel? ByKind(IReadOnlyList<string> words, int from, IReadOnlyList<DeviceProfile> profiles, Func<string, bool> isComplaint)
    {
        var at = from;
        if (at < words.Count && words[at] == "any")
            at++;
        var disc = at < words.Count && words[at] == "disc";
        if (disc)
            at++;
        if (at < words.Count && words[at] == "cartridge" && at + 1 < words.Count && words[at + 1] == "console")
            at++;
        var kind = at < words.Count ? Kinds.FirstOrDefault(k => k.Word == words[at]) : default;
        // The “controller port” is no controller.
        var part = at + 1 < words.Count && words[at + 1] is "port" or "slot" or "plug" or "socket" or "connector" or "cable" or "cord";
        if (kind.Word is null || part || IsOfAnother(words, at + 1, isComplaint, IsNamed(profiles)))
            return null;
        var wanted = disc && kind.Kind == DeviceKind.Console ? DeviceKind.DiscConsole : kind.Kind;
        return profiles.FirstOrDefault(p => p.Generic && p.Kind == wanted) is { } generic ? new NamedModel(generic, words.Skip(at + 1).ToList()) : null;
    }

    /// <summary>True when the head goes on with words that no model here has and that say nothing of a unit: it is another model's
    /// name.</summary>
    private static bool IsOfAnother(IReadOnlyList<string> words, int at, Func<string, bool> isComplaint, Func<string, bool> isNamed)
    {
        var rest = words.Skip(at).TakeWhile(w => !SaidWords.IsBreak(w)).ToList();
        if (rest.Count == 0)
            return false;
        // “Of my son” tells whose it is, “for the Quartet” what it belongs to.
        if (rest[0] is "of" or "from" && rest.Count > 1 && rest[1] is "my" or "our" or "his" or "her" or "a" or "someone")
            return false;
        if (rest[0] is "for" or "of")
            return true;
        // “From the flea market” tells where it comes from.
        if (rest[0] == "from")
            return rest.Skip(1).Any(isNamed);
        // Only up to a comma can it be a name: what has none goes on as the complaint.
        return rest.Count <= MostOfAName && rest.TrueForAll(w => !isComplaint(w) || HasDigit(w)) && at + rest.Count < words.Count;
    }

    private static bool IsBeforeName(string word) =>
        Articles.Contains(word) || word.EndsWith("'s", StringComparison.Ordinal) || int.TryParse(word, out _);

    private static Func<string, bool> IsNamed(IReadOnlyList<DeviceProfile> profiles) =>
        word => profiles.Any(p => p is { Generic: false, Archetype: null } && NameWords(p).Exists(n => Same(word, n)));

    private const int MostOfAName = 3;

    /// <summary>How many words in a row from a place on belong to a name, each to a word of its own.</summary>
    private static int Run(IReadOnlyList<string> words, int from, IReadOnlyList<string> names)
    {
        var left = names.ToList();
        var length = 0;
        while (from + length < words.Count && left.FindIndex(n => Same(words[from + length], n)) is >= 0 and var own)
        {
            left.RemoveAt(own);
            length++;
        }

        return length;
    }

    private static bool IsOfMaker(string word, List<DeviceProfile> alike) =>
        alike.TrueForAll(p => p.Maker.Split(' ', StringSplitOptions.RemoveEmptyEntries).Any(m => Same(word, m.ToLowerInvariant())));

    private static List<string> NameWords(DeviceProfile profile) =>
        $"{profile.Maker} {profile.Name}"
            .ToLowerInvariant()
            .Split([' ', ','], StringSplitOptions.RemoveEmptyEntries)
            .Where(w => (w.Length > 2 || HasDigit(w)) && !Loose.Contains(w))
            .ToList();

    private static bool HasDigit(string word) => word.Any(char.IsDigit);

    /// <summary>A word of a name, a slip of the finger allowed.</summary>
    private static bool Same(string typed, string name) =>
        name == typed
        || typed.EndsWith("'s", StringComparison.Ordinal) && name == typed[..^2]
        || typed.Length >= ShortestSlip && name.Length >= ShortestSlip && Spelling.IsSlip(typed, name);
}
