namespace Mendro.Core.Planning;

/// <summary>A way people say that something fails, works or looks a certain way.</summary>
/// <param name="Pattern">Words in order; <c>a|b</c> for either, <c>x*</c> for a beginning, <c>_</c> for any one word, <c>?</c> at the end
/// for a word that may be missing.</param>
/// <param name="Kinds">Kinds of function it is said of, the likeliest first; the first that the model has is meant. <c>~x</c> is a function
/// with this word in its name; none is whichever the clause speaks of.</param>
/// <param name="Look">Look, <c>pass</c> for works, <c>fail</c> for fails with no look told; empty for words that are heard and say
/// nothing by themselves.</param>
internal sealed record Phrase(string Pattern, string Kinds, string Look)
{
    /// <summary>Words of the pattern.</summary>
    public IReadOnlyList<string> Words { get; } = Pattern.Split(' ');
}

/// <summary>
/// How people say at the door what is wrong (common practice, no source). Longer ways of saying come before shorter ones, so that
/// “garbled logo” is not taken for a logo.
/// </summary>
internal static partial class Lexicon
{
    private const string Start = "start-up,cartridge";
    private const string Shown = "picture,video-out";

    /// <summary>Ways of saying, by the length of the pattern.</summary>
    public static IReadOnlyList<Phrase> Phrases { get; } =
        OfPower
            .Concat(OfPictureAndSound)
            .Concat(OfTheRest)
            .OrderByDescending(p => p.Words.Count(w => !w.EndsWith('?')))
            .ThenByDescending(p => p.Words.Count)
            .ToList();
}
