using Mendro.Core.Money;

namespace Mendro.Core.Lots;

/// <summary>How an item of a lot stands.</summary>
public enum LotState
{
    /// <summary>Still to be worked on.</summary>
    Open,

    /// <summary>On a shelf: it waits for a part, an answer or an idea.</summary>
    Waits,

    /// <summary>Everything works.</summary>
    Cured,

    /// <summary>Given up: to parts, or gone with something that does not work.</summary>
    Failed,
}

/// <summary>An item of a lot in figures.</summary>
/// <param name="Number">Number of its job.</param>
/// <param name="State">How it stands.</param>
/// <param name="Apart">True when it does not belong in the lot and is not counted.</param>
/// <param name="Chance">Chance to cure it, 0 to 1; null where that is not the question.</param>
/// <param name="MinutesMore">Work to expect, minutes.</param>
/// <param name="PartsMore">Parts to expect, in the lot's currency.</param>
/// <param name="Minutes">Work so far, minutes.</param>
/// <param name="Parts">Parts so far.</param>
/// <param name="Working">Worth when it works, or null.</param>
/// <param name="Otherwise">Worth when it does not: as it stands or in parts, whatever is more.</param>
/// <param name="Left">What is left of its sale after fees and postage; null while it is not sold.</param>
public sealed record LotItem(
    long Number,
    LotState State,
    bool Apart,
    double? Chance,
    double MinutesMore,
    decimal PartsMore,
    double Minutes,
    decimal Parts,
    decimal? Working,
    decimal Otherwise,
    decimal? Left
)
{
    /// <summary>True while there is work to do that may cure it.</summary>
    public bool IsOpen => State is LotState.Open or LotState.Waits;

    /// <summary>What working on adds in an hour: chance times what curing adds, less parts, for the minutes to expect; null where the
    /// worth or the chance is not known.</summary>
    public decimal? GainAnHour =>
        IsOpen && Chance is { } chance && Working is { } working && MinutesMore > 0
            ? ((decimal)chance * Math.Max(0, working - Otherwise) - PartsMore) / (decimal)(MinutesMore / 60)
            : null;

    /// <summary>What it brings in the end, by what is known now: its sale, or its worth by its state and chance.</summary>
    public decimal? Brings =>
        Left
        ?? State switch
        {
            LotState.Cured => Working,
            LotState.Failed => Otherwise,
            // What has not failed anything yet counts as it stands.
            _ => Working is { } working ? Otherwise + (decimal)(Chance ?? 0) * (working - Otherwise) : null,
        };
}
