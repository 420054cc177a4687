using CsCheck;
using Mendro.Core.Boards;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Boards;

/// <summary>Nets over boards as trees, and breaks in them found by tests.</summary>
public class NetSearchTests
{
    private static readonly TraceLibrary Known = TraceLibrary.Shipped;
    private static readonly IReadOnlyDictionary<string, string> Sound = new Dictionary<string, string>();
    private static readonly IReadOnlyList<IReadOnlyList<double>> Square = [[0, 0], [100, 0], [100, 100], [0, 100]];

    private static NetPoint Via(string id, double x, double y = 10, string? under = null) => new(id, x, y, "both", "via", Under: under);

    private static NetPoint Leg(string id, double x, double y = 10) => new(id, x, y, "both", "leg", id.Split('-')[0]);

    private static IReadOnlyList<string>[] Chain(params string[] ids) => ids.Zip(ids.Skip(1), (a, b) => (IReadOnlyList<string>)[a, b]).ToArray();

    private static Board Line(params NetPoint[] points) =>
        On("main", points, new BoardNet("A5", "Address 5", points.Select(p => p.Id).ToList(), Chain([.. points.Select(p => p.Id)])));

    private static Board On(string id, IReadOnlyList<NetPoint> points, params BoardNet[] nets) => new(id, id, Square, Points: points, Nets: nets);

    private static NetTree Tree(Board board, IReadOnlyDictionary<string, string>? states = null, params BoardCrack[] cracks) =>
        NetTree.All([board], states ?? Sound, cracks, Known.Weights).Single();

    private static NetSearch Search(NetTree net, Func<PlacedPoint, bool>? reach = null, params BeepResult[] results) =>
        new(net, results, reach ?? (_ => true), Known.Minutes);

    [Fact]
    public void A_line_nobody_tested_is_tested_from_end_to_end_and_one_beep_proves_it()
    {
        var net = Tree(Line(Leg("U1-1", 10), Via("V1", 20), Via("V2", 50), Leg("U2-1", 60)));
        var before = Search(net);
        before.State.ShouldBe(NetState.Untested);
        before.Next.ShouldBe(new BeepTest("main/U1-1", "main/U2-1"));
        var after = Search(net, null, new BeepResult("main/U1-1", "main/U2-1", true));
        after.ShouldSatisfyAllConditions(
            s => s.State.ShouldBe(NetState.Sound),
            s => s.Next.ShouldBeNull(),
            s => s.Pieces([]).ShouldHaveSingleItem()
        );
    }

    [Fact]
    public void Crust_weighs_more_than_length_and_the_test_goes_there_first()
    {
        // 30 mm of clean copper against 5 mm between two crusted vias: 60 for each crusted end against 1 a millimetre.
        var board = Line(Leg("U1-1", 10), Via("V1", 40), Via("V2", 45), Leg("U2-1", 75));
        var net = Tree(board, new Dictionary<string, string> { ["main/V1"] = "corroded", ["main/V2"] = "corroded" });
        var weights = net.Stretches.ToDictionary(s => s.A, s => s.Weight);
        weights["main/V1"].ShouldBe(5 + 2 * 8 + 2 * 60);
        weights["main/U1-1"].ShouldBe(30 + 8 + 60);
        var search = Search(net, null, new BeepResult("main/U1-1", "main/U2-1", false));
        search.State.ShouldBe(NetState.Open);
        search.Suspects[0].ShouldSatisfyAllConditions(s => s.A.ShouldBe("main/V1"), s => s.B.ShouldBe("main/V2"));
    }

    [Fact]
    public void What_is_hidden_is_no_place_for_a_tip_and_the_stretch_stays_as_long_as_it_is()
    {
        var net = Tree(Line(Leg("U1-1", 10), Via("V1", 20, under: "P1"), Via("V2", 50, under: "P1"), Leg("U2-1", 60)));
        var hidden = Search(net, p => p.Point.Under is null, new BeepResult("main/U1-1", "main/U2-1", false));
        hidden.State.ShouldBe(NetState.Broken);
        hidden.Broken.Count.ShouldBe(3);
        var off = Search(net, null, new BeepResult("main/U1-1", "main/U2-1", false));
        off.State.ShouldBe(NetState.Open);
        off.Next.ShouldNotBeNull();
    }

    [Fact]
    public void A_lost_pad_breaks_its_net_without_a_test_and_leaves_the_leg_as_an_end()
    {
        var net = Tree(Line(Leg("J4-2", 10), Via("V1", 20), Leg("C1-1", 40)), new Dictionary<string, string> { ["main/J4-2"] = "lost" });
        var search = Search(net);
        search.State.ShouldBe(NetState.Broken);
        search.Pieces([]).Select(p => string.Join(" ", p.Select(x => x.Point.Id))).ShouldBe(["J4-2", "V1 C1-1"], ignoreOrder: true);
        search.Pieces([("main/J4-2", "main/V1")]).ShouldHaveSingleItem();
        // A via that is gone takes nothing with it but the way through.
        var gone = Search(Tree(Line(Leg("U1-1", 10), Via("V1", 20), Leg("C1-1", 40)), new Dictionary<string, string> { ["main/V1"] = "lost" }));
        gone.Pieces([]).Select(p => p.Single().Point.Id).ShouldBe(["U1-1", "C1-1"], ignoreOrder: true);
    }

    [Fact]
    public void A_bypass_counts_the_whole_run_from_contact_to_contact_as_gone()
    {
        var net = Tree(Line(Leg("U1-1", 10), Via("V1", 20), Via("V2", 30), Leg("U2-1", 40), Via("V3", 50), Leg("U3-1", 60)));
        var search = Search(
            net,
            null,
            new BeepResult("main/U1-1", "main/U2-1", false),
            new BeepResult("main/U1-1", "main/V1", true),
            new BeepResult("main/V2", "main/U2-1", true)
        );
        search.Broken.Single().ShouldSatisfyAllConditions(s => s.A.ShouldBe("main/V1"), s => s.B.ShouldBe("main/V2"));
        search.Pieces([]).Select(p => p.Count).ShouldBe([2, 4], ignoreOrder: true);
        search.Pieces([], wholeRuns: true).Select(p => p.Count).ShouldBe([1, 3], ignoreOrder: true);
    }

    [Fact]
    public void Nets_of_two_boards_that_meet_at_a_plug_are_one()
    {
        NetPoint[] here = [Leg("U1-1", 10), Leg("J4-1", 80) with { Mate = "phones/J4-1" }];
        NetPoint[] there = [Leg("J4-1", 5) with { Mate = "main/J4-1" }, Leg("J3-1", 20)];
        var main = On("main", here, new BoardNet("S", "Sound", ["U1-1", "J4-1"]));
        var phones = On("phones", there, new BoardNet("S", "Sound", ["J4-1", "J3-1"]));
        var net = NetTree.All([main, phones], Sound, [], Known.Weights).Single();
        net.Points.Count.ShouldBe(4);
        net.Stretches.Count.ShouldBe(3);
        net.Stretches.Single(s => s.IsJoint).ShouldSatisfyAllConditions(s => s.LengthMm.ShouldBe(0), s => s.Weight.ShouldBe(40));
        net.Stretches.Count(s => s.IsGuess).ShouldBe(2);
        Search(net).Next.ShouldBe(new BeepTest("main/U1-1", "phones/J3-1"));
    }

    [Fact]
    public void What_nobody_told_is_joined_by_the_shortest_tree()
    {
        // Minimum spanning tree of four corners and a middle: four pieces from the middle (hand arithmetic: 4 × √50 against sides of 10).
        var points = new[] { Via("a", 0, 0), Via("b", 10, 0), Via("c", 10, 10), Via("d", 0, 10), Via("e", 5, 5) };
        var net = Tree(On("main", points, new BoardNet("G", "Ground", points.Select(p => p.Id).ToList())));
        net.Stretches.ShouldAllBe(s => s.A == "main/e" || s.B == "main/e");
        net.Stretches.Sum(s => s.LengthMm).ShouldBe(4 * Math.Sqrt(50), 1e-9);
    }

    [Fact]
    public void A_crack_makes_suspects_of_the_lines_it_crosses_and_lists_them()
    {
        var points = Enumerable.Range(0, 4).SelectMany(n => new[] { Leg($"J1-{n + 1}", 10 + 10 * n, 0), Leg($"U1-{n + 1}", 10 + 10 * n, 30) }).ToList();
        var board = On("main", points, [.. Enumerable.Range(1, 4).Select(n => new BoardNet($"E{n}", $"Edge {n}", [$"J1-{n}", $"U1-{n}"]))]);
        var crack = new BoardCrack("main", [[0, 20], [25, 15], [25, 0]]);
        var nets = NetTree.All([board], Sound, [crack], Known.Weights);
        nets.Where(n => n.Stretches.Any(s => s.CrossesCrack)).Select(n => n.Name).ShouldBe(["Edge 1", "Edge 2"]);
        var run = LineRun.OverCrack("main", "Main", nets, _ => true)!;
        run.Lines.Select(l => (l.A, l.B)).ShouldBe([("main/J1-1", "main/U1-1"), ("main/J1-2", "main/U1-2")]);
        LineRun.All(nets).Single().Lines.Select(l => l.A).ShouldBe(["main/J1-1", "main/J1-2", "main/J1-3", "main/J1-4"]);
    }

    [Fact]
    public void Tests_that_cannot_both_be_right_are_told_and_the_same_test_again_settles_it()
    {
        var net = Tree(Line(Leg("U1-1", 10), Via("V1", 20), Leg("U2-1", 40)));
        BeepResult[] odd = [new("main/U1-1", "main/V1", true), new("main/V1", "main/U2-1", true), new("main/U1-1", "main/U2-1", false)];
        Search(net, null, odd).Contradiction.ShouldNotBeNull().ShouldContain("U1-1 to U2-1");
        var again = Search(net, null, [.. odd, new BeepResult("main/U2-1", "main/U1-1", true)]);
        again.Contradiction.ShouldBeNull();
        again.State.ShouldBe(NetState.Sound);
    }

    /// <summary>Trees of up to nine stretches with one to three of them broken.</summary>
    private static readonly Gen<(Board Board, HashSet<int> Broken)> Broken = Gen.Select(
        Gen.Int[2, 9],
        Gen.Int[0, 99].Array[9],
        Gen.Int[0, 90].Array[20],
        Gen.Int[0, 99].Array[3],
        Gen.Int[1, 3]
    )
        .Select(
            (count, parents, places, broken, many) =>
                (
                    new Board(
                        "main",
                        "Main",
                        Square,
                        Points: Enumerable.Range(0, count + 1).Select(n => Leg($"U{n}-1", places[2 * n], places[2 * n + 1])).ToList(),
                        Nets:
                        [
                            new BoardNet(
                                "N",
                                "Net",
                                Enumerable.Range(0, count + 1).Select(n => $"U{n}-1").ToList(),
                                Enumerable.Range(1, count).Select(n => (IReadOnlyList<string>)[$"U{parents[n - 1] % n}-1", $"U{n}-1"]).ToList()
                            ),
                        ]
                    ),
                    broken.Take(many).Select(b => b % count).ToHashSet()
                )
        );

    [Fact]
    public void Followed_to_its_end_it_finds_every_break_of_a_net_and_nothing_else() =>
        Broken.Sample(
            sample =>
            {
                var net = Tree(sample.Board);
                // Stretches of the tree come in their own order: those that join the same two points are the broken ones.
                var told = sample.Board.Nets![0].Segments!;
                var cut = sample.Broken.Select(n => (A: $"main/{told[n][0]}", B: $"main/{told[n][1]}")).ToHashSet();
                bool IsCut(NetStretch s) => cut.Contains((s.A, s.B)) || cut.Contains((s.B, s.A));
                var results = new List<BeepResult>();
                NetSearch search;
                while ((search = Search(net, null, [.. results])).Next is { } test)
                {
                    results.Count.ShouldBeLessThan(60);
                    results.Add(new BeepResult(test.A, test.B, !search.Way(test.A, test.B).Any(IsCut)));
                }

                search.Broken.ShouldBe(net.Stretches.Where(IsCut), ignoreOrder: true);
                search.Pieces([]).Count.ShouldBe(sample.Broken.Count + 1);
                // Wires across every break make it one again.
                search.Pieces(cut.ToList()).ShouldHaveSingleItem();
            },
            iter: 400
        );

    [Fact]
    public void Of_tests_that_tell_the_same_the_one_without_scraping_is_asked()
    {
        // V1 and T1 stand on the same stretch end for what is sought; V1 is crusted and wants scraping.
        NetSegment[] chain = [new("a", "m", 1), new("m", "b", 1), new("m", "t", 0)];
        var search = BreakSearch.Of(chain, ["a", "m", "t", "b"], [], key => key == "m" ? 0.65 : 0.15).Value!;
        new[] { search.Next!.A, search.Next.B }.ShouldNotContain("m");
        search.Expected.ShouldBe(0.3, 1e-9);
    }

    [Fact]
    public void A_ground_of_hundreds_of_points_is_searched_between_its_suspects_only()
    {
        // A comb: forty points in a row, each with ten legs; the row is broken in its middle.
        var points = Enumerable.Range(0, 440).Select(n => n < 40 ? Via($"V{n}", n * 2, 50) : Leg($"U{n}-1", n % 40 * 2, 60 + n / 40)).ToList();
        var segments = Enumerable
            .Range(1, 439)
            .Select(n => (IReadOnlyList<string>)(n < 40 ? [$"V{n - 1}", $"V{n}"] : [$"V{n % 40}", $"U{n}-1"]))
            .ToList();
        var net = Tree(On("main", points, new BoardNet("G", "Ground", points.Select(p => p.Id).ToList(), segments)));
        var results = new List<BeepResult> { new("main/U40-1", "main/U79-1", false) };
        NetSearch search;
        while ((search = Search(net, null, [.. results])).State == NetState.Open)
        {
            var passes = search.Way(search.Next!.A, search.Next.B).Any(s => s is { A: "main/V19", B: "main/V20" });
            results.Add(new BeepResult(search.Next.A, search.Next.B, !passes));
        }

        search.Broken.Single().ShouldSatisfyAllConditions(s => s.A.ShouldBe("main/V19"), s => s.B.ShouldBe("main/V20"));
        // Forty-one suspects, halved: six more tests at most.
        results.Count.ShouldBeLessThanOrEqualTo(7);
    }
}
