using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>How a point of a board was found; the last one filed for it holds.</summary>
/// <param name="Board">Board.</param>
/// <param name="Point">Point.</param>
/// <param name="State">sound, corroded, lost or lifted.</param>
[RecordKind("point-noted")]
public sealed record PointNoted(string Board, string Point, string State) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => $"{Board}/{Point}";

    /// <inheritdoc/>
    public override RecordSign Sign => State == "sound" ? RecordSign.Good : RecordSign.Bad;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"{Point}, {BoardWords.Of(model, Board)}: {State}";
}
