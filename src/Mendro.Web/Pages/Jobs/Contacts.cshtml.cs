using System.Globalization;
using Htmx;
using Mendro.Core;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Contact map: a connector swept contact by contact, and what its dead contacts look like on the screen.</summary>
public sealed class ContactsModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, ContactMarkStore contactMarks, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
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

    /// <summary>Why nothing may be entered, or null.</summary>
    public string? LockedBecause => View.Job.PracticeSeed is not null ? "A practice unit answers the whole connector at once, under Find." : Locked();

    /// <summary>Probe that the result is filed under, or null.</summary>
    public Probe? Under => Connector.Probe is { } id ? View.Profile.FindProbe(id) : null;

    /// <summary>Name of a look in the words of the unit's functions.</summary>
    public string LookName(string look) => View.Profile.Functions.Select(f => Library.FindFunctionKind(f.Kind)?.Looks.FirstOrDefault(l => l.Id == look)?.Name).FirstOrDefault(n => n is not null) ?? look;

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
    public IActionResult OnGet(string? connector, int? contact) => Prepare(connector, contact) ? Request.IsHtmx() ? Board() : Page() : NotFound();

    /// <summary>Marks the selected contact and goes on to the next that was not tried.</summary>
    public IActionResult OnPostMark(string? connector, int contact, string? text, string? say)
    {
        if (!Prepare(connector, contact)) return NotFound();
        if (LockedBecause is { } locked) return Refuse(text, locked);
        var mark = say switch
        {
            "beep" => new ContactMark(contact, ContactState.Beep, null),
            "silent" => new ContactMark(contact, ContactState.Silent, null),
            "short" => new ContactMark(contact, ContactState.Short, null),
            _ => null,
        };
        if (mark is null)
        {
            var read = ReadingParser.Parse(text, ReadingUnit.Ohms);
            if (!read.IsOk) return Refuse(text, read.Problem!);
            if (read.Value.Unit is not (ReadingUnit.Ohms or ReadingUnit.Beep or ReadingUnit.OverRange)) return Refuse(text, "A contact wants the buzzer: beep, no beep, or ohms.");
            mark = read.Value.Unit == ReadingUnit.Beep
                ? new ContactMark(contact, read.Value.Value > 0 ? ContactState.Beep : ContactState.Silent, null)
                : new ContactMark(contact, ContactSweep.StateOf(read.Value.Value), read.Value.Value);
        }

        if (mark.State == ContactState.Short && Next is null) return Refuse(null, $"Contact {contact} is the last of its row: it has no next neighbour.");
        contactMarks.Add(View.Job.Id, Connector.Id, mark);
        return Done(Following(contact));
    }

    /// <summary>Takes the last mark back and goes to its contact.</summary>
    public IActionResult OnPostUndo(string? connector)
    {
        if (!Prepare(connector, null)) return NotFound();
        var contact = LockedBecause is null ? contactMarks.Undo(View.Job.Id, Connector.Id) : null;
        CanBringBack = contact is not null;
        return Done(contact);
    }

    /// <summary>Begins anew, as after cleaning.</summary>
    public IActionResult OnPostClear(string? connector)
    {
        if (!Prepare(connector, null)) return NotFound();
        CanBringBack = LockedBecause is null && contactMarks.Clear(View.Job.Id, Connector.Id) > 0;
        return Done(null);
    }

    /// <summary>Brings back what was taken back last.</summary>
    public IActionResult OnPostBringBack(string? connector)
    {
        if (!Prepare(connector, null)) return NotFound();
        if (LockedBecause is null) contactMarks.BringBack(View.Job.Id, Connector.Id);
        return Done(null);
    }

    /// <summary>Files the result as evidence.</summary>
    public IActionResult OnPostFile(string? connector)
    {
        if (!Prepare(connector, null)) return NotFound();
        if (LockedBecause is { } locked) return Refuse(null, locked);
        if (Under is not { } probe) return Refuse(null, "The profile names no check for this connector: the map is kept, but it is no evidence.");
        if (Sweep.Outcome is not { } outcome) return Refuse(null, "All that was tried beeps, but not all was tried: that proves nothing yet.");
        var reading = new Reading(ReadingUnit.Word, null, Sweep.Words);
        var reason = string.Join("; ", Sweep.Affected.Select(a => $"{a.Group.Name}: {a.Group.Broken}"));
        var record = BenchMaker().Probe(probe, new JudgedReading(reading, outcome, outcome == ProbeOutcome.Normal ? "as expected" : "not as expected", reason, Sweep.Stop));
        Records.Add(record with { JobId = View.Job.Id }, probe.State > View.Job.Access ? probe.State : null);
        AtLeast(WorkStage.Find);
        TempData["Said"] = $"Filed: {record.Words}.";
        return Redirect($"/Jobs/{Number}/Find");
    }

    private bool Prepare(string? connectorId, int? contact)
    {
        if (!Load() || View.Profile.Connectors is not { Count: > 0 } all || (connectorId is null ? all[0] : all.FirstOrDefault(c => c.Id == connectorId)) is not { } connector) return false;
        Connector = connector;
        var marks = contactMarks.Of(View.Job.Id, connector.Id);
        Marks = marks.ToDictionary(m => m.Number);
        var looks = View.Records.Where(r => r is { Kind: RecordKind.Function, State: "fail" }).Select(r => r.Detail).ToHashSet();
        Sweep = ContactSweep.Judge(connector, marks, Library.ContactGroups, looks);
        if (contact is { } number && connector.Contacts.All(c => c.Number != number)) return false;
        Selected = contact is { } told ? connector.Contacts.First(c => c.Number == told)
            : connector.Contacts.FirstOrDefault(c => !Marks.ContainsKey(c.Number)) ?? connector.Contacts[0];
        return true;
    }

    /// <summary>The next contact not tried yet, from this one on and then from the beginning; null when all are.</summary>
    private int? Following(int contact)
    {
        var order = Connector.Contacts;
        var at = order.TakeWhile(c => c.Number != contact).Count();
        return order.Skip(at + 1).Concat(order.Take(at + 1)).FirstOrDefault(c => c.Number != contact && !Marks.ContainsKey(c.Number))?.Number
            ?? order[Math.Min(at + 1, order.Count - 1)].Number;
    }

    private IActionResult Done(int? contact)
    {
        var id = Connector.Id;
        if (!Request.IsHtmx()) return Redirect(string.Create(CultureInfo.InvariantCulture, $"/Jobs/{Number}/Contacts?connector={id}{(contact is { } n ? $"&contact={n}" : "")}"));
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
