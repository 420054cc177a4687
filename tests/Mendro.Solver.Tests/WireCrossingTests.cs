using CsCheck;
using Mendro.Core.Boards;
using NetTopologySuite.Geometries;

namespace Mendro.Solver.Tests;

/// <summary>Crossings of lines against an independent geometry library (NetTopologySuite), and the cases that it counts otherwise.</summary>
public sealed class WireCrossingTests
{
    private static BoardPoint P(double x, double y) => new(x, y);

    // Even places over the board: round numbers would make lines that only touch.
    private static readonly Gen<List<BoardPoint>> Lines = Gen.Select(Gen.Int[0, int.MaxValue], Gen.Int[2, 5])
        .Select(
            (seed, count) =>
            {
                var random = new Random(seed);
                return Enumerable.Range(0, count).Select(_ => P(random.NextDouble() * 50, random.NextDouble() * 50)).ToList();
            }
        );

    private static LineString Line(IEnumerable<BoardPoint> points) => new(points.Select(p => new Coordinate(p.X, p.Y)).ToArray());

    [Fact]
    public void Lines_cross_where_the_library_says_that_they_meet() =>
        // Random lines meet nowhere but in the middle of two pieces.
        Gen.Select(Lines, Lines).Sample((one, other) => PlaneGeometry.Cross(one, other) == Line(one).Intersects(Line(other)), iter: 3000);

    [Fact]
    public void In_a_corner_that_both_have_they_cross_when_one_goes_through_the_other()
    {
        // A plus sign bent at its middle: each passes through the corner (5, 5).
        PlaneGeometry.Cross([P(0, 0), P(5, 5), P(10, 10)], [P(0, 10), P(5, 5), P(10, 0)]).ShouldBeTrue();
        // Two wires round the same corner, one beside the other.
        PlaneGeometry.Cross([P(0, 5), P(5, 5), P(5, 0)], [P(0, 9), P(5, 5), P(9, 0)]).ShouldBeFalse();
        // Side by side up to the corner, then apart.
        PlaneGeometry.Cross([P(0, 0), P(5, 0), P(10, 3)], [P(2, 0), P(5, 0), P(10, -3)]).ShouldBeFalse();
        // One ends on the other: it touches.
        PlaneGeometry.Cross([P(0, 0), P(10, 0)], [P(5, 5), P(5, 0)]).ShouldBeFalse();
    }

    private static readonly WireRouter Free = new([P(0, 0), P(40, 0), P(40, 40), P(0, 40)], [], 0.5);

    private static JumperPoint At(string id, double x, double y, string side = "both", string board = "") =>
        new(id, P(x, y), true, null, board, side);

    private static List<JumperWire> Solve(JumperPuzzle puzzle, bool spare = false) =>
        [.. JumperSolver.Solve(puzzle, TimeSpan.FromSeconds(10), spare)];

    [Fact]
    public void A_longer_wire_is_taken_where_the_shorter_would_cross_another()
    {
        // Net a runs across; net b has a near end beyond it and a farther one on its own side.
        JumperPoint[] points = [At("a1", 0, 20), At("a2", 40, 20), At("b1", 20, 10), At("b2", 20, 28), At("b3", 39, 1)];
        BrokenNet[] broken = [new("a", [["a1"], ["a2"]]), new("b", [["b1"], ["b2", "b3"]])];
        var puzzle = new JumperPuzzle(Free, points, broken, 6);
        Solve(puzzle).Single(w => w.Net == 1).To.Id.ShouldBe("b2");
        Solve(puzzle, spare: true).Single(w => w.Net == 1).To.Id.ShouldBe("b3");
    }

    [Fact]
    public void A_point_with_a_wire_on_it_is_left_alone_where_there_is_another()
    {
        JumperPoint[] points = [At("a1", 10, 10), At("a2", 20, 10), At("a3", 30, 10)];
        BrokenNet[] broken = [new("a", [["a1"], ["a2", "a3"]])];
        Solve(new JumperPuzzle([new WireLayer("", "top", Free)], points, broken, 6)).Single().To.Id.ShouldBe("a2");
        Solve(new JumperPuzzle([new WireLayer("", "top", Free)], points, broken, 6, [points[1]])).Single().To.Id.ShouldBe("a3");
        // A joint close by would be warmed: the farther end is taken too.
        Solve(new JumperPuzzle([new WireLayer("", "top", Free)], points, broken, 6, [At("x", 20, 13)])).Single().To.Id.ShouldBe("a3");
    }

    [Fact]
    public void A_wire_lies_on_a_side_that_both_ends_have_and_never_between_boards()
    {
        WireLayer[] layers = [new("m", "top", Free), new("m", "bottom", Free), new("n", "top", Free)];
        JumperPoint[] points =
        [
            At("a1", 1, 1, "bottom", "m"),
            At("a2", 9, 1, "both", "m"),
            At("b1", 1, 9, "top", "m"),
            At("b2", 9, 9, "bottom", "m"),
            At("c1", 1, 5, "top", "m"),
            At("c2", 9, 5, "top", "n"),
        ];
        BrokenNet[] broken = [new("a", [["a1"], ["a2"]]), new("b", [["b1"], ["b2"]]), new("c", [["c1"], ["c2"]])];
        var puzzle = new JumperPuzzle(layers, points, broken, 6);
        Solve(puzzle).Single().ShouldSatisfyAllConditions(w => w.Net.ShouldBe(0), w => w.Layer.Side.ShouldBe("bottom"));
        puzzle.Unreachable.Select(u => u.Net).ShouldBe(["b", "c"]);
        puzzle.Unreachable[1].Reason.ShouldContain("different boards");
    }

    private static readonly Gen<List<JumperWire>> Crowds = Gen.Select(Gen.Int[0, 24].Array[24], Gen.Int[0, 4].Array[6], Gen.Int[1, 6])
        .Select(
            (at, under, count) =>
                Enumerable
                    .Range(0, count)
                    .Select(n =>
                    {
                        var hidden = under[n] == 0 ? "slot" : null;
                        var (from, to) = (At($"a{n}", at[4 * n], at[4 * n + 1]) with { Under = hidden }, At($"b{n}", at[4 * n + 2], at[4 * n + 3]));
                        return new JumperWire(n, from, to, 0, 1, [from.At, to.At], from.At.To(to.At), new WireLayer("", "top", Free));
                    })
                    .ToList()
        );

    private static IEnumerable<List<int>> Orders(List<int> left) =>
        left.Count == 0 ? [[]] : left.SelectMany(n => Orders(left.Where(o => o != n).ToList()).Select(o => (List<int>)[n, .. o]));

    [Fact]
    public void No_order_of_all_with_the_hidden_wires_first_warms_fewer_finished_joints() =>
        Crowds.Sample(
            wires =>
            {
                var order = JumperOrder.Of(wires, 6);
                order.Order().ShouldBe(Enumerable.Range(0, wires.Count));
                bool Hidden(int n) => wires[n].From.Under is not null;
                bool HiddenFirst(IReadOnlyList<int> o) => o.Zip(o.Skip(1)).All(p => Hidden(p.First) || !Hidden(p.Second));
                HiddenFirst(order).ShouldBeTrue();
                var best = Orders(Enumerable.Range(0, wires.Count).ToList()).Where(HiddenFirst).Min(o => JumperOrder.Warmed(wires, o, 6));
                JumperOrder.Warmed(wires, order, 6).ShouldBe(best);
            },
            iter: 300
        );
}
