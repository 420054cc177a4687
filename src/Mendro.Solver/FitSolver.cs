using System.Globalization;
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
        var (model, seats) = (new CpModel(), puzzle.Seats);
        var taken = seats.Select((_, n) => model.NewBoolVar($"s{n}")).ToArray();
        var byPosition = Enumerable.Range(0, seats.Count).GroupBy(n => seats[n].Position).ToDictionary(g => g.Key, g => g.ToArray());
        foreach (var own in byPosition.Values)
            model.AddAtMostOne(own.Select(n => taken[n]));
        foreach (var n in Enumerable.Range(0, seats.Count))
        foreach (var (other, theirs) in byPosition)
        {
            if (other <= seats[n].Position)
                continue;
            // Of theirs one is taken at most anyway, so that all that this one excludes stand in one line.
            var excluded = theirs.Where(m => puzzle.Exclude(seats[n], seats[m])).ToList();
            if (excluded.Count > 0)
                model.AddAtMostOne(excluded.Select(m => taken[m]).Append(taken[n]));
        }

        var furthest = (long)Math.Ceiling(seats.Select(s => s.DistanceMm).DefaultIfEmpty(0).Max() * PerMm) + 1;
        var upright = furthest * (puzzle.Positions.Count + 1);
        var filled = (upright + furthest) * (puzzle.Positions.Count + 1);
        var worth = seats.Select(s =>
            filled + (s.Pose == FitPose.Upright ? upright : 0) - (long)Math.Round(s.DistanceMm * PerMm)
        );
        model.Maximize(LinearExpr.WeightedSum(taken, worth));

        var solver = new CpSolver
        {
            StringParameters = string.Create(
                CultureInfo.InvariantCulture,
                $"max_time_in_seconds:{limit.TotalSeconds:0.###} num_workers:1 random_seed:1"
            ),
        };
        using var watching = new Watch(filled, cancel, progress);
        var status = solver.Solve(model, watching);
        var found = status is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? Enumerable.Range(0, seats.Count).Where(n => solver.BooleanValue(taken[n])).Select(n => seats[n]).ToList()
            : [];
        return puzzle.Plan(found, status == CpSolverStatus.Optimal);
    }

    /// <summary>Hears of better plans, and stops the search when it is cancelled.</summary>
    private sealed class Watch(long filled, CancellationToken cancel, Action<int>? progress) : CpSolverSolutionCallback
    {
        public override void OnSolutionCallback()
        {
            progress?.Invoke((int)(ObjectiveValue() / filled));
            if (cancel.IsCancellationRequested)
                StopSearch();
        }
    }
}
