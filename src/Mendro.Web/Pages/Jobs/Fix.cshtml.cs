using System.Globalization;
using Mendro.Core.Calculators;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A method as the Fix page offers it.</summary>
/// <param name="Method">Method.</param>
/// <param name="Chance">Chance to cure the function worked on, 0 to 1.</param>
/// <param name="TimesDone">How often it was done on this part already.</param>
public sealed record OfferedMethod(Method Method, double Chance, int TimesDone);

/// <summary>Fix: choose a cure, see how it is done and what to mind, log it, say what the unit does now.</summary>
public sealed class FixModel(
    JobStore jobs, BenchRecordStore records, BenchDesk desk, PracticeDesk practice, SecondLookDesk secondLooks, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    private const double MostMinutes = 1000;

    /// <summary>Part chosen.</summary>
    public Part? Part { get; private set; }

    /// <summary>Method chosen.</summary>
    public string? ChosenMethod { get; private set; }

    /// <summary>Methods for the part, gentlest first.</summary>
    public IReadOnlyList<OfferedMethod> Methods { get; private set; } = [];

    /// <summary>Failure modes of the part.</summary>
    public IReadOnlyList<FailureMode> Modes { get; private set; } = [];

    /// <summary>Parts with their share of blame, most suspect first.</summary>
    public IReadOnlyList<(Part Part, double Share)> Parts { get; private set; } = [];

    /// <summary>Repairs done so far.</summary>
    public IEnumerable<BenchRecord> DoneSoFar => View.Records.Where(r => r.Kind == RecordKind.Repair);

    /// <inheritdoc/>
    protected override bool TakesPractice => true;

    /// <summary>Why nothing may be logged, or null.</summary>
    public string? LockedBecause => Locked();

    /// <summary>As typed.</summary>
    public string? Cause { get; private set; }

    /// <summary>As typed.</summary>
    public string? Minutes { get; private set; }

    /// <summary>As typed.</summary>
    public string? Used { get; private set; }

    /// <summary>As typed.</summary>
    public string? Cost { get; private set; }

    /// <summary>As typed.</summary>
    public string? Note { get; private set; }

    /// <summary>Calculators for the chosen part.</summary>
    public IReadOnlyList<CalculatorLink> Calculators => Part is { } part ? CalculatorLinks.ForPart(View.Profile, part) : [];

    /// <summary>What a fuse or switch should show by position, or null.</summary>
    public IReadOnlyList<SwitchLine>? Positions => SwitchTable.Of(Library.FindPartKind(Part?.Kind ?? ""));

    /// <summary>Shows the methods for a part.</summary>
    public IActionResult OnGet(string? part, string? method) => Prepare(part, method) ? Page() : NotFound();

    /// <summary>Logs a repair and, when told, what the unit does now.</summary>
    public IActionResult OnPost(string? part, string? method, string? cause, string? minutes, string? used, string? cost, string? note, string? now, string? look)
    {
        if (!Prepare(part, method) || Part is null) return NotFound();
        (Cause, Minutes, Used, Cost, Note) = (cause, minutes, used, cost, note);
        var chosen = Methods.FirstOrDefault(m => m.Method.Id == method)?.Method;
        if (chosen is null) return Refuse("Choose the method that was done.");
        if (Locked() is { } locked) return Refuse(locked);
        if (View.Job.PracticeSeed is not null)
        {
            practice.Do(View, bench => bench.Repair(Part.Id, chosen, PracticeDesk.TargetOf(View.Model, bench)));
            return Redirect($"/Jobs/{Number}/Find");
        }

        var took = chosen.Minutes;
        if (Words.Clean(minutes).Length > 0
            && (!double.TryParse(Words.Clean(minutes).Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out took) || took > MostMinutes))
            return Refuse($"“{minutes}” is not a number of minutes. Try 12.");
        if (Price.TryAmount(cost, out var amount) is { } wrong) return Refuse(wrong);
        if (Words.Clean(used).Length > 300 || Words.Clean(note).Length > 1000) return Refuse("Parts take 300 characters, the note 1000.");

        var maker = Maker(WorkStage.Fix);
        var repair = maker.Repair(Part.Id, chosen.Id, took, amount, Words.Clean(used), Words.Clean(note));
        if (repair is null) return Refuse("That method does not go with that part.");
        var target = View.Diagnosis?.Target;
        // A cause seen belongs before the repair: afterwards it is no longer there.
        var confirmed = !string.IsNullOrEmpty(cause) && maker.Cause(Part.Id, cause, true) is { } seen ? Records.Add(seen with { JobId = View.Job.Id }) : (long?)null;
        Records.Add(repair with { JobId = View.Job.Id }, chosen.State > View.Job.Access ? chosen.State : null);
        AtLeast(WorkStage.Fix);
        if (now is "pass" or "fail" && target is not null && maker.Function(target.Id, now == "pass", look) is { } tried)
            Records.Add(tried with { JobId = View.Job.Id });

        Load();
        var looks = confirmed is { } record ? secondLooks.Consider(record) : [];
        TempData["Said"] = $"Logged: {repair.Words}.{(looks.Count > 0 ? $" Worth a second look with this: {string.Join(", ", looks)}; they are on the bench page." : "")}";
        var next = View.Diagnosis?.Target is not null ? "Find" : "Prove";
        return Redirect($"/Jobs/{Number}/{next}");
    }

    /// <summary>Notes that the unit is closed up again.</summary>
    public IActionResult OnPostCloseUp()
    {
        if (!Load()) return NotFound();
        if (Locked() is null) Jobs.SetAccess(View.Job.Id, AccessState.Closed);
        return Redirect($"/Jobs/{Number}/Fix");
    }

    private bool Prepare(string? partId, string? methodId)
    {
        if (!Load()) return false;
        Parts = View.Profile.Parts.Select(p => (p, View.Diagnosis?.Parts.GetValueOrDefault(p.Id)?.Share ?? 0)).OrderByDescending(x => x.Item2).ToList();
        var best = View.Advice.Moves.FirstOrDefault(m => m.Repair is not null)?.Repair;
        Part = View.Profile.FindPart(partId ?? best?.Part.Id ?? "");
        if (partId is not null && Part is null) return false;
        if (Part is null) return true;
        Modes = Library.FindPartKind(Part.Kind)?.Modes ?? [];
        var suspects = View.Diagnosis?.Suspects.Where(s => s.Fault.Part.Id == Part.Id).ToList() ?? [];
        var upset = suspects.Any(s => s.Fault.Mode.Id == EvidenceWeights.StepDamage);
        Methods = (upset ? Library.MethodsFor("*") : []).Concat(Library.MethodsFor(Part.Kind)).Select(m => new OfferedMethod(m,
            suspects.Sum(s => s.Share * View.Diagnosis!.Case.SuccessNow(m.Id, s.FaultIndex)),
            DoneSoFar.Count(r => r.Subject == Part.Id && r.Detail == m.Id))).ToList();
        var bestHere = View.Advice.Moves.FirstOrDefault(m => m.Repair?.Part == Part)?.Repair;
        ChosenMethod = methodId ?? bestHere?.Method.Id ?? Methods.FirstOrDefault()?.Method.Id;
        return true;
    }
}
