using System.Text;
using Mendro.Core.Jobs;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Owners;

/// <summary>One owner: all jobs, and what a person may ask for.</summary>
public sealed class ShowModel(OwnerStore owners, OwnerData data, MoneyDesk money, ShopCalendar calendar) : ShopPageModel
{
    /// <summary>The owner.</summary>
    public Owner Owner { get; private set; } = null!;

    /// <summary>Jobs, newest first.</summary>
    public IReadOnlyList<Job> Jobs { get; private set; } = [];

    /// <summary>What is owed.</summary>
    public IReadOnlyList<OpenItem> Open => money.OpenItems(Owner.Id);

    /// <summary>A reminder of it, as a text to send.</summary>
    public string Reminder => money.Reminder(Owner.Id, calendar.Today);

    /// <summary>Today by the shop's clock.</summary>
    public DateOnly Today => calendar.Today;

    /// <summary>Shows it.</summary>
    public IActionResult OnGet(long id) => Load(id) ? Page() : NotFound();

    /// <summary>Where else words stand that may be this person's; null before it was asked.</summary>
    public IReadOnlyList<(string Where, string Text)>? Elsewhere { get; private set; }

    /// <summary>Looks where else the name stands.</summary>
    public IActionResult OnGetElsewhere(long id)
    {
        if (!Load(id))
            return NotFound();
        Elsewhere = data.Elsewhere(id);
        return Page();
    }

    /// <summary>All that is kept, as a file.</summary>
    public IActionResult OnGetExport(long id) =>
        data.Export(id) is { } json
            ? File(Encoding.UTF8.GetBytes(json), "application/json", FormattableString.Invariant($"owner-{id}.json"))
            : NotFound();

    /// <summary>Takes name and contact out of everything.</summary>
    public IActionResult OnPostErase(long id, string? name)
    {
        if (!Load(id))
            return NotFound();
        return Answer(
            data.Erase(id, Words.Clean(name), Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage(new { id });
            }
        );
    }

    private bool Load(long id)
    {
        if (owners.Find(id) is not { } owner)
            return false;
        (Owner, Jobs) = (owner, owners.Jobs(id).Reverse().ToList());
        return true;
    }
}
