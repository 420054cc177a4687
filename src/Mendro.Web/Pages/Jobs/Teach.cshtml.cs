using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Teaches a unit's model in one line, shows what was taught, and takes it back.</summary>
public sealed class TeachModel(
    JobStore jobs,
    BenchDesk desk,
    TeachDesk teach,
    ModelDesk models,
    TeachingStore teachings,
    TradeLibrary library
) : JobPageModel(jobs, desk, library)
{
    /// <summary>What was typed.</summary>
    public string Line { get; private set; } = "";

    /// <summary>Why it was not taken.</summary>
    public string? LineProblem { get; private set; }

    /// <summary>Name typed for a model of its own.</summary>
    public string Name { get; private set; } = "";

    /// <summary>Why that name was not taken.</summary>
    public string? NameProblem { get; private set; }

    /// <summary>What was taught to the model and holds, the newest first.</summary>
    public IReadOnlyList<TeachingEntry> Known { get; private set; } = [];

    /// <summary>True when the last thing taught in this job can be taken back.</summary>
    public bool CanTakeBack => Known.Any(k => k.JobId == View.Job.Id);

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet()
    {
        if (!Load())
            return NotFound();
        Known = teachings.OfModel(View.Job.ProfileId);
        return Page();
    }

    /// <summary>Teaches a line, and goes on in Find.</summary>
    public IActionResult OnPost(string? line)
    {
        Line = Words.Clean(line);
        var deed = teach.Teach(Number, Line, Once);
        return Told(deed);
    }

    /// <summary>Gives the unit a model of its own.</summary>
    public IActionResult OnPostOwn(string? name)
    {
        Name = Words.Clean(name);
        return Changed(models.GiveOwn(Number, Name, Once), "Teach", problem => NameProblem = problem);
    }

    /// <summary>Takes back what was taught last in this job.</summary>
    public IActionResult OnPostBack() => Told(teach.TakeBack(Number, Once));

    private IActionResult Changed(Deed<ModelChanged> deed, string page, Action<string> refused) =>
        deed.Match(
            done =>
            {
                TempData["Said"] = done.Words;
                return ToJob(page);
            },
            refusal =>
            {
                refused(refusal.Problem);
                return OnGet() is NotFoundResult missing ? missing : RefuseAsShown();
            }
        );

    private IActionResult Told(Deed<Done> deed)
    {
        if (deed.Done is { } done)
            return Said(done);
        LineProblem = deed.Refusal!.Problem;
        // What was refused is shown on the page of the job, which a job that is gone has not.
        return OnGet() is NotFoundResult missing ? missing : RefuseAsShown();
    }

    private IActionResult Said(Done done)
    {
        TempData["Said"] = done.Words;
        return ToJob("Find");
    }
}
