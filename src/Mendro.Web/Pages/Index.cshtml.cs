using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>The bench: what now, and what lies on the shelves.</summary>
public sealed class IndexModel(JobStore jobs, SecondLookStore looks, BenchDesk desk, IntakeDesk intake, SecondLookDesk secondLooks)
    : ShopPageModel
{
    /// <summary>The ranked list.</summary>
    public IReadOnlyList<NextLine> Next { get; private set; } = [];

    /// <summary>The shelves with their jobs.</summary>
    public IReadOnlyList<(Shelf Shelf, IReadOnlyList<Job> Jobs)> Shelves { get; private set; } = [];

    /// <summary>Units worth another look since a cause was confirmed elsewhere, best chance first.</summary>
    public IReadOnlyList<(Job Job, SecondLookEntry Look)> SecondLook { get; private set; } = [];

    /// <summary>How many jobs stand in each stage.</summary>
    public IReadOnlyList<(WorkStage Stage, int Count)> Stages { get; private set; } = [];

    /// <summary>What was typed into the quick line.</summary>
    public string Line { get; private set; } = "";

    /// <summary>Why the quick line was not taken.</summary>
    public string? QuickProblem { get; private set; }

    /// <summary>What an empty shelf says.</summary>
    public string EmptyShelf(Shelf shelf) =>
        shelf switch
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
        return intake
            .TakeInLine(Line, Once)
            .Match(
                taken =>
                {
                    TempData["Said"] =
                        $"Taken in as {taken.Number}. Finish the baseline: what works clears much. Owner and price are under Intake.";
                    return RedirectToPage("/Jobs/Find", new { number = taken.Number });
                },
                refusal =>
                {
                    QuickProblem = refusal.Problem;
                    Load();
                    return RefuseAsShown();
                }
            );
    }

    /// <summary>Takes a unit down for its second look, or off the list.</summary>
    public IActionResult OnPostLook(long number, string? act) =>
        act switch
        {
            "take" => Answer(secondLooks.Take(number, Once), _ => RedirectToPage("/Jobs/Find", new { number })),
            "undo" => Answer(secondLooks.BringBack(number, Once), _ => RedirectToPage()),
            "dismiss" => Answer(
                secondLooks.Dismiss(number, Once),
                done =>
                {
                    TempData["Dismissed"] = done.Words;
                    return RedirectToPage();
                }
            ),
            _ => NotFound(),
        };

    private void Load()
    {
        var live = jobs.Live();
        Next = NextLine.Rank(desk.OpenAll(live.Where(j => j.Shelf == Shelf.None).ToList()));
        Shelf[] shelves = [Shelf.WaitingPart, Shelf.WaitingOwner, Shelf.SetAside, Shelf.Ready];
        Shelves = shelves.Select(s => (s, (IReadOnlyList<Job>)live.Where(j => j.Shelf == s).ToList())).ToList();
        Stages = Enum.GetValues<WorkStage>().Select(s => (s, live.Count(j => j.Stage == s))).Where(s => s.Item2 > 0).ToList();
        SecondLook = looks
            .Open()
            .Select(look => (live.FirstOrDefault(j => j.Id == look.JobId)!, look))
            .Where(x => x.Item1 is not null)
            .ToList();
    }
}
