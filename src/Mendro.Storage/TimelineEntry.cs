namespace Mendro.Storage;

/// <summary>One line of a job's timeline.</summary>
public sealed record TimelineEntry
{
    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>Sort of entry, for its mark.</summary>
    public string Kind { get; init; } = "";

    /// <summary>What happened, in words.</summary>
    public string Words { get; init; } = "";

    /// <summary>Who did it; blank for Mendro itself, and for a shop without accounts.</summary>
    public string DoneBy { get; init; } = "";
}
