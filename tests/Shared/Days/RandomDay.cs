using Mendro.Core.Scheduling;

namespace Mendro.Tests.Shared;

/// <summary>A random bench day: twelve units with a few steps each, a third of which soak.</summary>
internal static class RandomDay
{
    private static readonly string?[] Places = [null, "air", "supply", "console"];

    /// <summary>The day of a seed.</summary>
    /// <param name="seed">Seed.</param>
    /// <param name="goal">Goal.</param>
    /// <param name="people">People; null for one or two.</param>
    public static Workload Make(int seed, PlanGoal goal, int? people = null)
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

        return new Workload(
            people ?? random.Next(1, 3),
            Places.OfType<string>().Select(p => new WorkPlace(p, p == "console" ? 2 : 1)).ToList(),
            tasks,
            goal
        );
    }
}
