using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The reading bar alone, for the pages of a job other than Find.</summary>
public sealed class BarModel(
    JobStore jobs,
    BenchRecordStore records,
    BenchDesk desk,
    ReadingDesk readings,
    GoodReadingStore goodReadings,
    IBenchHand hand,
    TradeLibrary library,
    TimeProvider time
) : ReadingPageModel(jobs, records, desk, readings, goodReadings, library, time)
{
    /// <inheritdoc/>
    public override string Path => $"/Jobs/{Number}/Bar";

    /// <inheritdoc/>
    public override string Target => "#bar";

    /// <summary>A bar that comes with the page leaves the focus where it is; one that answers, or was set to a point by hand, takes
    /// it.</summary>
    public override bool TakesFocus =>
        Filed is not null || JudgeProblem is not null || Request.Query["select"].ToString().StartsWith("probe:", StringComparison.Ordinal);

    /// <inheritdoc/>
    protected override IActionResult Board() => Partial("_Bar", this);

    /// <summary>Keeps the stand-in's tips off the board, or lets them follow again.</summary>
    public IActionResult OnPostTips(bool off)
    {
        hand.HoldOff(off);
        return new NoContentResult();
    }

    /// <summary>The bar has no page of its own: it stands under Find.</summary>
    public IActionResult OnGet() => ToJob("Find");
}
