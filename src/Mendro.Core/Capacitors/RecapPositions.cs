using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>A capacitor position of a unit.</summary>
/// <param name="Board">Board.</param>
/// <param name="Capacitor">Position on it.</param>
/// <param name="Part">Part of the profile that it belongs to; null when the model has none for it.</param>
public sealed record RecapPosition(Board Board, BoardCapacitor Capacitor, Part? Part)
{
    /// <summary>Board and reference designator; unique on a unit.</summary>
    public string Key => $"{Board.Id}/{Capacitor.Refdes}";

    /// <summary>What it serves; the board's name when that was not told.</summary>
    public string Section => Capacitor.Section ?? Board.Name;
}

/// <summary>The capacitors of a unit, position by position.</summary>
public static class RecapPositions
{
    /// <summary>Positions of a unit of a revision, board by board.</summary>
    /// <param name="profile">Model.</param>
    /// <param name="boards">Boards: the model's, or those that were typed for this unit.</param>
    /// <param name="revision">Revision of the unit; blank when not known.</param>
    public static IReadOnlyList<RecapPosition> Of(DeviceProfile profile, IReadOnlyList<Board> boards, string revision) =>
        boards.SelectMany(b => b.CapacitorsOf(revision).Select(c => new RecapPosition(b, c, PartOf(profile, b, c)))).ToList();

    /// <summary>True when the revision has to be told before anything is ordered: some position is not the same in all.</summary>
    public static bool NeedsRevision(IReadOnlyList<Board> boards) =>
        boards.Any(b => b.Capacitors?.Any(c => c.Revisions is { Count: > 0 }) == true);

    private static Part? PartOf(DeviceProfile profile, Board board, BoardCapacitor capacitor) =>
        capacitor.Part is { } told
            ? profile.FindPart(told)
            : profile.Parts.FirstOrDefault(p => p.Board == board.Id && Refdes.Expand(p.Refdes).Contains(capacitor.Refdes));
}
