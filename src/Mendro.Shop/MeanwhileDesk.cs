using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What can be done while something soaks, dries or charges: moves of other jobs that fit into the wait.</summary>
public sealed class MeanwhileDesk(JobStore jobs, BenchDesk desk)
{
    /// <summary>The best moves of other units that take no longer than a wait, best first. Units that are not worked out yet are passed
    /// over.</summary>
    /// <param name="minutes">Minutes of the wait.</param>
    /// <param name="but">Number of the job that waits.</param>
    public IReadOnlyList<NextLine> Fitting(double minutes, long but)
    {
        var others = jobs.Live().Where(j => j.Shelf == Shelf.None && j.Number != but && j.PracticeSeed is null).ToList();
        var known = desk.States(others).Select(s => s.View).OfType<JobView>();
        return NextLine.Rank(known).Where(l => l.Minutes is { } takes && takes <= minutes).ToList();
    }
}
