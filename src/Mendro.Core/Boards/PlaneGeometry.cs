namespace Mendro.Core.Boards;

/// <summary>A point of a board, mm.</summary>
/// <param name="X">From the left.</param>
/// <param name="Y">From the bottom.</param>
public readonly record struct BoardPoint(double X, double Y)
{
    /// <summary>Distance to another, mm.</summary>
    public double To(BoardPoint other) => Math.Sqrt((X - other.X) * (X - other.X) + (Y - other.Y) * (Y - other.Y));
}

/// <summary>Polygons, each side by side: what fitting asks of geometry. Polygons may be hollow; they do not cross themselves.</summary>
public static class PlaneGeometry
{
    /// <summary>True when a point is inside a polygon or on its edge.</summary>
    public static bool Covers(IReadOnlyList<BoardPoint> polygon, BoardPoint point)
    {
        var inside = false;
        for (var (i, j) = (0, polygon.Count - 1); i < polygon.Count; j = i++)
        {
            if (ToSegment(point, polygon[i], polygon[j]) < 1e-9)
                return true;
            var (a, b) = (polygon[i], polygon[j]);
            if (a.Y > point.Y != b.Y > point.Y && point.X < (b.X - a.X) * (point.Y - a.Y) / (b.Y - a.Y) + a.X)
                inside = !inside;
        }

        return inside;
    }

    /// <summary>Distance from a point to the edge of a polygon, mm.</summary>
    public static double ToEdge(IReadOnlyList<BoardPoint> polygon, BoardPoint point)
    {
        var least = double.MaxValue;
        for (var (i, j) = (0, polygon.Count - 1); i < polygon.Count; j = i++)
            least = Math.Min(least, ToSegment(point, polygon[i], polygon[j]));
        return least;
    }

    /// <summary>Distance between two polygons, mm; 0 where they overlap or touch.</summary>
    public static double Between(IReadOnlyList<BoardPoint> one, IReadOnlyList<BoardPoint> other)
    {
        if (Covers(one, other[0]) || Covers(other, one[0]))
            return 0;
        var least = double.MaxValue;
        for (var (i, j) = (0, one.Count - 1); i < one.Count; j = i++)
        for (var (m, n) = (0, other.Count - 1); m < other.Count; n = m++)
        {
            if (Meet(one[i], one[j], other[m], other[n]))
                return 0;
            least = Math.Min(least, Math.Min(ToSegment(one[i], other[m], other[n]), ToSegment(other[m], one[i], one[j])));
        }

        return least;
    }

    /// <summary>True when a polygon lies wholly inside another.</summary>
    public static bool Within(IReadOnlyList<BoardPoint> inner, IReadOnlyList<BoardPoint> outer)
    {
        if (!inner.All(p => Covers(outer, p)))
            return false;
        // A notch of the outline may reach in between two corners.
        for (var (i, j) = (0, inner.Count - 1); i < inner.Count; j = i++)
        {
            var middle = new BoardPoint((inner[i].X + inner[j].X) / 2, (inner[i].Y + inner[j].Y) / 2);
            if (!Covers(outer, middle))
                return false;
            for (var (m, n) = (0, outer.Count - 1); m < outer.Count; n = m++)
                if (Crosses(inner[i], inner[j], outer[m], outer[n]))
                    return false;
        }

        return outer.All(p => !Covers(inner, p) || ToEdge(inner, p) < 1e-9);
    }

    /// <summary>The point of a segment that is nearest to a point.</summary>
    public static BoardPoint Nearest(BoardPoint p, BoardPoint a, BoardPoint b)
    {
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        var length = dx * dx + dy * dy;
        var along = length <= 0 ? 0 : Math.Clamp(((p.X - a.X) * dx + (p.Y - a.Y) * dy) / length, 0, 1);
        return new BoardPoint(a.X + along * dx, a.Y + along * dy);
    }

    private static double ToSegment(BoardPoint p, BoardPoint a, BoardPoint b) => p.To(Nearest(p, a, b));

    /// <summary>True when two segments meet.</summary>
    public static bool Meet(BoardPoint a, BoardPoint b, BoardPoint c, BoardPoint d) =>
        Side(a, b, c) * Side(a, b, d) <= 0
        && Side(c, d, a) * Side(c, d, b) <= 0
        && Math.Max(a.X, b.X) >= Math.Min(c.X, d.X)
        && Math.Max(c.X, d.X) >= Math.Min(a.X, b.X)
        && Math.Max(a.Y, b.Y) >= Math.Min(c.Y, d.Y)
        && Math.Max(c.Y, d.Y) >= Math.Min(a.Y, b.Y);

    /// <summary>
    /// True when two lines cross: in the middle of two of their pieces, or in a corner that both have and where one goes from one side of
    /// the other to its other side. Lines that only touch, or lie side by side round a corner, do not.
    /// </summary>
    public static bool Cross(IReadOnlyList<BoardPoint> one, IReadOnlyList<BoardPoint> other)
    {
        for (var i = 0; i + 1 < one.Count; i++)
            for (var j = 0; j + 1 < other.Count; j++)
                if (Crosses(one[i], one[i + 1], other[j], other[j + 1]))
                    return true;
        for (var i = 1; i + 1 < one.Count; i++)
            for (var j = 1; j + 1 < other.Count; j++)
                if (one[i].To(other[j]) < 1e-6 && Parts(one[i - 1], one[i], one[i + 1], other[j - 1]) * Parts(one[i - 1], one[i], one[i + 1], other[j + 1]) < 0)
                    return true;
        return false;
    }

    /// <summary>On which side of a bent line a point lies: 1 or −1, 0 on the line.</summary>
    private static int Parts(BoardPoint before, BoardPoint at, BoardPoint after, BoardPoint p)
    {
        double Angle(BoardPoint to) => Math.Atan2(to.Y - at.Y, to.X - at.X);
        static double Turn(double from, double to) => (to - from + 4 * Math.PI) % (2 * Math.PI);
        var (on, off) = (Turn(Angle(before), Angle(after)), Turn(Angle(before), Angle(p)));
        return off < 1e-9 || Math.Abs(off - on) < 1e-9 || off > 2 * Math.PI - 1e-9 ? 0
            : off < on ? 1
            : -1;
    }

    /// <summary>True when two segments cross in the middle of both.</summary>
    private static bool Crosses(BoardPoint a, BoardPoint b, BoardPoint c, BoardPoint d) =>
        Side(a, b, c) * Side(a, b, d) < 0 && Side(c, d, a) * Side(c, d, b) < 0;

    private static int Side(BoardPoint a, BoardPoint b, BoardPoint p)
    {
        var turn = (b.X - a.X) * (p.Y - a.Y) - (b.Y - a.Y) * (p.X - a.X);
        return Math.Abs(turn) < 1e-12 ? 0 : Math.Sign(turn);
    }
}
