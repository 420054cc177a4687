using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>One thing that a line says of a unit.</summary>
/// <param name="Function">Function tried, or null.</param>
/// <param name="Passed">True when it works.</param>
/// <param name="Look">How it looks, or null.</param>
/// <param name="Starts">How often in a row.</param>
/// <param name="Mark">Mark seen, or null.</param>
/// <param name="Part">Part that the owner says was worked on, or null.</param>
/// <param name="Method">What was done to it.</param>
/// <param name="Provoked">True when it changes as it is pressed.</param>
/// <param name="Grade">How bad a mark is, when it was told.</param>
public sealed record SaidFact(
    FunctionId? Function,
    bool Passed = false,
    string? Look = null,
    int Starts = 1,
    string? Mark = null,
    PartId? Part = null,
    MethodId? Method = null,
    bool Provoked = false,
    SeenGrade? Grade = null
)
{
    /// <summary>The mark as a record writes it, with its grade; null when it is none.</summary>
    public string? WrittenMark => Mark is null ? null : MarkNoted.Write(Mark, MarkNoted.WordOf(Grade), null);
}

/// <summary>What was understood of one line typed at the door.</summary>
/// <param name="Profile">Model named; a generic one when only the kind is; null when neither.</param>
/// <param name="Facts">What it says.</param>
/// <param name="Unsure">Words that were not understood, or could mean two things.</param>
/// <param name="Claim">The words as typed; nothing is cut out of them.</param>
public sealed record Understanding(DeviceProfile? Profile, IReadOnlyList<SaidFact> Facts, IReadOnlyList<string> Unsure, string Claim)
{
    /// <summary>Words as typed on which each fact rests, in the order of the facts.</summary>
    public IReadOnlyList<string> Grounds { get; init; } = [];

    /// <summary>Longest line, characters.</summary>
    public const int LongestLine = 2000;

    /// <summary>Understands a line such as <c>quartet charges but dead</c>.</summary>
    /// <param name="line">The line.</param>
    /// <param name="profiles">Models it may name.</param>
    /// <param name="library">The trade library.</param>
    /// <param name="own">The shop's own words, or null.</param>
    public static Understanding Of(string? line, IReadOnlyList<DeviceProfile> profiles, TradeLibrary library, ShopWords? own = null)
    {
        var typed = (line ?? "").Trim();
        if (typed.Length > LongestLine)
            typed = typed[..LongestLine];
        var words = SaidWords.Of((own ?? ShopWords.None).In(typed));
        var named = ModelNames.Find(words, profiles, Listener.SaysSomething);
        return named is null
            ? new Understanding(null, [], words.Where(w => !SaidWords.IsBreak(w)).Distinct().ToList(), typed)
            : new Listener(named.Profile, library, named.Left).Hear(typed);
    }

    /// <summary>Understands a line that takes a unit in, such as <c>quartet no light</c>: it must name a model, or its kind.</summary>
    /// <returns>What was understood, or why it cannot be taken in; the words typed are the caller's to keep.</returns>
    public static Outcome<Understanding> AtTheDoor(
        string? line, IReadOnlyList<DeviceProfile> profiles, TradeLibrary library, ShopWords? own = null)
    {
        var typed = (line ?? "").Trim();
        if (typed.Length == 0)
            return Outcome<Understanding>.Fail("Type a model and what is wrong: quartet no light.");
        if (typed.Length > LongestLine)
            return Outcome<Understanding>.Fail("That is too long for one line; use the intake page.");
        var said = Of(typed, profiles, library, own);
        return said.Profile is null
            ? Outcome<Understanding>.Fail($"No model is known by “{NewName.In(typed, library).Name}”. Choose one, or take it in on a generic profile.")
            : Outcome<Understanding>.Ok(said);
    }

    /// <summary>Understands what is said of a model that is known.</summary>
    public static Understanding Of(string? line, DeviceProfile profile, TradeLibrary library, ShopWords? own = null) =>
        new Listener(profile, library, SaidWords.Of((own ?? ShopWords.None).In((line ?? "").Trim()))).Hear((line ?? "").Trim());

    /// <summary>Understands a line at the door whose model is told besides: its name in the line says nothing more.</summary>
    public static Understanding As(string? line, DeviceProfile profile, TradeLibrary library, ShopWords? own = null)
    {
        var typed = (line ?? "").Trim();
        return Of(NewName.In(typed, library).Said, profile, library, own) with { Claim = typed };
    }

    /// <summary>The first failure told, or null.</summary>
    public SaidFact? Complaint => Trials.FirstOrDefault(f => !f.Passed);

    /// <summary>Functions that are told to work or fail; not what changes as it is pressed.</summary>
    public IEnumerable<SaidFact> Trials => Facts.Where(f => f is { Function: not null, Provoked: false });
}
