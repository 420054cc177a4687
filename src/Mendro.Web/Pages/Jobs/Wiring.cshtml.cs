using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A wire as the form keeps it.</summary>
public sealed class WireRow
{
    /// <summary>Old contact.</summary>
    public string? Old { get; set; }

    /// <summary>New contact.</summary>
    public string? New { get; set; }

    /// <summary>Colour.</summary>
    public string? Colour { get; set; }

    /// <summary>yes, no, or blank.</summary>
    public string? Beeps { get; set; }
}

/// <summary>The wiring table of a replaced port or connector: old contact, new contact, colour, beep by beep.</summary>
public sealed class WiringModel(JobStore jobs, BenchDesk desk, RunDesk runs, TradeLibrary library) : JobPageModel(jobs, desk, library)
{
    private const int Spare = 4;

    /// <summary>Part.</summary>
    [BindProperty(SupportsGet = true, Name = "part")]
    public string? PartId { get; set; }

    /// <summary>Rows as typed.</summary>
    [BindProperty]
    public List<WireRow> Rows { get; set; } = [];

    /// <summary>The part; null until one is chosen.</summary>
    public Part? Part { get; private set; }

    /// <summary>What is wrong with what was filed last.</summary>
    public IReadOnlyList<string> Problems { get; private set; } = [];

    /// <summary>Contacts of the part's connector with what they carry, by number.</summary>
    public IReadOnlyDictionary<string, string> Lines { get; private set; } = new Dictionary<string, string>();

    /// <summary>Shows the table as it was filed last, or the contacts of the connector to begin with.</summary>
    public IActionResult OnGet()
    {
        if (!Prepare())
            return NotFound();
        var last = View.All<WiringNoted>().LastOrDefault(w => w.Body.Part == (Part?.Id ?? "")).Body;
        Problems = last?.Problems.ToList() ?? [];
        Rows =
        [
            .. last?.Wires.Select(w => new WireRow
            {
                Old = w.Old,
                New = w.New,
                Colour = w.Colour,
                Beeps = w.Beeps switch
                {
                    true => "yes",
                    false => "no",
                    _ => "",
                },
            })
                ?? Lines.Keys.Select(number => new WireRow { Old = number, New = number }),
            .. Enumerable.Range(0, Spare).Select(_ => new WireRow()),
        ];
        return Page();
    }

    /// <summary>Files the table.</summary>
    public IActionResult OnPost()
    {
        if (!Prepare() || Part is null)
            return NotFound();
        var wires = Rows.Select(r =>
                new WireLine(
                    Words.Clean(r.Old),
                    Words.Clean(r.New),
                    Words.Clean(r.Colour),
                    r.Beeps == "yes" ? true
                        : r.Beeps == "no" ? false
                        : null
                )
            )
            .Where(w => w.Old.Length + w.New.Length > 0)
            .ToList();
        return Answer(
            runs.Wire(Number, new WiringNoted(Part.Id, wires), Once),
            done =>
            {
                TempData["Said"] = done.Words + ".";
                return RedirectToPage(new { number = Number, part = Part.Id.Value });
            }
        );
    }

    private bool Prepare()
    {
        if (!Load())
            return false;
        Part = View.Profile.FindPart(PartId ?? "");
        if (PartId is { Length: > 0 } && Part is null)
            return false;
        Lines =
            View.Profile.Connectors?.FirstOrDefault(c => Part is not null && c.Part == Part.Id)
                ?.Contacts.ToDictionary(c => FormattableString.Invariant($"{c.Number}"), c => c.Line)
            ?? [];
        return true;
    }
}
