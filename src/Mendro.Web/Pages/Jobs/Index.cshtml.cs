using System.Globalization;
using Mendro.Core.Jobs;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Lists and finds jobs.</summary>
public sealed class IndexModel(JobStore jobs, JobLists lists, Viewer viewer) : PageModel
{
    /// <summary>Jobs shown.</summary>
    public JobPage List { get; private set; } = new([], null);

    /// <summary>Address of the next page, or null.</summary>
    public string? Older { get; private set; }

    /// <summary>Which list: blank for those in the shop, closed, deleted.</summary>
    public string Show { get; private set; } = "";

    /// <summary>Heading.</summary>
    public string Heading { get; private set; } = "Jobs in the shop";

    /// <summary>What an empty list says.</summary>
    public string Empty { get; private set; } = "No unit is in the shop. Take one in.";

    /// <summary>Shows a list, or goes straight to the job whose number was typed.</summary>
    public IActionResult OnGet(string? q, string? show, WorkStage? stage, long? before)
    {
        var text = Words.Clean(q);
        if (text.Length > 80)
            text = text[..80];
        if (text.Length > 0)
        {
            if (before is null && long.TryParse(text.TrimStart('#'), out var number) && jobs.Find(number) is { DeletedAt: null })
                return RedirectToPage("/Jobs/Open", new { number });
            List = lists.Search(text, before, viewer.Has(Core.Access.Right.Counter));
            Heading = $"Found for “{text}”";
            Empty = viewer.Has(Core.Access.Right.Counter)
                ? "No job fits every word. Search looks at number, model, serial, owner, lot, claim and symptom."
                : "No job fits every word. Search looks at number, model, serial, lot, claim and symptom.";
            Show = "search";
            Next($"q={Uri.EscapeDataString(text)}");
            return Page();
        }

        Show = show is "closed" or "deleted" ? show : "";
        List = Show switch
        {
            "closed" => lists.Page(JobShelf.Closed, null, before),
            "deleted" => lists.Page(JobShelf.Deleted, null, before),
            _ => lists.Page(JobShelf.InShop, stage, before),
        };
        Next(
            Show.Length > 0 ? $"show={Show}"
            : stage is null ? ""
            : $"stage={stage}"
        );
        (Heading, Empty) = Show switch
        {
            "closed" => ("Closed jobs", "No job has been closed yet."),
            "deleted" => ("Deleted jobs", "Nothing was deleted."),
            _ => (stage is { } s ? $"Jobs in {StageWords.Name(s)}" : "Jobs in the shop", "No unit is in the shop. Take one in."),
        };
        return Page();
    }

    private void Next(string query) =>
        Older = List.Before is { } next
            ? string.Create(CultureInfo.InvariantCulture, $"/Jobs?{query}{(query.Length > 0 ? "&" : "")}before={next}")
            : null;
}
