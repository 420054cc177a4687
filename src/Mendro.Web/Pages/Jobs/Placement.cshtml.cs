using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The placement sheet: each board as large as it is, to lay the parts on.</summary>
public sealed class PlacementModel(JobStore jobs, BenchDesk desk, RecapDesk recap, TradeLibrary library)
    : RecapPageModel(jobs, desk, recap, library)
{
    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();
}
