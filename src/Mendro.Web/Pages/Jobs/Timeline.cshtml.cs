using Mendro.Core.Access;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Everything that happened to a job, and the switches that take it off the bench and back.</summary>
public sealed class TimelineModel(JobStore jobs, BenchDesk desk, HandOverDesk handOver, Timeline timeline, Viewer viewer, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>Entries, newest first.</summary>
    public IReadOnlyList<TimelineEntry> Entries { get; private set; } = [];

    /// <summary>Shows the timeline.</summary>
    public IActionResult OnGet()
    {
        if (!Load())
            return NotFound();
        var speaksWithOwners = viewer.Has(Right.Counter);
        Entries = [.. timeline.Of(View.Job.Id).Where(e => speaksWithOwners || !e.IsBetween).Select(e => viewer.SeesCosts ? e : e.WithoutSums())];
        return Page();
    }

    /// <summary>Deletes the job; it can be brought back.</summary>
    public IActionResult OnPostDelete() =>
        Load()
            ? Answer(
                handOver.Delete(Number, Once),
                _ =>
                {
                    TempData["Said"] = $"{View.Job.Tag} deleted. It is under Jobs, Deleted, and can be brought back.";
                    return RedirectToPage("/Jobs/Index");
                }
            )
            : NotFound();

    /// <summary>Brings a deleted job back.</summary>
    public IActionResult OnPostRestore() => Answer(handOver.BringBack(Number, Once), _ => ToJob("Timeline"));

    /// <summary>Reopens a closed job.</summary>
    public IActionResult OnPostReopen() => Answer(handOver.Reopen(Number, Once), _ => ToJob("Find"));

    /// <summary>Takes a job down from its shelf.</summary>
    public IActionResult OnPostBench() => Answer(handOver.TakeDown(Number, Once), _ => ToJob("Find"));
}
