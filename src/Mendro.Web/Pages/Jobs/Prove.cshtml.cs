using Htmx;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Prove: every function, tried after the last repair.</summary>
public sealed class ProveModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    /// <summary>True when only the list is sent.</summary>
    public bool Swapped { get; private set; }

    /// <summary>Why nothing may be entered, or null.</summary>
    public string? LockedBecause => Locked();

    /// <summary>Shows the sheet.</summary>
    public IActionResult OnGet() => Load() ? Page() : NotFound();

    /// <summary>Files one result.</summary>
    public IActionResult OnPostResult(string? function, string? result, string? look)
    {
        if (!Load()) return NotFound();
        if (result is not ("pass" or "fail") || Maker(WorkStage.Prove).Function(function ?? "", result == "pass", look) is not { } record) return NotFound();
        if (Locked() is null)
        {
            Records.Add(record with { JobId = View.Job.Id });
            AtLeast(WorkStage.Prove);
            Load();
            if (View.Proof.Complete && View.Job.Shelf == Shelf.None) Jobs.SetShelf(View.Job.Id, Shelf.Ready, "everything works", "");
            if (!View.Proof.Complete && View.Job.Shelf == Shelf.Ready) Jobs.SetShelf(View.Job.Id, Shelf.None, "", "");
        }

        if (!Request.IsHtmx()) return Redirect($"/Jobs/{Number}/Prove");
        Load();
        Swapped = true;
        return Partial("_ProveList", this);
    }
}
