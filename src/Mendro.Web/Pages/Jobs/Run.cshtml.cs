using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>The run sheet: a method step by step, to be read at arm's length.</summary>
public sealed class RunModel(JobStore jobs, BenchDesk desk, RunDesk runs, RepairDesk repairs, MeanwhileDesk meanwhile, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    private const int MostMeanwhile = 4;

    /// <summary>True when the owner has to be asked before this may be begun.</summary>
    public bool WantsConsent { get; private set; }

    /// <summary>Part of a method that is not begun.</summary>
    [BindProperty(SupportsGet = true, Name = "part")]
    public string? PartId { get; set; }

    /// <summary>Method that is not begun.</summary>
    [BindProperty(SupportsGet = true, Name = "method")]
    public string? MethodId { get; set; }

    /// <summary>The method under way, or null.</summary>
    public RunSheet? Sheet { get; private set; }

    /// <summary>The method to be begun, or null.</summary>
    public Method? Method { get; private set; }

    /// <summary>Its part.</summary>
    public Part? Part { get; private set; }

    /// <summary>Moves of other jobs that fit into the wait.</summary>
    public IReadOnlyList<NextLine> Meanwhile { get; private set; } = [];

    /// <summary>Shows the sheet.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Begins the method.</summary>
    public IActionResult OnPostStart(string? part, string? method)
    {
        (PartId, MethodId) = (part, method);
        return Told(runs.Start(Number, part ?? "", method ?? "", Once));
    }

    /// <summary>The owner agreed to a modification.</summary>
    public IActionResult OnPostConsent(string? part, string? method, string? who, ConsentWay how)
    {
        (PartId, MethodId) = (part, method);
        return Prepare()
            ? Answer(
                repairs.Consent(Number, new ConsentGiven(part ?? "", method ?? "", Words.Clean(who), how), Once),
                _ => RedirectToPage(
                    new
                    {
                        number = Number,
                        part,
                        method,
                    }
                )
            )
            : NotFound();
    }

    /// <summary>On to the next step.</summary>
    public IActionResult OnPostNext(int step, bool sure, string? touches) =>
        Told(runs.Next(Number, step, sure, Words.Clean(touches), Once));

    /// <summary>Back to the step before.</summary>
    public IActionResult OnPostBack() => Told(runs.Back(Number, Once));

    /// <summary>Pauses the stopwatch, or lets it run on.</summary>
    public IActionResult OnPostPause() => Told(runs.Pause(Number, Once));

    /// <summary>Gives it up.</summary>
    public IActionResult OnPostDrop() => Told(runs.Drop(Number, Once));

    /// <summary>It was rinsed, or dried.</summary>
    public IActionResult OnPostLog(string? what, string? minutes) =>
        Told(
            runs.Log(
                Number,
                what == "rinse" ? new SequenceStep(Rinse: true) : new SequenceStep(Dry: Words.Number(minutes) ?? 0),
                Once
            )
        );

    /// <summary>The check was made: the repair is filed.</summary>
    public IActionResult OnPostFinish(string? held, string? now, string? note, string? originals, string? cause)
    {
        if (!Prepare())
            return NotFound();
        return Answer(
            runs.Finish(
                Number,
                YesNo(held, "good", "bad"),
                YesNo(now, "pass", "fail"),
                Words.Clean(note),
                Words.Clean(originals),
                Once,
                Words.Clean(cause)
            ),
            filed =>
            {
                TempData["Said"] = $"Logged: {filed.Words}.";
                return ToJob(filed.Failing ? "Find" : "Prove");
            }
        );
    }

    private static bool? YesNo(string? told, string yes, string no) =>
        told == yes ? true
        : told == no ? false
        : null;

    private IActionResult Told(Deed<Done> deed) => Prepare() ? Answer(deed, _ => RedirectToPage(new { number = Number })) : NotFound();

    private bool Prepare()
    {
        if (!Load())
            return false;
        Sheet = runs.Open(View.Job, View.Profile);
        if (Sheet is null)
        {
            Method = Library.FindMethod(MethodId ?? "");
            Part = Method?.Place is { } place ? new Part("", place, "place") : View.Profile.FindPart(PartId ?? "");
            if ((MethodId is { Length: > 0 } && Method is null) || (PartId is { Length: > 0 } && Method?.Place is null && Part is null))
                return false;
            if (Method?.Place is null && Part is not null && Method is not null && RepairLogged.Make(View.Model, Part.Id, Method.Id) is null)
                return false;
        }

        WantsConsent =
            Method is { Type: MethodType.Modification } modification
            && !View.Job.ShopStock
            && repairs.Consents(View.Job).All(c => c.Method != modification.Id || c.Part != (Part?.Id ?? ""));
        if (Sheet is { Now.Kind: RunStepKind.Wait })
            Meanwhile = Fitting(Sheet);
        return true;
    }

    /// <summary>What fits into the wait: the best moves of other units, as the bench ranks them.</summary>
    private List<NextLine> Fitting(RunSheet sheet)
    {
        var minutes = sheet.Timer is { } timer ? timer.Left / 60 : sheet.Now.Wait!.Minutes - sheet.StepSeconds / 60;
        return meanwhile.Fitting(minutes, Number).Take(MostMeanwhile).ToList();
    }
}
