using System.Globalization;

namespace Mendro.Solver;

/// <summary>How every constraint solver here is set: one hand and one seed, so that the same task has the same answer twice.</summary>
internal static class Steady
{
    /// <summary>Parameters of CP-SAT for a longest time.</summary>
    public static string Within(TimeSpan limit) =>
        string.Create(CultureInfo.InvariantCulture, $"max_time_in_seconds:{limit.TotalSeconds:0.###} num_workers:1 random_seed:1");
}
