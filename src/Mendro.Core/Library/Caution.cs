namespace Mendro.Core.Library;

/// <summary>Where in a unit a hazard is met.</summary>
public enum HazardReach
{
    /// <summary>At work on the part that brings it, wherever that part is.</summary>
    Part,

    /// <summary>At everything that is done with the case open, and at opening it.</summary>
    Inside,

    /// <summary>At everything that is done with the unit.</summary>
    Always,
}

/// <summary>A warning shown at the step where it applies.</summary>
/// <param name="Id">Id.</param>
/// <param name="Title">Two or three words.</param>
/// <param name="Text">What can happen and what to do.</param>
/// <param name="Stop">True when the step must not go on until it is dealt with.</param>
/// <param name="Source">Where this comes from.</param>
/// <param name="Reach">Where it is met, for what belongs to a unit; null for what belongs to a step of a method alone.</param>
/// <param name="Brings">Cautions that always come with it, by id.</param>
/// <param name="First">What is done before any work inside, in words; null when there is nothing of the kind.</param>
/// <param name="Live">Cautions that come with it where the unit runs open, by id.</param>
public sealed record Caution(
    string Id,
    string Title,
    string Text,
    bool Stop,
    string Source,
    HazardReach? Reach = null,
    IReadOnlyList<string>? Brings = null,
    string? First = null,
    IReadOnlyList<string>? Live = null
);
