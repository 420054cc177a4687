using Htmx;
using Mendro.Core.Electrical;
using Mendro.Core.Library;
using Mendro.Core.Proving;
using Mendro.Instruments;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Proof of an intermittent cure in numbers: one key a start, until the run is decided.</summary>
public sealed class StartsModel(
    JobStore jobs,
    BenchDesk desk,
    StartsDesk starts,
    BenchSupply supply,
    TradeLibrary library,
    TimeProvider time
) : JobPageModel(jobs, desk, library)
{
    /// <summary>True while starts are counted by the bench supply.</summary>
    [BindProperty(SupportsGet = true)]
    public bool Watch { get; set; }

    /// <summary>True when a supply is set.</summary>
    public bool HasSupply => supply.Address is not null;

    /// <summary>Where the watched unit stands.</summary>
    public StartWatch Seen { get; private set; } = StartWatch.Begin;

    /// <summary>What it draws, A, or null before the supply was asked.</summary>
    public double? Amps { get; private set; }

    /// <summary>Why the supply says nothing, or null.</summary>
    public string? SupplyProblem { get; private set; }

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

    /// <summary>Asks the supply once, and counts the start that it decides. The page asks again and again while it watches.</summary>
    public async Task<IActionResult> OnPostWatchAsync(string? phase, long since, string? under, CancellationToken cancel)
    {
        if (!Prepare())
            return NotFound();
        var told = Enum.TryParse<DrawPhase>(phase, out var at) && Enum.IsDefined(at) ? at : DrawPhase.WaitsForOff;
        Seen = new StartWatch(told, DateTimeOffset.FromUnixTimeMilliseconds(Math.Clamp(since, 0, time.GetUtcNow().ToUnixTimeMilliseconds())));
        bool? start = null;
        try
        {
            var state = await supply.ReadAsync(cancel);
            Amps = state.On ? state.Amps : 0;
            var usual = SupplyPlan.For(View.Profile, BenchLimits.Shipped).RatedAmps;
            (Seen, start) = Seen.Read(time.GetUtcNow(), Amps.Value, StartWatch.Threshold(usual));
        }
        catch (InstrumentLinkException ex)
        {
            SupplyProblem = ex.Message;
        }

        if (start is { } works && starts.Count(Number, Sheet.Function.Id, under ?? Sheet.Run.Next.Id, works).Done is not null)
            Response.Htmx(h => h.Refresh());
        return Partial("_StartWatch", this);
    }

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

    private IActionResult Back() => RedirectToPage(new { number = Number, function = FunctionId, watch = Watch ? "true" : null });
}
