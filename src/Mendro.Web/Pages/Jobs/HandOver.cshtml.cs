using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Readings;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Hand over: to owner, sale or parts, or on a shelf with a reason.</summary>
public sealed class HandOverModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, SettingsStore settings, GoodReadingStore goodReadings, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    /// <summary>As typed.</summary>
    public string? Reason { get; private set; }

    /// <summary>As typed.</summary>
    public string? Note { get; private set; }

    /// <summary>As typed.</summary>
    public string? Asking { get; private set; }

    /// <summary>As typed.</summary>
    public string? Why { get; private set; }

    /// <summary>As typed.</summary>
    public string? Next { get; private set; }

    /// <summary>Shop rate an hour.</summary>
    public decimal Rate { get; private set; }

    /// <summary>Work so far at the shop rate.</summary>
    public decimal Labour { get; private set; }

    /// <summary>Why nothing may be entered, or null.</summary>
    public string? LockedBecause => Locked();

    /// <summary>Modifications done, to be disclosed.</summary>
    public IEnumerable<string> Modifications => View.Records.Where(r => r.Kind == RecordKind.Repair && Library.FindMethod(r.Detail)?.Type == MethodType.Modification).Select(r => r.Words);

    /// <summary>Readings that the unit can leave as a known-good one; none while anything is unproved.</summary>
    public IReadOnlyList<GoodReading> Leaves => View.Proof.Complete ? GoodReadingStore.FromRecords(View.Job, View.Records) : [];

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Closes the job.</summary>
    public IActionResult OnPost(string? end, string? reason, string? note, string? asking, bool leave)
    {
        if (!Prepare()) return NotFound();
        (Reason, Note, Asking) = (reason, note, asking);
        if (!Enum.TryParse<JobEnd>(end, out var ending) || ending == JobEnd.Open || !Enum.IsDefined(ending)) return Refuse("Choose where it goes.");
        if (Locked() is { } locked) return Refuse(locked);
        if (ending == JobEnd.Returned && View.Job.ShopStock) return Refuse("Shop stock has no owner to return it to. Send it to sale or to parts.");
        if (Words.Clean(note).Length > 2000 || Words.Clean(reason).Length > 500) return Refuse("The words take 2000 characters, the reason 500.");
        if (Price.TryAmount(asking, out var price) is { } wrong) return Refuse(wrong);
        if (ending == JobEnd.ForSale && price is null) return Refuse("Give the asking price: from comparable sales.");
        // What goes to parts is not sold as working: nothing has to be proved.
        if (ending != JobEnd.Parts && View.Proof.Bar(reason) is { } bar) return Refuse(bar);
        Jobs.Close(View.Job.Id, ending, Words.Clean(note), Words.Clean(reason), ending == JobEnd.ForSale ? price : null);
        if (leave && ending != JobEnd.Parts) goodReadings.Add(Leaves, View.Job.Id);
        TempData["Said"] = $"Closed: {StageWords.Name(ending)}. The sheet is ready to print.";
        return Redirect($"/Jobs/{Number}/Sheet");
    }

    /// <summary>Puts the job on a shelf.</summary>
    public IActionResult OnPostShelf(string? shelf, string? why, string? next)
    {
        if (!Prepare()) return NotFound();
        (Why, Next) = (why, next);
        if (!Enum.TryParse<Shelf>(shelf, out var place) || place is not (Shelf.WaitingPart or Shelf.WaitingOwner or Shelf.SetAside)) return Refuse("Choose a shelf.");
        if (Locked() is { } locked) return Refuse(locked);
        if (Words.Clean(why).Length is 0 or > 300) return Refuse("Say why it waits, in up to 300 characters: it must stay visible until then.");
        if (Words.Clean(next).Length > 300) return Refuse("What to try next takes 300 characters.");
        Jobs.SetShelf(View.Job.Id, place, Words.Clean(why), Words.Clean(next));
        TempData["Said"] = $"{Number}: {StageWords.Name(place).ToLowerInvariant()}.";
        return Redirect("/");
    }

    private bool Prepare()
    {
        if (!Load()) return false;
        Rate = settings.Get().RatePerHour;
        Labour = decimal.Round((decimal)View.MinutesSpent / 60 * Rate, 2);
        return true;
    }
}
