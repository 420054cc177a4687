using System.Globalization;
using Mendro.Core.Calculators;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A method as the Fix page offers it.</summary>
/// <param name="Method">Method.</param>
/// <param name="Chance">Chance to cure the function worked on, 0 to 1.</param>
/// <param name="TimesDone">How often it was done on this part already.</param>
public sealed record OfferedMethod(Method Method, double Chance, int TimesDone);

/// <summary>Fix: choose a cure, see how it is done and what to mind, log it, say what the unit does now.</summary>
public sealed class FixModel(
    JobStore jobs,
    BenchDesk desk,
    RepairDesk repairs,
    RunDesk runs,
    MethodDesk methods,
    SettingsStore settings,
    TradeLibrary library
)
    : JobPageModel(jobs, desk, library)
{
    private Currency? _shopCurrency;

    /// <summary>True when the capacitors of the chosen part can be planned: it is one that has them, or its board tells of some.</summary>
    public bool HasCapacitors =>
        Part is { } part
        && View.Job.PracticeSeed is null
        && (part.Kind == "capacitors" || View.Profile.Boards?.Any(b => b.Id == part.Board && b.Capacitors is { Count: > 0 }) == true);

    /// <summary>Part chosen.</summary>
    public Part? Part { get; private set; }

    /// <summary>Method chosen.</summary>
    public MethodId? ChosenMethod { get; private set; }

    /// <summary>Methods for the part, gentlest first.</summary>
    public IReadOnlyList<OfferedMethod> Methods { get; private set; } = [];

    /// <summary>Failure modes of the part.</summary>
    public IReadOnlyList<FailureMode> Modes { get; private set; } = [];

    /// <summary>Parts with their share of blame, most suspect first.</summary>
    public IReadOnlyList<(Part Part, double Share)> Parts { get; private set; } = [];

    /// <summary>Work that cures no fault of a part and fits this unit as it came.</summary>
    public IEnumerable<Method> OtherWork =>
        Library
            .OtherWork(View.Profile.Kind)
            .Where(m => m.OnlyMarked is not { } marks || View.All<MarkNoted>().Any(n => marks.Contains(n.Body.Mark)));

    /// <summary>Repairs done so far.</summary>
    public IEnumerable<BenchRecord> DoneSoFar => View.Records.Where(r => r.Body.Step == JobStep.Repaired);

    /// <summary>The way that the shop goes first on this kind of part, or null.</summary>
    public MethodId? Usual { get; private set; }

    /// <summary>The method that is under way on this unit, or null.</summary>
    public RunSheet? UnderWay => runs.Open(View.Job, View.Profile);

    /// <summary>Modifications of the part that its owner has not agreed to.</summary>
    public IReadOnlyList<Method> Unasked =>
        View.Job.ShopStock || View.Job.PracticeSeed is not null || LockedBecause is not null
            ? []
            : Methods
                .Select(m => m.Method)
                .Where(m => m.Type == MethodType.Modification)
                .Where(m => !View.All<ConsentGiven>().Any(c => c.Body.Part == Part!.Id && c.Body.Method == m.Id))
                .ToList();

    /// <summary>Connector whose contacts the chosen part has, or null.</summary>
    public Connector? Connector => View.Profile.Connectors?.FirstOrDefault(c => c.Part == Part!.Id);

    /// <summary>True for a part with contacts that are wired one by one when it is replaced.</summary>
    public bool IsWired => Connector is not null || Part!.Kind is "port" or "socket" or "output-socket" or "phones-socket" or "cord";

    /// <summary>Failure mode chosen.</summary>
    public string? Cause { get; private set; }

    /// <summary>Minutes, as typed.</summary>
    public string? Minutes { get; private set; }

    /// <summary>Parts used, as typed.</summary>
    public string? Used { get; private set; }

    /// <summary>Cost, as typed.</summary>
    public string? Cost { get; private set; }

    /// <summary>Note, as typed.</summary>
    public string? Note { get; private set; }

    /// <summary>Calculators for the chosen part.</summary>
    public IReadOnlyList<CalculatorLink> Calculators => Part is { } part ? CalculatorLinks.ForPart(View.Profile, part) : [];

    /// <summary>What a fuse or switch should show by position, or null.</summary>
    public IReadOnlyList<SwitchLine>? Positions => SwitchTable.Of(Library.FindPartKind(Part?.Kind ?? ""));

    /// <summary>What the check at a method's end showed, as it was ticked; null when it was not made.</summary>
    public bool? Held(MethodId method) =>
        Request.HasFormContentType && bool.TryParse(Request.Form[$"held-{method}"].ToString(), out var held) ? held : null;

    /// <inheritdoc/>
    protected override bool TakesPractice => true;

    /// <summary>Minutes that a method takes as a rule, as they are typed.</summary>
    public static string Estimate(Method method) => method.Minutes.ToString("0.#", CultureInfo.InvariantCulture);

    /// <summary>Usual cost of a method's parts, in the shop's currency.</summary>
    public Amount UsualCost(Method method) => new(method.PartsCost, _shopCurrency ??= settings.Get().PerHour.Currency);

    /// <summary>Shows the methods for a part.</summary>
    public IActionResult OnGet(string? part, string? method) => Prepare(part, method) ? Page() : NotFound();

    /// <summary>Logs a repair and, when told, what the unit does now.</summary>
    public IActionResult OnPost(
        string? part,
        string? method,
        string? cause,
        string? minutes,
        string? used,
        string? cost,
        string? note,
        string? now,
        string? look
    )
    {
        if (!Prepare(part, method) || Part is null)
            return NotFound();
        (Cause, Minutes, Used, Cost, Note) = (cause, minutes, used, cost, note);
        if (Methods.All(m => m.Method.Id != method))
            return Refuse("Choose the method that was done.");
        var took = Words.Number(minutes);
        if (Words.Clean(minutes).Length > 0 && took is not (>= 0 and <= RepairDesk.MostMinutes))
            return Refuse($"“{minutes}” is not a number of minutes. Try 12.");
        if (Amount.TryRead(cost, View.Currency, out var amount) is { } wrong)
            return Refuse(wrong);
        var order = new RepairOrder(
            Number,
            Part.Id,
            method ?? "",
            cause,
            // What is not told was not worked.
            View.Job.PracticeSeed is null ? took ?? 0 : took,
            amount?.Value,
            Words.Clean(used),
            Words.Clean(note),
            now switch
            {
                "pass" => true,
                "fail" => false,
                _ => null,
            },
            look,
            Held: method is null ? null : Held(method)
        );
        return Answer(
            repairs.Log(order, Once),
            filed =>
            {
                if (View.Job.PracticeSeed is not null)
                    return ToJob("Find");
                TempData["Said"] =
                    $"Logged: {filed.Words}.{(filed.Confirmed ? " Units that could share the cause come to Second look on the bench." : "")}";
                return ToJob(filed.Failing ? "Find" : "Prove");
            }
        );
    }

    /// <summary>The owner agreed to a modification.</summary>
    public IActionResult OnPostConsent(string? part, string? method, string? who, ConsentWay how)
    {
        if (!Prepare(part, null) || Part is null)
            return NotFound();
        return Answer(
            repairs.Consent(Number, new ConsentGiven(Part.Id, method ?? "", Words.Clean(who), how), Once),
            _ => RedirectToPage(new { number = Number, part = Part.Id.Value })
        );
    }

    /// <summary>Notes that the unit is closed up again.</summary>
    public IActionResult OnPostCloseUp() => Prepare(null, null) ? Answer(repairs.CloseUp(Number, Once), _ => ToJob("Fix")) : NotFound();

    private bool Prepare(string? partId, string? methodId)
    {
        if (!Load())
            return false;
        Parts = View
            .Profile.Parts.Select(p => (p, View.Diagnosis?.Parts.GetValueOrDefault(p.Id)?.Share ?? 0))
            .OrderByDescending(x => x.Item2)
            .ToList();
        var best = View.Advice.Moves.FirstOrDefault(m => m.Repair is not null)?.Repair;
        Part = View.Profile.FindPart(partId ?? best?.Part.Id ?? Likeliest()?.Id ?? "");
        if (partId is not null && Part is null)
            return false;
        if (Part is null)
            return true;
        Usual = methods.Usual(Part.Kind);
        Modes = Library.FindPartKind(Part.Kind)?.Modes ?? [];
        var suspects = View.Diagnosis?.Suspects.Where(s => s.Fault.Part.Id == Part.Id).ToList() ?? [];
        var upset = suspects.Any(s => s.Fault.Mode.Id == EvidenceWeights.StepDamage);
        var done = View.All<RepairLogged>().Where(r => r.Body.Part == Part.Id).ToLookup(r => r.Body.Method);
        Methods = (upset ? Library.MethodsFor("*") : [])
            .Concat(Method.GentlestFirst(View.Model.MethodsFor(Part)))
            .Select(m => (Method: m, Times: done[m.Id].Count()))
            .Select(m => new OfferedMethod(
                m.Method,
                suspects.Sum(s => s.Share * EvidenceWeights.Success(m.Method, s.Fault, m.Times)),
                m.Times
            ))
            .ToList();
        var bestHere = View.Advice.Moves.FirstOrDefault(m => m.Repair?.Part == Part)?.Repair;
        // What nobody chose and nothing speaks for is not taken for done because it stands first.
        ChosenMethod =
            methodId is not null ? new MethodId(methodId)
            : bestHere?.Method.Id ?? (Methods.Count == 1 || View.Job.PracticeSeed is not null ? Methods.FirstOrDefault()?.Method.Id : null);
        Minutes ??= Methods.FirstOrDefault(m => ChosenMethod is { } id && m.Method.Id == id) is { } chosen ? Estimate(chosen.Method) : null;
        return true;
    }

    /// <summary>The likeliest part that has a cure; of those alike one that can be reached as the unit lies.</summary>
    private Part? Likeliest() =>
        Parts
            .Where(p => p.Share >= LeastShare && View.Model.MethodsFor(p.Part).Any())
            .OrderByDescending(p => Math.Round(p.Share, 2))
            .ThenBy(p => View.Model.Disassembly.Minutes(View.Apart, View.Model.Disassembly.Goal(p.Part.Id, AccessState.Open)))
            .Select(p => p.Part)
            .FirstOrDefault();

    private const double LeastShare = 0.005;
}
