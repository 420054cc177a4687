using System.Diagnostics.CodeAnalysis;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace Mendro.Web.Pages;

/// <summary>What all pages of one job share: loading it by the number on the tag.</summary>
public abstract class JobPageModel(JobStore jobs, BenchDesk desk, TradeLibrary library) : ShopPageModel
{
    /// <summary>Number on the tag.</summary>
    [BindProperty(SupportsGet = true)]
    public long Number { get; set; }

    /// <summary>The job with everything computed.</summary>
    public JobView View { get; protected set; } = null!;

    /// <summary>The trade library.</summary>
    public TradeLibrary Library { get; } = library;

    /// <summary>Why nothing may be written to this job here, or null.</summary>
    public virtual string? LockedBecause => JobBench.Locked(View.Job, TakesPractice);

    /// <summary>Puts the job together.</summary>
    protected BenchDesk Desk { get; } = desk;

    /// <summary>True when a practice unit is worked on here.</summary>
    protected virtual bool TakesPractice => false;

    /// <summary>A request that no handler answers would show a page without its job.</summary>
    public override void OnPageHandlerExecuting(PageHandlerExecutingContext context)
    {
        if (context.HandlerMethod is null)
            context.Result = NotFound();
    }

    /// <summary>Loads the job, afresh after a write.</summary>
    /// <returns>False when there is no such job.</returns>
    [MemberNotNullWhen(true, nameof(View))]
    protected bool Load()
    {
        if (jobs.Find(Number) is not { } job)
            return false;
        // Once something was filed, the records differ and it is worked out to the last.
        View = HttpMethods.IsPost(Request.Method) ? Desk.OpenToFile(job) : Desk.Open(job);
        return true;
    }

    /// <summary>Goes to a page of this job.</summary>
    protected IActionResult ToJob(string page) => RedirectToPage("/Jobs/" + page, new { number = Number });
}
