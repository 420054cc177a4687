using Mendro.Core.Capacitors;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A capacitor job stage by stage: in, looked at twice, powered up, on.</summary>
public sealed class StagesModel(JobStore jobs, BenchDesk desk, RecapDesk recap, TradeLibrary library)
    : RecapPageModel(jobs, desk, recap, library)
{
    /// <summary>Positions ticked, kept when the form is refused.</summary>
    [BindProperty]
    public List<string> Looked { get; set; } = [];

    /// <summary>Minutes as typed.</summary>
    [BindProperty]
    public string? Minutes { get; set; }

    /// <summary>What a function did, as ticked, or blank.</summary>
    public string Ticked(FunctionId function) =>
        Request.HasFormContentType ? Request.Form[$"f-{function}"].FirstOrDefault() ?? "" : "";

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>A stage is in, and the unit was tried.</summary>
    public IActionResult OnPostDone(int stage, StageChange how)
    {
        if (!Prepare())
            return NotFound();
        var tried = View
            .Profile.Functions.Select(f => (f.Id, Said: Ticked(f.Id)))
            .Where(f => f.Said is "works" or "fails")
            .ToDictionary(f => f.Id, f => f.Said == "works");
        if (Minutes is { Length: > 0 } && Words.Number(Minutes) is null)
            return Refuse($"“{Minutes}” is no number of minutes.");
        if (Sheet?.Now is not { } now || now.Number != stage)
            return Refuse("That stage is done already; this is where it stands now.");
        var answer = StageAnswer.Of(now, how, tried);
        if (!answer.IsOk)
            return Refuse(answer.Problem);
        return Answer(
            Recap.Finish(View, stage, Looked.ToHashSet(), answer.Value, Minutes is { Length: > 0 } ? Words.Number(Minutes) : null, Once),
            done =>
            {
                if (done.Worse.Count == 0)
                {
                    TempData["Said"] = $"{done.Words}: in, and as it should be.";
                    return RedirectToPage(new { number = Number });
                }

                // The last group is the first suspect: its joints, a turned one, a bridge.
                TempData["Said"] =
                    $"{string.Join(" and ", done.Worse)} should work now and does not. Suspect the last group first ({done.Words}): "
                    + "a turned one, a bridge, a dry joint.";
                return ToJob("Find");
            }
        );
    }

    /// <summary>Sets how the size of a group is reckoned.</summary>
    public IActionResult OnPostSize(string? fault, string? test, string? inspect) =>
        Prepare()
            ? Answer(
                Recap.Decide(
                    Number,
                    plan => plan with
                    {
                        FaultChance = (Words.Number(fault?.TrimEnd('%', ' ')) ?? 0) / 100,
                        TestMinutes = Words.Number(test) ?? 0,
                        InspectMinutes = Words.Number(inspect) ?? 0,
                    },
                    Once
                ),
                _ => RedirectToPage(new { number = Number })
            )
            : NotFound();

    /// <summary>Opens the stages again.</summary>
    public IActionResult OnPostEnd() =>
        Prepare() ? Answer(Recap.End(Number, Once), done => { TempData["Said"] = done.Words; return ToJob("Capacitors"); }) : NotFound();

    /// <summary>Begins the stages.</summary>
    public IActionResult OnPostBegin() =>
        Prepare() ? Answer(Recap.Begin(View, Once), _ => RedirectToPage(new { number = Number })) : NotFound();
}
