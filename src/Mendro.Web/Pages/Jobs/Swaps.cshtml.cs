using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A row of the matrix: what stood where, and what came of it.</summary>
/// <param name="Record">The record.</param>
/// <param name="StandIns">Name of what stood in by slot; a missing slot held the unit's own.</param>
public sealed record SwapRow(BenchRecord Record, IReadOnlyDictionary<string, string> StandIns);

/// <summary>Swap trials: one thing at a time, in a small matrix.</summary>
public sealed class SwapsModel(JobStore jobs, BenchDesk desk, SwapDesk swaps, ReadingDesk readings, GearStore gear, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>Function tried.</summary>
    public DeviceFunction Function { get; private set; } = null!;

    /// <summary>Places that can be swapped.</summary>
    public IReadOnlyList<SwapSlot> Slots { get; private set; } = [];

    /// <summary>Trials so far, oldest first.</summary>
    public IReadOnlyList<SwapRow> Rows { get; private set; } = [];

    /// <summary>The most telling swaps.</summary>
    public IReadOnlyList<SwapProposal> Proposals { get; private set; } = [];

    /// <summary>What is chosen in the row to be filed, by slot.</summary>
    public IReadOnlyDictionary<string, string> Chosen { get; private set; } = new Dictionary<string, string>();

    /// <summary>True when one move of Find asked for this trial: it is answered by one key, and Find goes on.</summary>
    public bool Asked { get; private set; }

    /// <summary>Gear that took part, with the chance that it is at fault.</summary>
    public IReadOnlyList<(string Name, double Chance)> GearChances { get; private set; } = [];

    /// <inheritdoc/>
    public override string? LockedBecause => SwapDesk.Locked(View.Job);

    /// <summary>Shows the matrix; a proposal fills the last row in.</summary>
    /// <param name="function">Function to try.</param>
    /// <param name="slot">Place that a proposal swaps.</param>
    /// <param name="with">What stands in there.</param>
    /// <param name="out">Part to swap out for the least worn piece at hand.</param>
    public IActionResult OnGet(string? function, string? slot, string? with, string? @out)
    {
        if (!Prepare(function))
            return NotFound();
        if (@out is not null && Slots.FirstOrDefault(s => s.Id == @out) is { Choices.Count: > 0 } asked)
        {
            var told = Proposals.FirstOrDefault(p => p.PartId == asked.Id)?.With.Id;
            Chosen = new Dictionary<string, string> { [@out] = told ?? asked.Choices[^1].Id };
            Asked = true;
        }

        if (slot is not null && with is not null)
            Chosen = new Dictionary<string, string> { [slot] = with };
        return Page();
    }

    /// <summary>Files a trial.</summary>
    /// <param name="function">Function tried.</param>
    /// <param name="swap">Stand-in by slot; blank for the unit's own.</param>
    /// <param name="result">pass, fail or flicker.</param>
    /// <param name="back">True to go on in Find.</param>
    public IActionResult OnPost(
        string? function,
        [FromForm(Name = "swap")] Dictionary<string, string?> swap,
        string? result,
        bool back = false
    )
    {
        if (!Prepare(function) || result is not ("pass" or "fail" or "flicker"))
            return NotFound();
        Chosen = swap.Where(s => !string.IsNullOrEmpty(s.Value)).ToDictionary(s => s.Key, s => s.Value!);
        var deed = swaps.File(Number, Function.Id, Chosen, Enum.Parse<SwapResult>(result, ignoreCase: true), Once);
        Asked = back;
        return Answer(deed, _ => back ? ToJob("Find") : RedirectToPage(new { number = Number, function = Function.Id.Value }));
    }

    /// <summary>Swaps a part of a practice unit, and goes on in Find.</summary>
    public IActionResult OnPostPractice(string? function, string? part) =>
        Prepare(function) ? Answer(swaps.Practise(Number, Function.Id, part ?? "", Once), _ => ToJob("Find")) : NotFound();

    /// <summary>Takes a trial back.</summary>
    public IActionResult OnPostWithdraw(long id, string? function)
    {
        if (!Prepare(function))
            return NotFound();
        return Answer(
            readings.Withdraw(Number, id, Once),
            _ =>
            {
                TempData["Said"] = "Withdrawn. Find can bring it back.";
                return RedirectToPage(new { number = Number, function });
            }
        );
    }

    private bool Prepare(string? functionId)
    {
        if (!Load())
            return false;
        var wanted = functionId is null ? View.Diagnosis?.Target ?? View.Profile.Functions[0] : View.Profile.FindFunction(functionId);
        if (wanted is null)
            return false;
        Function = wanted;
        Slots = swaps.Slots(View.Job, View.Model, wanted);
        Rows = View.Records.Where(r => r.Subject == wanted.Id && r.Body is (SwapTrial or FunctionTrial)).Select(Row).ToList();
        if (Desk.Reason(View) is not { } diagnosis)
            return true;
        var unit = diagnosis.Case;
        GearChances = (unit.Context.Gear ?? [])
            .Select(g =>
                (g.Name, 1 - unit.GearFaults(g.Id).Aggregate(1.0, (p, f) => p * (1 - diagnosis.Posterior.Fault(unit.UncuredPiece(f)))))
            )
            .OrderByDescending(g => g.Item2)
            .ToList();
        if (diagnosis.Target == wanted)
            Proposals = SwapPlanner.Propose(diagnosis, gear.InUse().Select(p => p.ToItem(View.Job.Id)).ToList());
        return true;
    }

    private static SwapRow Row(BenchRecord record) =>
        new(
            record,
            record.Body is SwapTrial swap
                ? swap
                    .Out.Select((part, n) => (Part: part.Value, With: n < swap.Gear.Count ? swap.Gear[n].Name : "another"))
                    .ToDictionary(x => x.Part, x => x.With)
                : new Dictionary<string, string>()
        );
}
