using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>Something tried before a unit of this model leaves, besides its functions: a test pattern, a memory test, the second slot.</summary>
/// <param name="Id">Id, unique among the checks of the profile.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="How">How to try it.</param>
/// <param name="Good">What good looks like.</param>
/// <param name="Function">Function that it tries more closely; a failed check is a failed trial of it. Null for none.</param>
/// <param name="With">What is laid out for it.</param>
/// <param name="After">Parts whose repair obliges it; null for every repair.</param>
/// <param name="Minutes">Minutes it takes.</param>
/// <param name="Closed">True when it can only be tried with the screws in.</param>
public sealed record ProofCheck(
    [property: RegularExpression(ProfileFormat.IdPattern)] string Id,
    [property: MinLength(1), MaxLength(80)] string Name,
    [property: MaxLength(200)] string? How = null,
    [property: MaxLength(120)] string? Good = null,
    FunctionId? Function = null,
    [property: MaxLength(8)] IReadOnlyList<string>? With = null,
    [property: MaxLength(40)] IReadOnlyList<PartId>? After = null,
    [property: Range(0.0, ProfileFormat.MostMinutes)] double Minutes = 1,
    bool Closed = false
);
