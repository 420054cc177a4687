using System.Globalization;
using Htmx;
using Mendro.Core;
using Mendro.Core.Calculators;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>
/// The reading bar: what it is set to, how a reading is understood, and filing it. Find shows it under the whole board;
/// every other page of a job shows it alone.
/// </summary>
public abstract class ReadingPageModel(
    JobStore jobs,
    BenchRecordStore records,
    BenchDesk desk,
    ReadingDesk readings,
    GoodReadingStore goodReadings,
    TradeLibrary library,
    TimeProvider time
) : JobPageModel(jobs, desk, library)
{
    private const int LongestReading = 200;
    private static readonly TimeSpan CanBeBroughtBack = TimeSpan.FromMinutes(15);

    /// <summary>Address that the bar's forms go to.</summary>
    public abstract string Path { get; }

    /// <summary>Element that an answer replaces.</summary>
    public abstract string Target { get; }

    /// <summary>True when what stands in the bar was chosen, and is not only the best that it can take.</summary>
    public bool Asked { get; private set; }

    /// <summary>True when Enter may file what stands in the bar.</summary>
    public virtual bool TakesEnter => TakesFocus;

    /// <summary>True when the bar may take the focus.</summary>
    public virtual bool TakesFocus => true;

    /// <summary>What was filed just now, for pages that do not show the list.</summary>
    public BenchRecord? Filed { get; private set; }

    /// <summary>True right after an entry was taken back.</summary>
    public bool JustUndone { get; private set; }

    /// <summary>What the bar says of the selected probe.</summary>
    public VerdictView? SelectedVerdict => SelectedProbe is { } probe ? Verdict(probe, Judged, JudgeProblem) : null;

    /// <summary>Calculators for the selected probe.</summary>
    public IReadOnlyList<CalculatorLink> Calculators =>
        SelectedProbe is { } probe ? CalculatorLinks.ForProbe(View.Profile, probe, Judged?.Reading.Value) : [];

    /// <summary>What the reading bar is set to: <c>probe:tp3</c>, <c>fn:picture</c>, <c>provoke:picture:pressed</c>, or null.</summary>
    public string? Selected { get; private set; }

    /// <summary>Probe the reading bar is set to.</summary>
    public Probe? SelectedProbe { get; private set; }

    /// <summary>Function the reading bar is set to.</summary>
    public DeviceFunction? SelectedFunction { get; private set; }

    /// <summary>How the function is to be provoked, when it is not merely tried.</summary>
    public Provocation? SelectedHow { get; private set; }

    /// <summary>True for a practice unit: it answers by itself.</summary>
    public bool IsPractice => View.Job.PracticeSeed is not null;

    /// <summary>Record being corrected.</summary>
    public long? Correcting { get; private set; }

    /// <summary>What was typed and not taken.</summary>
    public string? Typed { get; private set; }

    /// <summary>Verdict on what was typed.</summary>
    public JudgedReading? Judged { get; private set; }

    /// <summary>Why what was typed is no reading.</summary>
    public string? JudgeProblem { get; private set; }

    /// <summary>True when only the board is sent, to be swapped in.</summary>
    public bool Swapped { get; private set; }

    /// <summary>Record withdrawn last.</summary>
    public BenchRecord? LastWithdrawn { get; private set; }

    /// <inheritdoc/>
    protected override bool TakesPractice => true;

    /// <summary>Sends the board alone.</summary>
    public IActionResult OnGetBoard(string? select, long? correct) => Prepare(select, correct) ? Swap() : NotFound();

    /// <summary>Says how a reading is understood while it is typed.</summary>
    public IActionResult OnGetJudge(string? probe, string? text)
    {
        if (!Load() || View.Profile.FindProbe(probe ?? "") is not { } found)
            return NotFound();
        var outcome = Words.Clean(text).Length > 0 ? ReadingJudge.Judge(View.Profile, found, Limit(text)) : (Outcome<JudgedReading>?)null;
        return Partial("_Verdict", Verdict(found, outcome?.Value, outcome?.Problem));
    }

    /// <summary>Files a reading.</summary>
    /// <param name="probe">Probe id.</param>
    /// <param name="text">What was typed or metered.</param>
    /// <param name="say">ok, bad or jumps, by a button.</param>
    /// <param name="correct">Record that is corrected.</param>
    /// <param name="walk">How the selection walks on: best or supply among metered points; otherwise the best move.</param>
    /// <param name="metered">True when the meter gave it.</param>
    public IActionResult OnPostReading(string? probe, string? text, string? say, long? correct, string? walk, bool metered = false)
    {
        var typed = Limit(text);
        // The buttons put their word first; what was typed beside them is kept as what was seen.
        var said = say switch
        {
            "ok" => $"ok {typed}",
            "bad" => $"bad {typed}",
            "jumps" => $"{typed} jumps",
            _ => typed,
        };
        var deed = readings.Read(new ReadingOrder(Number, probe ?? "", said.Trim(), correct, metered), Once);
        return Answered(deed, $"probe:{probe}", correct, typed, walk);
    }

    /// <summary>Files the trial of a function, or several with the same result.</summary>
    public IActionResult OnPostFunction(string? function, string? result, string? look, string? times, long? correct)
    {
        if (result is not ("pass" or "fail"))
            return NotFound();
        var starts = 1;
        if (Words.Clean(times).Length > 0 && !int.TryParse(Words.Clean(times), NumberStyles.None, CultureInfo.InvariantCulture, out starts))
            starts = 0;
        if (starts is < 1 or > ReadingDesk.MostStarts)
            return RefuseEntry(
                $"fn:{function}",
                correct,
                times,
                $"“{times}” is not a number of starts. Try 1 to {ReadingDesk.MostStarts}."
            );
        var deed = readings.Try(new TrialOrder(Number, function ?? "", result == "pass", look, starts, correct), Once);
        return Answered(deed, $"fn:{function}", correct, times);
    }

    /// <summary>Files what pressing, flexing or warming did.</summary>
    public IActionResult OnPostProvoke(string? function, Provocation how, string? result) =>
        Enum.IsDefined(how) && result is "changed" or "same"
            ? Answered(readings.Provoke(Number, function ?? "", how, result == "changed", Once), $"provoke:{function}:{how}", null, null)
            : NotFound();

    /// <summary>Asks a practice unit what the reading bar is set to.</summary>
    public IActionResult OnPostPractice(string? select) =>
        Prepare(select, null) && IsPractice
            ? Answered(readings.Ask(Number, SelectedProbe, SelectedFunction, SelectedHow, Once), select ?? "", null, null)
            : NotFound();

    /// <summary>Takes the last entry back; after a correction what it had replaced holds again.</summary>
    /// <param name="entry">The entry that was seen as the last; null for whichever it is.</param>
    public IActionResult OnPostUndo(long? entry)
    {
        var deed = readings.Undo(Number, Once, entry);
        // Somebody else has filed since: nothing of theirs is taken back unseen.
        if (deed.Refusal is { Kind: RefusalKind.Changed } changed)
            return RefuseEntry(null, null, null, changed.Problem);
        JustUndone = deed.Done is not null;
        // Nothing left to undo, or nothing may be: the board says how things stand.
        return Done();
    }

    /// <summary>Takes one entry back.</summary>
    public IActionResult OnPostWithdraw(long id) => Answered(readings.Withdraw(Number, id, Once), null, null, null);

    /// <summary>Brings an entry back.</summary>
    public IActionResult OnPostRestore(long id) => Answered(readings.Restore(Number, id, Once), null, null, null);

    /// <summary>The check that is worth most: the first move when it is one, else the best behind the repair that comes first.</summary>
    private Move? BestCheck()
    {
        var moves = View.Advice.Moves;
        var checks = moves.Where(m => m is { Repair: null, SwapOut: null, Ends: false }).ToList();
        return checks.Count > 0 && checks[0] == moves[0] ? checks[0] : checks.MinBy(m => m.ExpectedMinutes);
    }

    /// <summary>Loads the job and sets the bar.</summary>
    /// <param name="select">What to set it to; <c>walk:best</c> or <c>walk:supply</c> for the next metered point; null for the best
    /// move.</param>
    /// <param name="correct">Record to correct.</param>
    protected bool Prepare(string? select, long? correct)
    {
        if (!Load())
            return false;
        if (select?.StartsWith("walk:", StringComparison.Ordinal) == true)
            select = Enum.TryParse<WalkSchool>(select[5..], ignoreCase: true, out var school) ? Walk(school) : null;
        LastWithdrawn =
            records.LastWithdrawn(View.Job.Id) is { } gone && time.GetUtcNow() - gone.WithdrawnAt < CanBeBroughtBack ? gone : null;
        (Selected, Asked) = (select ?? BestCheck()?.Id, select is not null);
        SelectedProbe = Selected?.StartsWith("probe:", StringComparison.Ordinal) == true ? View.Profile.FindProbe(Selected[6..]) : null;
        SelectedFunction = Selected?.StartsWith("fn:", StringComparison.Ordinal) == true ? View.Profile.FindFunction(Selected[3..]) : null;
        if (
            Selected?.Split(':') is ["provoke", var provoked, var told]
            && Enum.TryParse<Provocation>(told, ignoreCase: true, out var way)
            && Enum.IsDefined(way)
            && !char.IsDigit(told[0])
        )
            (SelectedFunction, SelectedHow) = (View.Profile.FindFunction(provoked), way);
        if (SelectedProbe is null && SelectedFunction is null)
            Selected = null;
        Correcting =
            correct is { } id && View.Records.Any(r => r.Id == id && Selected?.EndsWith(":" + r.Subject, StringComparison.Ordinal) == true)
                ? id
                : null;
        return true;
    }

    /// <summary>Sends the element alone.</summary>
    protected abstract IActionResult Board();

    private VerdictView Verdict(Probe probe, JudgedReading? judged, string? problem) =>
        new(
            ExpectationRules.For(View.Profile, probe),
            judged,
            problem,
            goodReadings.Signature(View.Job.ProfileId, probe.Id, View.Job.Revision)
        );

    private IActionResult Answered(Deed<FiledEntry> deed, string? select, long? correct, string? typed, string? walk = null)
    {
        if (deed.Done is { } filed)
        {
            Filed = records.Find(filed.Record) is { WithdrawnAt: null } record ? record : null;
            return Done(walk);
        }

        return deed.Refusal!.Kind == RefusalKind.Missing || select is null && !Load()
            ? NotFound()
            : RefuseEntry(select, correct, typed, deed.Refusal.Problem);
    }

    private IActionResult Swap()
    {
        Swapped = true;
        return Board();
    }

    private IActionResult Done(string? walk = null)
    {
        if (!Request.IsHtmx())
            return ToJob("Find");
        // Pages that show what was filed fetch their part again.
        Response.Htmx(h => h.WithTrigger("evidence-changed", timing: HtmxTriggerTiming.AfterSettle));
        return Prepare(Enum.TryParse<WalkSchool>(walk, ignoreCase: true, out var school) ? $"walk:{school}" : null, null)
            ? Swap()
            : NotFound();
    }

    /// <summary>Next point for a meter; none leaves the bar at the best move.</summary>
    private string? Walk(WalkSchool school) =>
        ProbeWalk.Next(View.Diagnosis, View.Advice, View.Model.Graph, View.Fresh, school) is { } next ? $"probe:{next.Id}" : null;

    private IActionResult RefuseEntry(string? select, long? correct, string? typed, string problem)
    {
        if (!Prepare(select, correct))
            return NotFound();
        (Typed, JudgeProblem) = (typed, problem);
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Request.IsHtmx() ? Swap() : Page();
    }

    private static string Limit(string? text)
    {
        var clean = Words.Clean(text);
        return clean.Length > LongestReading ? clean[..LongestReading] : clean;
    }
}

/// <summary>What the bar says of a reading while it is typed.</summary>
/// <param name="Expected">What the probe should show.</param>
/// <param name="Judged">The reading as judged, or null.</param>
/// <param name="Problem">Why it is no reading, or null.</param>
/// <param name="Known">What known-good units show there, or null.</param>
public sealed record VerdictView(Expected Expected, JudgedReading? Judged, string? Problem, Signature? Known);
