using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>What was written down at the door, to be completed or corrected.</summary>
public sealed class IntakeModel(JobStore jobs, BenchDesk desk, IntakeDesk intake, TradeLibrary library) : JobPageModel(jobs, desk, library)
{
    /// <summary>The form.</summary>
    [BindProperty]
    public IntakeForm Form { get; set; } = new();

    /// <summary>Functions tried at intake.</summary>
    public IEnumerable<(BenchRecord Record, FunctionTrial Body)> Baseline =>
        View.All<FunctionTrial>().Where(t => t.Record.Stage == WorkStage.Intake);

    /// <summary>Cautions from the marks and the model.</summary>
    public IEnumerable<Caution> Cautions => View.Hazards.Distinct().Select(Library.FindCaution).OfType<Caution>();

    /// <summary>Shows the form.</summary>
    public IActionResult OnGet()
    {
        if (!Load())
            return NotFound();
        Form = IntakeForm.From(View.Job);
        Form.Marks = View.All<MarkNoted>().Select(m => m.Body.Mark).ToList();
        return Page();
    }

    /// <summary>Saves it.</summary>
    public IActionResult OnPost()
    {
        if (!Load())
            return NotFound();
        Form.Profile = View.Job.ProfileId;
        foreach (var failure in new IntakeRules().Validate(Form).Errors)
            ModelState.AddModelError($"Form.{failure.PropertyName}", failure.ErrorMessage);
        if (!ModelState.IsValid)
            return RefuseAsShown();
        var owner = Form.ShopStock ? null : Words.Clean(Form.OwnerName);
        return Answer(
            intake.Save(Number, Form.Into, owner, Words.Clean(Form.OwnerContact), Form.Marks, Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return ToJob("Intake");
            }
        );
    }
}
