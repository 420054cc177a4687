using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>Takes a new unit in: what it is, whose, in what state, and what works before anything is touched.</summary>
public sealed class IntakeModel(
    ProfileStore profiles,
    SettingsStore settings,
    IntakeDesk intake,
    DoorWords door,
    JobLists lists,
    DayDesk day,
    ShopCalendar calendar,
    TradeLibrary library,
    Viewer viewer
) : ShopPageModel
{
    /// <summary>The form.</summary>
    [BindProperty]
    public IntakeForm Form { get; set; } = new();

    /// <summary>Profiles to choose from.</summary>
    public IReadOnlyList<DeviceProfile> Profiles { get; private set; } = [];

    /// <summary>Profile chosen now; null while what is typed fits none or more than one.</summary>
    public DeviceProfile? Chosen { get; private set; }

    /// <summary>True when the model is new: a name nobody knows, with the build it is nearest to.</summary>
    public bool IsNew { get; private set; }

    /// <summary>True when a name was typed that nobody knows, and its build is asked.</summary>
    public bool AsksBuild { get; private set; }

    /// <summary>Why no model is chosen, when something was typed.</summary>
    public string? NoModel { get; private set; }

    /// <summary>The trade library.</summary>
    public TradeLibrary Library { get; } = library;

    private const int MostWords = 2000;
    private const int NearestShown = 3;

    /// <summary>Shows an empty form; with the model, the lot and the owner of the last one when the next of the same comes.</summary>
    public async Task OnGetAsync(string? claim)
    {
        // What stands in the address fills the form: the last model, lot and owner, or what was typed before a build was chosen.
        await TryUpdateModelAsync(Form, nameof(Form));
        ModelState.Clear();
        if (!string.IsNullOrEmpty(claim))
            Form.Claim = claim;
        if (Form.Claim?.Length > MostWords)
            Form.Claim = Form.Claim[..MostWords];
        if (string.IsNullOrEmpty(Form.Currency))
            Form.Currency = settings.Get().Currency;
        Choose();
        Hear();
    }

    /// <summary>What the claim says of the functions and of the condition is filled in, where nothing was chosen yet.</summary>
    private void Hear()
    {
        if (Chosen is null || string.IsNullOrWhiteSpace(Form.Claim) || Form.Result.Values.Any(v => !string.IsNullOrEmpty(v)))
            return;
        // The name of a new model says nothing of it, nor do the words that tell its build.
        var build = IsNew ? Library.Archetypes.FirstOrDefault(a => a.Id == Chosen.BuildId) : null;
        var said = build is not null ? door.HearAs(BuildChoice.WithoutBuild(build, Form.Claim), Chosen)
            : IsNew ? door.HearAs(Form.Claim, Chosen)
            : door.Hear(Form.Claim, Chosen);
        Form.Unsure = build is not null ? [.. said.Unsure.Where(words => !BuildChoice.TellsOf(build, words))] : said.Unsure;
        Form.Marks.AddRange(said.Facts.Select(f => f.Mark).OfType<string>().Except(Form.Marks));
        foreach (var fact in said.Facts.Where(f => f is { Mark: not null, Grade: not null }))
            Form.MarkGrade.TryAdd(fact.Mark!, MarkNoted.WordOf(fact.Grade));
        foreach (var fact in said.Trials)
        {
            Form.Result[fact.Function!.Value] = fact.Passed ? "pass" : "fail";
            Form.Look[fact.Function.Value] = fact.Look;
        }
    }

    /// <summary>Owners known whose name begins with what is typed.</summary>
    public IActionResult OnGetOwners() => Partial("_Owners", lists.Owners(Words.Clean(Request.Query["Form.OwnerName"])));

    /// <summary>Day that can honestly be said to an owner now.</summary>
    public IActionResult OnGetHonest() =>
        Content(
            day.Honest(calendar.Zone, null) is { } honest
                ? $"A unit like those on the bench is done by {calendar.Day(honest)} in {Words.Percent(day.Terms.Certainty)} of cases."
                : "",
            "text/plain"
        );

    /// <summary>The part of the form that depends on the model; keeps what was filled in.</summary>
    public async Task<IActionResult> OnGetByModelAsync()
    {
        await TryUpdateModelAsync(Form, nameof(Form));
        ModelState.Clear();
        Choose();
        Hear();
        return AsksBuild ? Partial("_Builds", Form) : Partial("_Baseline", (Form, Chosen, Library, NoModel));
    }

    /// <summary>Takes the unit in, then to Find or to the next of the same.</summary>
    public IActionResult OnPost(string? then)
    {
        Choose();
        if (!viewer.SeesCosts)
            Form.KeepCosts(new IntakeForm());
        foreach (var failure in new IntakeRules().Validate(Form).Errors)
            ModelState.AddModelError($"Form.{failure.PropertyName}", failure.ErrorMessage);
        if (NoModel is not null)
            ModelState.AddModelError("Form.Profile", NoModel);
        if (!ModelState.IsValid || Chosen is null)
            return RefuseAsShown();
        var baseline = Chosen
            .Functions.Where(f => Form.Result.GetValueOrDefault(f.Id) is "pass" or "fail")
            .Select(f => new BaselineTrial(f.Id, Form.Result[f.Id] == "pass", Form.Look.GetValueOrDefault(f.Id)))
            .ToList();
        var order = new IntakeOrder(
            Form.Into(new Job { ProfileId = Chosen.Id }),
            Form.ShopStock ? null : Words.Clean(Form.OwnerName),
            Words.Clean(Form.OwnerContact),
            Form.Noted(),
            baseline,
            IsNew ? Chosen : null
        );
        return Answer(
            intake.TakeIn(order, Once),
            taken =>
            {
                TempData["Said"] = $"Taken in as {taken.Number}.";
                return then == "next"
                    ? Redirect("/Intake" + NextOfTheSame())
                    : RedirectToPage("/Jobs/" + viewer.JobPage("Find"), new { number = taken.Number });
            }
        );
    }

    private QueryString NextOfTheSame() =>
        QueryString.Create(
            new Dictionary<string, string?>
            {
                ["Form.Profile"] = Chosen!.Id,
                ["Form.Owner"] = Form.Owner,
                ["Form.OwnerName"] = Form.ShopStock ? null : Form.OwnerName,
                ["Form.OwnerContact"] = Form.ShopStock ? null : Form.OwnerContact,
                ["Form.Lot"] = Form.ShopStock ? Form.Lot : null,
            }.Where(field => !string.IsNullOrEmpty(field.Value))
        );

    private void Choose()
    {
        Profiles = profiles.All();
        if (!string.IsNullOrWhiteSpace(Form.Meant))
            Form.Profile = Form.Meant;
        var fitting = ModelSearch.Fitting(Form.Profile, Profiles);
        Chosen = fitting.Count == 1 ? fitting[0] : null;
        var typed = !string.IsNullOrWhiteSpace(Form.Profile);
        if (fitting.Count == 0 && typed && Library.Archetypes.FirstOrDefault(a => a.Id == Form.Build) is { } build)
        {
            IsNew = true;
            Chosen = BuildChoice.Named(build, Form.Profile!, Profiles.Select(p => p.Id).ToHashSet(), $"{Form.Profile} {Form.Claim}");
        }

        AsksBuild = fitting.Count == 0 && typed && !IsNew;
        if (AsksBuild)
            Form.Nearest = [.. ModelSearch.Nearest(Form.Profile!, Profiles, NearestShown).Select(p => p.FullName)];
        NoModel = (fitting.Count, typed) switch
        {
            (1, _) or (0, false) => null,
            (0, _) => IsNew ? null : "That name is new here: choose the build it is nearest to.",
            _ => $"Which one: {string.Join(", ", fitting.Take(6).Select(p => p.FullName))}{(fitting.Count > 6 ? " …" : "")}?",
        };
    }
}
