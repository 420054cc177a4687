using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>A jumper wire was beeped again, after work beside it; when it is silent it is off.</summary>
/// <param name="From">One end, as board/point.</param>
/// <param name="To">The other.</param>
/// <param name="Holds">True when it beeps; false when it fell off or was taken off.</param>
[RecordKind("wire-checked")]
public sealed record WireChecked(string From, string To, bool Holds) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => $"{From} {To}";

    /// <inheritdoc/>
    public override RecordSign Sign => Holds ? RecordSign.Good : RecordSign.Bad;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Looked;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"Wire {BoardWords.Point(From)} to {BoardWords.Point(To)}: {(Holds ? "still beeps" : "fell off")}";
}
