using System.Globalization;
using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>A unit left the shop into somebody's hands.</summary>
/// <param name="To">Who took it.</param>
/// <param name="WarrantyUntil">Last day of the warranty, or null for none.</param>
[RecordKind("handed-over")]
public sealed record HandedOver(string To, DateOnly? WarrantyUntil) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => "";

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        (To.Length > 0 ? $"Handed to {To}" : "Handed over")
        + (
            WarrantyUntil is { } until
                ? string.Create(CultureInfo.InvariantCulture, $"; warranty until {until:d MMM yyyy}")
                : ""
        );
}
