using CsCheck;
using Mendro.Core.Dismantling;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Dismantling;

/// <summary>Least teardown: exact against exhaustive search, in an order that can be carried out, screws counted.</summary>
public class TeardownPlannerTests
{
    private static TeardownStep Step(
        string id,
        double minutes,
        string[]? frees = null,
        string[]? needs = null,
        string[][]? anyOf = null,
        string[]? fasteners = null,
        string[]? cautions = null
    ) => new(id, id, frees, needs, anyOf, fasteners, null, cautions, minutes, minutes / 2);

    private static TeardownGraph Graph(params TeardownStep[] steps) => Graph([], steps);

    private static TeardownGraph Graph(Fastener[] fasteners, params TeardownStep[] steps)
    {
        var made = TeardownGraph.Of(steps, fasteners);
        made.IsOk.ShouldBeTrue(made.Problem);
        return made.Value!;
    }

    private static TeardownPlan Plan(TeardownGraph graph, string[] to, params string[] done)
    {
        var plan = TeardownPlanner.Plan(graph, to, done);
        plan.IsOk.ShouldBeTrue(plan.Problem);
        return plan.Value!;
    }

    private static string[] Ids(TeardownPlan plan) => [.. plan.Steps.Select(s => s.Id)];

    [Fact]
    public void Only_as_far_as_needed_and_steps_are_shared()
    {
        var graph = Graph(
            Step("shell", 4, ["cells"]),
            Step("shield", 3, ["psu"], ["shell"]),
            Step("board", 5, ["joint"], ["shield"]),
            Step("panel", 8, ["panel"], ["shell"])
        );
        Ids(Plan(graph, ["psu"])).ShouldBe(["shell", "shield"]);
        Plan(graph, ["psu"]).Minutes.ShouldBe(7);
        Plan(graph, ["psu"]).BackMinutes.ShouldBe(3.5);
        Ids(Plan(graph, ["psu", "panel"])).ShouldBe(["shell", "shield", "panel"]);
        // What no step frees is reached at once.
        Ids(Plan(graph, ["plug"])).ShouldBeEmpty();
        // Done steps cost nothing, and hold whatever they need.
        Ids(Plan(graph, ["joint"], "shield")).ShouldBe(["board"]);
        TeardownPlanner.Plan(graph, ["joint"], ["nothing"]).Problem!.ShouldContain("nothing");
    }

    [Fact]
    public void A_connector_is_reached_by_the_hook_or_by_lifting_the_board_whichever_is_less_with_what_else_is_wanted()
    {
        var graph = Graph(
            Step("shell", 4),
            Step("hook", 9, ["connector"]),
            Step("lift", 6, ["connector", "joint"], ["shell"]),
            Step(
                "swap",
                1,
                ["edge"],
                null,
                [
                    ["hook", "lift"],
                ]
            )
        );
        Ids(Plan(graph, ["connector"])).ShouldBe(["hook"]);
        Ids(Plan(graph, ["connector", "joint"])).ShouldBe(["shell", "lift"]);
        Ids(Plan(graph, ["edge"])).ShouldBe(["hook", "swap"]);
        Ids(Plan(graph, ["edge"], "shell")).ShouldBe(["lift", "swap"]);
    }

    [Fact]
    public void Steps_that_wait_for_one_another_are_let_in_from_outside_or_told()
    {
        var circle = Graph(
            Step(
                "a",
                1,
                ["x"],
                null,
                [
                    ["b", "c"],
                ]
            ),
            Step(
                "b",
                1,
                null,
                null,
                [
                    ["a"],
                ]
            ),
            Step("c", 9)
        );
        // b alone would be cheaper, but waits for a.
        Ids(Plan(circle, ["x"])).ShouldBe(["c", "a"]);
        var closed = Graph(Step("a", 1, ["x"], ["b"]), Step("b", 1, null, ["a"]));
        TeardownPlanner.Plan(closed, ["x", "y"], []).Problem!.ShouldBe("It cannot be reached: x.");
    }

    [Fact]
    public void Screws_drivers_and_cautions_are_those_of_the_steps()
    {
        var plan = Plan(
            Graph(
                [
                    new Fastener("s1", "cross", "00", 6),
                    new Fastener("s2", "cross", "00", 12),
                    new Fastener("s3", "tri-wing"),
                    new Fastener("f1", "foot"),
                    new Fastener("h1", "cross", "00", NoScrew: true),
                    new Fastener("s9", "six-lobe", "T10"),
                ],
                Step("shell", 4, null, null, null, ["s1", "s2", "f1", "h1"], ["mains"]),
                Step("shield", 2, ["psu"], ["shell"], null, ["s3"], ["mains", "no-flex"]),
                Step("other", 2, ["far"], null, null, ["s9"])
            ),
            ["psu"]
        );
        plan.FastenerCount.ShouldBe(4);
        plan.Drivers.ShouldBe(["cross 00", "tri-wing"]);
        plan.Cautions.ShouldBe(["mains", "no-flex"]);
    }

    [Theory]
    [InlineData("twice", "steps[1].id")]
    [InlineData("need", "steps[0].needs")]
    [InlineData("group", "steps[0].anyOf")]
    [InlineData("empty", "steps[0].anyOf")]
    [InlineData("minutes", "steps[0].minutes")]
    public void What_is_wrong_with_steps_is_told_with_its_place(string what, string place)
    {
        TeardownStep[] steps = what switch
        {
            "twice" => [Step("a", 1), Step("a", 1)],
            "need" => [Step("a", 1, null, ["b"])],
            "group" =>
            [
                Step(
                    "a",
                    1,
                    null,
                    null,
                    [
                        ["a", "b"],
                    ]
                ),
            ],
            "empty" =>
            [
                Step(
                    "a",
                    1,
                    null,
                    null,
                    [
                        [],
                    ]
                ),
            ],
            _ => [Step("a", -1)],
        };
        TeardownGraph.Of(steps, []).Problem!.ShouldStartWith(place);
    }

    /// <summary>Random graphs with needs and groups, circles among them.</summary>
    private static readonly Gen<(TeardownStep[] Steps, string[] To, string[] Done)> Tangles =
        from count in Gen.Int[1, 9]
        from seed in Gen.Int[0, int.MaxValue - 1]
        select Tangle(count, new Random(seed));

    private static (TeardownStep[], string[], string[]) Tangle(int count, Random random)
    {
        string Any() => $"s{random.Next(count)}";
        var steps = Enumerable
            .Range(0, count)
            .Select(n =>
                Step(
                    $"s{n}",
                    random.Next(5) == 0 ? 0 : random.Next(1, 60) / 2.0,
                    [.. Enumerable.Range(0, random.Next(3)).Select(_ => $"p{random.Next(4)}").Distinct()],
                    // Mostly earlier ones, so that most things can be reached; now and then any, which may close a circle.
                    [
                        .. Enumerable
                            .Range(0, random.Next(3))
                            .Select(_ => n > 0 && random.Next(6) > 0 ? $"s{random.Next(n)}" : Any())
                            .Distinct(),
                    ],
                    [
                        .. Enumerable
                            .Range(0, random.Next(3))
                            .Select(_ => (string[])[.. Enumerable.Range(0, random.Next(1, 4)).Select(_ => Any()).Distinct()]),
                    ]
                )
            )
            .ToArray();
        return (
            steps,
            [.. Enumerable.Range(0, random.Next(1, 4)).Select(_ => $"p{random.Next(5)}").Distinct()],
            [.. Enumerable.Range(0, random.Next(2)).Select(_ => Any()).Distinct()]
        );
    }

    [Fact]
    public void It_is_the_cheapest_of_all_sets_and_in_an_order_that_can_be_carried_out() =>
        Tangles.Sample(
            tangle =>
            {
                var (steps, to, done) = tangle;
                var graph = Graph(steps);
                var best = Cheapest(steps, to, done);
                var plan = TeardownPlanner.Plan(graph, to, done);
                plan.IsOk.ShouldBe(best is not null, plan.Problem);
                if (best is not { } cost)
                    return;
                plan.Value!.Minutes.ShouldBe(cost, 1e-9);
                var carried = done.ToHashSet();
                foreach (var step in plan.Value.Steps)
                {
                    MayBeDone(step, carried).ShouldBeTrue(step.Id);
                    carried.Add(step.Id).ShouldBeTrue(step.Id);
                }

                Reached(steps, to, carried).ShouldBeTrue();
            },
            iter: 600
        );

    /// <summary>Every set of steps is tried.</summary>
    private static double? Cheapest(TeardownStep[] steps, string[] to, string[] done)
    {
        double? best = null;
        for (var mask = 0; mask < 1 << steps.Length; mask++)
        {
            var taken = steps.Where((s, n) => (mask >> n & 1) == 1 && !done.Contains(s.Id)).ToList();
            var carried = done.ToHashSet();
            var cost = taken.Sum(s => s.Minutes);
            while (taken.Find(s => MayBeDone(s, carried)) is { } next)
            {
                carried.Add(next.Id);
                taken.Remove(next);
            }

            if (taken.Count == 0 && Reached(steps, to, carried) && (best is null || cost < best))
                best = cost;
        }

        return best;
    }

    private static bool MayBeDone(TeardownStep step, HashSet<string> carried) =>
        step.Needs!.All(carried.Contains) && step.AnyOf!.All(g => g.Any(carried.Contains));

    private static bool Reached(TeardownStep[] steps, string[] to, HashSet<string> carried) =>
        to.All(t => steps.All(s => !s.Frees!.Contains(t)) || steps.Any(s => s.Frees!.Contains(t) && carried.Contains(s.Id)));
}
