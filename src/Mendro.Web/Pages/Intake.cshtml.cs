using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>Takes a new unit in: what it is, whose, in what state, and what works before anything is touched.</summary>
public sealed class IntakeModel(ProfileStore profiles, SettingsStore settings, IntakeDesk intake, JobLists lists, TradeLibrary library)
    : ShopPageModel
{
    /// <summary>The form.</summary>
    [BindProperty]
    public IntakeForm Form { get; set; } = new();

    /// <summary>Profiles to choose from.</summary>
    public IReadOnlyList<DeviceProfile> Profiles { get; private set; } = [];

    /// <summary>Profile chosen now.</summary>
    public DeviceProfile Chosen { get; private set; } = null!;

    /// <summary>The trade library.</summary>
    public TradeLibrary Library { get; } = library;

    /// <summary>Shows an empty form.</summary>
    public void OnGet(string? claim)
    {
        Form.Claim = claim?.Length > 2000 ? claim[..2000] : claim;
        Form.Currency = settings.Get().Currency;
        Form.Profile ??= Request.Query["Form.Profile"];
        Choose();
    }

    /// <summary>Owners known whose name begins with what is typed.</summary>
    public IActionResult OnGetOwners() => Partial("_Owners", lists.Owners(Words.Clean(Request.Query["Form.OwnerName"])));

    /// <summary>The part of the form that depends on the model; keeps what was filled in.</summary>
    public async Task<IActionResult> OnGetByModelAsync()
    {
        await TryUpdateModelAsync(Form, nameof(Form));
        ModelState.Clear();
        Choose();
        return Partial("_Baseline", (Form, Chosen, Library));
    }

    /// <summary>Takes the unit in.</summary>
    public IActionResult OnPost()
    {
        Choose();
        foreach (var failure in new IntakeRules().Validate(Form).Errors)
            ModelState.AddModelError($"Form.{failure.PropertyName}", failure.ErrorMessage);
        if (Form.Profile is not null && Chosen.Id != Form.Profile)
            ModelState.AddModelError("Form.Profile", "That model is not known; choose one from the list.");
        if (!ModelState.IsValid)
            return RefuseAsShown();
        var baseline = Chosen
            .Functions.Where(f => Form.Result.GetValueOrDefault(f.Id) is "pass" or "fail")
            .Select(f => new BaselineTrial(f.Id, Form.Result[f.Id] == "pass", Form.Look.GetValueOrDefault(f.Id)))
            .ToList();
        var order = new IntakeOrder(
            Form.Into(new Job { ProfileId = Chosen.Id }),
            Form.ShopStock ? null : Words.Clean(Form.OwnerName),
            Words.Clean(Form.OwnerContact),
            Form.Marks,
            baseline
        );
        return Answer(
            intake.TakeIn(order, Once),
            taken =>
            {
                TempData["Said"] = $"Taken in as {taken.Number}.";
                return RedirectToPage("/Jobs/Find", new { number = taken.Number });
            }
        );
    }

    private void Choose()
    {
        Profiles = profiles.All();
        Chosen = Profiles.FirstOrDefault(p => p.Id == Form.Profile) ?? Profiles[0];
    }
}
