using Mendro.Core.Jobs;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Lists and finds jobs.</summary>
public sealed class IndexModel(JobStore jobs) : PageModel
{
    /// <summary>Jobs shown.</summary>
    public IReadOnlyList<Job> List { get; private set; } = [];

    /// <summary>Which list: blank for those in the shop, closed, deleted.</summary>
    public string Show { get; private set; } = "";

    /// <summary>Heading.</summary>
    public string Heading { get; private set; } = "Jobs in the shop";

    /// <summary>What an empty list says.</summary>
    public string Empty { get; private set; } = "No unit is in the shop. Take one in.";

    /// <summary>Shows a list, or goes straight to the job whose number was typed.</summary>
    public IActionResult OnGet(string? q, string? show, WorkStage? stage)
    {
        var text = Words.Clean(q);
        if (text.Length > 80)
            text = text[..80];
        if (text.Length > 0)
        {
            if (long.TryParse(text.TrimStart('#'), out var number) && jobs.Find(number) is { DeletedAt: null })
                return RedirectToPage("/Jobs/Open", new { number });
            List = jobs.Search(text);
            Heading = $"Found for “{text}”";
            Empty = "No job fits every word. Search looks at number, model, serial, owner, lot, claim and symptom.";
            Show = "search";
            return Page();
        }

        Show = show is "closed" or "deleted" ? show : "";
        List = Show switch
        {
            "closed" => jobs.All().Where(j => j.ClosedAt is not null).ToList(),
            "deleted" => jobs.Deleted(),
            _ => jobs.Live().Where(j => stage is null || j.Stage == stage).ToList(),
        };
        (Heading, Empty) = Show switch
        {
            "closed" => ("Closed jobs", "No job has been closed yet."),
            "deleted" => ("Deleted jobs", "Nothing was deleted."),
            _ => (stage is { } s ? $"Jobs in {StageWords.Name(s)}" : "Jobs in the shop", "No unit is in the shop. Take one in."),
        };
        return Page();
    }
}
