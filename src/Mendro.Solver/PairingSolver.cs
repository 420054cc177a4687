using Google.OrTools.Sat;
using Mendro.Core.Lots;

namespace Mendro.Solver;

/// <summary>Chooses among all pairs of like units those that give most working ones, proved by a constraint solver (CP-SAT).</summary>
public static class PairingSolver
{
    private const double Scale = 1e6;

    /// <summary>Solves it.</summary>
    /// <param name="units">Like units.</param>
    /// <param name="limit">Longest time; the best found by then is the answer.</param>
    /// <returns>The pairs, the surest first; none where every unit does best by itself.</returns>
    public static IReadOnlyList<Pairing> Solve(IReadOnlyList<DonorCandidate> units, TimeSpan limit)
    {
        var pairs = DonorPairs.All(units);
        if (pairs.Count == 0)
            return [];
        var model = new CpModel();
        var taken = pairs.Select((_, n) => model.NewBoolVar($"p{n}")).ToArray();
        for (var unit = 0; unit < units.Count; unit++)
        {
            var own = Enumerable.Range(0, pairs.Count).Where(n => pairs[n].One == unit || pairs[n].Other == unit).Select(n => taken[n]).ToList();
            if (own.Count > 1)
                model.AddAtMostOne(own);
        }

        model.Maximize(LinearExpr.WeightedSum(taken, pairs.Select(p => (long)Math.Round(p.Gain * Scale))));
        var solver = new CpSolver { StringParameters = Steady.Within(limit) };
        if (solver.Solve(model) is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
            return [];
        return Enumerable
            .Range(0, pairs.Count)
            .Where(n => solver.BooleanValue(taken[n]))
            .Select(n => pairs[n].Pair)
            .OrderByDescending(p => p.Chance)
            .ToList();
    }
}
