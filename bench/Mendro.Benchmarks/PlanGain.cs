using Mendro.Core.Scheduling;
using Mendro.Solver;

namespace Mendro.Benchmarks;

/// <summary>What planning gains over working off the list, on two hundred random bench days: <c>-- plan-gain [seconds a day]</c>.</summary>
internal static class PlanGain
{
    private const int Days = 200;
    private static readonly string?[] Places = [null, "air", "supply", "console"];

    /// <summary>Plays the days and prints the table of docs/planning.md.</summary>
    public static void Run(double seconds)
    {
        foreach (var goal in new[] { PlanGoal.Makespan, PlanGoal.Tardiness })
            foreach (var people in new[] { 1, 2 })
            {
                var gains = new List<double>();
                var (proved, worse, list) = (0, 0, 0.0);
                for (var seed = 0; seed < Days / 4; seed++)
                {
                    var load = Day(seed, people, goal);
                    var (plan, before) = (DaySolver.Solve(load, TimeSpan.FromSeconds(seconds)), ListOrder.Plan(load));
                    gains.Add(before.Objective - plan.Objective);
                    list += before.Objective;
                    proved += plan.Optimal ? 1 : 0;
                    worse += plan.Objective > before.Objective ? 1 : 0;
                }

                Console.WriteLine(
                    FormattableString.Invariant(
                        $"{goal}, {people}: list {list / gains.Count:0}, gain {gains.Average():0.0}, proved {proved} of {gains.Count}, worse {worse}"
                    )
                );
            }
    }

    private static Workload Day(int seed, int people, PlanGoal goal)
    {
        var random = new Random(seed);
        T Any<T>(params T[] of) => of[random.Next(of.Length)];
        var tasks = new List<WorkTask>();
        for (var j = 0; j < 12; j++)
        {
            var steps = random.Next(2, 6);
            for (var k = 0; k < steps; k++)
            {
                var soaks = random.NextDouble() < 0.3;
                double? due = k == steps - 1 && random.NextDouble() < 0.5 ? Any(60, 120, 240, 480) : null;
                tasks.Add(
                    new WorkTask(
                        $"{j}.{k}",
                        $"{j}",
                        soaks ? Any(20, 45, 60, 120) : Any(5, 8, 10, 15, 20, 30, 45),
                        soaks,
                        Any(Places),
                        k == 0 ? [] : [$"{j}.{k - 1}"],
                        due,
                        Any(1, 1, 3)
                    )
                );
            }
        }

        return new Workload(people, [new WorkPlace("air", 1), new WorkPlace("supply", 1), new WorkPlace("console", 2)], tasks, goal);
    }
}
