using Mendro.Core.Boards;
using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>The two legs of a capacitor that was placed, from their pads to the can.</summary>
/// <param name="Plus">Plus leg: pad and can.</param>
/// <param name="Minus">Minus leg.</param>
/// <param name="Over">Copper that a leg passes over: pads and parts, by name; empty for none.</param>
public sealed record LeadPath((BoardPoint Pad, BoardPoint Can) Plus, (BoardPoint Pad, BoardPoint Can) Minus, IReadOnlyList<string> Over)
{
    private const double LongMm = 4;

    // Legs stand about 0.4 of the diameter apart: 2 mm on 5 mm, 2.5 on 6.3 (common practice).
    private const double SpacingOfDiameter = 0.4;

    /// <summary>Length of the longer leg over the board, mm.</summary>
    public double LongestMm => Math.Max(Plus.Pad.To(Plus.Can), Minus.Pad.To(Minus.Can));

    /// <summary>True when the legs want sleeves: they pass copper, or run far over the board.</summary>
    public bool WantsSleeves => Over.Count > 0 || LongestMm > LongMm;

    /// <summary>Works the legs out; of an upright one there is nothing over the board.</summary>
    /// <param name="board">Board.</param>
    /// <param name="position">Position.</param>
    /// <param name="placed">Where it sits.</param>
    /// <param name="diameterMm">Diameter of the can, mm.</param>
    public static LeadPath? Of(Board board, BoardCapacitor position, FitPlacement placed, double diameterMm)
    {
        if (placed.Pose == FitPose.Upright || position.Pads is not { } pads)
            return null;
        BoardPoint P(IReadOnlyList<double> xy) => new(xy[0], xy[1]);
        var (plus, minus) = (P(pads.Plus), P(pads.Minus));
        var angle = placed.Angle * Math.PI / 180;
        var (cos, sin) = (Math.Cos(angle), Math.Sin(angle));
        var end = new BoardPoint(
            (plus.X + minus.X) / 2 + placed.DistanceMm * cos,
            (plus.Y + minus.Y) / 2 + placed.DistanceMm * sin
        );
        var half = diameterMm * SpacingOfDiameter / 2;
        var (left, right) = (new BoardPoint(end.X - half * sin, end.Y + half * cos), new BoardPoint(end.X + half * sin, end.Y - half * cos));
        // The way that does not cross the legs.
        var (a, b) = plus.To(left) + minus.To(right) <= plus.To(right) + minus.To(left) ? (left, right) : (right, left);
        var over = new List<string>();
        foreach (var part in board.Parts ?? [])
        {
            var polygon = part.Polygon.Select(P).ToList();
            if (PlaneGeometry.Between([plus, a], polygon) < 0.2 || PlaneGeometry.Between([minus, b], polygon) < 0.2)
                over.Add(part.Refdes);
        }

        foreach (var other in (board.Capacitors ?? []).Where(c => c.Refdes != position.Refdes && c.Pads is not null))
        foreach (var pad in (IReadOnlyList<double>[])[other.Pads!.Plus, other.Pads.Minus])
            if (PlaneGeometry.ToEdge([plus, a], P(pad)) < 1 || PlaneGeometry.ToEdge([minus, b], P(pad)) < 1)
                over.Add($"a pad of {other.Refdes}");
        return new LeadPath((plus, a), (minus, b), over.Distinct().ToList());
    }
}
