using Mendro.Core.Profiles;

namespace Mendro.Core.Evidence;

/// <summary>Something that happened at the bench, in order. The order of a list of events is their order in time.</summary>
/// <param name="Id">Id of the record it came from.</param>
public abstract record BenchEvent(long Id);

/// <summary>A function was tried.</summary>
/// <param name="Id">Record id.</param>
/// <param name="FunctionId">Function of the profile.</param>
/// <param name="Passed">True when it worked.</param>
/// <param name="LookId">Look of the failure, when told.</param>
/// <param name="Starts">How many times it was tried with this same result, 1 or more.</param>
public sealed record FunctionTried(long Id, FunctionId FunctionId, bool Passed, string? LookId = null, int Starts = 1) : BenchEvent(Id);

/// <summary>How a unit is provoked to see whether something changes.</summary>
public enum Provocation
{
    /// <summary>Pressed, wiggled or weighted.</summary>
    Pressed,

    /// <summary>Board or case flexed.</summary>
    Flexed,

    /// <summary>Warmed, or left running until warm.</summary>
    Warmed,
}

/// <summary>A function was watched while the unit was pressed, flexed or warmed.</summary>
/// <param name="Id">Record id.</param>
/// <param name="FunctionId">Function watched.</param>
/// <param name="How">What was done.</param>
/// <param name="Changed">True when it came or went.</param>
public sealed record Provoked(long Id, FunctionId FunctionId, Provocation How, bool Changed) : BenchEvent(Id);

/// <summary>What a probe showed.</summary>
public enum ProbeOutcome
{
    /// <summary>As expected of a good unit.</summary>
    Normal,

    /// <summary>Not as expected.</summary>
    Abnormal,

    /// <summary>Changes when pressed, flexed or touched.</summary>
    Jumps,
}

/// <summary>A probe was taken.</summary>
/// <param name="Id">Record id.</param>
/// <param name="ProbeId">Probe of the profile.</param>
/// <param name="Outcome">What it showed.</param>
/// <param name="Words">What an eye or a finger said, when it was told.</param>
/// <param name="On">Position of the switch it was taken at; null when none was told.</param>
/// <param name="Degree">How far the reading is off.</param>
public sealed record ProbeTaken(
    long Id,
    ProbeId ProbeId,
    ProbeOutcome Outcome,
    string? Words = null,
    bool? On = null,
    ReadingDegree Degree = ReadingDegree.Untold
) : BenchEvent(Id);

/// <summary>A condition mark was noted at intake.</summary>
/// <param name="Id">Record id.</param>
/// <param name="MarkId">Mark of the library.</param>
/// <param name="Grade">How bad it is.</param>
/// <param name="Place">Where: a part or a contact of the model, or any words; null when not told.</param>
public sealed record MarkSeen(long Id, string MarkId, SeenGrade Grade = SeenGrade.Untold, string? Place = null) : BenchEvent(Id);

/// <summary>A function was tried with a chain of parts in which some were swapped for others.</summary>
/// <param name="Id">Record id.</param>
/// <param name="FunctionId">Function tried.</param>
/// <param name="Chain">Parts of the profile that were in the chain; the swapped-out ones are not.</param>
/// <param name="Passed">True when it worked.</param>
/// <param name="Gear">Ids of the pieces of gear that stood in for parts, if any.</param>
/// <param name="Flickers">True when it came and went.</param>
public sealed record SwapTried(
    long Id,
    FunctionId FunctionId,
    IReadOnlyList<PartId> Chain,
    bool Passed,
    IReadOnlyList<string>? Gear = null,
    bool Flickers = false
) : BenchEvent(Id);

/// <summary>A cause was seen with one's own eyes, or ruled out that way.</summary>
/// <param name="Id">Record id.</param>
/// <param name="PartId">Part.</param>
/// <param name="ModeId">Failure mode.</param>
/// <param name="Present">True when it is the cause, false when it is ruled out.</param>
public sealed record CauseConfirmed(long Id, PartId PartId, string ModeId, bool Present) : BenchEvent(Id);

/// <summary>A method was carried out on a part.</summary>
/// <param name="Id">Record id.</param>
/// <param name="PartId">Part treated.</param>
/// <param name="MethodId">Method of the library.</param>
/// <param name="Claimed">True when another says that it was done: believed less than own work.</param>
/// <param name="Held">What the check at its end said, where no probe of the model says it; null when it was not told.</param>
public sealed record RepairDone(long Id, PartId PartId, MethodId MethodId, bool Claimed = false, bool? Held = null) : BenchEvent(Id);
