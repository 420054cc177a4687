using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>One step of taking a unit apart. It may be done when all of <see cref="Needs"/> and one of every group of
/// <see cref="AnyOf"/> are done.</summary>
/// <param name="Id">Id, unique among the steps of the profile.</param>
/// <param name="Name">What is done, as one says it.</param>
/// <param name="Frees">Parts, boards and probes that can be reached once it is done.</param>
/// <param name="Needs">Steps that must be done before.</param>
/// <param name="AnyOf">Groups of steps of each of which one must be done before.</param>
/// <param name="Fasteners">Fasteners that come out.</param>
/// <param name="Cables">Cables and ribbons that are unplugged, by name.</param>
/// <param name="Cautions">Caution ids, or words.</param>
/// <param name="Minutes">Minutes it takes.</param>
/// <param name="BackMinutes">Minutes to put it back.</param>
/// <param name="Seats">What to check on the way back.</param>
/// <param name="CanRun">True when the unit can be switched on in this state: the place to test before the screws.</param>
public sealed record TeardownStep(
    [property: RegularExpression(ProfileFormat.IdPattern)] string Id,
    [property: MaxLength(80)] string? Name = null,
    [property: MaxLength(80)] IReadOnlyList<string>? Frees = null,
    [property: MaxLength(40)] IReadOnlyList<string>? Needs = null,
    [property: MaxLength(20)] IReadOnlyList<IReadOnlyList<string>>? AnyOf = null,
    [property: MaxLength(60)] IReadOnlyList<string>? Fasteners = null,
    [property: MaxLength(20)] IReadOnlyList<string>? Cables = null,
    [property: MaxLength(20)] IReadOnlyList<string>? Cautions = null,
    [property: Range(0.0, ProfileFormat.MostMinutes)] double Minutes = 0,
    [property: Range(0.0, ProfileFormat.MostMinutes)] double BackMinutes = 0,
    [property: MaxLength(20)] IReadOnlyList<string>? Seats = null,
    bool CanRun = false
);
