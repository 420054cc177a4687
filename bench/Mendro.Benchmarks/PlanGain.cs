using Mendro.Core.Scheduling;
using Mendro.Solver;
using Mendro.Tests.Shared;

namespace Mendro.Benchmarks;

/// <summary>What planning gains over working off the list, on two hundred random bench days: <c>-- plan-gain [seconds a day]</c>.</summary>
internal static class PlanGain
{
    private const int Days = 200;

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
                    var load = RandomDay.Make(seed, goal, people);
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
}
