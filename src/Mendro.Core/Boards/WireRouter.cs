
namespace Mendro.Core.Boards;

/// <summary>
/// Shortest ways of wires on a board: inside its outline, and a clearance away from every keep-out; only an end may lie nearer to one,
/// and leaves it by no more than the clearance. A visibility graph over the corners (Lozano-Pérez and Wesley, CACM 22, 1979) with the
/// pieces that touch both corners from outside, as no other bends a shortest way; round corners are walked by a circumscribed polygon,
/// 0.6 % longer than the arc.
/// </summary>
public sealed class WireRouter
{
    private const int AroundACorner = 24;
    private const double Slack = 1e-9;
    private const double LeastClearanceMm = 1e-3;

    private readonly List<BoardPoint> _outline;
    private readonly List<List<BoardPoint>> _keepouts;
    private readonly double _clearance;
    private readonly List<Box> _boxes;
    private readonly List<Corner> _corners;
    private readonly List<(int To, double Mm)>[] _ways;

    /// <summary>Prepares a board.</summary>
    /// <param name="outline">Corners of the board, mm.</param>
    /// <param name="keepouts">Corners of what wires stay away from, mm.</param>
    /// <param name="clearanceMm">How far, mm; 0 or more.</param>
    public WireRouter(IReadOnlyList<BoardPoint> outline, IReadOnlyList<IReadOnlyList<BoardPoint>> keepouts, double clearanceMm)
    {
        (_outline, _clearance) = (outline.ToList(), Math.Max(clearanceMm, LeastClearanceMm));
        _keepouts = keepouts.Select(k => k.ToList()).ToList();
        _boxes = _keepouts.Select(k => Box.Round(k, _clearance)).ToList();
        _corners = _keepouts
            .SelectMany(k => Ring(Rounded(k).ToList()))
            .Concat(_outline.Select(p => new Corner(p, p, p)))
            .Where(c => PlaneGeometry.Covers(_outline, c.At) && IsClear(c.At))
            .ToList();
        _ways = _corners.Select(_ => new List<(int, double)>()).ToArray();
        for (var i = 0; i < _corners.Count; i++)
            for (var j = i + 1; j < _corners.Count; j++)
                if (_corners[i].IsPassedBy(_corners[j].At) && _corners[j].IsPassedBy(_corners[i].At) && Sees(_corners[i].At, _corners[j].At))
                {
                    var mm = _corners[i].At.To(_corners[j].At);
                    _ways[i].Add((j, mm));
                    _ways[j].Add((i, mm));
                }
    }

    /// <summary>A corner of the ways round a keep-out, between its neighbours on the ring.</summary>
    private readonly record struct Corner(BoardPoint At, BoardPoint Before, BoardPoint After)
    {
        // Ends leave their keep-out by the arc, which lies a little inside the polygon round it: what is nearly tangent counts.
        private const double Nearly = 0.2;

        /// <summary>True when a way from a point may bend here: it passes the ring on one side.</summary>
        public bool IsPassedBy(BoardPoint from)
        {
            var (one, other) = (Sine(from, Before), Sine(from, After));
            return one * other >= 0 || Math.Min(Math.Abs(one), Math.Abs(other)) < Nearly;
        }

        /// <summary>Sine of the angle between the way that comes in and the way on to a neighbour.</summary>
        private double Sine(BoardPoint from, BoardPoint to)
        {
            var (dx, dy, ex, ey) = (At.X - from.X, At.Y - from.Y, to.X - At.X, to.Y - At.Y);
            var size = Math.Sqrt((dx * dx + dy * dy) * (ex * ex + ey * ey));
            return size < 1e-12 ? 0 : (dx * ey - dy * ex) / size;
        }
    }

    /// <summary>An upright box round a keep-out and its clearance.</summary>
    private readonly record struct Box(double Left, double Low, double Right, double High)
    {
        public static Box Round(IReadOnlyList<BoardPoint> polygon, double grow) =>
            new(
                polygon.Min(p => p.X) - grow,
                polygon.Min(p => p.Y) - grow,
                polygon.Max(p => p.X) + grow,
                polygon.Max(p => p.Y) + grow
            );

        /// <summary>True when a straight piece meets the box: what is left of it between each pair of sides (slabs).</summary>
        public bool Meets(BoardPoint a, BoardPoint b)
        {
            var (first, last) = (0.0, 1.0);
            return Cut(a.X, b.X - a.X, Left, Right, ref first, ref last) && Cut(a.Y, b.Y - a.Y, Low, High, ref first, ref last);
        }

        private static bool Cut(double from, double way, double low, double high, ref double first, ref double last)
        {
            if (Math.Abs(way) < 1e-12)
                return from >= low && from <= high;
            var (enter, leave) = ((low - from) / way, (high - from) / way);
            first = Math.Max(first, Math.Min(enter, leave));
            last = Math.Min(last, Math.Max(enter, leave));
            return first <= last;
        }
    }

    private static IEnumerable<Corner> Ring(IReadOnlyList<BoardPoint> ring) =>
        ring.Select((p, n) => new Corner(p, ring[(n + ring.Count - 1) % ring.Count], ring[(n + 1) % ring.Count]));

    /// <summary>
    /// Points round the convex corners of a keep-out: where the grown edges end, at the clearance itself, so that a gap of just two
    /// clearances can be passed, and between them the corners of a polygon that touches the arc from outside.
    /// </summary>
    private IEnumerable<BoardPoint> Rounded(List<BoardPoint> keepout)
    {
        var area = 0.0;
        for (var (i, j) = (0, keepout.Count - 1); i < keepout.Count; j = i++)
            area += keepout[j].X * keepout[i].Y - keepout[i].X * keepout[j].Y;
        // Counterclockwise, outside lies to the right.
        var corners = area < 0 ? keepout.AsEnumerable().Reverse().ToList() : keepout;
        for (var n = 0; n < corners.Count; n++)
        {
            var (before, at, after) = (corners[(n + corners.Count - 1) % corners.Count], corners[n], corners[(n + 1) % corners.Count]);
            var (from, to) = (Math.Atan2(before.X - at.X, at.Y - before.Y), Math.Atan2(at.X - after.X, after.Y - at.Y));
            var turn = Math.IEEERemainder(to - from, 2 * Math.PI);
            if (turn <= 0)
                continue;
            yield return At(at, _clearance, from);
            yield return At(at, _clearance, to);
            var steps = Math.Max(1, (int)Math.Ceiling(turn / (2 * Math.PI / AroundACorner)));
            var radius = _clearance / Math.Cos(turn / steps / 2);
            for (var k = 0; k < steps; k++)
                yield return At(at, radius, from + (k + 0.5) * turn / steps);
        }
    }

    /// <summary>True when a wire may end there: on the board, and in no keep-out.</summary>
    public bool CanEnd(BoardPoint point) =>
        PlaneGeometry.Covers(_outline, point)
        && _keepouts.All(k => !PlaneGeometry.Covers(k, point) || PlaneGeometry.ToEdge(k, point) < Slack);

    /// <summary>Shortest ways from a point to others.</summary>
    /// <param name="from">Where it starts; a point where a wire may end.</param>
    /// <param name="ends">Where it may go.</param>
    /// <returns>The way to each, both ends included; null where there is none.</returns>
    public IReadOnlyList<IReadOnlyList<BoardPoint>?> Ways(BoardPoint from, IReadOnlyList<BoardPoint> ends)
    {
        var least = new double[_corners.Count];
        var before = new int[_corners.Count];
        var firstStep = new BoardPoint[_corners.Count];
        Array.Fill(least, double.MaxValue);
        Array.Fill(before, -1);
        var open = new PriorityQueue<int, double>();
        var starts = Exits(from);
        foreach (var exit in starts)
            for (var n = 0; n < _corners.Count; n++)
            {
                var mm = from.To(exit) + exit.To(_corners[n].At);
                if (mm >= least[n] || !_corners[n].IsPassedBy(exit) || !Sees(exit, _corners[n].At))
                    continue;
                (least[n], firstStep[n]) = (mm, exit);
                open.Enqueue(n, mm);
            }

        while (open.TryDequeue(out var at, out var so))
            foreach (var (to, mm) in so <= least[at] ? _ways[at] : [])
                if (so + mm < least[to])
                {
                    (least[to], before[to]) = (so + mm, at);
                    open.Enqueue(to, so + mm);
                }

        return ends.Select(end => Way(from, starts, end, least, before, firstStep)).ToList();
    }

    /// <summary>Length of a way, mm.</summary>
    public static double Length(IReadOnlyList<BoardPoint> way) => way.Zip(way.Skip(1)).Sum(s => s.First.To(s.Second));

    private List<BoardPoint>? Way(
        BoardPoint from,
        IReadOnlyList<BoardPoint> starts,
        BoardPoint end,
        double[] least,
        int[] before,
        BoardPoint[] firstStep
    )
    {
        var best = double.MaxValue;
        List<BoardPoint>? way = null;
        foreach (var last in Exits(end))
        {
            var tail = last.To(end);
            foreach (var first in starts)
                if (from.To(first) + first.To(last) + tail is var straight && straight < best && Sees(first, last))
                    (best, way) = (straight, [from, first, last, end]);
            for (var n = 0; n < _corners.Count; n++)
            {
                var corner = _corners[n];
                if (least[n] + corner.At.To(last) + tail >= best || !corner.IsPassedBy(last) || !Sees(corner.At, last))
                    continue;
                best = least[n] + corner.At.To(last) + tail;
                way = [end, last];
                var at = n;
                for (; before[at] >= 0; at = before[at])
                    way.Add(_corners[at].At);
                way.AddRange([_corners[at].At, firstStep[at], from]);
                way.Reverse();
            }
        }

        // Both ends stay, also of a wire of no length.
        return way is null ? null : [from, .. way[1..^1].Where((p, n) => p.To(way[n]) > Slack && p.To(end) > Slack), end];
    }

    /// <summary>Points by which a wire leaves its end: the end itself, unless a keep-out is near.</summary>
    private List<BoardPoint> Exits(BoardPoint end)
    {
        if (IsClear(end))
            return [end];
        var near = _keepouts.Min(k => PlaneGeometry.ToEdge(k, end));
        return ((double[])[(_clearance - near) * (1 + 1e-6) + 1e-9, _clearance])
            .SelectMany(r => Enumerable.Range(0, 2 * AroundACorner).Select(n => At(end, r, Math.PI * n / AroundACorner)))
            .Concat(Away(end))
            .Where(p => PlaneGeometry.Covers(_outline, p) && IsClear(p) && Leaves(end, p))
            .ToList();
    }

    /// <summary>The nearest clear point of each near keep-out, straight away from it.</summary>
    private IEnumerable<BoardPoint> Away(BoardPoint end)
    {
        foreach (var keepout in _keepouts.Where(k => PlaneGeometry.ToEdge(k, end) < _clearance))
        {
            var nearest = Enumerable
                .Range(0, keepout.Count)
                .Select(n => PlaneGeometry.Nearest(end, keepout[n], keepout[(n + 1) % keepout.Count]))
                .MinBy(end.To);
            var d = nearest.To(end);
            if (d > Slack)
                yield return new BoardPoint(
                    nearest.X + (end.X - nearest.X) / d * _clearance * (1 + 1e-6),
                    nearest.Y + (end.Y - nearest.Y) / d * _clearance * (1 + 1e-6)
                );
        }
    }

    private static BoardPoint At(BoardPoint middle, double radius, double angle) =>
        new(middle.X + radius * Math.Cos(angle), middle.Y + radius * Math.Sin(angle));

    private bool IsClear(BoardPoint p) =>
        !_keepouts.Where((k, n) => _boxes[n].Meets(p, p) && (PlaneGeometry.Covers(k, p) || PlaneGeometry.ToEdge(k, p) < _clearance - Slack)).Any();

    private bool Leaves(BoardPoint end, BoardPoint p) =>
        Inside(end, p) && _keepouts.TrueForAll(k => !Enters(k, end, p));

    /// <summary>True when a piece that begins at the edge of a keep-out or near it goes into it.</summary>
    private static bool Enters(List<BoardPoint> keepout, BoardPoint a, BoardPoint b) =>
        Enumerable
            .Range(1, 50)
            .Any(n => PlaneGeometry.Covers(keepout, new BoardPoint(a.X + (b.X - a.X) * n / 50, a.Y + (b.Y - a.Y) * n / 50)));

    private bool Sees(BoardPoint a, BoardPoint b)
    {
        for (var n = 0; n < _keepouts.Count; n++)
            if (_boxes[n].Meets(a, b) && PlaneGeometry.Between(_keepouts[n], [a, b]) < _clearance - 1e-7)
                return false;
        return Inside(a, b);
    }

    /// <summary>True when a straight piece stays inside the outline: between all that it meets of it.</summary>
    private bool Inside(BoardPoint a, BoardPoint b)
    {
        List<double> cuts = [0, 1];
        for (var (i, j) = (0, _outline.Count - 1); i < _outline.Count; j = i++)
        {
            var (p, q) = (_outline[j], _outline[i]);
            var cross = (b.X - a.X) * (q.Y - p.Y) - (b.Y - a.Y) * (q.X - p.X);
            if (Math.Abs(cross) < 1e-15)
                continue;
            var t = ((p.X - a.X) * (q.Y - p.Y) - (p.Y - a.Y) * (q.X - p.X)) / cross;
            if (t is > 0 and < 1)
                cuts.Add(t);
        }

        cuts.Sort();
        for (var n = 0; n + 1 < cuts.Count; n++)
        {
            var middle = (cuts[n] + cuts[n + 1]) / 2;
            if (!PlaneGeometry.Covers(_outline, new BoardPoint(a.X + (b.X - a.X) * middle, a.Y + (b.Y - a.Y) * middle)))
                return false;
        }

        return true;
    }
}
