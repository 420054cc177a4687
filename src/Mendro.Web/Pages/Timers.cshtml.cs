using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages;

/// <summary>Timers of the bench: the strip on every page, and a page of their own.</summary>
public sealed class TimersModel(TimerDesk timers) : ShopPageModel
{
    /// <summary>Number of the job a new one is for.</summary>
    [BindProperty(SupportsGet = true, Name = "job")]
    public long? Job { get; set; }

    /// <summary>Label as typed.</summary>
    public string Label { get; private set; } = "";

    /// <summary>Minutes as typed.</summary>
    public string Minutes { get; private set; } = "";

    /// <summary>Shows the page.</summary>
    public void OnGet(string? label, string? minutes) => (Label, Minutes) = (Words.Clean(label), Words.Clean(minutes));

    /// <summary>The strip alone.</summary>
    public IActionResult OnGetStrip() => Partial("_Timers");

    /// <summary>Starts one.</summary>
    public IActionResult OnPost(string? label, string? minutes, long? job)
    {
        (Label, Minutes, Job) = (Words.Clean(label), Words.Clean(minutes), job);
        return Answer(timers.Start(Job, Label, Words.Number(Minutes) ?? 0, Once), Told);
    }

    /// <summary>Pauses one, or lets it run on.</summary>
    public IActionResult OnPostPause(long id) => Answer(timers.Pause(id), Told);

    /// <summary>Stops one.</summary>
    public IActionResult OnPostStop(long id) => Answer(timers.Stop(id), Told);

    private IActionResult Told(Done done)
    {
        if (Request.Headers.ContainsKey("HX-Request"))
            return Partial("_Timers");
        TempData["Said"] = done.Words;
        return RedirectToPage("/Timers");
    }
}
