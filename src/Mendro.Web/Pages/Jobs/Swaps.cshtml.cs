using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>One place of the chain that can be swapped.</summary>
/// <param name="Id">Part id, or <see cref="SwapPlanner.WholeUnit"/>.</param>
/// <param name="Name">Heading.</param>
/// <param name="Choices">What can stand in.</param>
public sealed record SwapSlot(string Id, string Name, IReadOnlyList<StandIn> Choices);

/// <summary>A row of the matrix: what stood where, and what came of it.</summary>
/// <param name="Record">The record.</param>
/// <param name="StandIns">Name of the stand-in by slot; a missing slot held the unit's own.</param>
public sealed record SwapRow(BenchRecord Record, IReadOnlyDictionary<string, string> StandIns);

/// <summary>Swap trials: one thing at a time, in a small matrix.</summary>
public sealed class SwapsModel(
    JobStore jobs, BenchRecordStore records, BenchDesk desk, GearStore gear, ModelShelf shelf, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
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

    /// <summary>Why nothing may be filed, or null.</summary>
    public string? LockedBecause => Locked() ?? (View.Job.PracticeSeed is not null ? "A practice unit has no gear to swap." : null);

    /// <summary>Gear that took part, with the chance that it is at fault.</summary>
    public IEnumerable<(string Name, double Chance)> GearChances => View.Diagnosis is not { } diagnosis ? [] : diagnosis.Case.Context.Gear!
        .Select(g => (g.Name, 1 - diagnosis.Case.GearFaults(g.Id).Aggregate(1.0, (p, f) => p * (1 - diagnosis.Posterior.Fault(diagnosis.Case.UncuredPiece(f))))))
        .OrderByDescending(g => g.Item2);

    /// <summary>Shows the matrix; a proposal fills the last row in.</summary>
    public IActionResult OnGet(string? function, string? slot, string? with)
    {
        if (!Prepare(function)) return NotFound();
        if (slot is not null && with is not null) Chosen = new Dictionary<string, string> { [slot] = with };
        return Page();
    }

    /// <summary>Files a trial.</summary>
    /// <param name="function">Function tried.</param>
    /// <param name="swap">Stand-in by slot; blank for the unit's own.</param>
    /// <param name="result">pass, fail or flicker.</param>
    public IActionResult OnPost(string? function, [FromForm(Name = "swap")] Dictionary<string, string?> swap, string? result)
    {
        if (!Prepare(function) || result is not ("pass" or "fail" or "flicker")) return NotFound();
        Chosen = swap.Where(s => !string.IsNullOrEmpty(s.Value)).ToDictionary(s => s.Key, s => s.Value!);
        if (LockedBecause is { } locked) return Refuse(locked);
        var swaps = Chosen.Select(s => (Slot: new PartId(s.Key), With: Slots.FirstOrDefault(x => x.Id == s.Key)?.Choices.FirstOrDefault(c => c.Id == s.Value))).ToList();
        if (swaps.Any(s => s.With is null)) return NotFound();
        if (swaps.Count == 0)
        {
            // Nothing swapped is the unit's own set: that is the plain trial of the function.
            Records.Add(Maker(WorkStage.Find).Function(Function.Id, result == "pass", result == "flicker" ? "pressed" : null, result == "flicker" ? "comes and goes" : "")! with { JobId = View.Job.Id });
        }
        else
        {
            var detail = new SwapDetail(SwapPlanner.Chain(View.Model, Function.Id, swaps.Select(s => s.Slot).ToList()), swaps.Select(s => s.Slot).ToList(), swaps.Select(s => s.With!).ToList());
            Records.Add(Maker(WorkStage.Find).Swap(Function.Id, detail, result)! with { JobId = View.Job.Id });
        }

        AtLeast(WorkStage.Find);
        return Redirect($"/Jobs/{Number}/Swaps?function={Function.Id}");
    }

    /// <summary>Takes a trial back.</summary>
    public IActionResult OnPostWithdraw(long id, string? function)
    {
        if (!Load()) return NotFound();
        if (LockedBecause is null && !Records.Withdraw(View.Job.Id, id)) return NotFound();
        TempData["Said"] = "Withdrawn. Find can bring it back.";
        return Redirect($"/Jobs/{Number}/Swaps?function={function}");
    }

    private bool Prepare(string? functionId)
    {
        if (!Load()) return false;
        var wanted = functionId is null ? View.Diagnosis?.Target ?? View.Profile.Functions[0] : View.Profile.FindFunction(functionId);
        if (wanted is null) return false;
        Function = wanted;
        var pieces = gear.InUse();
        var others = Jobs.Live().Where(j => j.Id != View.Job.Id).ToList();
        StandIn Piece(Gear g) => new(Gear.EngineId(g.Id), g.Name, g.Kind);
        List<StandIn> Units(Func<DeviceKind, bool> fits, string kind) => others.Where(j => fits(shelf.Get(j.ProfileId, j.ProfileVersion).Profile.Kind))
            .Select(j => new StandIn($"job{j.Number}", $"unit {j.Tag}", kind)).ToList();
        var slots = SwapPlanner.Swappable(View.Model, wanted.Id).Select(p => new SwapSlot(p.Id, p.Name,
            [.. pieces.Where(g => g.Kind == p.Kind).Select(Piece),
             .. Library.FindPartKind(p.Kind) is { Gear: true, StandsFor: { } fits } ? Units(fits.Contains, p.Kind) : []])).ToList();
        var unitKind = SwapPlanner.UnitKind(Library, View.Profile.Kind);
        Slots = [new SwapSlot(SwapPlanner.WholeUnit, "This unit", [.. pieces.Where(g => g.Kind == unitKind).Select(Piece), .. Units(k => k == View.Profile.Kind, unitKind)]), .. slots];
        Rows = View.Records.Where(r => r.Subject == wanted.Id && r.Kind is (RecordKind.Swap or RecordKind.Function)).Select(r => new SwapRow(r,
            r.Kind == RecordKind.Function ? new Dictionary<string, string>()
            : SwapDetail.Read(r.Detail) is var detail ? detail.Out.Zip(detail.Gear).ToDictionary(x => x.First.Value, x => x.Second.Name) : new Dictionary<string, string>())).ToList();
        Proposals = View.Diagnosis is { } diagnosis && diagnosis.Target == wanted ? SwapPlanner.Propose(diagnosis, pieces.Select(p => p.ToItem()).ToList()) : [];
        return true;
    }
}
