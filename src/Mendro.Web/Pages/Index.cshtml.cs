using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>The ranked list of the bench.</summary>
/// <param name="Lines">The best move of each unit that was worked out.</param>
/// <param name="Stale">Units among them that changed since, and are being worked out again.</param>
/// <param name="Waiting">Units not worked out yet.</param>
public sealed record BenchList(IReadOnlyList<NextLine> Lines, IReadOnlySet<long> Stale, IReadOnlyList<Job> Waiting)
{
    /// <summary>True when nothing is being worked out.</summary>
    public bool Fresh => Stale.Count == 0 && Waiting.Count == 0;
}

/// <summary>The bench: what now, and what lies on the shelves.</summary>
public sealed class IndexModel(
    JobStore jobs,
    BenchDesk desk,
    BenchRefresher refresher,
    IntakeDesk intake,
    SecondLookDesk secondLooks,
    SettingsStore settings,
    ServeOptions options,
    Viewer viewer
) : ShopPageModel
{
    /// <summary>Order of the list, as the shop chose it.</summary>
    public BenchSort Sort => BenchOrder.Of(settings);

    /// <summary>Chooses the order of the list.</summary>
    public IActionResult OnPostSort(BenchSort sort)
    {
        if (!Enum.IsDefined(sort))
            return NotFound();
        BenchOrder.Choose(settings, sort);
        return RedirectToPage();
    }

    /// <summary>The ranked list.</summary>
    public BenchList Next { get; private set; } = new([], new HashSet<long>(), []);

    /// <summary>The shelves with their jobs.</summary>
    public IReadOnlyList<(Shelf Shelf, IReadOnlyList<Job> Jobs)> Shelves { get; private set; } = [];

    /// <summary>Units worth another look since a cause was confirmed elsewhere, best chance first.</summary>
    public IReadOnlyList<SecondLookLineUp> SecondLook { get; private set; } = [];

    /// <summary>True while no unit was ever taken in.</summary>
    public bool FirstHour { get; private set; }

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
    public Task OnGetAsync() => LoadAsync();

    /// <summary>The ranked list alone, while some of it is being worked out.</summary>
    public async Task<IActionResult> OnGetNextAsync()
    {
        await LoadAsync();
        return Partial("_Next", Next);
    }

    /// <summary>How the quick line would be understood.</summary>
    public IActionResult OnGetHeard(string? line) => Partial("_Heard", intake.Heard(Words.Clean(line), How()));

    /// <summary>The model that is meant, when it is not the one heard.</summary>
    [BindProperty(SupportsGet = true)]
    public string? As { get; set; }

    /// <summary>What was turned over, by key.</summary>
    [BindProperty(SupportsGet = true)]
    public Dictionary<string, string?> Turn { get; set; } = [];

    /// <summary>What was added: a key and how it is, with an equals sign between the two.</summary>
    [BindProperty(SupportsGet = true)]
    public string? More { get; set; }

    private HeardAs How()
    {
        var turns = Turn.Where(t => !string.IsNullOrEmpty(t.Value)).ToDictionary(t => t.Key, t => t.Value!);
        if (More?.Split('=', 2) is [var key, var to])
            turns[key] = to;
        return new HeardAs(As ?? "", turns);
    }

    /// <summary>Takes a unit in from one line.</summary>
    public async Task<IActionResult> OnPostQuickAsync(string? line)
    {
        Line = Words.Clean(line);
        var deed = intake.TakeInLine(Line, How(), Once);
        if (deed.Done is { } taken)
        {
            TempData["Said"] =
                $"Taken in as {taken.Number}. Finish the baseline: what works clears much. Owner and price are under Intake.";
            return RedirectToPage("/Jobs/" + viewer.JobPage("Find"), new { number = taken.Number });
        }

        // A name that nobody knows asks one thing, on the intake page, with all that was typed.
        if (intake.Heard(Line, How()).NewName is { Length: > 0 } name)
            return Redirect(
                "/Intake"
                    + QueryString.Create(
                        new Dictionary<string, string?>
                        {
                            ["Form.Profile"] = name,
                            ["Form.Owner"] = "shop",
                            ["claim"] = Line,
                        }
                    )
            );

        QuickProblem = deed.Refusal!.Problem;
        await LoadAsync();
        return RefuseAsShown();
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

    private async Task LoadAsync()
    {
        var live = jobs.Live();
        var states = desk.States(live.Where(j => j.Shelf == Shelf.None).ToList());
        if (states.Any(s => !s.Fresh))
        {
            // A unit is soon worked out; the page waits a moment for it, but not for a whole bench.
            await refresher.Caught(options.Patience);
            live = jobs.Live();
            states = desk.States(live.Where(j => j.Shelf == Shelf.None).ToList());
        }

        Next = new BenchList(
            NextLine.Rank(states.Select(s => s.View).OfType<JobView>(), Sort, settings.Get().PerHour),
            states.Where(s => s is { Fresh: false, View: not null }).Select(s => s.Job.Number).ToHashSet(),
            states.Where(s => s.View is null).Select(s => s.Job).ToList()
        );
        FirstHour = live.Count == 0 && !jobs.Any();
        Shelf[] shelves = [Shelf.WaitingPart, Shelf.WaitingOwner, Shelf.SetAside, Shelf.Ready];
        Shelves = shelves.Select(s => (s, (IReadOnlyList<Job>)live.Where(j => j.Shelf == s).ToList())).ToList();
        Stages = Enum.GetValues<WorkStage>().Select(s => (s, live.Count(j => j.Stage == s))).Where(s => s.Item2 > 0).ToList();
        SecondLook = secondLooks.Open(live);
    }
}
