using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Drawing;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Find: what we know, the path map, the next moves, and the reading bar that drives them.</summary>
public sealed class FindModel(
    JobStore jobs,
    BenchRecordStore records,
    BenchDesk desk,
    ReadingDesk readings,
    GoodReadingStore goodReadings,
    TradeLibrary library,
    TimeProvider time
) : ReadingPageModel(jobs, records, desk, readings, goodReadings, library, time)
{
    private const int MovesShown = 4;

    /// <summary>Facts in sight; the older ones fold, so that the suspects stay on the screen.</summary>
    public const int FactsInSight = 4;

    /// <summary>Key of the first complaint; the keys before it take the moves.</summary>
    public const int FirstChipKey = 5;

    /// <summary>Complaints that have a key.</summary>
    public const int ChipsWithKeys = 5;

    /// <summary>A complaint's state as a sign, a class and a word.</summary>
    public static (string Sign, string Css, string Word) Chip(ComplaintState state) =>
        state switch
        {
            ComplaintState.Fails => ("✗", "bad", "fails"),
            ComplaintState.NotTriedSince => ("?", "waits", "not tried since"),
            ComplaintState.NowAndThen => ("≈", "waits", "comes and goes"),
            _ => ("✓", "good", "works"),
        };

    /// <summary>The moves shown.</summary>
    /// <remarks>The end of the work is always among them: it is a move like others. A practice unit has no spare pieces.</remarks>
    public IReadOnlyList<Move> Moves
    {
        get
        {
            var shown = Possible.Take(MovesShown).ToList();
            if (!shown.Any(m => m.Ends) && Possible.FirstOrDefault(m => m.Ends) is { } end)
                shown.Add(end);
            return shown;
        }
    }

    /// <summary>How many moves are not shown.</summary>
    public int MoreMoves => Math.Max(0, Possible.Count - Moves.Count);

    /// <summary>Repairs that are owed whatever else is wrong, because their fault is known.</summary>
    public IEnumerable<Move> Owed => Possible.Where(m => m.Known);

    /// <summary>A failure of which nobody told how it looks, the one worked on before others: it tells more than most checks and costs
    /// none.</summary>
    public UntoldLook? LookUntold =>
        LockedBecause is not null || IsPractice
            ? null
            : (View.Diagnosis?.Complaints ?? [])
                .Where(c => c.State == ComplaintState.Fails)
                .OrderByDescending(c => c.Function == View.Diagnosis!.Target)
                .Select(c => (c.Function, Last: View.All<FunctionTrial>().LastOrDefault(t => t.Body.Function == c.Function.Id)))
                .Where(x => x.Last is { Body: { Passed: false, Look: null } } && View.Model.LooksOf(x.Function).Count > 1)
                .Select(x => new UntoldLook(x.Last!.Record.Id, x.Last.Body.Starts, x.Function, View.Model.LooksOf(x.Function)))
                .FirstOrDefault();

    private List<Move> Possible => View.Advice.Moves.ToList();

    /// <summary>What the empty list of moves says.</summary>
    public string NoMoves =>
        View.Problem is not null ? "No advice while the evidence contradicts itself."
        : View.Diagnosis?.Target is null ? "Everything tried works. Prove the whole unit before it goes."
        : "Nothing left that is worth its time: what remains costs more than the cure would bring.";

    /// <summary>What flows on this map, for the legend.</summary>
    public IEnumerable<Carries> Carried => View.Profile.Feeds.Select(f => f.Carries).Distinct().Order();

    /// <summary>Cautions that readings call for: what must be dealt with first. Those of the unit itself stand above every page.</summary>
    public IEnumerable<Caution> StopCautions =>
        View.StopsOfReadings.Distinct().Select(Library.FindCaution).OfType<Caution>().Where(c => c.Stop);

    /// <summary>The map as markup.</summary>
    public string Map =>
        PathMapSvg.Draw(
            new MapScene(
                View.Model,
                View.Diagnosis,
                View.LastReadings.ToDictionary(r => r.Key.Value, r => r.Value.Body.Shown),
                View.All<FunctionTrial>()
                    .Where(t => !t.Body.Passed)
                    .GroupBy(t => t.Body.Function)
                    .ToDictionary(g => g.Key.Value, g => g.Last().Body.Outcome(View.Model)),
                SelectedProbe?.Id,
                LockedBecause is null ? id => $"/Jobs/{Number}/Find?select=probe:{id}" : null,
                id => $"/Jobs/{Number}/Fix?part={id}",
                LockedBecause is null ? id => $"/Jobs/{Number}/Find?select=fn:{id}" : null
            )
        );

    /// <inheritdoc/>
    public override string Path => $"/Jobs/{Number}/Find";

    /// <inheritdoc/>
    public override string Target => "#find-board";

    /// <inheritdoc/>
    protected override IActionResult Board() => Partial("_FindBoard", this);

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet(string? select, long? correct) => Prepare(select, correct) ? Page() : NotFound();

    /// <summary>What an outcome means, in words.</summary>
    public static string Meaning(MoveOutcome outcome)
    {
        var leading = string.Join(", ", outcome.Leading.Select(s => $"{MoveWords.Lower(s.Fault.Words)} {Words.Percent(s.Share)}"));
        var then = outcome.Then is { } t ? $"then: {MoveWords.Lower(t)}" : "";
        return string.Join("; ", new[] { leading, then }.Where(x => x.Length > 0));
    }

    /// <summary>Where a move that is done on another page leads; null for one that is done in the bar.</summary>
    public string? Elsewhere(Move move) =>
        move switch
        {
            { Repair: { } repair } => $"/Jobs/{Number}/Fix?part={repair.Part.Id}&method={repair.Method.Id}",
            { SwapOut: { } part, Function: { } function } => $"/Jobs/{Number}/Swaps?function={function.Id}&out={part}",
            { Ends: true } => $"/Jobs/{Number}/HandOver",
            _ => null,
        };

    /// <summary>The first move where it is none that the bar can take: a swap, a repair or the end.</summary>
    public Move? FirstElsewhere => Moves is [var first, ..] && Elsewhere(first) is not null ? first : null;

    /// <inheritdoc/>
    // What nobody chose is not filed while the first move is another.
    public override bool TakesEnter => base.TakesEnter && (Asked || FirstElsewhere is null);

    /// <summary>The fault that a known repair is for, in words; only the part, where the part is sure and how it fails is not.</summary>
    public static string KnownWords(JobView view, Move move) =>
        view.Diagnosis?.Suspects.Where(s => s.Fault.Part == move.Repair?.Part).MaxBy(s => s.Posterior) is { Posterior: >= SureOfTheWay } fault
            ? fault.Fault.Words
            : move.Repair?.Part.Name ?? move.Title;

    /// <summary>Chance from which it is said how a part fails that is as good as known.</summary>
    private const double SureOfTheWay = 0.7;

    /// <summary>What the button of a move says.</summary>
    public static string Verb(Move move) =>
        move switch
        {
            { Ends: true } => "Decide under Hand over",
            { Repair: not null } => "Do it",
            { SwapOut: not null } => "Swap it",
            { Provoke: not null } => "Try now",
            { Function: not null } => "Try it",
            { Probe.Kind: ProbeKind.Look } => "Look now",
            { Probe.Kind: ProbeKind.Press } => "Try now",
            _ => "Take reading",
        };

    /// <summary>Line style in a word.</summary>
    public static string CarriesWord(Carries carries) =>
        carries switch
        {
            Carries.Power => "supply",
            Carries.Audio => "sound",
            Carries.Video => "picture",
            _ => carries.ToString().ToLowerInvariant(),
        };
}
