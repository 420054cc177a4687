using System.Diagnostics.CodeAnalysis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>What all pages of one job share: loading it by the number on the tag.</summary>
public abstract class JobPageModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, TradeLibrary library, TimeProvider time) : PageModel
{
    /// <summary>Number on the tag.</summary>
    [BindProperty(SupportsGet = true)]
    public long Number { get; set; }

    /// <summary>The job with everything computed.</summary>
    public JobView View { get; protected set; } = null!;

    /// <summary>Cautions that the readings call for, as long as no later reading at the same point is good.</summary>
    public IEnumerable<string> StopsOfReadings => View.Records.Where(r => r.Kind == RecordKind.Probe).GroupBy(r => r.Subject).Select(g => g.Last().Detail).Where(d => d.Length > 0);

    /// <summary>The trade library.</summary>
    public TradeLibrary Library { get; } = library;

    /// <summary>Jobs.</summary>
    protected JobStore Jobs { get; } = jobs;

    /// <summary>Bench records.</summary>
    protected BenchRecordStore Records { get; } = records;

    /// <summary>Clock.</summary>
    protected TimeProvider Time { get; } = time;

    /// <summary>A request that no handler answers would show a page without its job.</summary>
    public override void OnPageHandlerExecuting(PageHandlerExecutingContext context)
    {
        if (context.HandlerMethod is null) context.Result = NotFound();
    }

    /// <summary>Loads the job, afresh after a write.</summary>
    /// <returns>False when there is no such job.</returns>
    [MemberNotNullWhen(true, nameof(View))]
    protected bool Load()
    {
        if (Jobs.Find(Number) is not { } job) return false;
        View = desk.Open(job);
        return true;
    }

    /// <summary>Why nothing may be written to this job now, or null.</summary>
    protected string? Locked() =>
        View.Job.DeletedAt is not null ? "This job was deleted. Bring it back first."
        : View.Job.ClosedAt is not null ? View.Job.PracticeSeed is null ? "This job is closed. Reopen it first." : "This practice unit is put away."
        : View.Job.PracticeSeed is not null && !TakesPractice ? "A practice unit is worked on under Find and Fix." : null;

    /// <summary>True when a practice unit is worked on here.</summary>
    protected virtual bool TakesPractice => false;

    /// <summary>Makes records for this job.</summary>
    protected RecordMaker Maker(WorkStage stage) => new(View.Profile, Library, stage, Time.GetUtcNow());

    /// <summary>Makes records of measuring and trying: they belong to Find until the job has come further.</summary>
    protected RecordMaker BenchMaker() => Maker(View.Job.Stage > WorkStage.Find ? View.Job.Stage : WorkStage.Find);

    /// <summary>Shows the page again with the reason why what was sent is not taken.</summary>
    protected IActionResult Refuse(string problem)
    {
        ModelState.AddModelError("", problem);
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    /// <summary>Moves the job on when it has not come that far yet.</summary>
    protected void AtLeast(WorkStage stage)
    {
        if (View.Job.Stage < stage) Jobs.SetStage(View.Job.Id, stage);
    }
}
