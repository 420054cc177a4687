using System.Text.Json;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Storage;

/// <summary>What a swap trial was made with, as kept in its record.</summary>
/// <param name="Chain">Parts of the profile that stayed in the chain.</param>
/// <param name="Out">Parts swapped out; <see cref="SwapPlanner.WholeUnit"/> for the unit itself.</param>
/// <param name="Gear">What stood in for them, in the same order.</param>
public sealed record SwapDetail(IReadOnlyList<PartId> Chain, IReadOnlyList<PartId> Out, IReadOnlyList<StandIn> Gear)
{
    /// <summary>Writes it for the record.</summary>
    public string Write() => JsonSerializer.Serialize(this, Compact);

    /// <summary>Reads it from a record.</summary>
    public static SwapDetail Read(string json) => JsonSerializer.Deserialize<SwapDetail>(json, Compact) ?? new SwapDetail([], [], []);

    private static JsonSerializerOptions Compact { get; } = new(ProfileJson.Options) { WriteIndented = false };
}

/// <summary>Something that stood in for a part.</summary>
/// <param name="Id"><c>g7</c> for a piece of gear, <c>job118</c> for the unit of another job.</param>
/// <param name="Name">Name.</param>
/// <param name="Kind">Part kind of the library.</param>
public sealed record StandIn(string Id, string Name, string Kind)
{
    /// <summary>Row id of the piece of gear, or null for another job's unit.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public long? GearId => Id.StartsWith('g') && long.TryParse(Id[1..], System.Globalization.CultureInfo.InvariantCulture, out var id) ? id : null;
}
