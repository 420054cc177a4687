using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>A part in the sense of the bench: something that can be tested, cured or replaced as one.</summary>
/// <param name="Id">Id, unique in the profile.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Kind">Library kind; chooses failure modes and methods.</param>
/// <param name="Board">Board it sits on, if any.</param>
/// <param name="Refdes">Reference designator, if any.</param>
/// <param name="X">Board position, mm from the left edge.</param>
/// <param name="Y">Board position, mm from the top edge.</param>
/// <param name="Modes">Weights that replace the library's for this model.</param>
/// <param name="ComesOff">True for what pulls off its board without an iron, such as the connector of a front-loading console.</param>
/// <param name="Package">Its package and number of legs, such as <c>dip-28</c>, <c>quad-64</c> or <c>row-5</c>.</param>
/// <param name="Hazards">What it can do to someone, beside what its kind brings, by ids of cautions.</param>
/// <param name="Class">Age and make, by a class of its kind; null for what is not told.</param>
public sealed record Part(
    PartId Id,
    string Name,
    string Kind,
    string? Board = null,
    string? Refdes = null,
    double? X = null,
    double? Y = null,
    IReadOnlyList<ModeOverride>? Modes = null,
    bool ComesOff = false,
    [property: RegularExpression("^(dip|quad|row)-[0-9]{1,3}$")] string? Package = null,
    [property: MaxLength(ProfileFormat.MostHazards)] IReadOnlyList<string>? Hazards = null,
    [property: MaxLength(40)] string? Class = null
);

/// <summary>A starting weight of this model's own.</summary>
/// <param name="Mode">Failure-mode id of the part's kind.</param>
/// <param name="Prior">Chance that a unit brought in as faulty has it, 0 to 1.</param>
/// <param name="Source">Where the weight comes from.</param>
public sealed record ModeOverride(string Mode, [property: Range(0.0, 1.0)] double Prior, string? Source = null);
