using CsCheck;
using Mendro.Core.Scheduling;
using Mendro.Tests.Shared;

namespace Mendro.Solver.Tests;

/// <summary>Plans of a day: checked by the rules alone, against every order there is, and against published job-shop instances.</summary>
public sealed class PlanTests
{
    private const double Long = 20;
    private static readonly string[] PlaceIds = ["air", "supply", "console"];

    private static WorkPlan Solve(Workload load, double seconds = Long) =>
        DaySolver.Solve(load, TimeSpan.FromSeconds(seconds), cancel: TestContext.Current.CancellationToken);

    /// <summary>Random workloads; with more they have fixed hours, closed hours, parts that come, packs on charge and setups too.</summary>
    private static Gen<Workload> Loads(int tasks, bool more) =>
        from people in Gen.Int[1, 3]
        from counts in Gen.Int[1, 2].Array[PlaceIds.Length]
        from goal in Gen.OneOf(Gen.Const(PlanGoal.Makespan), Gen.Const(PlanGoal.Tardiness), Gen.Const(PlanGoal.Day))
        from made in Gen.Select(
            Gen.Int[1, 9],
            Gen.Int[0, 9],
            Gen.Int[-1, PlaceIds.Length - 1],
            Gen.Int[0, 30],
            Gen.Int[0, 3],
            Gen.Int[0, 7],
            Gen.Int[0, 20]
        ).Array[1, tasks]
        from closed in Gen.Int[3, 25]
        select new Workload(
            people,
            PlaceIds.Select((id, n) => new WorkPlace(id, counts[n])).ToList(),
            made.Select(
                    (m, n) =>
                        new WorkTask(
                            $"t{n}",
                            $"j{n / 3}",
                            m.Item1,
                            m.Item2 < 3,
                            m.Item3 < 0 ? null : PlaceIds[m.Item3],
                            // Some wait for the one before, some for one long before.
                            n > 0 && m.Item6 < 3 ? [$"t{n - 1 - m.Item6 % n}"] : [],
                            m.Item4 < 20 ? m.Item4 : null,
                            m.Item5
                        )
                        {
                            Earliest = more && m.Item7 > 15 ? m.Item7 : 0,
                            Attended = more && m.Item7 % 2 == 0,
                            Setups = m.Item7 % 3 == 0 ? ["iron"] : m.Item7 % 6 == 1 ? ["iron", "tri-wing"] : [],
                            Worth = m.Item7 % 4,
                        }
                )
                .ToList(),
            goal
        )
        {
            Closed = more ? [new Stretch(closed, closed + 6)] : [],
        };

    [Fact]
    public void No_plan_uses_anybody_or_anything_twice_or_breaks_an_order_a_wait_or_an_hour() =>
        Loads(18, more: true)
            .Sample(
                load =>
                {
                    PlanCheck.Problems(load, ListOrder.Plan(load)).ShouldBeEmpty();
                    var plan = Solve(load, 0.3);
                    PlanCheck.Problems(load, plan).ShouldBeEmpty();
                    plan.Objective.ShouldBe(load.Objective(plan.Tasks.Select(t => t.Start).ToList()), 1e-9);
                },
                iter: 80,
                threads: 1
            );

    /// <summary>What has begun stays where it is, also where it runs into closed hours or past others.</summary>
    [Fact]
    public void What_has_begun_is_not_moved()
    {
        WorkTask Of(string id, double minutes, double? begun = null, bool passive = false) =>
            new(id, "", minutes, passive, null, [], null, 1) { Begun = begun };
        var load = new Workload(1, [], [Of("now", 30, -10), Of("soak", 90, -60, passive: true), Of("next", 15), Of("long", 40)], PlanGoal.Makespan)
        {
            Closed = [new Stretch(60, 120)],
        };
        var plan = Solve(load);
        PlanCheck.Problems(load, plan).ShouldBeEmpty();
        // Ten minutes behind, twenty to go; 15 or 40 fit before the door is shut, not both.
        plan.Tasks.Select(t => (t.Id, t.Start)).ShouldBe([("now", -10), ("soak", -60), ("next", 120), ("long", 20)]);
        plan.Objective.ShouldBe(135);
    }

    /// <summary>
    /// An oracle of its own: minute by minute, for every order of the tasks. Of all orders one gives a best plan (Kolisch, EJOR 90, 1996).
    /// </summary>
    private static double Best(Workload load)
    {
        var best = double.MaxValue;
        void Try(List<int> order, double[] starts, List<int> left)
        {
            if (left.Count == 0)
            {
                best = Math.Min(best, load.Goal == PlanGoal.Day ? load.Objective(starts) * load.PromiseWorth : load.Objective(starts));
                return;
            }

            foreach (var n in left.Where(n => load.Tasks[n].After.All(a => order.Any(o => load.Tasks[o].Id == a))))
            {
                var task = load.Tasks[n];
                var start = order.Where(o => task.After.Contains(load.Tasks[o].Id)).Select(o => starts[o] + load.Tasks[o].Minutes).Append(0).Max();
                bool Fits(double minute)
                {
                    var now = order.Where(o => starts[o] <= minute && minute < starts[o] + load.Tasks[o].Minutes).ToList();
                    return (task.Passive || now.Count(o => !load.Tasks[o].Passive) < load.People)
                        && (task.Place is null || now.Count(o => load.Tasks[o].Place == task.Place) < load.Places.Single(p => p.Id == task.Place).Count);
                }

                while (!Enumerable.Range(0, (int)task.Minutes).All(m => Fits(start + m)))
                    start++;
                starts[n] = start;
                Try([.. order, n], starts, left.Where(l => l != n).ToList());
            }
        }

        Try([], new double[load.Tasks.Count], Enumerable.Range(0, load.Tasks.Count).ToList());
        return best;
    }

    [Fact]
    public void No_plan_of_all_is_better() =>
        Loads(6, more: false)
            .Where(l => l.Goal != PlanGoal.Day)
            .Sample(
                load =>
                {
                    var plan = Solve(load);
                    plan.Optimal.ShouldBeTrue();
                    plan.Objective.ShouldBe(Best(load), 1e-9);
                },
                iter: 60,
                threads: 1
            );

    [Fact]
    public void Nor_is_it_of_seven_tasks() =>
        Loads(7, more: false)
            .Where(l => l.Goal != PlanGoal.Day && l.Tasks.Count == 7)
            .Sample(load => Solve(load).Objective.ShouldBe(Best(load), 1e-9), iter: 6, threads: 1);

    // Fisher and Thompson, Industrial Scheduling, 1963: instances mt06 (optimum 55) and mt10 (930, Carlier and Pinson, Management Science 35,
    // 1989). Lawrence 1984: la01 (666). Rows are jobs, pairs are machine and minutes; values from memory, as the optima bear out.
    [Theory]
    [InlineData(55, "2 1 0 3 1 6 3 7 5 3 4 6;1 8 2 5 4 10 5 10 0 10 3 4;2 5 3 4 5 8 0 9 1 1 4 7;1 5 0 5 2 5 3 3 4 8 5 9;"
        + "2 9 1 3 4 5 5 4 0 3 3 1;1 3 3 3 5 9 0 10 4 4 2 1")]
    [InlineData(666, "1 21 0 53 4 95 3 55 2 34;0 21 3 52 4 16 2 26 1 71;3 39 4 98 1 42 2 31 0 12;1 77 0 55 4 79 2 66 3 77;0 83 3 34 2 64 1 19 4 37;"
        + "1 54 2 43 4 79 0 92 3 62;3 69 4 77 1 87 2 87 0 93;2 38 0 60 1 41 3 24 4 83;3 17 1 49 4 25 0 44 2 98;4 77 3 79 2 43 1 75 0 96")]
    [InlineData(930, "0 29 1 78 2 9 3 36 4 49 5 11 6 62 7 56 8 44 9 21;0 43 2 90 4 75 9 11 3 69 1 28 6 46 5 46 7 72 8 30;"
        + "1 91 0 85 3 39 2 74 8 90 5 10 7 12 6 89 9 45 4 33;1 81 2 95 0 71 4 99 6 9 8 52 7 85 3 98 9 22 5 43;"
        + "2 14 0 6 1 22 5 61 3 26 4 69 8 21 7 49 9 72 6 53;2 84 1 2 5 52 3 95 8 48 9 72 0 47 6 65 4 6 7 25;"
        + "1 46 0 37 3 61 2 13 6 32 5 21 9 32 8 89 7 30 4 55;2 31 0 86 1 46 5 74 4 32 6 88 8 19 9 48 7 36 3 79;"
        + "0 76 1 69 3 76 5 51 2 85 9 11 6 40 7 89 4 26 8 74;1 85 0 13 2 61 6 7 8 64 9 76 5 47 3 52 4 90 7 45")]
    public void Published_job_shops_are_solved_to_their_optimum(double optimum, string rows)
    {
        var jobs = rows.Split(';').Select(r => r.Split(' ').Select(int.Parse).Chunk(2).ToList()).ToList();
        var load = new Workload(
            jobs.Count,
            Enumerable.Range(0, jobs.Max(j => j.Max(s => s[0])) + 1).Select(m => new WorkPlace($"m{m}", 1)).ToList(),
            jobs.SelectMany((job, j) =>
                    job.Select((s, n) => new WorkTask($"{j}.{n}", $"{j}", s[1], false, $"m{s[0]}", n == 0 ? [] : [$"{j}.{n - 1}"], null, 1))
                )
                .ToList(),
            PlanGoal.Makespan
        );
        var plan = Solve(load, 60);
        PlanCheck.Problems(load, plan).ShouldBeEmpty();
        (plan.Objective, plan.Optimal).ShouldBe((optimum, true));
    }

    private static Workload Day(int seed) => RandomDay.Make(seed, seed % 2 == 0 ? PlanGoal.Tardiness : PlanGoal.Makespan);

    [Fact]
    public void On_two_hundred_days_no_plan_is_worse_than_the_order_of_the_list()
    {
        var gains = Enumerable
            .Range(0, 200)
            .Select(seed =>
            {
                var load = Day(seed);
                var (plan, list) = (Solve(load, 0.05), ListOrder.Plan(load));
                PlanCheck.Problems(load, plan).ShouldBeEmpty();
                return list.Objective - plan.Objective;
            })
            .ToList();
        gains.ShouldAllBe(g => g >= 0);
        gains.Count(g => g > 0).ShouldBeGreaterThan(150);
    }

    [Fact]
    public void The_same_day_has_the_same_plan_twice()
    {
        var load = Day(6);
        var (one, other) = (Solve(load), Solve(load));
        one.Optimal.ShouldBeTrue();
        other.Tasks.ShouldBe(one.Tasks);
    }

    [Fact]
    public void Stopped_in_mid_run_it_still_answers_with_a_plan()
    {
        using var stop = new CancellationTokenSource();
        stop.Cancel();
        var load = Day(3);
        PlanCheck.Problems(load, DaySolver.Solve(load, TimeSpan.FromSeconds(Long), cancel: stop.Token)).ShouldBeEmpty();
    }

    /// <summary>Promises come first; then what brings more; and what shares a setup lies together.</summary>
    [Fact]
    public void A_day_keeps_promises_then_does_what_is_worth_most_with_one_setting_up()
    {
        WorkTask Of(string id, double worth, string? setup = null, double? due = null) =>
            new(id, id, 20, false, null, [], due, 1) { Worth = worth, Setups = setup is null ? [] : [setup] };
        var load = new Workload(
            1,
            [],
            [Of("poor", 0.1), Of("rich", 3), Of("iron1", 1, "iron"), Of("between", 1), Of("iron2", 1, "iron"), Of("promised", 0.1, due: 25)],
            PlanGoal.Day
        );
        var order = Solve(load).Tasks.OrderBy(t => t.Start).Select(t => t.Id).ToList();
        order[0].ShouldBe("promised");
        order[1].ShouldBe("rich");
        order[^1].ShouldBe("poor");
        Math.Abs(order.IndexOf("iron1") - order.IndexOf("iron2")).ShouldBe(1);
    }

    /// <summary>A driver and the iron at once: of two orders that share the iron the one that shares the driver too.</summary>
    [Fact]
    public void What_shares_two_things_lies_closer_than_what_shares_one()
    {
        WorkTask Of(string id, params string[] setups) => new(id, id, 20, false, null, [], null, 1) { Worth = 1, Setups = setups };
        var load = new Workload(1, [], [Of("a", "iron", "tri-wing"), Of("b", "iron"), Of("c", "iron", "tri-wing"), Of("d", "iron")], PlanGoal.Day);
        load.SharedSetups.Select(s => string.Join(",", s)).ShouldBe(["0,1,2,3", "0,2"]);
        var order = Solve(load).Tasks.OrderBy(t => t.Start).Select(t => t.Id).ToList();
        Math.Abs(order.IndexOf("a") - order.IndexOf("c")).ShouldBe(1);
    }
}
