using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Everything that happened to a job, and the switches that take it off the bench and back.</summary>
public sealed class TimelineModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, Timeline timeline, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    /// <summary>Entries, newest first.</summary>
    public IReadOnlyList<TimelineEntry> Entries { get; private set; } = [];

    /// <summary>Shows the timeline.</summary>
    public IActionResult OnGet()
    {
        if (!Load()) return NotFound();
        Entries = timeline.Of(View.Job.Id);
        return Page();
    }

    /// <summary>Deletes the job; it can be brought back.</summary>
    public IActionResult OnPostDelete()
    {
        if (!Load()) return NotFound();
        Jobs.Delete(View.Job.Id);
        TempData["Said"] = $"{Number} deleted. It is under Jobs, Deleted, and can be brought back.";
        return Redirect("/Jobs");
    }

    /// <summary>Brings a deleted job back.</summary>
    public IActionResult OnPostRestore()
    {
        if (!Load()) return NotFound();
        Jobs.Restore(View.Job.Id);
        return Redirect($"/Jobs/{Number}/Timeline");
    }

    /// <summary>Reopens a closed job.</summary>
    public IActionResult OnPostReopen()
    {
        if (!Load()) return NotFound();
        Jobs.Reopen(View.Job.Id);
        return Redirect($"/Jobs/{Number}/Find");
    }

    /// <summary>Takes a job down from its shelf.</summary>
    public IActionResult OnPostBench()
    {
        if (!Load()) return NotFound();
        Jobs.SetShelf(View.Job.Id, Shelf.None, "", "");
        return Redirect($"/Jobs/{Number}/Find");
    }
}
