using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>Takes a new unit in: what it is, whose, in what state, and what works before anything is touched.</summary>
public sealed class IntakeModel(JobStore jobs, ProfileStore profiles, SettingsStore settings, TradeLibrary library, TimeProvider time) : PageModel
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
        foreach (var failure in new IntakeRules().Validate(Form).Errors) ModelState.AddModelError($"Form.{failure.PropertyName}", failure.ErrorMessage);
        if (Form.Profile is not null && Chosen.Id != Form.Profile) ModelState.AddModelError("Form.Profile", "That model is not known; choose one from the list.");
        if (!ModelState.IsValid)
        {
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }

        var now = time.GetUtcNow();
        var maker = new RecordMaker(Chosen, Library, WorkStage.Intake, now);
        var records = Form.Marks.Distinct().Select(maker.Mark).OfType<BenchRecord>().ToList();
        foreach (var function in Chosen.Functions)
        {
            if (Form.Result.GetValueOrDefault(function.Id) is not ("pass" or "fail") || Form.Result[function.Id] is not { } result) continue;
            if (maker.Function(function.Id, result == "pass", Form.Look.GetValueOrDefault(function.Id)) is { } record) records.Add(record);
        }

        var job = jobs.TakeIn(new NewJob(Form.Into(new Job
        {
            ProfileId = Chosen.Id, ProfileVersion = profiles.Latest(Chosen.Id)!.Value.Version, ModelName = Chosen.FullName,
            Stage = WorkStage.Find, ReceivedAt = now,
        }), Form.ShopStock ? null : Words.Clean(Form.OwnerName), Words.Clean(Form.OwnerContact), records));
        TempData["Said"] = $"Taken in as {job.Number}.";
        return Redirect($"/Jobs/{job.Number}/Find");
    }

    private void Choose()
    {
        Profiles = profiles.All();
        Chosen = Profiles.FirstOrDefault(p => p.Id == Form.Profile) ?? Profiles[0];
    }
}
