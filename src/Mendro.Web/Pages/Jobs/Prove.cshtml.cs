using Htmx;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Prove: everything that has to be tried before it leaves, in the order that costs least.</summary>
public sealed class ProveModel(JobStore jobs, BenchDesk desk, ProveDesk prove, RepairDesk repairs, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    private TestPlan? _plan;

    /// <summary>True when only the list is sent.</summary>
    public bool Swapped { get; private set; }

    /// <summary>Why what was sent is not taken, or null.</summary>
    public string? Wrong { get; private set; }

    /// <summary>The test plan.</summary>
    public TestPlan Plan => _plan ??= ProveDesk.Plan(View);

    /// <summary>Soaks that run.</summary>
    public IReadOnlyList<Soak> Soaks => prove.Soaks(View);

    /// <summary>Minutes that a soak has run.</summary>
    public double Played(Soak soak) => prove.Played(soak);

    /// <summary>Its readings, warm beside cold.</summary>
    public IReadOnlyList<WarmPoint> Warm(Soak soak) => prove.Warm(View, soak.StartedAt);

    /// <summary>Shows the plan.</summary>
    public IActionResult OnGet() => Load() ? Page() : NotFound();

    /// <summary>Files one result, of an item or of a function.</summary>
    public IActionResult OnPostResult(string? item, string? function, string? result, string? look)
    {
        if (result is not ("pass" or "fail"))
            return NotFound();
        return Told(view => prove.Answer(view, item ?? $"function:{function}", result == "pass", look, Once));
    }

    /// <summary>Notes why something that fails stays so.</summary>
    public IActionResult OnPostKeep(string? item, string? reason, string? words) =>
        Enum.TryParse<KeepReason>(reason, out var told) && Enum.IsDefined(told)
            ? Told(view => prove.Keep(view, item ?? "", told, Words.Clean(words), Once))
            : NotFound();

    /// <summary>Notes that the unit is closed up again.</summary>
    public IActionResult OnPostClosed() =>
        Told(_ => repairs.CloseUp(Number, Once).Match<Deed<Done>>(_ => new Done("Closed up."), refusal => refusal));

    /// <summary>Begins a soak.</summary>
    public IActionResult OnPostSoak(string? function, string? minutes) =>
        Told(_ => prove.BeginSoak(Number, function ?? "", Words.Number(minutes) ?? double.NaN, Once));

    /// <summary>Notes what happened in a soak.</summary>
    public IActionResult OnPostNote(long soak, string? words) => Told(_ => prove.NoteSoak(Number, soak, Words.Clean(words), Once));

    /// <summary>Ends a soak.</summary>
    public IActionResult OnPostEnd(long soak) => Told(_ => prove.EndSoak(Number, soak, Once));

    private IActionResult Told(Func<JobView, Deed<Done>> work)
    {
        if (!Load())
            return NotFound();
        var deed = work(View);
        if (deed.Refusal is { Kind: RefusalKind.Missing } || !Load())
            return NotFound();
        _plan = null;
        if (deed.Refusal is { Kind: RefusalKind.Invalid } refusal)
        {
            Wrong = refusal.Problem;
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Request.IsHtmx() ? Partial("_ProveList", this) : Page();
        }

        if (!Request.IsHtmx())
            return ToJob("Prove");
        Swapped = true;
        return Partial("_ProveList", this);
    }
}
