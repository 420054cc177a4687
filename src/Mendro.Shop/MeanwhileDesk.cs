using Mendro.Core.Dismantling;
using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What can be done while something soaks, dries or charges: moves of other jobs that fit into the wait; and the drivers to lay
/// out for the day.</summary>
public sealed class MeanwhileDesk(JobStore jobs, BenchDesk desk)
{
    /// <summary>The best moves of other units that take no longer than a wait, best first. Units that are not worked out yet are passed
    /// over.</summary>
    /// <param name="minutes">Minutes of the wait.</param>
    /// <param name="but">Number of the job that waits.</param>
    public IReadOnlyList<NextLine> Fitting(double minutes, long but) =>
        NextLine.Rank(Known().Where(v => v.Job.Number != but)).Where(l => l.Minutes is { } takes && takes <= minutes).ToList();

    /// <summary>Drivers that the best moves of all units on the bench need, each with the jobs that need it, the most needed first.</summary>
    public IReadOnlyList<(string Driver, IReadOnlyList<Job> Jobs)> Drivers() =>
        Known()
            .SelectMany(v => Needed(v).Select(driver => (Driver: driver, v.Job)))
            .GroupBy(x => x.Driver)
            .Select(g => (g.Key, (IReadOnlyList<Job>)g.Select(x => x.Job).ToList()))
            .OrderByDescending(g => g.Item2.Count)
            .ThenBy(g => g.Key, StringComparer.Ordinal)
            .ToList();

    /// <summary>Drivers that the best move of a unit asks for as it stands; none when nothing has to be opened.</summary>
    public static IReadOnlyList<string> Needed(JobView view)
    {
        if (view.Profile.Steps is not { Count: > 0 } || view.Advice.Moves.FirstOrDefault() is not { } move)
            return [];
        if ((move.Probe?.Id.Value ?? move.Repair?.Part.Id.Value) is not { } target || move.PreparationMinutes <= 0)
            return [];
        var done = UnitApart.Of(view.Profile, view.Records.Select(r => r.Body)).Done.Select(s => s.Id).ToList();
        return TeardownGraph.Of(view.Profile.Steps, view.Profile.Fasteners).Value is { } graph
            ? TeardownPlanner.Plan(graph, [target], done).Value?.Drivers ?? []
            : [];
    }

    private IEnumerable<JobView> Known() =>
        desk.States(jobs.Live().Where(j => j.Shelf == Shelf.None && j.PracticeSeed is null).ToList()).Select(s => s.View).OfType<JobView>();
}
