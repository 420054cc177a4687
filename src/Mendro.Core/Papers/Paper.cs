namespace Mendro.Core.Papers;

/// <summary>How a line of a paper is to be read.</summary>
public enum PaperTone
{
    /// <summary>As it stands.</summary>
    Plain,

    /// <summary>Works, or holds.</summary>
    Good,

    /// <summary>Fails, or is wrong.</summary>
    Bad,

    /// <summary>Not known.</summary>
    Open,
}

/// <summary>A line: words, and beside them a short value.</summary>
/// <param name="Words">Words.</param>
/// <param name="Value">What stands at the right; blank for none.</param>
/// <param name="Tone">How to read it.</param>
public sealed record PaperLine(string Words, string Value = "", PaperTone Tone = PaperTone.Plain);

/// <summary>A section of a paper.</summary>
/// <param name="Heading">Heading.</param>
/// <param name="Lines">Lines.</param>
/// <param name="Empty">What it says without lines; null leaves the section out.</param>
/// <param name="IsTable">True when the words are names and the values what counts.</param>
public sealed record PaperSection(string Heading, IReadOnlyList<PaperLine> Lines, string? Empty = null, bool IsTable = false)
{
    /// <summary>True when there is something to be shown.</summary>
    public bool Shows => Lines.Count > 0 || Empty is not null;
}

/// <summary>A paper that goes with a unit, to be printed or pasted; the same words both ways.</summary>
/// <param name="Kind">What it is, such as “Job sheet”.</param>
/// <param name="Tag">Number on the tag.</param>
/// <param name="Title">The unit.</param>
/// <param name="Shop">Shop and day.</param>
/// <param name="Facts">What it is about: name and value.</param>
/// <param name="Sections">Sections.</param>
public sealed record Paper(
    string Kind,
    string Tag,
    string Title,
    string Shop,
    IReadOnlyList<(string Name, string Value)> Facts,
    IReadOnlyList<PaperSection> Sections
);
