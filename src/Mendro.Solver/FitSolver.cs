using System.Diagnostics;
using Google.OrTools.Sat;
using Mendro.Core.Capacitors;

namespace Mendro.Solver;

/// <summary>
/// Chooses among all seats of a <see cref="FitPuzzle"/>: first most positions filled, then most of them upright, then the least sum of
/// distances. A constraint solver (CP-SAT) proves that nothing better exists; with one worker and a fixed seed the same puzzle has the
/// same answer.
/// </summary>
public static class FitSolver
{
    // Distances count in thousandths of a millimetre; an upright seat outweighs them all, and a filled position all upright ones.
    private const long PerMm = 1000;

    /// <summary>Solves a puzzle.</summary>
    /// <param name="puzzle">Puzzle.</param>
    /// <param name="limit">Longest time.</param>
    /// <param name="cancel">Gives up with what was found.</param>
    /// <param name="progress">Told each better plan: positions filled.</param>
    public static FitPlan Solve(FitPuzzle puzzle, TimeSpan limit, CancellationToken cancel = default, Action<int>? progress = null)
    {
        var clock = Stopwatch.StartNew();
        var reduced = new FitReduction(puzzle, cancel);
        if (reduced.WasCancelled)
            return puzzle.Plan([], false);
        var (taken, optimal) = (new List<FitSeat>(), true);
        // Small groups first: what is easy is done when time runs out.
        foreach (var group in reduced.Groups.OrderBy(g => g.Count))
        {
            var left = limit - clock.Elapsed;
            if (cancel.IsCancellationRequested || left <= TimeSpan.Zero)
                (taken, optimal) = ([.. taken, .. Greedy(puzzle, reduced, group)], false);
            else
            {
                var (found, proved) = SolveGroup(puzzle, reduced, group, left, cancel, filled => progress?.Invoke(taken.Count + filled));
                (taken, optimal) = ([.. taken, .. found], optimal && proved);
            }

            progress?.Invoke(taken.Count);
        }

        return puzzle.Plan(taken, optimal);
    }

    private static (IReadOnlyList<FitSeat> Taken, bool Proved) SolveGroup(
        FitPuzzle puzzle,
        FitReduction reduced,
        IReadOnlyList<int> group,
        TimeSpan limit,
        CancellationToken cancel,
        Action<int> progress
    )
    {
        var seats = puzzle.Seats;
        if (group.Select(n => seats[n].Position).Distinct().Count() == 1)
            return (Greedy(puzzle, reduced, group), true);
        var model = new CpModel();
        var taken = group.ToDictionary(n => n, n => model.NewBoolVar($"s{n}"));
        foreach (var clique in reduced.Cliques(group))
            model.AddAtMostOne(clique.Select(n => taken[n]));
        var furthest = (long)Math.Ceiling(group.Max(n => seats[n].DistanceMm) * PerMm) + 1;
        var upright = furthest * (puzzle.Positions.Count + 1);
        var filled = (upright + furthest) * (puzzle.Positions.Count + 1);
        long Worth(FitSeat s) => filled + (s.Pose == FitPose.Upright ? upright : 0) - (long)Math.Round(s.DistanceMm * PerMm);
        model.Maximize(LinearExpr.WeightedSum(group.Select(n => taken[n]), group.Select(n => Worth(seats[n]))));
        var start = Greedy(puzzle, reduced, group).ToHashSet();
        foreach (var n in group)
            model.AddHint(taken[n], start.Contains(seats[n]) ? 1 : 0);
        var solver = new CpSolver
        {
            // The puzzle comes reduced and its sets grown, so that most of the solver's own preparation only costs time: with little of
            // it, and the whole relaxation from the start, 25 positions took 1 to 5 s where they took 3 to 20.
            StringParameters =
                Steady.Within(limit)
                + " linearization_level:2 cp_model_probing_level:0 symmetry_level:0 max_presolve_iterations:1 add_lp_constraints_lazily:false",
        };
        using var watching = new Watch(filled, cancel, progress);
        var status = solver.Solve(model, watching);
        return status is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? (group.Where(n => solver.BooleanValue(taken[n])).Select(n => seats[n]).ToList(), status == CpSolverStatus.Optimal)
            : ([.. start], false);
    }

    /// <summary>Takes the best seat that is still free, position by position: a plan at once, to begin with or to end with.</summary>
    private static List<FitSeat> Greedy(FitPuzzle puzzle, FitReduction reduced, IReadOnlyList<int> group)
    {
        var (seats, barred, taken) = (puzzle.Seats, new HashSet<int>(), new List<FitSeat>());
        foreach (var own in group.GroupBy(n => seats[n].Position).OrderBy(g => g.Count()))
        {
            var free = own.Where(n => !barred.Contains(n)).OrderBy(n => seats[n].Pose).ThenBy(n => seats[n].DistanceMm).ToList();
            if (free.Count == 0)
                continue;
            taken.Add(seats[free[0]]);
            barred.UnionWith(reduced.ExcludedBy(free[0]));
        }

        return taken;
    }

    /// <summary>Hears of better plans, and stops the search when it is cancelled.</summary>
    private sealed class Watch(long filled, CancellationToken cancel, Action<int> progress) : CpSolverSolutionCallback
    {
        public override void OnSolutionCallback()
        {
            progress((int)(ObjectiveValue() / filled));
            if (cancel.IsCancellationRequested)
                StopSearch();
        }
    }
}
