using CsCheck;
using Mendro.Core.Boards;
using Mendro.Core.Capacitors;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;

namespace Mendro.Solver.Tests;

/// <summary>Wires over a board: every way is checked by another geometry library, the choice against every choice there is.</summary>
public sealed class JumperTests
{
    private const double Clearance = 0.5;
    private static readonly GeometryFactory Plane = new();

    private static List<BoardPoint> Box(double x, double y, double w, double h) => [new(x, y), new(x + w, y), new(x + w, y + h), new(x, y + h)];

    private static Polygon Shape(IReadOnlyList<BoardPoint> corners) =>
        Plane.CreatePolygon([.. corners.Append(corners[0]).Select(c => new Coordinate(c.X, c.Y))]);

    private static Point Place(BoardPoint at) => Plane.CreatePoint(new Coordinate(at.X, at.Y));

    private sealed record Task(List<BoardPoint> Outline, List<List<BoardPoint>> Keepouts, List<JumperPoint> Points, List<BrokenNet> Broken)
    {
        public WireRouter Router { get; } = new(Outline, Keepouts, Clearance);

        public JumperPuzzle Puzzle => new(Router, Points, Broken, 6);
    }

    /// <summary>An angled board with three keep-outs and nets of two or three pieces in random places.</summary>
    private static Gen<Task> Boards(int nets) =>
        Gen.Select(
            Gen.Select(Gen.Int[0, 30], Gen.Int[0, 20], Gen.Int[2, 9], Gen.Int[2, 9]).Array[3],
            Gen.Select(Gen.Int[1, 39], Gen.Int[1, 29]).Array[nets * 5],
            Gen.Int[2, 3].Array[nets],
            Gen.Int[0, 5].Array[nets * 5]
        )
            .Select(
                (keepouts, at, pieces, state) =>
                {
                    var points = at.Select((a, n) => new JumperPoint($"p{n}", new BoardPoint(a.Item1, a.Item2), state[n] > 0)).ToList();
                    return new Task(
                        [new(0, 0), new(40, 0), new(40, 18), new(24, 18), new(24, 30), new(0, 30)],
                        keepouts.Select(k => Box(k.Item1, k.Item2, k.Item3, k.Item4)).ToList(),
                        points,
                        pieces
                            .Select(
                                (count, net) =>
                                    new BrokenNet(
                                        $"net{net}",
                                        Enumerable
                                            .Range(0, count)
                                            .Select(g =>
                                                (IReadOnlyList<string>)
                                                    Enumerable.Range(0, 5).Where(n => n % count == g).Select(n => $"p{net * 5 + n}").ToList()
                                            )
                                            .ToList()
                                    )
                            )
                            .ToList()
                    );
                }
            );

    [Fact]
    public void Every_way_holds_before_another_geometry_library() =>
        Boards(2)
            .Sample(
                task =>
                {
                    var outline = Shape(task.Outline).Buffer(1e-6);
                    foreach (var wire in task.Puzzle.Wires)
                    {
                        var way = Plane.CreateLineString([.. wire.Path.Select(p => new Coordinate(p.X, p.Y))]);
                        way.Length.ShouldBe(wire.LengthMm, 1e-9);
                        (wire.Path[0], wire.Path[^1]).ShouldBe((wire.From.At, wire.To.At));
                        // Of two points at one place there is no line to be asked.
                        if (wire.LengthMm < 1e-9)
                            continue;
                        outline.Covers(way).ShouldBeTrue(way.ToText());
                        // The ends may lie within the clearance, and leave it by no more than the clearance itself.
                        var free = way.Difference(Place(wire.From.At).Buffer(Clearance + 1e-3, 64)).Difference(Place(wire.To.At).Buffer(Clearance + 1e-3, 64));
                        foreach (var keepout in task.Keepouts)
                        {
                            (free.IsEmpty || free.Distance(Shape(keepout)) >= Clearance - 1e-5).ShouldBeTrue();
                            way.Crosses(Shape(keepout).Buffer(-1e-6)).ShouldBeFalse();
                        }
                    }
                },
                iter: 120,
                threads: 1
            );

    [Fact]
    public void No_way_is_longer_than_over_a_fine_grid()
    {
        Gen.Select(Boards(1), Gen.Int[1, 22], Gen.Int[1, 29], Gen.Int[1, 39], Gen.Int[1, 17])
            .Sample(
                (task, x, y, u, v) =>
                {
                    // Asked for thousands of points: made once.
                    var keepouts = task.Keepouts.ConvertAll(Shape);
                    bool Clear(BoardPoint p) => keepouts.TrueForAll(k => k.Distance(Place(p)) >= Clearance);
                    var (from, to) = (new BoardPoint(x, y), new BoardPoint(u, v));
                    if (!Clear(from) || !Clear(to))
                        return;
                    var way = task.Router.Ways(from, [to])[0];
                    var grid = Grid(task, Clear, from, to);
                    if (grid < double.MaxValue)
                        WireRouter.Length(way.ShouldNotBeNull()).ShouldBeLessThanOrEqualTo(grid * 1.001 + 1e-6);
                },
                iter: 40,
                threads: 1
            );
    }

    /// <summary>Dijkstra over half millimetres, to eight neighbours.</summary>
    private static double Grid(Task board, Func<BoardPoint, bool> clear, BoardPoint from, BoardPoint to)
    {
        const double step = 0.5;
        var outline = PreparedGeometryFactory.Prepare(Shape(board.Outline));
        var free = new bool[81, 61];
        for (var i = 0; i <= 80; i++)
            for (var j = 0; j <= 60; j++)
                free[i, j] = outline.Covers(Place(new BoardPoint(i * step, j * step))) && clear(new BoardPoint(i * step, j * step));
        var least = new double[81, 61];
        for (var i = 0; i <= 80; i++)
            for (var j = 0; j <= 60; j++)
                least[i, j] = double.MaxValue;
        var open = new PriorityQueue<(int, int), double>();
        var (a, b) = ((int)(from.X / step), (int)(from.Y / step));
        least[a, b] = 0;
        open.Enqueue((a, b), 0);
        while (open.TryDequeue(out var at, out var so))
            for (var di = -1; di <= 1; di++)
                for (var dj = -1; dj <= 1; dj++)
                {
                    var (i, j) = (at.Item1 + di, at.Item2 + dj);
                    if (i is < 0 or > 80 || j is < 0 or > 60 || !free[i, j] || (di != 0 && dj != 0 && !(free[i, at.Item2] && free[at.Item1, j])))
                        continue;
                    var mm = so + step * Math.Sqrt(di * di + dj * dj);
                    if (mm >= least[i, j] - 1e-12)
                        continue;
                    least[i, j] = mm;
                    open.Enqueue((i, j), mm);
                }

        return least[(int)(to.X / step), (int)(to.Y / step)];
    }

    [Fact]
    public void No_choice_of_all_is_better() =>
        Boards(2)
            .Sample(
                task =>
                {
                    var puzzle = task.Puzzle;
                    (int Joined, int Doubles, int Near, double Mm) Worth(IReadOnlyList<JumperWire> wires) =>
                        (
                            -task.Broken.Select((n, at) => JumperPuzzle.Pieces(wires.Where(w => w.Net == at), n.Groups.Count)).Sum(),
                            -wires.SelectMany(w => new[] { w.From.Id, w.To.Id }).GroupBy(p => p).Count(g => g.Count() > 1),
                            -wires.Select((w, i) => wires.Skip(i + 1).Sum(x => puzzle.NearEnds(w, x))).Sum(),
                            -wires.Sum(w => w.LengthMm)
                        );

                    var best = (int.MinValue, 0, 0, 0.0);
                    void Try(int net, List<JumperWire> taken)
                    {
                        if (net == task.Broken.Count)
                        {
                            var worth = Worth(taken);
                            if (worth.CompareTo(best) > 0)
                                best = worth;
                            return;
                        }

                        var own = puzzle.Wires.Where(w => w.Net == net).ToList();
                        var groups = task.Broken[net].Groups.Count;
                        var needed = groups - JumperPuzzle.Pieces(own, groups);
                        if (needed == 0)
                            Try(net + 1, taken);
                        else if (needed == 1)
                            own.ForEach(w => Try(net + 1, [.. taken, w]));
                        else
                            for (var i = 0; i < own.Count; i++)
                                for (var j = i + 1; j < own.Count; j++)
                                    if (JumperPuzzle.Pieces([own[i], own[j]], groups) == groups - 2)
                                        Try(net + 1, [.. taken, own[i], own[j]]);
                    }

                    Try(0, []);
                    var got = Worth(JumperSolver.Solve(puzzle, TimeSpan.FromSeconds(30)));
                    (got.Joined, got.Doubles, got.Near).ShouldBe((best.Item1, best.Item2, best.Item3));
                    got.Mm.ShouldBeGreaterThanOrEqualTo(best.Item4 - 0.01);
                },
                iter: 25,
                threads: 1
            );
}
