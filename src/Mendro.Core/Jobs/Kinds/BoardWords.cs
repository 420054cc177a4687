using Mendro.Core.Diagnosis;

namespace Mendro.Core.Jobs;

/// <summary>Boards and their points in the words of records.</summary>
internal static class BoardWords
{
    /// <summary>Name of a board as it stands in a sentence.</summary>
    public static string Of(DeviceModel model, string board) => MoveWords.Lower(model.Profile.FindBoard(board)?.Name ?? board);

    /// <summary>A point by its key, without its board.</summary>
    public static string Point(string key) => key[(key.IndexOf('/', StringComparison.Ordinal) + 1)..];
}
