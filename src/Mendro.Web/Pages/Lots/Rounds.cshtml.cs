using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Lots;

/// <summary>Rounds over all that is on the bench.</summary>
public sealed class RoundsModel(RoundDesk rounds, JobStore jobs, BenchDesk bench) : PageModel
{
    /// <summary>All that is on the bench.</summary>
    public RoundScope Scope { get; private set; } = null!;

    /// <summary>Rounds that were left.</summary>
    public IReadOnlyList<(RoundUnderWay Round, int Ahead)> UnderWay { get; private set; } = [];

    /// <summary>Units that are not worked out yet.</summary>
    public int Waiting { get; private set; }

    /// <summary>Shows them.</summary>
    public void OnGet()
    {
        Scope = rounds.Whole();
        UnderWay = rounds.UnderWay(Scope);
        Waiting = bench.States(jobs.Live().Where(j => j.Shelf == Core.Jobs.Shelf.None).ToList()).Count(s => s.View is null);
    }
}
