using Mendro.Core.Library;
using Mendro.Core.Proving;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Proof of an intermittent cure in numbers: one key a start, until the run is decided.</summary>
public sealed class StartsModel(JobStore jobs, BenchDesk desk, StartsDesk starts, TradeLibrary library) : JobPageModel(jobs, desk, library)
{
    /// <summary>Function that is watched.</summary>
    [BindProperty(SupportsGet = true, Name = "function")]
    public string? FunctionId { get; set; }

    /// <summary>The run.</summary>
    public StartsSheet Sheet { get; private set; } = null!;

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Counts a start.</summary>
    public IActionResult OnPostCount(string? under, bool works) =>
        Told(() => starts.Count(Number, Sheet.Function.Id, under ?? "", works, Once), _ => Back());

    /// <summary>Takes the last start back.</summary>
    public IActionResult OnPostUndo() => Told(() => starts.Undo(Number, Sheet.Function.Id, Once), _ => Back());

    /// <summary>Sets what is accepted and refused.</summary>
    public IActionResult OnPostLimits(string? accept, string? refuse, string? alpha, string? beta)
    {
        var limits = new SequentialTest(Share(accept), Share(refuse), Share(alpha), Share(beta));
        return Told(() => starts.Limit(Number, Sheet.Function.Id, limits, Once), _ => Back());
    }

    /// <summary>Files the run.</summary>
    public IActionResult OnPostFile() =>
        Told(
            () => starts.File(Number, Sheet.Function.Id, Once),
            done =>
            {
                TempData["Said"] = $"Filed: {done.Words}.";
                return ToJob("Prove");
            }
        );

    private static double Share(string? percent) => Words.Number(percent) is { } told ? told / 100 : double.NaN;

    private bool Prepare()
    {
        if (!Load() || starts.Open(View, FunctionId ?? "") is not { } sheet)
            return false;
        Sheet = sheet;
        return true;
    }

    private IActionResult Told(Func<Deed<Done>> deed, Func<Done, IActionResult> done) => Prepare() ? Answer(deed(), done) : NotFound();

    private IActionResult Back() => RedirectToPage(new { number = Number, function = FunctionId });
}
