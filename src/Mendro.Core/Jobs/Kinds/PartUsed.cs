using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>A part out of the stock went into the unit; what it cost stands beside it.</summary>
/// <param name="Part">Part.</param>
/// <param name="Count">How many, 1 or more.</param>
/// <param name="Bin">Where it lay, or blank.</param>
[RecordKind("part-used")]
public sealed record PartUsed(string Part, int Count, string Bin = "") : RecordBody
{
    /// <summary>What the bin of a part out of a donor begins with; the number of the donor follows.</summary>
    public const string DonorBin = "donor ";

    /// <inheritdoc/>
    public override string Subject => Part;

    /// <inheritdoc/>
    public override RecordSign Sign => RecordSign.Done;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => FormattableString.Invariant($"Out of the stock: {Count} × {Part}");

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words) => Part;

    /// <inheritdoc/>
    public override string Value(DeviceModel model) => FormattableString.Invariant($"×{Count}");
}
