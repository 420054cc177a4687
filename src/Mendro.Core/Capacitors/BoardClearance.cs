using Mendro.Core.Boards;
using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>How high something may stand on a board.</summary>
public static class BoardClearance
{
    /// <summary>Least clearance of all zones that a body touches, mm; infinite where nothing is told.</summary>
    /// <param name="board">Board.</param>
    /// <param name="body">Its outline seen from above, or a single point.</param>
    public static double Over(Board board, IReadOnlyList<BoardPoint> body) =>
        (board.Zones ?? [])
            .Where(z => PlaneGeometry.Between(z.Polygon.Select(p => new BoardPoint(p[0], p[1])).ToList(), body) <= 1e-9)
            .Select(z => z.ClearanceMm)
            .DefaultIfEmpty(double.PositiveInfinity)
            .Min();
}
