using System.Text.Json;
using CsCheck;
using Mendro.Core.Capacitors;
using Mendro.Core.Profiles;
using NetTopologySuite.Geometries;

namespace Mendro.Solver.Tests;

/// <summary>Fitting capacitors: every plan is checked by another geometry library, small ones against every plan there is.</summary>
public sealed class FitTests
{
    private static readonly GeometryFactory Plane = new();

    private static IReadOnlyList<IReadOnlyList<double>> Box(double x, double y, double w, double h) =>
        [[x, y], [x + w, y], [x + w, y + h], [x, y + h]];

    private static Polygon Shape(IReadOnlyList<IReadOnlyList<double>> corners) =>
        Plane.CreatePolygon([.. corners.Append(corners[0]).Select(c => new Coordinate(c[0], c[1]))]);

    private static BoardCapacitor At(string refdes, double x, double y) =>
        new(refdes, Pads: new CapacitorPads([x - 1, y], [x + 1, y]));

    private sealed record Task(Board Board, Dictionary<string, IReadOnlyList<FitChoice>> Choices)
    {
        public FitPuzzle Puzzle(double step = 45) => new(Board, Choices, step, 1.5, 0.3);
    }

    private static FitPlan Solve(Task task, double step = 45) => FitSolver.Solve(task.Puzzle(step), TimeSpan.FromSeconds(30));

    /// <summary>A board of a few positions with a part and a zone in random places.</summary>
    private static Gen<Task> Boards(int positions, int leads) =>
        Gen.Select(
            Gen.Select(Gen.Int[3, 27], Gen.Int[3, 17]).Array[positions],
            Gen.Select(Gen.Int[3, 9], Gen.Int[4, 14], Gen.Int[0, leads]).Array[positions],
            Gen.Select(Gen.Int[0, 24], Gen.Int[0, 14], Gen.Int[2, 8]),
            Gen.Select(Gen.Int[0, 24], Gen.Int[0, 14], Gen.Int[3, 12])
        )
            .Select(
                (at, parts, part, zone) =>
                    new Task(
                        new Board(
                            "b",
                            "Board",
                            Box(0, 0, 30, 20),
                            null,
                            [new BoardZone(Box(zone.Item1, zone.Item2, 8, 6), zone.Item3, "post P1")],
                            [new BoardPart("U1", Box(part.Item1, part.Item2, part.Item3, 3))],
                            at.Select((a, n) => At($"C{n}", a.Item1, a.Item2)).ToList()
                        ),
                        parts
                            .Select((p, n) => (Key: $"C{n}", Value: (IReadOnlyList<FitChoice>)[new("c", p.Item1, p.Item2, p.Item3)]))
                            .ToDictionary(x => x.Key, x => x.Value)
                    )
            );

    // A disc is drawn with 48 corners: within a few hundredths of a millimetre of the true one.
    private const double DiscError = 0.03;

    private static void Check(Task task, FitPlan plan)
    {
        var outline = Shape(task.Board.Outline);
        var bodies = plan.Placements.Select(p => (Placement: p, Shape: Shape(p.Body))).ToList();
        foreach (var (placed, body) in bodies)
        {
            outline.Buffer(1e-5).Covers(body).ShouldBeTrue(placed.Refdes);
            foreach (var part in task.Board.Parts ?? [])
                body.Distance(Shape(part.Polygon)).ShouldBeGreaterThanOrEqualTo(0.3 - 1e-5, placed.Refdes);
            foreach (var other in task.Board.Capacitors!.Where(c => c.Refdes != placed.Refdes))
            foreach (var pad in (IReadOnlyList<double>[])[other.Pads!.Plus, other.Pads.Minus])
                body.Distance(Plane.CreatePoint(new Coordinate(pad[0], pad[1]))).ShouldBeGreaterThanOrEqualTo(0.3 - 1e-5);
            foreach (var (second, shape) in bodies.Where(b => b.Placement.Refdes != placed.Refdes))
                body.Distance(shape).ShouldBeGreaterThanOrEqualTo(0.3 - 1e-5, $"{placed.Refdes} {second.Refdes}");
            foreach (var zone in task.Board.Zones ?? [])
                if (body.Buffer(-DiscError).Intersects(Shape(zone.Polygon)))
                    placed.Top.ShouldBeLessThanOrEqualTo(zone.ClearanceMm + 1e-9);
        }

        plan.Placements.Count.ShouldBe(task.Choices.Count - plan.Unplaced.Count);
        plan.Unplaced.ShouldAllBe(u => u.Reason.Length > 0 && u.ByMm >= 0);
    }

    [Fact]
    public void Every_plan_holds_before_another_geometry_library() =>
        Boards(6, 6)
            .Sample(
                task =>
                {
                    var plan = Solve(task, 30);
                    plan.Optimal.ShouldBeTrue();
                    Check(task, plan);
                },
                iter: 300,
                threads: 1
            );

    [Fact]
    public void On_small_boards_no_plan_of_all_is_better() =>
        Boards(3, 3)
            .Sample(
                task =>
                {
                    var puzzle = task.Puzzle(90);
                    var plan = FitSolver.Solve(puzzle, TimeSpan.FromSeconds(30));
                    (int, int, double) best = (-1, 0, 0);
                    void Try(int position, List<FitSeat> taken)
                    {
                        if (position == puzzle.Positions.Count)
                        {
                            var found = (taken.Count, taken.Count(s => s.Pose == FitPose.Upright), -taken.Sum(s => s.DistanceMm));
                            if (found.CompareTo(best) > 0)
                                best = found;
                            return;
                        }

                        Try(position + 1, taken);
                        foreach (var seat in puzzle.Seats.Where(s => s.Position == position && !taken.Any(t => puzzle.Exclude(s, t))))
                            Try(position + 1, [.. taken, seat]);
                    }

                    Try(0, []);
                    var got = plan.Placements;
                    (got.Count, got.Count(p => p.Pose == FitPose.Upright)).ShouldBe((best.Item1, best.Item2));
                    got.Sum(p => p.DistanceMm).ShouldBe(-best.Item3, 1e-6);
                },
                iter: 60,
                threads: 1
            );

    [Fact]
    public void Too_tall_under_the_shield_it_is_laid_down_and_too_thick_it_says_by_how_much()
    {
        var board = new Board("b", "Board", Box(0, 0, 30, 20), null, [new BoardZone(Box(0, 0, 30, 20), 8, "shield")], [], [At("C1", 15, 10)]);
        Task Of(double diameter, double height) =>
            new(board, new() { ["C1"] = [new FitChoice("c", diameter, height, 4)] });
        Solve(Of(5, 7)).Placements.Single().ShouldSatisfyAllConditions(p => p.Pose.ShouldBe(FitPose.Upright), p => p.Top.ShouldBe(7));
        var lying = Solve(Of(6.3, 11)).Placements.Single();
        (lying.Pose, lying.DistanceMm, lying.Top).ShouldBe((FitPose.Lying, 1.5, 6.3));
        var none = Solve(Of(8.5, 11)).Unplaced.Single();
        none.Reason.ShouldBe("shield leaves 8 mm");
        none.ByMm.ShouldBe(0.5);
    }

    [Fact]
    public void The_same_task_has_the_same_answer_twice()
    {
        var task = Boards(6, 5).Single();
        JsonSerializer.Serialize(Solve(task)).ShouldBe(JsonSerializer.Serialize(Solve(task)));
    }
}
