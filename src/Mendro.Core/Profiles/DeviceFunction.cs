using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>Something the user of the unit can see, hear or feel work.</summary>
/// <param name="Id">Id, unique in the profile.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Kind">Library function kind; chooses the looks of failure.</param>
/// <param name="Needs">Parts it needs; everything upstream of them is needed too.</param>
/// <param name="Minutes">Time to try it once, minutes.</param>
public sealed record DeviceFunction(
    FunctionId Id,
    string Name,
    string Kind,
    [property: MinLength(1)] IReadOnlyList<PartId> Needs,
    [property: Range(0, ProfileFormat.MostMinutes, MinimumIsExclusive = true)] double Minutes = 0.5
);
