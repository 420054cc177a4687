using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Mendro.Web.Live;
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
    MeterDesk meter,
    Presence presence,
    Viewer viewer,
    TradeLibrary library,
    TimeProvider time
) : ReadingPageModel(jobs, records, desk, readings, goodReadings, library, time)
{
    private const int LongestPage = 40;

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

    /// <summary>Takes the meter for a page, keeps it, or gives it back.</summary>
    /// <param name="act">take, keep or leave.</param>
    /// <param name="page">The page, by its own random name.</param>
    /// <param name="point">Probe, or connector and contact.</param>
    /// <param name="contact">True for a contact.</param>
    public IActionResult OnPostMeter(string? act, [FromForm] string? page, string? point, bool contact)
    {
        if (Asking(page) is not { } browser)
            return BadRequest();
        switch (act)
        {
            case "take":
                return meter.Take(new MeterPage(browser, page!, Number, point ?? "", contact)) ? new NoContentResult() : NotFound();
            case "keep":
                meter.Keep(browser, page!);
                return new NoContentResult();
            case "leave":
                meter.Leave(browser, page!);
                return new NoContentResult();
            default:
                return BadRequest();
        }
    }

    /// <summary>A page says that it has this job open, or has left it; it is told who else has.</summary>
    public IActionResult OnPostHere([FromForm] string? page, bool gone)
    {
        if (Asking(page) is not { } browser)
            return BadRequest();
        if (gone)
            presence.Gone(page!, browser);
        else
            presence.Here(page!, browser, Number, viewer.Name);
        return new JsonResult(presence.Others(Number, browser));
    }

    /// <summary>The browser that asks, when it names its page as our pages do.</summary>
    private string? Asking(string? page) =>
        page is { Length: > 0 and <= LongestPage } && page.All(char.IsAsciiLetterOrDigit) ? BrowserId.Of(Request) : null;

    /// <summary>The bar has no page of its own: it stands under Find.</summary>
    public IActionResult OnGet() => ToJob("Find");
}
