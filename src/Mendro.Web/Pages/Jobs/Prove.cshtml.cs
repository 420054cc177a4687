using Htmx;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Prove: every function, tried after the last repair.</summary>
public sealed class ProveModel(JobStore jobs, BenchDesk desk, ReadingDesk readings, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>True when only the list is sent.</summary>
    public bool Swapped { get; private set; }

    /// <summary>Shows the sheet.</summary>
    public IActionResult OnGet() => Load() ? Page() : NotFound();

    /// <summary>Files one result.</summary>
    public IActionResult OnPostResult(string? function, string? result, string? look)
    {
        if (result is not ("pass" or "fail"))
            return NotFound();
        var deed = readings.Try(new TrialOrder(Number, function ?? "", result == "pass", look, Proving: true), Once);
        if (deed.Refusal is { Kind: RefusalKind.Missing } || !Load())
            return NotFound();
        if (!Request.IsHtmx())
            return ToJob("Prove");
        Swapped = true;
        return Partial("_ProveList", this);
    }
}
