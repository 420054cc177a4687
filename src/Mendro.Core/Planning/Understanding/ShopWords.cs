using System.Text.RegularExpressions;

namespace Mendro.Core.Planning;

/// <summary>A word of the shop's own and what it stands for: “when we say <c>crusty</c> we mean <c>corroded</c>”.</summary>
/// <param name="Said">Word or words said.</param>
/// <param name="Meant">Words that are understood.</param>
public sealed record ShopWord(string Said, string Meant);

/// <summary>The shop's own words, put in place of others before a line is heard; the claim stays as typed.</summary>
public sealed class ShopWords
{
    /// <summary>Most words a shop may have.</summary>
    public const int Most = 200;

    /// <summary>Longest word and longest meaning, characters.</summary>
    public const int Longest = 60;

    private readonly List<(Regex Said, string Meant)> _words;

    /// <summary>No words.</summary>
    public static ShopWords None { get; } = new([]);

    /// <summary>Words of a shop; of two that begin alike the longer is tried first.</summary>
    public ShopWords(IReadOnlyList<ShopWord> words)
    {
        All = words;
        _words = [.. words.OrderByDescending(w => w.Said.Length).Select(w => (Whole(w.Said), w.Meant))];
    }

    /// <summary>The words.</summary>
    public IReadOnlyList<ShopWord> All { get; }

    /// <summary>A line with what is meant in place of what is said.</summary>
    public string In(string line) => _words.Aggregate(line, (text, word) => word.Said.Replace(text, _ => word.Meant));

    /// <summary>Reads one line a word: <c>crusty = corroded</c>.</summary>
    /// <returns>The words, or the first line that cannot be taken and why.</returns>
    public static Outcome<ShopWords> Read(string? text)
    {
        var words = new List<ShopWord>();
        foreach (var line in (text ?? "").Split('\n').Select(l => l.Trim()).Where(l => l.Length > 0))
        {
            if (line.Split('=', 2) is not [var said, var meant] || said.Trim().Length == 0 || meant.Trim().Length == 0)
                return Outcome<ShopWords>.Fail($"“{line}”: write the word, an equals sign, and what it means: crusty = corroded.");
            (said, meant) = (said.Trim().ToLowerInvariant(), meant.Trim().ToLowerInvariant());
            if (said.Length > Longest || meant.Length > Longest)
                return Outcome<ShopWords>.Fail($"“{line}”: at most {Longest} characters on each side.");
            if (words.Exists(w => w.Said == said))
                return Outcome<ShopWords>.Fail($"“{said}” stands there twice.");
            if (!SaidWords.Of(meant).Exists(Listener.SaysSomething))
                return Outcome<ShopWords>.Fail($"“{meant}” says nothing that is understood. Put it in words such as corroded, flickers, no sound.");
            words.Add(new ShopWord(said, meant));
        }

        return words.Count > Most
            ? Outcome<ShopWords>.Fail($"At most {Most} words.")
            : Outcome<ShopWords>.Ok(new ShopWords(words));
    }

    /// <summary>One line a word, as it is read.</summary>
    public string Text => string.Join('\n', All.Select(w => $"{w.Said} = {w.Meant}"));

    // Typed words are looked for as they are; a limit keeps an odd one from taking long.
    private static Regex Whole(string said) =>
        new($@"(?<!\w){Regex.Escape(said)}(?!\w)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant, TimeSpan.FromSeconds(1));
}
