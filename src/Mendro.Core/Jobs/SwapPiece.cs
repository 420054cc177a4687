using System.Globalization;
using System.Text.Json.Serialization;

namespace Mendro.Core.Jobs;

/// <summary>Something that stood in for a part in a swap trial.</summary>
/// <param name="Id"><c>g7</c> for a piece of gear, <c>job118</c> for the unit of another job.</param>
/// <param name="Name">Name.</param>
/// <param name="Kind">Part kind of the library.</param>
public sealed record SwapPiece(string Id, string Name, string Kind)
{
    /// <summary>Row id of the piece of gear, or null for another job's unit.</summary>
    [JsonIgnore]
    public long? GearId => Id.StartsWith('g') && long.TryParse(Id.AsSpan(1), CultureInfo.InvariantCulture, out var id) ? id : null;
}
