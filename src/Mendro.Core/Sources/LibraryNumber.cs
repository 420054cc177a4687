namespace Mendro.Core.Sources;

/// <summary>What stands behind a number.</summary>
public enum SourceKind
{
    /// <summary>A standard, data sheet, safety sheet or textbook, named.</summary>
    Published,

    /// <summary>What benches report to each other; nobody has published it.</summary>
    CommonPractice,

    /// <summary>Nobody's but ours: told from memory, to be overruled by the shop's own cases.</summary>
    FromMemory,
}

/// <summary>A number of the library.</summary>
/// <param name="Of">Id of what it belongs to: a kind of part, a method, a ladder, a mark, a limit, a build.</param>
/// <param name="Where">What it belongs to, in words.</param>
/// <param name="What">What it says.</param>
/// <param name="Value">The number.</param>
/// <param name="Unit">Unit; empty for a chance.</param>
/// <param name="Source">Where it comes from.</param>
public sealed record LibraryNumber(string Of, string Where, string What, double Value, string Unit, string Source)
{
    /// <summary>What stands behind it. A number that names a publication for a part of itself counts with that part.</summary>
    public SourceKind Kind => KindOf(Source);

    // Words by which a source is told: numbers of standards, and sorts of print.
    private static readonly string[] Published =
    [
        "IEC ",
        "ISO ",
        "ITU",
        "EIA",
        "ASTM",
        "data sheet",
        "safety sheet",
        "textbook",
        "Handbook",
        "poison centres",
        "plates",
        "√2 times",
    ];

    /// <summary>The kind of a source as it is written.</summary>
    public static SourceKind KindOf(string source) =>
        source.Contains("from memory", StringComparison.Ordinal) && !source.StartsWith("ISO", StringComparison.Ordinal) ? SourceKind.FromMemory
        : Published.Any(word => source.Contains(word, StringComparison.Ordinal)) ? SourceKind.Published
        : SourceKind.CommonPractice;

    /// <summary>The kind in words.</summary>
    public static string Name(SourceKind kind) =>
        kind switch
        {
            SourceKind.Published => "published",
            SourceKind.CommonPractice => "common practice",
            _ => "value from memory",
        };
}
