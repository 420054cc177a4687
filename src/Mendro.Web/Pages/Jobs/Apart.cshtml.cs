using Mendro.Core.Dismantling;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Drawing;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Taking a unit apart only as far as needed, with its screw map, and the way back.</summary>
public sealed class ApartModel(JobStore jobs, BenchDesk desk, ApartDesk bench, TeachDesk teach, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    // Some work on the part is done closed, other work is not.
    private bool _gentlestOnly;

    /// <summary>What is to be reached: part or probe.</summary>
    [BindProperty(SupportsGet = true)]
    public string? To { get; set; }

    /// <summary>How far work on it wants the unit apart; told by who asks for the way, else what its gentlest method wants.</summary>
    [BindProperty(SupportsGet = true)]
    public AccessState? State { get; set; }

    /// <summary>True when the way is as far as the work wants the unit apart, for no step says that it frees what is to be reached.</summary>
    public bool ByState { get; private set; }

    /// <summary>True when the steps written down end before what is to be reached.</summary>
    public bool EndsEarly { get; private set; }

    /// <summary>How the unit lies on the bench.</summary>
    public UnitApart Apart { get; private set; } = null!;

    /// <summary>Steps still to be done; null when what is to be reached never is.</summary>
    public TeardownPlan? Plan { get; private set; }

    /// <summary>What can be reached, by name.</summary>
    public IReadOnlyList<(string Id, string Name)> Reachable { get; private set; } = [];

    /// <summary>Name of what is to be reached, or null.</summary>
    public string? Wanted => Reachable.FirstOrDefault(r => r.Id == To).Name ?? (To is { } to ? View.Profile.FindPart(to)?.Name : null);

    /// <summary>What the page says of what is to be reached.</summary>
    public string WayHeading =>
        Plan switch
        {
            { Steps.Count: > 0 } => $"To {Wanted ?? To}",
            { } when EndsEarly => "The steps end here",
            { } when _gentlestOnly => $"{Wanted ?? To}: its gentlest work needs nothing taken off",
            _ => $"{Wanted ?? To} can be reached now",
        };

    /// <summary>The step to be done next, or null.</summary>
    public TeardownStep? Next => Plan?.Steps.FirstOrDefault();

    /// <summary>Screws that nobody has given a place.</summary>
    public IReadOnlyList<Fastener> Unplaced =>
        (View.Profile.Fasteners ?? []).Where(f => f is { Driver: not null, X: null }).ToList();

    /// <summary>The screw map.</summary>
    public string Map =>
        ScrewMapSvg.Draw(
            // A length that is only typical is not drawn to scale.
            Library.IsTypical(View.Profile, TypicalSections.Fasteners)
                ? (View.Profile.Fasteners ?? []).Select(f => f with { LengthMm = null }).ToList()
                : View.Profile.Fasteners ?? [],
            Apart.Out.Select(f => f.Id).ToHashSet(),
            (Next?.Fasteners ?? Apart.WayBack.FirstOrDefault()?.Fasteners ?? []).ToHashSet()
        );

    /// <inheritdoc/>
    protected override bool TakesPractice => true;

    /// <summary>Fasteners of a step with their drivers.</summary>
    public IEnumerable<Fastener> Of(TeardownStep step) =>
        (View.Profile.Fasteners ?? []).Where(f => step.Fasteners?.Contains(f.Id) == true && !f.NoScrew);

    /// <summary>Title of a caution, or the words themselves.</summary>
    public string CautionWords(string told) => Library.FindCaution(told) is { } caution ? $"{caution.Title}. {caution.Text}" : told;

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>A step was done.</summary>
    public IActionResult OnPostTake(string? step, [FromForm(Name = "odd")] Dictionary<string, string?> odd) =>
        Told(
            bench.Take(
                Number,
                step ?? "",
                odd.Where(o => Enum.TryParse<FastenerState>(o.Value, true, out _))
                    .Select(o => new OddFastener(o.Key, Enum.Parse<FastenerState>(o.Value!, true)))
                    .ToList(),
                Once
            )
        );

    /// <summary>What was typed for a step that is recorded.</summary>
    public (string Name, string Screws, string Cables, string Minutes, IReadOnlyList<string> Frees) Typed { get; private set; } =
        ("", "", "", "", []);

    /// <summary>Parts that no step done so far frees.</summary>
    public IEnumerable<Part> Unreached =>
        View.Profile.Parts.Where(p => !Apart.Done.Any(s => s.Frees?.Contains(p.Id.Value) == true));

    /// <summary>A step was done that nobody had written down.</summary>
    public IActionResult OnPostRecord(string? name, string? screws, string? cables, string? minutes, List<string> frees)
    {
        Typed = (Words.Clean(name), (screws ?? "").Trim(), Words.Clean(cables), Words.Clean(minutes), frees);
        var seen = new StepSeen(
            Typed.Name,
            Typed.Screws.Replace("\r", "", StringComparison.Ordinal),
            frees.Select(f => (PartId)f).ToList(),
            Typed.Cables.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries),
            Words.Number(Typed.Minutes) ?? 0
        );
        return Told(teach.TeachStep(Number, seen, Once));
    }

    /// <summary>What was counted on the screws and not taken.</summary>
    public string? Counted { get; private set; }

    /// <summary>The screws are as drawn, or as counted.</summary>
    public IActionResult OnPostConfirm(string? counted)
    {
        Counted = Words.Clean(counted);
        return Told(teach.Confirm(Number, null, Counted, Once));
    }

    /// <summary>A step was put back.</summary>
    public IActionResult OnPostBack(string? step, bool cables, bool over) => Told(bench.PutBack(Number, step ?? "", cables, over, Once));

    /// <summary>Something was put on for a while, or taken off again.</summary>
    public IActionResult OnPostTemporary(string? what, bool off) => Told(bench.Temporary(Number, Words.Clean(what), off, Once));

    private IActionResult Told(Deed<Done> deed) =>
        Prepare()
            ? Answer(
                deed,
                done =>
                {
                    TempData["Said"] = done.Words + ".";
                    return RedirectToPage(new { number = Number, to = To, state = State });
                }
            )
            : NotFound();

    private bool Prepare()
    {
        if (!Load())
            return false;
        var profile = View.Profile;
        Apart = UnitApart.Of(profile, View.Records.Select(r => r.Body));
        var freed = (profile.Steps ?? []).SelectMany(s => s.Frees ?? []).ToHashSet();
        Reachable =
        [
            .. profile.Parts.Where(p => freed.Contains(p.Id)).Select(p => (p.Id.Value, p.Name)),
            .. profile.Probes.Where(p => freed.Contains(p.Id)).Select(p => (p.Id.Value, p.Name)),
        ];
        var graph = TeardownGraph.Of(profile.Steps, profile.Fasteners);
        if (graph.Value is not { } known || To is not { Length: > 0 } to)
            return true;
        if (freed.Contains(to) || profile.FindPart(to) is not { } part)
            Plan = TeardownPlanner.Plan(known, [to], Apart.Done.Select(s => s.Id).ToList()).Value;
        else
            PlanByState(part);
        return true;
    }

    // The same way by which the minutes of opening are counted everywhere.
    private void PlanByState(Part part)
    {
        ByState = true;
        var wanted = Library.MethodsFor(part.Kind).Select(m => m.State).DefaultIfEmpty(AccessState.Open).ToList();
        _gentlestOnly = State is null && wanted.Min() == AccessState.Closed && wanted.Max() > AccessState.Closed;
        State ??= wanted.Min();
        var ways = View.Model.Disassembly;
        if (ways.Way(View.Apart, ways.Goal(part.Id, State.Value)) is not { } ids)
            return;
        var steps = ids.Select(View.Profile.FindStep).OfType<TeardownStep>().ToList();
        EndsEarly = steps.Count < ids.Count;
        Plan = TeardownPlan.Of(steps, View.Profile.Fasteners ?? []);
    }
}
