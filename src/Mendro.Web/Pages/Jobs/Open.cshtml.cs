using Mendro.Core.Jobs;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A job's plain address: it leads to where the job is worked on now.</summary>
public sealed class OpenModel(JobStore jobs) : PageModel
{
    /// <summary>Goes to the present stage; of a closed job to its sheet, of a deleted one to its timeline.</summary>
    public IActionResult OnGet(long number) =>
        jobs.Find(number) is { } job ? RedirectToPage("/Jobs/" + PageOf(job), new { number }) : NotFound();

    /// <summary>Page on which a job opens.</summary>
    public static string PageOf(Job job) =>
        job switch
        {
            { DeletedAt: not null } => "Timeline",
            { PracticeSeed: not null } => "Find",
            { ClosedAt: not null } => "Sheet",
            _ => JobLife.Present(job.Status).ToString(),
        };
}
