using Mendro.Core.Capacitors;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>What the pages of a capacitor job share.</summary>
public abstract class RecapPageModel(JobStore jobs, BenchDesk desk, RecapDesk recap, TradeLibrary library) : JobPageModel(jobs, desk, library)
{
    /// <summary>The capacitor job; null when nobody has told of capacitors yet.</summary>
    public RecapSheet? Sheet { get; private set; }

    /// <summary>The desk.</summary>
    protected RecapDesk Recap { get; } = recap;

    /// <summary>Loads it, afresh after a write.</summary>
    protected bool Prepare()
    {
        if (!Load())
            return false;
        Sheet = Recap.Open(View);
        return true;
    }
}

/// <summary>The plan of a capacitor job: revision, what goes in, which parts, and where each sits.</summary>
public sealed class CapacitorsModel(JobStore jobs, BenchDesk desk, RecapDesk recap, TradeLibrary library)
    : RecapPageModel(jobs, desk, recap, library)
{
    /// <summary>Board that is shown.</summary>
    [BindProperty(SupportsGet = true, Name = "board")]
    public string? BoardId { get; set; }

    /// <summary>Position that is chosen, as board/refdes.</summary>
    [BindProperty(SupportsGet = true, Name = "at")]
    public string? At { get; set; }

    /// <summary>Board that is shown.</summary>
    public Board? Board =>
        Sheet?.Boards.FirstOrDefault(b => b.Id == (BoardId ?? At?.Split('/')[0])) ?? Sheet?.Boards.FirstOrDefault(b => b.Capacitors is { Count: > 0 });

    /// <summary>Position that is chosen, or null.</summary>
    public RecapLine? Chosen => Sheet?.Find(At);

    /// <summary>Other units of the model.</summary>
    public IReadOnlyList<LikeUnit> Likes => Recap.Likes(View);

    /// <summary>Small work worth doing while it is open.</summary>
    public IReadOnlyList<JointWork> Joint => Recap.Joint(View);

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>How far placing is.</summary>
    public IActionResult OnGetPlacing()
    {
        if (!Prepare() || Sheet is null)
            return NotFound();
        // Once it has ended, the whole page tells what came of it.
        if (Sheet.Progress is null or { Finished: true })
            Response.Headers["HX-Refresh"] = "true";
        return Partial("_Placing", this);
    }

    /// <summary>Tells the revision.</summary>
    public IActionResult OnPostRevision(string? revision) => Told(() => Recap.TellRevision(Number, revision ?? "", Once));

    /// <summary>Decides what goes in and from where.</summary>
    public IActionResult OnPostScope(RecapScope scope, List<string> sections, List<CapacitorSource> sources, string? age) =>
        Told(() =>
            Recap.Decide(
                Number,
                plan => plan with
                {
                    Scope = scope,
                    Sections = sections,
                    Sources = sources.Distinct().ToList(),
                    AgeYears = Words.Number(age) ?? 0,
                },
                Once
            )
        );

    /// <summary>Chooses a part by hand; blank to take what fits best.</summary>
    public IActionResult OnPostPart(string? part) =>
        Told(() =>
            Recap.Decide(
                Number,
                plan =>
                {
                    var chosen = plan.Chosen.Where(c => c.Key != At).ToDictionary();
                    if (part is { Length: > 0 } && Sheet?.Find(At)?.Offers.Any(o => o.Part.Id == part) == true)
                        chosen[At!] = part;
                    return plan with { Chosen = chosen };
                },
                Once
            )
        );

    /// <summary>Tells of the old capacitor at the chosen position.</summary>
    public IActionResult OnPostOld(string? way, string? farads, string? esr, string? looks)
    {
        if (!Prepare() || Sheet?.Find(At) is not { } line)
            return NotFound();
        var (measured, series) = (QuantityText.Parse(farads, "F"), QuantityText.Parse(esr, "Ω"));
        if ((farads is { Length: > 0 } && measured is not (> 0 and <= 10)) || (esr is { Length: > 0 } && series is not (>= 0 and <= 1e6)))
            return Refuse("A capacitance such as 8.2u, an ESR such as 0.4.");
        var old = new CapacitorOut(
            line.Position.Board.Id,
            line.Position.Capacitor.Refdes,
            way is "as drawn" or "turned" ? way : null,
            measured,
            series,
            looks is "leaked" or "shorted" or "good" ? looks : null
        );
        return Told(() => Recap.Old(Number, old, line.Position.Capacitor, Once));
    }

    /// <summary>Begins or stops placing.</summary>
    public IActionResult OnPostPlace(bool stop)
    {
        if (!Prepare())
            return NotFound();
        if (stop)
        {
            Recap.Stop(View);
            return Back();
        }

        return Answer(Recap.Place(View), _ => Back());
    }

    /// <summary>Begins the stages.</summary>
    public IActionResult OnPostBegin() =>
        Prepare() ? Answer(Recap.Begin(View, Once), _ => ToJob("Stages")) : NotFound();

    /// <summary>Back to the model's own boards.</summary>
    public IActionResult OnPostForget() => Told(() => Recap.UseOwn(Number, null, Once));

    private IActionResult Told(Func<Deed<Done>> deed) => Prepare() ? Answer(deed(), _ => Back()) : NotFound();

    private IActionResult Back() => RedirectToPage(new { number = Number, board = BoardId, at = At });
}
