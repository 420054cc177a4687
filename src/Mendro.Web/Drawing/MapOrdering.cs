using Mendro.Core.Profiles;

namespace Mendro.Web.Drawing;

/// <summary>
/// Finds the rows: hill climbing over swaps and moves within a column, from the barycentre order, until the lines get
/// no shorter. Deterministic; a column has few blocks, so every neighbour is tried.
/// </summary>
internal static class MapOrdering
{
    private const int Passes = 30;

    /// <summary>Improves the rows in place.</summary>
    /// <param name="cells">Column and row by block id.</param>
    /// <param name="movable">Blocks that may change their row.</param>
    /// <param name="lines">Lines between block ids.</param>
    /// <param name="rows">Rows of the grid.</param>
    public static void Refine(
        Dictionary<string, (int Column, int Row)> cells,
        IReadOnlyList<string> movable,
        IReadOnlyList<(string From, string To, Carries Carries)> lines,
        int rows
    )
    {
        var of = movable.ToDictionary(id => id, id => lines.Where(l => l.From == id || l.To == id).ToList());
        for (var pass = 0; pass < Passes; pass++)
        {
            var improved = false;
            foreach (var id in movable)
            {
                var (column, home) = cells[id];
                var (bestRow, bestGain) = (home, 1e-9);
                for (var row = 0; row < rows; row++)
                {
                    if (row == home)
                        continue;
                    var other = movable.FirstOrDefault(o => cells[o] == (column, row));
                    var touched = other is null ? of[id] : of[id].Union(of[other]).ToList();
                    var before = touched.Sum(l => Cost(cells, l));
                    Place(cells, id, column, row, other, home);
                    var gain = before - touched.Sum(l => Cost(cells, l));
                    Place(cells, id, column, home, other, row);
                    if (gain > bestGain)
                        (bestRow, bestGain) = (row, gain);
                }

                if (bestRow == home)
                    continue;
                Place(cells, id, column, bestRow, movable.FirstOrDefault(o => cells[o] == (column, bestRow)), home);
                improved = true;
            }

            if (!improved)
                return;
        }
    }

    private static void Place(Dictionary<string, (int Column, int Row)> cells, string id, int column, int row, string? other, int otherRow)
    {
        cells[id] = (column, row);
        if (other is not null)
            cells[other] = (column, otherRow);
    }

    private static double Cost(Dictionary<string, (int Column, int Row)> cells, (string From, string To, Carries Carries) line)
    {
        var (a, b) = (cells[line.From], cells[line.To]);
        var weight = line.Carries == Carries.Power ? 2.0 : 1.0;
        var rows = Math.Abs(a.Row - b.Row);
        // In one column the flow should fall straight to the block below; anything else needs a detour.
        if (a.Column == b.Column)
            return b.Row == a.Row + 1 ? 0 : weight * (3 + rows);
        return weight * (rows + 0.2 * rows * rows);
    }
}
