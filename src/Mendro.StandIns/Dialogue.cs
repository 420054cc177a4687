using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.StandIns;

/// <summary>What a move was, as a dialogue tells it.</summary>
public enum DialogueKind
{
    /// <summary>A point measured, looked at or pressed.</summary>
    Check,

    /// <summary>A function tried.</summary>
    Trial,

    /// <summary>A function tried with another piece in the place of a part.</summary>
    Swap,

    /// <summary>Pressed, flexed or warmed.</summary>
    Provoke,

    /// <summary>Work on a part.</summary>
    Repair,

    /// <summary>What had failed, started several times before the unit counts as cured.</summary>
    Proof,

    /// <summary>The work ended with something still failing.</summary>
    End,
}

/// <summary>One move of a dialogue.</summary>
/// <param name="Id">Id as <c>advise</c> gives it, such as <c>probe:tp3</c>, <c>fix:switch:flush-switch</c>, <c>aside</c>.</param>
/// <param name="Kind">What it was.</param>
/// <param name="Part">Part worked on or swapped out; null for a check or a trial.</param>
/// <param name="Minutes">Minutes it took, taking apart included.</param>
/// <param name="Access">How far the unit was apart for it.</param>
/// <param name="Answer">What came of it: pass, fail, ok, bad, jumps, done, changed, same, or the end; of work bad when the check at
/// its end shows that something is left.</param>
/// <param name="Chance">Chance that the unit is cured in the end, as told before the move; null where nobody told one.</param>
/// <param name="Known">True when what it cures was known to be broken.</param>
public sealed record DialogueMove(
    string Id,
    DialogueKind Kind,
    string? Part,
    double Minutes,
    AccessState Access,
    string Answer,
    double? Chance,
    bool Known
);

/// <summary>A practice unit from what was told of it to the end; one line of <c>simulate --dialogues</c>.</summary>
/// <param name="Profile">Id of its model.</param>
/// <param name="Seed">Seed.</param>
/// <param name="Unit">Number within the seed.</param>
/// <param name="Faults">Faults it came with.</param>
/// <param name="Told">What was known of it before the first move.</param>
/// <param name="Moves">The moves in order.</param>
/// <param name="Cured">True when everything worked at the end.</param>
/// <param name="Minutes">Minutes in all.</param>
public sealed record Dialogue(
    string Profile,
    long Seed,
    int Unit,
    IReadOnlyList<string> Faults,
    IReadOnlyList<EvidenceEntry> Told,
    IReadOnlyList<DialogueMove> Moves,
    bool Cured,
    double Minutes
);
