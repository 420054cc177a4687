using System.Text;
using Mendro.Core.Jobs;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Owners;

/// <summary>One owner: all jobs, and what a person may ask for.</summary>
public sealed class ShowModel(OwnerStore owners, OwnerData data, PeopleDesk people, MoneyDesk money, ShopCalendar calendar) : ShopPageModel
{
    /// <summary>The owner.</summary>
    public Owner Owner { get; private set; } = null!;

    /// <summary>Jobs, newest first.</summary>
    public IReadOnlyList<Job> Jobs { get; private set; } = [];

    /// <summary>How this person is reached.</summary>
    public IReadOnlyList<ContactWay> Contacts => _contacts ??= owners.Contacts(Owner.Id);

    /// <summary>Person whom this one was merged into; null for one that stands alone.</summary>
    public long? MergedInto => owners.MergedInto(Owner.Id);

    /// <summary>Rows that were merged into this one.</summary>
    public IReadOnlyList<Owner> Merged => owners.Merged(Owner.Id);

    /// <summary>People who may be the same.</summary>
    public IReadOnlyList<PersonLine> Alike => people.Alike(Owner);

    /// <summary>True when name and ways can be changed.</summary>
    public bool MayChange => MergedInto is null && !Owner.Name.StartsWith(OwnerStore.ErasedName, StringComparison.Ordinal);

    private IReadOnlyList<ContactWay>? _contacts;
    private IReadOnlyList<ContactWay>? _typed;

    /// <summary>Fields for ways to reach this person: two more than there are.</summary>
    public int Fields => Math.Min((_typed ?? Contacts).Count + 2, PeopleDesk.MostWays);

    /// <summary>What stands in such a field.</summary>
    public ContactWay Way(int n) => (_typed ?? Contacts).ElementAtOrDefault(n) ?? new ContactWay(n == 0 ? "phone" : "mail", "");

    /// <summary>Keeps name and ways.</summary>
    public IActionResult OnPostSave(long id, string? name, string[]? kind, string[]? way)
    {
        if (!Load(id))
            return NotFound();
        Remember(("name", name));
        _typed = [.. (way ?? []).Zip(kind ?? [], (w, k) => new ContactWay(Words.Clean(k), Words.Clean(w))).Where(w => w.Value.Length > 0)];
        return Told(people.Save(id, Words.Clean(name), _typed, Once), id);
    }

    /// <summary>Another row is this person as well.</summary>
    public IActionResult OnPostMerge(long id, [FromForm] long from) => Load(id) ? Told(people.Merge(from, id, Once), id) : NotFound();

    /// <summary>It is somebody else after all.</summary>
    public IActionResult OnPostPart(long id, [FromForm] long from) => Load(id) ? Told(people.Part(from, Once), id) : NotFound();

    private IActionResult Told(Deed<Done> deed, long id) =>
        Answer(
            deed,
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage(new { id });
            }
        );

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
