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

    /// <summary>The moves shown.</summary>
    public IReadOnlyList<Move> Moves => View.Advice.Moves.Take(MovesShown).ToList();

    /// <summary>How many moves are not shown.</summary>
    public int MoreMoves => Math.Max(0, View.Advice.Moves.Count - MovesShown);

    /// <summary>What the empty list of moves says.</summary>
    public string NoMoves =>
        View.Problem is not null ? "No advice while the evidence contradicts itself."
        : View.Diagnosis?.Target is null ? "Everything tried works. Prove the whole unit before it goes."
        : "Nothing left that is worth its time: what remains costs more than the cure would bring.";

    /// <summary>What flows on this map, for the legend.</summary>
    public IEnumerable<Carries> Carried => View.Profile.Feeds.Select(f => f.Carries).Distinct().Order();

    /// <summary>Stop cautions of the unit: what must be dealt with before the hands go in.</summary>
    public IEnumerable<Caution> StopCautions =>
        View.Hazards.Concat(View.StopsOfReadings).Distinct().Select(Library.FindCaution).OfType<Caution>().Where(c => c.Stop);

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
