using System.Globalization;
using Htmx;
using Mendro.Core.Diagnosis;
using Mendro.Core.Methods;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Storage;
using Mendro.Web.Bench;
using Mendro.Web.Drawing;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Find: what we know, the path map, the next moves, and the reading bar that drives them.</summary>
public sealed class FindModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, PracticeDesk practice, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    private const int MovesShown = 4;
    private const int MostStarts = 100;
    private const int LongestReading = 200;

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

    /// <summary>Records in words.</summary>
    public RecordWords Told => new(View.Profile, Library);

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

    /// <summary>The moves shown.</summary>
    public IReadOnlyList<Move> Moves => View.Advice.Moves.Take(MovesShown).ToList();

    /// <summary>How many moves are not shown.</summary>
    public int MoreMoves => Math.Max(0, View.Advice.Moves.Count - MovesShown);

    /// <summary>What the empty list of moves says.</summary>
    public string NoMoves => View.Problem is not null ? "No advice while the evidence contradicts itself."
        : View.Diagnosis?.Target is null ? "Everything tried works. Prove the whole unit before it goes."
        : "Nothing left that is worth its time: what remains costs more than the cure would bring.";

    /// <summary>What flows on this map, for the legend.</summary>
    public IEnumerable<Carries> Carried => View.Profile.Feeds.Select(f => f.Carries).Distinct().Order();

    /// <summary>Stop cautions of the unit: what must be dealt with before the hands go in.</summary>
    public IEnumerable<Caution> StopCautions => (View.Profile.Hazards ?? [])
        .Concat(View.Records.Where(r => r.Kind == RecordKind.Mark).Select(r => Library.FindMark(r.Subject)?.Caution).OfType<string>())
        .Distinct().Select(Library.FindCaution).OfType<Caution>().Where(c => c.Stop);

    /// <summary>The map as markup.</summary>
    public string Map => PathMapSvg.Draw(new MapScene(
        View.Model, View.Diagnosis,
        View.Records.Where(r => r.Kind == RecordKind.Probe).GroupBy(r => r.Subject).ToDictionary(g => g.Key, g => g.Last().Reading),
        View.Records.Where(r => r is { Kind: RecordKind.Function, State: "fail" }).GroupBy(r => r.Subject).ToDictionary(g => g.Key, g => Told.Look(g.Last())),
        SelectedProbe?.Id,
        Locked() is null ? id => $"/Jobs/{Number}/Find?select=probe:{id}" : null,
        id => $"/Jobs/{Number}/Fix?part={id}",
        Locked() is null ? id => $"/Jobs/{Number}/Find?select=fn:{id}" : null));

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet(string? select, long? correct) => Prepare(select, correct) ? Page() : NotFound();

    /// <summary>Sends the board alone.</summary>
    public IActionResult OnGetBoard(string? select, long? correct) => Prepare(select, correct) ? Board() : NotFound();

    /// <summary>Says how a reading is understood while it is typed.</summary>
    public IActionResult OnGetJudge(string? probe, string? text)
    {
        if (!Load()) return NotFound();
        if (View.Profile.FindProbe(probe ?? "") is not { } found) return NotFound();
        if (Words.Clean(text).Length == 0) return Partial("_Verdict", (found, (JudgedReading?)null, (string?)null));
        var outcome = ReadingJudge.Judge(View.Profile, found, Limit(text));
        return Partial("_Verdict", (found, outcome.Value, outcome.Problem));
    }

    /// <summary>Files a reading.</summary>
    public IActionResult OnPostReading(string? probe, string? text, string? say, long? correct)
    {
        if (!Load()) return NotFound();
        if (View.Profile.FindProbe(probe ?? "") is not { } found) return NotFound();
        var typed = Limit(text);
        // The buttons put their word first; what was typed beside them is kept as what was seen.
        var said = say switch { "ok" => $"ok {typed}", "bad" => $"bad {typed}", "jumps" => $"{typed} jumps", _ => typed };
        var judged = ReadingJudge.Judge(View.Profile, found, said.Trim());
        if ((Locked() ?? (IsPractice ? "A practice unit answers by itself: take the reading." : null)) is { } locked) return Refuse($"probe:{found.Id}", correct, typed, locked);
        if (!judged.IsOk) return Refuse($"probe:{found.Id}", correct, typed, judged.Problem!);
        var record = Maker(WorkStage.Find).Probe(found, judged.Value);
        if (correct is { } id)
        {
            if (Records.Correct(View.Job.Id, id, record) is null) return Refuse($"probe:{found.Id}", null, typed, "That entry was withdrawn meanwhile.");
        }
        else
        {
            Records.Add(record with { JobId = View.Job.Id }, found.State > View.Job.Access ? found.State : null);
        }

        AtLeast(WorkStage.Find);
        return Done();
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
        var record = Maker(WorkStage.Find).Function(function!, result == "pass", look, "", trials)!;
        if (correct is { } id) Records.Correct(View.Job.Id, id, record);
        else Records.Add(record with { JobId = View.Job.Id });
        return Done();
    }

    /// <summary>Files what pressing, flexing or warming did.</summary>
    public IActionResult OnPostProvoke(string? function, Provocation how, string? result)
    {
        if (!Load()) return NotFound();
        if (IsPractice || !Enum.IsDefined(how) || result is not ("changed" or "same") || Maker(WorkStage.Find).Provoke(function ?? "", how, result == "changed") is not { } record) return NotFound();
        if (Locked() is { } locked) return Refuse($"provoke:{function}:{how}", null, null, locked);
        Records.Add(record with { JobId = View.Job.Id }, how == Provocation.Flexed && View.Job.Access < AccessState.Open ? AccessState.Open : null);
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
        if (Locked() is null && !IsPractice && View.Records.Count > 0) Records.Withdraw(View.Job.Id, View.Records.MaxBy(r => r.Id)!.Id);
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

    /// <summary>What an outcome means, in words.</summary>
    public static string Meaning(MoveOutcome outcome)
    {
        var leading = string.Join(", ", outcome.Leading.Select(s => $"{MoveWords.Lower(s.Fault.Words)} {Words.Percent(s.Share)}"));
        var then = outcome.Then is { } t ? $"then: {MoveWords.Lower(t)}" : "";
        return string.Join("; ", new[] { leading, then }.Where(x => x.Length > 0));
    }

    /// <summary>Line style in a word.</summary>
    public static string CarriesWord(Carries carries) => carries switch
    {
        Carries.Power => "supply",
        Carries.Audio => "sound",
        Carries.Video => "picture",
        _ => carries.ToString().ToLowerInvariant(),
    };

    /// <summary>An example of what may be typed.</summary>
    public string Example(Probe probe) => probe.Kind switch
    {
        ProbeKind.Volts => "5.02 V",
        ProbeKind.Continuity => "beep",
        ProbeKind.Ohms => "4k7",
        ProbeKind.Capacitance => "22u",
        _ => "ok, or bad …",
    };

    private bool Prepare(string? select, long? correct)
    {
        if (!Load()) return false;
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

    private IActionResult Board()
    {
        Swapped = true;
        return Partial("_FindBoard", this);
    }

    private IActionResult Done()
    {
        if (!Request.IsHtmx()) return Redirect($"/Jobs/{Number}/Find");
        return Prepare(null, null) ? Board() : NotFound();
    }

    private IActionResult Refuse(string select, long? correct, string? typed, string problem)
    {
        Prepare(select, correct);
        (Typed, JudgeProblem) = (typed, problem);
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Request.IsHtmx() ? Board() : Page();
    }

    private static string Limit(string? text)
    {
        var clean = Words.Clean(text);
        return clean.Length > LongestReading ? clean[..LongestReading] : clean;
    }
}
