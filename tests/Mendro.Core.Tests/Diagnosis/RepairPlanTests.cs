using Mendro.Core.Dismantling;
using CsCheck;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>The order and the expected cost of repairs, against all permutations.</summary>
public class RepairPlanTests
{
    private static Reach Taking(double open, double boardOut, double lifted) =>
        new(Disassembly.Coarse(new Preparation(open, boardOut, lifted)));

    private static readonly BenchCosts NeverStop = new(UncuredMinutes: 1e9, RetestMinutes: 0, HarmMinutes: 0, OriginalityMinutes: 0);

    /// <summary>Single fault, independent repairs: each repair cures its own cause for sure.</summary>
    private static (double[] Shares, List<RepairOption> Options) Shop(double[] shares, double[] minutes)
    {
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
                            minutes[i],
                            0,
                            AccessState.Closed,
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
                        minutes[i],
                        [(i, 1.0)]
                    )
            )
            .ToList();
        return (shares, options);
    }

    [Fact]
    public void Probability_per_cost_is_the_best_of_all_orders()
    {
        // Heckerman, Breese and Rommelse, “Decision-theoretic troubleshooting”, CACM 38(3), 1995: for one fault and
        // independent repairs the order by probability per cost has the least expected cost.
        var gen =
            from n in Gen.Int[1, 5]
            from weights in Gen.Double[0.01, 1].Array[n]
            from minutes in Gen.Double[1, 60].Array[n]
            select (weights, minutes);
        gen.Sample(
            x =>
            {
                var total = x.weights.Sum();
                var shares = x.weights.Select(w => w / total).ToArray();
                var (_, options) = Shop(shares, x.minutes);
                var plan = RepairPlan.Make(shares, options, Taking(0, 0, 0), default, NeverStop);
                var best = Permutations(shares.Length).Min(order => Cost(order, shares, x.minutes));
                plan.WorkMinutes.ShouldBe(best, 0.01 * best);
                var inOrder = plan
                    .Sequence.Select(o => int.Parse(o.Part.Id.Value[1..], System.Globalization.CultureInfo.InvariantCulture))
                    .ToList();
                inOrder
                    .Zip(inOrder.Skip(1))
                    .ShouldAllBe(p => shares[p.First] / x.minutes[p.First] >= shares[p.Second] / x.minutes[p.Second] - 1e-9);
            },
            iter: 300,
            seed: "0000KQvYRXc4"
        );
    }

    [Fact]
    public void Opening_the_case_is_paid_once()
    {
        var (shares, options) = Shop([0.6, 0.4], [10, 10]);
        options = options.Select(o => o with { Method = o.Method with { State = AccessState.Open } }).ToList();
        var taking = Taking(6, 8, 4);
        var plan = RepairPlan.Make(shares, options, taking, default, NeverStop);
        // 6 to open and 10 for the first; with 40 % left, 10 for the second and nothing for opening.
        plan.WorkMinutes.ShouldBe(16 + 0.4 * 10, 1e-9);
        RepairPlan.Make(shares, options, taking, taking.Of.At(AccessState.Open), NeverStop).WorkMinutes.ShouldBe(14, 1e-9);
    }

    [Fact]
    public void The_plan_stops_where_going_on_costs_more_than_it_averts()
    {
        var (shares, options) = Shop([0.9, 0.1], [10, 60]);
        // After the first, 0.1 of the blame is left, all of it against the second: 60 minutes to avert 50.
        var plan = RepairPlan.Make(shares, options, Taking(0, 0, 0), default, NeverStop with { UncuredMinutes = 50 });
        plan.Sequence.ShouldHaveSingleItem().Part.Id.ShouldBe("p0");
        plan.ChanceToCure.ShouldBe(0.9, 1e-9);
        plan.StopMinutes.ShouldBe(10, 1e-9);
        plan.ExpectedMinutes.ShouldBe(10 + 0.1 * 50, 1e-9);
    }

    private static double Cost(int[] order, double[] shares, double[] minutes)
    {
        double cost = 0,
            failing = 1;
        foreach (var i in order)
        {
            cost += failing * minutes[i];
            failing -= shares[i];
        }

        return cost;
    }

    private static IEnumerable<int[]> Permutations(int n) =>
        n == 0
            ?
            [
                [],
            ]
            : Permutations(n - 1).SelectMany(p => Enumerable.Range(0, n).Select(at => (int[])[.. p[..at], n - 1, .. p[at..]]));
}
