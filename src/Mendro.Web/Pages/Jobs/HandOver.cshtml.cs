using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Hand over: to owner, sale or parts, or on a shelf with a reason.</summary>
public sealed class HandOverModel(
    JobStore jobs,
    BenchDesk desk,
    SettingsStore settings,
    HandOverDesk handOver,
    RunDesk runs,
    MethodDesk methods,
    TradeLibrary library
)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>Reason, as typed.</summary>
    public string? Reason { get; private set; }

    /// <summary>Words for the sheet, as typed.</summary>
    public string? Note { get; private set; }

    /// <summary>Asking price, as typed.</summary>
    public string? Asking { get; private set; }

    /// <summary>Why it waits, as typed.</summary>
    public string? Why { get; private set; }

    /// <summary>What to try next, as typed.</summary>
    public string? Next { get; private set; }

    /// <summary>What the job has cost so far.</summary>
    public JobCost Cost { get; private set; } = null!;

    /// <summary>Modifications done, to be disclosed.</summary>
    public IEnumerable<string> Modifications =>
        runs.Modifications(View.Job).Select(m => m.Words + (m.Originals.Length > 0 ? $" (originals: {m.Originals})" : ""));

    /// <summary>Readings that the unit can leave as a known-good one; none while anything is unproved.</summary>
    public IReadOnlyList<GoodReading> Leaves => View.Proof.Complete ? HandOverDesk.Leaves(View.Job, View.Records) : [];

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Closes the job.</summary>
    public IActionResult OnPost(string? end, string? reason, string? note, string? asking, bool leave)
    {
        if (!Prepare())
            return NotFound();
        (Reason, Note, Asking) = (reason, note, asking);
        if (!Enum.TryParse<JobEnd>(end, out var ending) || ending == JobEnd.Open || !Enum.IsDefined(ending))
            return Refuse("Choose where it goes.");
        if (Amount.TryRead(asking, View.Currency, out var price) is { } wrong)
            return Refuse(wrong);
        var order = new CloseOrder(Number, ending, Words.Clean(note), Words.Clean(reason), price?.Value, leave);
        return Answer(
            handOver.Close(order, Once),
            done =>
            {
                // What came of its repairs counts for the methods from now on.
                methods.Closed(Number);
                TempData["Said"] = done.Words;
                return ToJob("Sheet");
            }
        );
    }

    /// <summary>Puts the job on a shelf.</summary>
    public IActionResult OnPostShelf(string? shelf, string? why, string? next)
    {
        if (!Prepare())
            return NotFound();
        (Why, Next) = (why, next);
        var place = Enum.TryParse<Shelf>(shelf, out var told) ? told : Shelf.None;
        return Answer(
            handOver.Shelve(Number, place, Words.Clean(why), Words.Clean(next), Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage("/Index");
            }
        );
    }

    private bool Prepare()
    {
        if (!Load())
            return false;
        Cost = JobCost.Of(View, settings.Get().PerHour);
        return true;
    }
}
