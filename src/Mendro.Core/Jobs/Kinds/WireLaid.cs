using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>A jumper wire was soldered, tugged and beeped.</summary>
/// <param name="Line">Name of the net.</param>
/// <param name="From">One end, as board/point.</param>
/// <param name="To">The other.</param>
/// <param name="Side">Side of the board it lies on.</param>
/// <param name="CutMm">Length it was cut to, mm.</param>
/// <param name="Wire">Sort of wire.</param>
/// <param name="Path">Its way, [x, y], mm.</param>
[RecordKind("wire-laid")]
public sealed record WireLaid(
    string Line,
    string From,
    string To,
    string Side,
    double CutMm,
    string Wire,
    IReadOnlyList<IReadOnlyList<double>> Path
) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => $"{From} {To}";

    /// <inheritdoc/>
    public override RecordSign Sign => RecordSign.Done;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Repaired;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"Wire for {MoveWords.Lower(Line)}: {BoardWords.Point(From)} to {BoardWords.Point(To)}, {CutMm:0} mm, {Side}"
        );

    /// <inheritdoc/>
    public override AccessState After(DeviceModel model, AccessState before) => Further(before, AccessState.BoardOut);
}
