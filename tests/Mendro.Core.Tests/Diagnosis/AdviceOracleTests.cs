using Mendro.Core.Dismantling;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>The next move against results known from theory, and the expected cost against enumeration.</summary>
public class AdviceOracleTests
{
    [Theory]
    [InlineData(4)]
    [InlineData(8)]
    [InlineData(12)]
    public void With_equal_chances_and_equal_costs_on_a_chain_the_middle_is_probed(int boxes)
    {
        // Half-split rule of troubleshooting (Miller, 1953; common practice): probe where both halves weigh the same.
        var bench = new Bench(MadeUp.Chain(boxes, 0.01, repairMinutes: 60)).Fails("work");
        var first = new MoveAdvisor(new BenchCosts(UncuredMinutes: 1e5, HarmMinutes: 0, OriginalityMinutes: 0))
            .Advise(bench.Diagnose(), AccessState.Closed)
            .Moves[0];
        var behind = int.Parse(first.Probe!.Id.Value[1..], System.Globalization.CultureInfo.InvariantCulture) + 1;
        behind.ShouldBeInRange(boxes / 2 - (boxes > 8 ? 1 : 0), boxes / 2 + (boxes > 8 ? 1 : 0), first.Probe.Id);
    }

    [Fact]
    public void The_first_move_is_within_a_twelfth_of_the_best_decision_tree()
    {
        // Every tree of probes and repairs on a chain of five, one fault, sure answers: the least expected minutes by
        // dynamic programming. The advisor sees several faults, bench errors and only a few steps ahead.
        double worst = 0;
        for (var seed = 0; seed < 60; seed++)
        {
            var random = new Random(seed);
            var weights = Enumerable.Range(0, 5).Select(_ => 0.01 + 0.07 * random.NextDouble() * random.NextDouble()).ToArray();
            var (repair, probe) = (10 + 50 * random.NextDouble(), 1 + 9 * random.NextDouble());
            var model = MadeUp.Chain(5, 0.01, repairMinutes: repair - 1, probeMinutes: probe);
            var own = model.Profile with
            {
                Parts = model.Profile.Parts.Select((p, i) => p with { Modes = [new ModeOverride("dead", weights[i])] }).ToList(),
            };
            var bench = new Bench(new DeviceModel(own, model.Library)).Fails("work");
            var first = new MoveAdvisor(new BenchCosts(UncuredMinutes: 400, HarmMinutes: 0, OriginalityMinutes: 0))
                .Advise(bench.Diagnose(), AccessState.Closed)
                .Moves[0];
            var tree = new Tree(weights, repair, probe);
            var chosen = first.Probe is { } p
                ? tree.Probe([0, 1, 2, 3, 4], int.Parse(p.Id.Value[1..], System.Globalization.CultureInfo.InvariantCulture))
                : tree.Repair(
                    [0, 1, 2, 3, 4],
                    int.Parse(first.Repair!.Part.Id.Value[1..], System.Globalization.CultureInfo.InvariantCulture)
                );
            worst = Math.Max(worst, chosen / tree.Best([0, 1, 2, 3, 4]) - 1);
        }

        worst.ShouldBeLessThan(1 / 12.0);
    }

    /// <summary>Least expected minutes over all decision trees; costs are per unit of weight, so that halves simply add up.</summary>
    private sealed class Tree(double[] weights, double repair, double probe)
    {
        public double Best(int[] boxes)
        {
            if (boxes.Length == 1)
                return weights[boxes[0]] * repair;
            var best = boxes.Min(b => Repair(boxes, b));
            for (var n = 0; n + 1 < boxes.Length; n++)
                best = Math.Min(best, Probe(boxes, boxes[n]));
            return best;
        }

        public double Repair(int[] boxes, int box) =>
            Weight(boxes) * repair + (boxes.Length > 1 ? Best(boxes.Where(b => b != box).ToArray()) : 0);

        public double Probe(int[] boxes, int behind) =>
            Weight(boxes) * probe + Best(boxes.Where(b => b <= behind).ToArray()) + Best(boxes.Where(b => b > behind).ToArray());

        private double Weight(int[] boxes) => boxes.Sum(b => weights[b]);
    }

    [Fact]
    public void Opening_costs_included_the_plan_is_the_best_of_all_orders()
    {
        // Horn 1972 for the precedence “open before”; every order that pays preparation when it first needs it is tried.
        for (var seed = 0; seed < 150; seed++)
        {
            var random = new Random(seed);
            var count = random.Next(2, 6);
            var shares = Enumerable.Range(0, count).Select(_ => 0.02 + random.NextDouble()).ToArray();
            var sum = shares.Sum();
            shares = shares.Select(s => s / sum).ToArray();
            var options = shares
                .Select(
                    (share, i) =>
                        new RepairOption(
                            new Part($"p{i}", $"P{i}", "box"),
                            new Method(
                                $"m{i}",
                                $"M{i}",
                                MethodType.Repair,
                                null,
                                null,
                                1 + 30 * random.NextDouble(),
                                0,
                                (AccessState)random.Next(0, 4),
                                0,
                                0,
                                [],
                                [],
                                [],
                                [],
                                [],
                                ""
                            ),
                            share,
                            0,
                            [(i, 1.0)]
                        )
                )
                .Select(o => o with { CostMinutes = o.Method.Minutes })
                .ToList();
            var preparation = new Preparation(1 + 10 * random.NextDouble(), 1 + 10 * random.NextDouble(), 1 + 5 * random.NextDouble());
            var plan = RepairPlan.Make(
                shares,
                options,
                new Reach(Disassembly.Coarse(preparation)),
                default,
                new BenchCosts(UncuredMinutes: 1e9, RetestMinutes: 0, HarmMinutes: 0, OriginalityMinutes: 0)
            );
            var best = Orders(count)
                .Min(order =>
                {
                    double cost = 0,
                        failing = 1;
                    var state = AccessState.Closed;
                    foreach (var i in order)
                    {
                        cost += failing * (options[i].Method.Minutes + preparation.Minutes(state, options[i].Method.State));
                        if (options[i].Method.State > state)
                            state = options[i].Method.State;
                        failing -= shares[i];
                    }

                    return cost;
                });
            plan.WorkMinutes.ShouldBe(best, 1e-6 * best, $"seed {seed}");
        }
    }

    [Fact]
    public void The_expected_cost_of_a_check_equals_the_decision_tree_worked_out_by_hand()
    {
        // Two boxes, one point between them, one fault only (small priors); sharing alike after the failure. Without the
        // check: 10 + ½·10 minutes. With it: 1 + 10, for it tells for sure which box; the retest minute is in the 10.
        var bench = new Bench(MadeUp.Chain(2, 0.001, repairMinutes: 9)).Fails("work");
        var costs = new BenchCosts(UncuredMinutes: 0.001, HarmMinutes: 0, OriginalityMinutes: 0);
        var blame = new BlameShares(bench.Diagnose().Case, bench.Model.Profile.Functions[0]);
        var posterior = bench.Diagnose().Posterior;
        var shares = blame.Of(posterior.Fault, out var unexplained);
        // With priors this small the leak of 0.01 has most of the blame; what the boxes have they have alike.
        shares[0].ShouldBe(shares[1], 1e-9);
        unexplained.ShouldBe(0.01 / (0.01 + 2 * 0.001 * 0.99), 0.02);
        var options = RepairOption.For(bench.Diagnose().Case, shares, costs);
        var patient = costs with { UncuredMinutes = 1e6 };
        var preparation = new Reach(bench.Model.Disassembly);
        RepairPlan.Make([0.5, 0.5], options, preparation, default, patient).WorkMinutes.ShouldBe(15, 1e-9);
        var check = new PlannedCheck(
            "v0",
            "After box 0",
            1,
            Disassembly.Nothing,
            0,
            [(0, 1.0)],
            new HashSet<string>(),
            new HashSet<string>()
        );
        var ahead = new LookAhead(options, [check], preparation, patient).From([0.5, 0.5], default, null);
        (ahead.Check, ahead.Outlook.ChanceToCure).ShouldBe((check, 1.0));
        ahead.Outlook.WorkMinutes.ShouldBe(11, 1e-9);
        // A check that shows each box alike tells nothing and is left out.
        var idle = new LookAhead(options, [check with { Shows = [(0, 0.5), (1, 0.5)] }], preparation, patient).From(
            [0.5, 0.5],
            default,
            null
        );
        (idle.Check, idle.Outlook.WorkMinutes).ShouldBe((null, 15.0));

        // And so the advice puts it first.
        var certain = new Bench(MadeUp.Chain(2, 0.1, repairMinutes: 9)).Fails("work");
        var advisor = new MoveAdvisor(new BenchCosts(UncuredMinutes: 1e4, HarmMinutes: 0, OriginalityMinutes: 0));
        advisor.Advise(certain.Diagnose(), AccessState.Closed).Moves[0].Probe!.Id.ShouldBe("v0");
    }

    [Fact]
    public void Shares_of_the_blame_add_up_with_what_no_fault_explains()
    {
        // Against enumeration: the chance that the failure is bench error and nothing else.
        for (var seed = 0; seed < 40; seed++)
        {
            var random = new Random(seed);
            var parts = Enumerable
                .Range(0, 4)
                .Select(_ =>
                    (0.01 + 0.2 * random.NextDouble(), random.NextDouble() < 0.5 ? ModeEffect.Dead : ModeEffect.Intermittent, 0.8, 0.0)
                )
                .ToArray();
            var bench = new Bench(MadeUp.SideBySide(parts)).Fails("work");
            var diagnosis = bench.Diagnose();
            const double leak = EvidenceWeights.FunctionLeak;
            // P(no link fires and the leak does) over P(fails); every link is 0.9 here.
            var quiet = parts.Aggregate(1.0, (p, x) => p * (1 - x.Item1 * 0.9));
            var truth = leak * quiet / (1 - (1 - leak) * quiet);
            diagnosis.Unexplained.ShouldBe(truth, 0.06, $"seed {seed}");
            (diagnosis.Suspects.Sum(s => s.Share) + diagnosis.Unexplained).ShouldBeLessThanOrEqualTo(1 + 1e-9);
        }
    }

    private static IEnumerable<int[]> Orders(int n) =>
        n == 0
            ?
            [
                [],
            ]
            : Orders(n - 1).SelectMany(p => Enumerable.Range(0, n).Select(at => (int[])[.. p[..at], n - 1, .. p[at..]]));
}
