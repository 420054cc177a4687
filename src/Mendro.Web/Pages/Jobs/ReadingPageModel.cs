using System.Globalization;
using Htmx;
using Mendro.Core;
using Mendro.Core.Calculators;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>
/// The reading bar: what it is set to, how a reading is understood, and filing it. Find shows it under the whole board;
/// every other page of a job shows it alone.
/// </summary>
public abstract class ReadingPageModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, PracticeDesk practice, GoodReadingStore goodReadings, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    private const int MostStarts = 100;
    private const int LongestReading = 200;

    /// <summary>Address that the bar's forms go to.</summary>
    public abstract string Path { get; }

    /// <summary>Element that an answer replaces.</summary>
    public abstract string Target { get; }

    /// <summary>True when the bar may take the focus.</summary>
    public virtual bool TakesFocus => true;

    /// <summary>What was filed just now, for pages that do not show the list.</summary>
    public BenchRecord? Filed { get; private set; }

    /// <summary>True right after an entry was taken back.</summary>
    public bool JustUndone { get; private set; }

    /// <summary>What the bar says of the selected probe.</summary>
    public VerdictView? SelectedVerdict => SelectedProbe is { } probe ? Verdict(probe, Judged, JudgeProblem) : null;

    /// <summary>Calculators for the selected probe.</summary>
    public IReadOnlyList<CalculatorLink> Calculators => SelectedProbe is { } probe ? CalculatorLinks.ForProbe(View.Profile, probe, Judged?.Reading.Value) : [];

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

    /// <inheritdoc/>
    protected override bool TakesPractice => true;

    /// <summary>Why nothing may be entered, or null.</summary>
    public string? LockedBecause => Locked();

    /// <summary>Record withdrawn last.</summary>
    public BenchRecord? LastWithdrawn { get; private set; }

    /// <summary>Sends the board alone.</summary>
    public IActionResult OnGetBoard(string? select, long? correct) => Prepare(select, correct) ? Swap() : NotFound();

    /// <summary>Says how a reading is understood while it is typed.</summary>
    public IActionResult OnGetJudge(string? probe, string? text)
    {
        if (!Load()) return NotFound();
        if (View.Profile.FindProbe(probe ?? "") is not { } found) return NotFound();
        var outcome = Words.Clean(text).Length > 0 ? ReadingJudge.Judge(View.Profile, found, Limit(text)) : (Outcome<JudgedReading>?)null;
        return Partial("_Verdict", Verdict(found, outcome?.Value, outcome?.Problem));
    }

    /// <summary>Files a reading.</summary>
    /// <param name="probe">Probe id.</param>
    /// <param name="text">What was typed or metered.</param>
    /// <param name="say">ok, bad or jumps, by a button.</param>
    /// <param name="correct">Record that is corrected.</param>
    /// <param name="metered">True when the meter gave it.</param>
    /// <param name="walk">How the selection walks on: best or supply among metered points; otherwise the best move.</param>
    public IActionResult OnPostReading(string? probe, string? text, string? say, long? correct, string? walk, bool metered = false)
    {
        if (!Load()) return NotFound();
        if (View.Profile.FindProbe(probe ?? "") is not { } found) return NotFound();
        var typed = Limit(text);
        // The buttons put their word first; what was typed beside them is kept as what was seen.
        var said = say switch { "ok" => $"ok {typed}", "bad" => $"bad {typed}", "jumps" => $"{typed} jumps", _ => typed };
        var judged = ReadingJudge.Judge(View.Profile, found, said.Trim());
        if ((Locked() ?? (IsPractice && !metered ? "A practice unit answers by itself: take the reading." : null)) is { } locked) return Refuse($"probe:{found.Id}", correct, typed, locked);
        if (!judged.IsOk) return Refuse($"probe:{found.Id}", correct, typed, judged.Problem!);
        if (IsPractice)
        {
            practice.Do(View, bench => bench.Measure(found), judged.Value);
            return Done(walk);
        }

        var record = BenchMaker().Probe(found, judged.Value);
        if (correct is { } id)
        {
            if (Records.Correct(View.Job.Id, id, record) is null) return Refuse($"probe:{found.Id}", null, typed, "That entry was withdrawn meanwhile.");
        }
        else
        {
            Filed = record with { JobId = View.Job.Id };
            Records.Add(Filed, found.State > View.Job.Access ? found.State : null);
        }

        AtLeast(WorkStage.Find);
        return Done(walk);
    }

    /// <summary>Files the trial of a function, or several with the same result.</summary>
    public IActionResult OnPostFunction(string? function, string? result, string? look, string? times, long? correct)
    {
        if (!Load()) return NotFound();
        if (IsPractice || View.Profile.FindFunction(function ?? "") is null || result is not ("pass" or "fail")) return NotFound();
        if (Locked() is { } locked) return Refuse($"fn:{function}", correct, null, locked);
        var trials = 1;
        if (Words.Clean(times).Length > 0 && (!int.TryParse(Words.Clean(times), NumberStyles.None, CultureInfo.InvariantCulture, out trials) || trials is < 1 or > MostStarts))
            return Refuse($"fn:{function}", correct, times, $"“{times}” is not a number of starts. Try 1 to {MostStarts}.");
        var record = BenchMaker().Function(function!, result == "pass", look, "", trials)!;
        if (correct is { } id)
        {
            Records.Correct(View.Job.Id, id, record);
            return Done();
        }

        Filed = record with { JobId = View.Job.Id };
        Records.Add(Filed);
        return Done();
    }

    /// <summary>Files what pressing, flexing or warming did.</summary>
    public IActionResult OnPostProvoke(string? function, Provocation how, string? result)
    {
        if (!Load()) return NotFound();
        if (IsPractice || !Enum.IsDefined(how) || result is not ("changed" or "same") || BenchMaker().Provoke(function ?? "", how, result == "changed") is not { } record) return NotFound();
        if (Locked() is { } locked) return Refuse($"provoke:{function}:{how}", null, null, locked);
        Filed = record with { JobId = View.Job.Id };
        Records.Add(Filed, how == Provocation.Flexed && View.Job.Access < AccessState.Open ? AccessState.Open : null);
        AtLeast(WorkStage.Find);
        return Done();
    }

    /// <summary>Asks a practice unit what the reading bar is set to.</summary>
    public IActionResult OnPostPractice(string? select)
    {
        if (!Prepare(select, null) || !IsPractice) return NotFound();
        if (Locked() is { } locked) return Refuse(select ?? "", null, null, locked);
        if (SelectedProbe is { } probe) practice.Do(View, bench => bench.Measure(probe));
        else if (SelectedFunction is { } function && SelectedHow is { } how) practice.Do(View, bench => bench.Provoke(function, how));
        else if (SelectedFunction is { } tried) practice.Do(View, bench => bench.Try(tried));
        else return NotFound();
        return Done();
    }

    /// <summary>Takes the last entry back.</summary>
    public IActionResult OnPostUndo()
    {
        if (!Load()) return NotFound();
        if (Locked() is null && !IsPractice && View.Records.Count > 0) JustUndone = Records.Withdraw(View.Job.Id, View.Records.MaxBy(r => r.Id)!.Id);
        return Done();
    }

    /// <summary>Takes one entry back.</summary>
    public IActionResult OnPostWithdraw(long id)
    {
        if (!Load()) return NotFound();
        if (IsPractice) return NotFound();
        return Locked() is null && !Records.Withdraw(View.Job.Id, id) ? NotFound() : Done();
    }

    /// <summary>Brings an entry back.</summary>
    public IActionResult OnPostRestore(long id)
    {
        if (!Load()) return NotFound();
        if (IsPractice) return NotFound();
        return Locked() is null && !Records.Restore(View.Job.Id, id) ? NotFound() : Done();
    }

    /// <summary>Loads the job and sets the bar.</summary>
    /// <param name="select">What to set it to; <c>walk:best</c> or <c>walk:supply</c> for the next metered point; null for the best move.</param>
    /// <param name="correct">Record to correct.</param>
    protected bool Prepare(string? select, long? correct)
    {
        if (!Load()) return false;
        if (select?.StartsWith("walk:", StringComparison.Ordinal) == true) select = Enum.TryParse<WalkSchool>(select[5..], ignoreCase: true, out var school) ? Walk(school) : null;
        LastWithdrawn = Records.LastWithdrawn(View.Job.Id) is { } gone && Time.GetUtcNow() - gone.WithdrawnAt < TimeSpan.FromMinutes(15) ? gone : null;
        Selected = select ?? View.Advice.Moves.FirstOrDefault(m => m.Repair is null)?.Id;
        SelectedProbe = Selected?.StartsWith("probe:", StringComparison.Ordinal) == true ? View.Profile.FindProbe(Selected[6..]) : null;
        SelectedFunction = Selected?.StartsWith("fn:", StringComparison.Ordinal) == true ? View.Profile.FindFunction(Selected[3..]) : null;
        if (Selected?.Split(':') is ["provoke", var provoked, var told] && Enum.TryParse<Provocation>(told, ignoreCase: true, out var way) && Enum.IsDefined(way) && !char.IsDigit(told[0]))
            (SelectedFunction, SelectedHow) = (View.Profile.FindFunction(provoked), way);
        if (SelectedProbe is null && SelectedFunction is null) Selected = null;
        Correcting = correct is { } id && View.Records.Any(r => r.Id == id && Selected?.EndsWith(":" + r.Subject, StringComparison.Ordinal) == true) ? id : null;
        return true;
    }

    /// <summary>Sends the element alone.</summary>
    protected abstract IActionResult Board();

    private VerdictView Verdict(Probe probe, JudgedReading? judged, string? problem) => new(
        ExpectationRules.For(View.Profile, probe), judged, problem, goodReadings.Signatures(View.Job.ProfileId, View.Job.Revision).GetValueOrDefault(probe.Id));

    private IActionResult Swap()
    {
        Swapped = true;
        return Board();
    }

    private IActionResult Done(string? walk = null)
    {
        if (!Request.IsHtmx()) return Redirect($"/Jobs/{Number}/Find");
        // Pages that show what was filed fetch their part again.
        Response.Htmx(h => h.WithTrigger("evidence-changed", timing: HtmxTriggerTiming.AfterSettle));
        return Prepare(Enum.TryParse<WalkSchool>(walk, ignoreCase: true, out var school) ? $"walk:{school}" : null, null) ? Swap() : NotFound();
    }

    /// <summary>Next point for a meter; none leaves the bar at the best move.</summary>
    private string? Walk(WalkSchool school)
    {
        var since = View.Records.Where(r => r.Kind == RecordKind.Repair).Select(r => r.Id).DefaultIfEmpty().Max();
        var taken = View.Records.Where(r => r.Kind == RecordKind.Probe && r.Id > since).Select(r => new ProbeId(r.Subject)).ToHashSet();
        return ProbeWalk.Next(View.Diagnosis, View.Advice, View.Model.Graph, taken, school) is { } next ? $"probe:{next.Id}" : null;
    }

    private IActionResult Refuse(string select, long? correct, string? typed, string problem)
    {
        Prepare(select, correct);
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
