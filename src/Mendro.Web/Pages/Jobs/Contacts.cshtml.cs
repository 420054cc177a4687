using System.Globalization;
using Htmx;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Contact map: a connector swept contact by contact, and what its dead contacts look like on the screen.</summary>
public sealed class ContactsModel(JobStore jobs, BenchDesk desk, ContactDesk contacts, ContactMarkStore contactMarks, TeachDesk teach, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>The connector.</summary>
    public Connector Connector { get; private set; } = null!;

    /// <summary>Its contacts as found.</summary>
    public IReadOnlyDictionary<int, ContactMark> Marks { get; private set; } = new Dictionary<int, ContactMark>();

    /// <summary>The result so far.</summary>
    public ContactSweep Sweep { get; private set; } = null!;

    /// <summary>The contact to try now.</summary>
    public Contact Selected { get; private set; } = null!;

    /// <summary>What was typed and not taken.</summary>
    public string? Typed { get; private set; }

    /// <summary>Why it was not taken.</summary>
    public string? Wrong { get; private set; }

    /// <summary>True right after marks were taken back.</summary>
    public bool CanBringBack { get; private set; }

    /// <inheritdoc/>
    public override string? LockedBecause => ContactDesk.Locked(View.Job);

    /// <summary>Probe that the result is filed under, or null.</summary>
    public Probe? Under => Connector.Probe is { } id ? View.Profile.FindProbe(id) : null;

    /// <summary>Name of a look in the words of the unit's functions.</summary>
    public string LookName(string look) =>
        View.Profile.Functions.Select(f => Library.FindLook(f.Kind, look)?.Name).FirstOrDefault(n => n is not null) ?? look;

    /// <summary>Neighbour of the selected contact, or null at the end of its row.</summary>
    public Contact? Next => ContactSweep.Neighbour(Connector.Contacts, Selected);

    /// <summary>Contact one step away in the order of the sweep.</summary>
    public Contact Step(int by)
    {
        var contacts = Connector.Contacts;
        var at = contacts.TakeWhile(c => c.Number != Selected.Number).Count();
        return contacts[Math.Clamp(at + by, 0, contacts.Count - 1)];
    }

    /// <summary>Shows the map.</summary>
    public IActionResult OnGet(string? connector, int? contact) =>
        Prepare(connector, contact)
            ? Request.IsHtmx()
                ? Board()
                : Page()
            : NotFound();

    /// <summary>Marks the selected contact and goes on to the next that was not tried.</summary>
    public IActionResult OnPostMark(string? connector, int contact, string? text, string? say)
    {
        if (!Prepare(connector, contact))
            return NotFound();
        var mark = say switch
        {
            "beep" => new ContactMark(contact, ContactState.Beep, null),
            "silent" => new ContactMark(contact, ContactState.Silent, null),
            "pressed" => new ContactMark(contact, ContactState.Pressed, null),
            "short" => new ContactMark(contact, ContactState.Short, null),
            _ => null,
        };
        if (mark is null)
        {
            var read = ContactSweep.Read(contact, text, "A contact");
            if (!read.IsOk)
                return Refuse(text, read.Problem);
            mark = read.Value;
        }

        var deed = contacts.Mark(Number, Connector.Id, mark, Once);
        return deed.Match(
            _ => Done(Following(contact)),
            refusal => refusal.Kind == RefusalKind.Missing ? NotFound() : Refuse(null, refusal.Problem)
        );
    }

    /// <summary>What was counted on the connector and not taken.</summary>
    public string? Counted { get; private set; }

    /// <summary>The contacts are as drawn, or as counted.</summary>
    public IActionResult OnPostConfirm(string? connector, string? counted)
    {
        if (!Prepare(connector, null))
            return NotFound();
        Counted = Words.Clean(counted);
        return teach
            .Confirm(Number, Connector.Id, Counted, Once)
            .Match(
                done =>
                {
                    TempData["Said"] = done.Words + ".";
                    return RedirectToPage(new { number = Number, connector = Connector.Id });
                },
                refusal => refusal.Kind == RefusalKind.Missing ? NotFound() : Refuse(null, refusal.Problem)
            );
    }

    /// <summary>Takes the last mark back and goes to its contact.</summary>
    public IActionResult OnPostUndo(string? connector) => Change(connector, id => contacts.Undo(Number, id, Once), showBack: true);

    /// <summary>Begins anew, as after cleaning.</summary>
    public IActionResult OnPostClear(string? connector) => Change(connector, id => contacts.Clear(Number, id, Once), showBack: true);

    /// <summary>Brings back what was taken back last.</summary>
    public IActionResult OnPostBringBack(string? connector) =>
        Change(connector, id => contacts.BringBack(Number, id, Once), showBack: false);

    /// <summary>Files the result as evidence.</summary>
    public IActionResult OnPostFile(string? connector)
    {
        if (!Prepare(connector, null))
            return NotFound();
        return contacts
            .File(Number, Connector.Id, Once)
            .Match(
                done =>
                {
                    TempData["Said"] = $"Filed: {done.Words}.";
                    return ToJob("Find");
                },
                refusal => refusal.Kind == RefusalKind.Missing ? NotFound() : Refuse(null, refusal.Problem)
            );
    }

    private IActionResult Change(string? connector, Func<string, Deed<ContactsMarked>> change, bool showBack)
    {
        if (!Prepare(connector, null))
            return NotFound();
        return change(Connector.Id)
            .Match(
                marked =>
                {
                    CanBringBack = showBack && marked.Marks > 0;
                    return Done(marked.Contact);
                },
                refusal => refusal.Kind == RefusalKind.Missing ? NotFound() : Refuse(null, refusal.Problem)
            );
    }

    private bool Prepare(string? connectorId, int? contact)
    {
        if (
            !Load()
            || View.Profile.Connectors is not { Count: > 0 } all
            || (connectorId is null ? all[0] : all.FirstOrDefault(c => c.Id == connectorId)) is not { } connector
        )
            return false;
        Connector = connector;
        var marks = contactMarks.Of(View.Job.Id, connector.Id);
        Marks = marks.ToDictionary(m => m.Number);
        Sweep = ContactDesk.Sweep(connector, marks, View.Records, Library.ContactGroups);
        if (contact is { } number && connector.Contacts.All(c => c.Number != number))
            return false;
        Selected = contact is { } told
            ? connector.Contacts.First(c => c.Number == told)
            : connector.Contacts.FirstOrDefault(c => !Marks.ContainsKey(c.Number)) ?? connector.Contacts[0];
        return true;
    }

    /// <summary>The next contact not tried yet, from this one on and then from the beginning; null when all are.</summary>
    private int? Following(int contact)
    {
        var order = Connector.Contacts;
        var at = order.TakeWhile(c => c.Number != contact).Count();
        return order
                .Skip(at + 1)
                .Concat(order.Take(at + 1))
                .FirstOrDefault(c => c.Number != contact && !Marks.ContainsKey(c.Number))
                ?.Number
            ?? order[Math.Min(at + 1, order.Count - 1)].Number;
    }

    private IActionResult Done(int? contact)
    {
        var id = Connector.Id;
        if (!Request.IsHtmx())
            return RedirectToPage(
                new
                {
                    number = Number,
                    connector = id,
                    contact,
                }
            );
        return Prepare(id, contact) ? Board() : NotFound();
    }

    private IActionResult Board() => Partial("_ContactBoard", this);

    private IActionResult Refuse(string? typed, string problem)
    {
        (Typed, Wrong) = (typed, problem);
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Request.IsHtmx() ? Board() : Page();
    }
}
