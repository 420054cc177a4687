using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>A continuity test between two points of the boards.</summary>
/// <param name="A">One point, as board/point.</param>
/// <param name="B">The other.</param>
/// <param name="Beeps">True when it beeped.</param>
/// <param name="Line">Name of the net; null for two nets that should not be joined.</param>
[RecordKind("line-beeped")]
public sealed record LineBeeped(string A, string B, bool Beeps, string? Line) : RecordBody
{
    /// <summary>True for two lines that are joined and should not be.</summary>
    public bool IsShort => Line is null && Beeps;

    /// <inheritdoc/>
    public override string Subject => $"{A} {B}";

    /// <inheritdoc/>
    public override RecordSign Sign => Beeps == (Line is not null) ? RecordSign.Good : RecordSign.Bad;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Looked;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"{(Line is null ? "" : Line + ": ")}{BoardWords.Point(A)} to {BoardWords.Point(B)} "
        + (Beeps ? Line is null ? "beeps: joined, and should not be" : "beeps" : "is silent");
}
