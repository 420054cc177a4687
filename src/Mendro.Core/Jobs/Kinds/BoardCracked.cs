using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>A crack runs over a board; the last one filed for a board holds.</summary>
/// <param name="Board">Board.</param>
/// <param name="Line">Points [x, y] along it, mm; none when there is no crack after all.</param>
[RecordKind("board-cracked")]
public sealed record BoardCracked(string Board, IReadOnlyList<IReadOnlyList<double>> Line) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => Board;

    /// <inheritdoc/>
    public override RecordSign Sign => Line.Count > 0 ? RecordSign.Bad : RecordSign.Good;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Looked;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        Line.Count > 0 ? $"Crack over {BoardWords.Of(model, Board)}" : $"No crack in {BoardWords.Of(model, Board)}";
}
