using Mendro.Core.Methods;
using Mendro.Core.Planning;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>The bench: what now, and what lies on the shelves.</summary>
public sealed class IndexModel(
    JobStore jobs, BenchRecordStore records, ProfileStore profiles, SettingsStore settings, BenchDesk desk, TradeLibrary library, TimeProvider time) : PageModel
{
    /// <summary>The ranked list.</summary>
    public IReadOnlyList<NextLine> Next { get; private set; } = [];

    /// <summary>The shelves with their jobs.</summary>
    public IReadOnlyList<(Shelf Shelf, IReadOnlyList<Job> Jobs)> Shelves { get; private set; } = [];

    /// <summary>Shelved jobs worth another look, with the reason.</summary>
    public IReadOnlyList<(Job Job, string Why)> SecondLook { get; private set; } = [];

    /// <summary>How many jobs stand in each stage.</summary>
    public IReadOnlyList<(WorkStage Stage, int Count)> Stages { get; private set; } = [];

    /// <summary>What was typed into the quick line.</summary>
    public string Line { get; private set; } = "";

    /// <summary>Why the quick line was not taken.</summary>
    public string? QuickProblem { get; private set; }

    /// <summary>What an empty shelf says.</summary>
    public string EmptyShelf(Shelf shelf) => shelf switch
    {
        Shelf.WaitingPart => "Nothing waits for a part. Put a job here from Hand over.",
        Shelf.WaitingOwner => "No question is open with an owner.",
        Shelf.Ready => "A job comes here when everything on Prove works.",
        _ => "Nothing set aside.",
    };

    /// <summary>Shows the bench.</summary>
    public void OnGet() => Load();

    /// <summary>Takes a unit in from one line.</summary>
    public IActionResult OnPostQuick(string? line)
    {
        Line = Words.Clean(line);
        var parsed = QuickIntake.Parse(Line, profiles.All(), library);
        if (!parsed.IsOk)
        {
            QuickProblem = parsed.Problem;
            Load();
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }

        var quick = parsed.Value;
        var latest = profiles.Latest(quick.Profile.Id)!.Value;
        var now = time.GetUtcNow();
        var first = quick.FunctionId is { } function
            ? new RecordMaker(quick.Profile, library, WorkStage.Intake, now).Function(function, false, quick.LookId) : null;
        var job = jobs.TakeIn(new NewJob(new Job
        {
            ProfileId = quick.Profile.Id, ProfileVersion = latest.Version, ModelName = quick.Profile.FullName, Claim = quick.Symptom,
            Currency = settings.Get().Currency, Stage = WorkStage.Find, ReceivedAt = now,
        }, null, "", first is null ? [] : [first]));
        TempData["Said"] = $"Taken in as {job.Number}. Finish the baseline: what works clears much. Owner and price are under Intake.";
        return Redirect($"/Jobs/{job.Number}/Find");
    }

    private void Load()
    {
        var live = jobs.Live();
        Next = NextLine.Rank(desk.OpenAll(live.Where(j => j.Shelf == Shelf.None).ToList()));
        Shelf[] shelves = [Shelf.WaitingPart, Shelf.WaitingOwner, Shelf.SetAside, Shelf.Ready];
        Shelves = shelves.Select(s => (s, (IReadOnlyList<Job>)live.Where(j => j.Shelf == s).ToList())).ToList();
        Stages = Enum.GetValues<WorkStage>().Select(s => (s, live.Count(j => j.Stage == s))).Where(s => s.Item2 > 0).ToList();
        SecondLook = FindSecondLooks(live);
    }

    /// <summary>Set-aside units of a model in which a cause was confirmed after they were set aside and is untested there.</summary>
    private List<(Job, string)> FindSecondLooks(IReadOnlyList<Job> live)
    {
        var aside = live.Where(j => j.Shelf == Shelf.SetAside).ToList();
        if (aside.Count == 0) return [];
        var all = jobs.All();
        var causes = records.OfAll(all.Select(j => j.Id).ToList());
        var looks = new List<(Job, string)>();
        foreach (var view in desk.OpenAll(aside))
        {
            if (view.Diagnosis?.Target is null) continue;
            var found = all.Where(j => j.Id != view.Job.Id && j.ProfileId == view.Job.ProfileId)
                .SelectMany(j => causes[j.Id].Where(r => r.Kind == RecordKind.Cause && r.State == "present").Select(r => (j.Number, Record: r)))
                .Where(c => view.Diagnosis.Suspects.Any(s => s.Share >= 0.1 && s.Fault.Part.Id == c.Record.Subject && s.Fault.Mode.Id == c.Record.Detail))
                .OrderByDescending(c => c.Record.At).FirstOrDefault();
            if (found.Record is not null) looks.Add((view.Job, $"{found.Record.Words} in {found.Number}: same model, untested here"));
        }

        return looks;
    }
}
