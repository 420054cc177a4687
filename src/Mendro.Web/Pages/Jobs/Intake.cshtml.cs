using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>What was written down at the door, to be completed or corrected.</summary>
public sealed class IntakeModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    /// <summary>The form.</summary>
    [BindProperty]
    public IntakeForm Form { get; set; } = new();

    /// <summary>Functions tried at intake.</summary>
    public IEnumerable<BenchRecord> Baseline => View.Records.Where(r => r is { Kind: RecordKind.Function, Stage: WorkStage.Intake });

    /// <summary>Cautions from the marks and the model.</summary>
    public IEnumerable<Caution> Cautions => (View.Profile.Hazards ?? [])
        .Concat(View.Records.Where(r => r.Kind == RecordKind.Mark).Select(r => Library.FindMark(r.Subject)?.Caution).OfType<string>())
        .Distinct().Select(Library.FindCaution).OfType<Caution>();

    /// <summary>Shows the form.</summary>
    public IActionResult OnGet()
    {
        if (!Load()) return NotFound();
        Form = IntakeForm.From(View.Job);
        Form.Marks = View.Records.Where(r => r.Kind == RecordKind.Mark).Select(r => r.Subject).ToList();
        return Page();
    }

    /// <summary>Saves it.</summary>
    public IActionResult OnPost()
    {
        if (!Load()) return NotFound();
        Form.Profile = View.Job.ProfileId;
        foreach (var failure in new IntakeRules().Validate(Form).Errors) ModelState.AddModelError($"Form.{failure.PropertyName}", failure.ErrorMessage);
        if (Locked() is { } locked) ModelState.AddModelError("", locked);
        if (!ModelState.IsValid)
        {
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }

        Jobs.SaveIntake(Form.Into(View.Job), Form.ShopStock ? null : Words.Clean(Form.OwnerName), Words.Clean(Form.OwnerContact));
        var noted = View.Records.Where(r => r.Kind == RecordKind.Mark).ToList();
        foreach (var gone in noted.Where(r => !Form.Marks.Contains(r.Subject))) Records.Withdraw(View.Job.Id, gone.Id);
        foreach (var mark in Form.Marks.Distinct().Where(m => noted.All(r => r.Subject != m)))
            if (Maker(WorkStage.Intake).Mark(mark) is { } record) Records.Add(record with { JobId = View.Job.Id });
        TempData["Said"] = "Saved.";
        return Redirect($"/Jobs/{Number}/Intake");
    }
}
