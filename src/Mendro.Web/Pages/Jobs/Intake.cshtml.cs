using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>What was written down at the door, to be completed or corrected.</summary>
public sealed class IntakeModel(JobStore jobs, BenchDesk desk, IntakeDesk intake, TradeLibrary library, Viewer viewer)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>The form.</summary>
    [BindProperty]
    public IntakeForm Form { get; set; } = new();

    /// <summary>Functions tried at intake.</summary>
    public IEnumerable<(BenchRecord Record, FunctionTrial Body)> Baseline =>
        View.All<FunctionTrial>().Where(t => t.Record.Stage == WorkStage.Intake);

    /// <summary>Cautions from the marks and the model.</summary>
    public IEnumerable<Caution> Cautions => View.Hazards.Inside;

    /// <summary>Shows the form.</summary>
    public IActionResult OnGet()
    {
        if (!Load())
            return NotFound();
        Form = InFile(out _);
        return Page();
    }

    /// <summary>Saves it.</summary>
    public IActionResult OnPost()
    {
        if (!Load())
            return NotFound();
        Form.Profile = View.Job.ProfileId;
        if (!viewer.SeesCosts)
            Form.KeepCosts(InFile(out _));
        foreach (var failure in new IntakeRules().Validate(Form).Errors)
            ModelState.AddModelError($"Form.{failure.PropertyName}", failure.ErrorMessage);
        if (!ModelState.IsValid)
            return RefuseAsShown();
        var owner = Form.ShopStock ? null : Words.Clean(Form.OwnerName);
        var shown = Form.Shown;
        var deed = intake.Save(
            Number,
            Form.Into,
            owner,
            Words.Clean(Form.OwnerContact),
            Form.Noted(),
            (job, marks) => string.IsNullOrEmpty(shown) || shown == IntakeForm.Mark(job, marks),
            Once
        );
        if (deed.Refusal is { Kind: RefusalKind.Changed })
            return RefuseBoth();
        return Answer(
            deed,
            done =>
            {
                TempData["Said"] = done.Words;
                return ToJob("Intake");
            }
        );
    }

    /// <summary>Somebody saved meanwhile: what was typed stays, and beside it stands what the file says now. Saved again, it is
    /// decided.</summary>
    private IActionResult RefuseBoth()
    {
        if (!Load())
            return NotFound();
        var file = InFile(out var mark);
        ModelState.AddModelError(
            "",
            "This was saved on another page meanwhile. Where you typed something else, both stand below; saving again keeps yours."
        );
        foreach (var (field, held) in Form.Against(file))
            ModelState.AddModelError($"Form.{field}", $"Saved meanwhile: {held}");
        if (!Form.Noted().ToHashSet().SetEquals(file.Noted()))
        {
            var names = View.All<MarkNoted>().Select(m => m.Body.Words(Library)).ToList();
            ModelState.AddModelError("Form.Marks", $"Marks saved meanwhile: {(names.Count > 0 ? string.Join(", ", names) : "none")}");
        }

        Form.Shown = mark;
        ModelState.SetModelValue("Form.Shown", mark, mark);
        return RefuseAsShown();
    }

    private IntakeForm InFile(out string mark)
    {
        var form = IntakeForm.From(View.Job);
        form.Take(View.All<MarkNoted>().Select(m => m.Body));
        form.Shown = mark = IntakeForm.Mark(View.Job, View.All<MarkNoted>().Select(m => m.Body.Written));
        return form;
    }
}
