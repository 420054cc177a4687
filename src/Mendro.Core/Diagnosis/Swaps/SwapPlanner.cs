using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>One swap worth making: a function tried with one thing changed.</summary>
/// <param name="Function">Function to try.</param>
/// <param name="PartId">Part swapped out; <see cref="SwapPlanner.WholeUnit"/> for the unit itself.</param>
/// <param name="With">What stands in.</param>
/// <param name="ChanceItFails">Chance that the function still fails, 0 to 1.</param>
/// <param name="Bits">How much doubt about the culprit it takes away, in bits.</param>
/// <param name="IfWorks">Leading suspect when it works then.</param>
/// <param name="IfFails">Leading suspect when it still fails.</param>
public sealed record SwapProposal(
    DeviceFunction Function,
    PartId PartId,
    GearItem With,
    double ChanceItFails,
    double Bits,
    Suspect? IfWorks,
    Suspect? IfFails
);

/// <summary>
/// Plans swap trials: one thing at a time, everything in a failing set is suspect, everything in a passing set is
/// cleared. The most telling swap is the one with the greatest expected fall of the entropy of the blame.
/// </summary>
public static class SwapPlanner
{
    /// <summary>Stands for the unit itself, all that is not swapped piece by piece.</summary>
    public const string WholeUnit = "unit";

    private const double LeastBits = 0.02;

    /// <summary>Parts of a function's chain that can be swapped without a tool, in profile order.</summary>
    public static IReadOnlyList<Part> Swappable(DeviceModel model, FunctionId functionId)
    {
        var closure = model.Closure(functionId);
        return model.Profile.Parts.Where(p => closure.Contains(p.Id) && model.Library.FindPartKind(p.Kind)?.Swappable == true).ToList();
    }

    /// <summary>True for what comes out without a tool and of which a bench has another: its own gear, cells, adapters.</summary>
    public static bool ByHand(DeviceModel model, Part part) =>
        model.Library.FindPartKind(part.Kind) is { Swappable: true } kind
        && (kind.Gear || kind.Has(PartRole.Adapter) || kind.Has(PartRole.Pack) && !kind.Has(PartRole.Lithium));

    /// <summary>“It still fails with another piece in the place of a part”, the other piece being one that is known to work.</summary>
    public static FindingTemplate Spare(UnitCase unit, DeviceFunction target, Part part, IReadOnlyList<PartId> chain)
    {
        var template = unit.Swapped(target, new SwapTried(-1, target.Id, chain, false), -1, now: true);
        return template with { Leak = WithGear(unit, template.Leak, new GearItem("", "", part.Kind)) };
    }

    private static double WithGear(UnitCase unit, double leak, GearItem gear)
    {
        var kind = unit.Model.Library.FindPartKind(gear.Kind);
        var holds = (kind?.Modes ?? []).Aggregate(
            1 - leak,
            (p, mode) => p * (1 - GearWear.Prior(kind, mode, gear) * EvidenceWeights.Fails(mode))
        );
        return 1 - holds;
    }

    /// <summary>Parts that remain in the chain when some are swapped out.</summary>
    /// <param name="model">Model.</param>
    /// <param name="functionId">Function tried.</param>
    /// <param name="swappedOut">Part ids, or <see cref="WholeUnit"/>.</param>
    public static IReadOnlyList<PartId> Chain(DeviceModel model, FunctionId functionId, IReadOnlyCollection<PartId> swappedOut)
    {
        var closure = model.Closure(functionId);
        var pieces = Swappable(model, functionId).Select(p => p.Id).ToHashSet();
        return model
            .Profile.Parts.Where(p =>
                closure.Contains(p.Id) && !swappedOut.Contains(p.Id) && (pieces.Contains(p.Id) || !swappedOut.Contains(WholeUnit))
            )
            .Select(p => p.Id)
            .ToList();
    }

    /// <summary>Kind of gear that can stand in for a whole unit of this sort.</summary>
    public static string UnitKind(TradeLibrary library, DeviceKind kind) =>
        Standing(library, kind) ?? Standing(library, DeviceKind.Console) ?? "";

    private static string? Standing(TradeLibrary library, DeviceKind kind) =>
        library.PartKinds.FirstOrDefault(k => k.StandsFor?.Contains(kind) == true)?.Kind;

    /// <summary>The most telling swaps for the failing function worked on, best first.</summary>
    /// <param name="diagnosis">Diagnosis of the unit.</param>
    /// <param name="available">Gear at hand.</param>
    /// <param name="most">How many to propose.</param>
    public static IReadOnlyList<SwapProposal> Propose(UnitDiagnosis diagnosis, IReadOnlyList<GearItem> available, int most = 3)
    {
        if (diagnosis.Target is not { } target)
            return [];
        var unit = diagnosis.Case;
        var blame = new BlameShares(unit, target);
        var now = Entropy(unit, blame.Of(diagnosis.Posterior.Fault, out var unknown), unknown);
        var slots = Swappable(unit.Model, target.Id)
            .Select(p => (p.Id, p.Kind))
            .Append(((PartId)WholeUnit, UnitKind(unit.Model.Library, unit.Model.Profile.Kind)));
        var proposals = new List<SwapProposal>();
        foreach (var (partId, kind) in slots)
        {
            // Of the pieces of a kind the least worn one is taken.
            var tried = Tried(unit, target.Id, Chain(unit.Model, target.Id, [partId]));
            if (
                available.Where(g => g.Kind == kind && !tried.Contains(g.Id)).OrderBy(g => g.UsesSinceCleaning).FirstOrDefault()
                is not { } gear
            )
                continue;
            var template = Template(unit, target, partId, gear);
            var what = unit.WhatIf(diagnosis.Posterior, template);
            var works = what.ProbabilityAbsent;
            var yes = blame.Of(what.IfPresent, out var unknownYes);
            var no = blame.Of(what.IfAbsent, out var unknownNo);
            var bits = now - (1 - works) * Entropy(unit, yes, unknownYes) - works * Entropy(unit, no, unknownNo);
            if (bits < LeastBits)
                continue;
            proposals.Add(
                new SwapProposal(
                    target,
                    partId,
                    gear,
                    1 - works,
                    bits,
                    Leading(unit, what.IfAbsent, no),
                    Leading(unit, what.IfPresent, yes)
                )
            );
        }

        return proposals.OrderByDescending(p => p.Bits).Take(most).ToList();
    }

    /// <summary>Gear with which this very chain was tried since the last repair; again it would hardly tell more.</summary>
    private static HashSet<string> Tried(UnitCase unit, FunctionId functionId, IReadOnlyList<PartId> chain) =>
        unit
            .Events.Reverse()
            .TakeWhile(e => e is not RepairDone)
            .OfType<SwapTried>()
            .Where(s => s.FunctionId == functionId && s.Chain.SequenceEqual(chain))
            .SelectMany(s => s.Gear ?? [])
            .ToHashSet();

    private static FindingTemplate Template(UnitCase unit, DeviceFunction target, PartId partId, GearItem gear)
    {
        var template = unit.Swapped(target, new SwapTried(-1, target.Id, Chain(unit.Model, target.Id, [partId]), false, [gear.Id]), -1, now: true);
        if (unit.GearFaults(gear.Id).Count > 0)
            return template;
        // A piece that took no part yet is not in the network: its own chance to fail is one more leak.
        return template with { Leak = WithGear(unit, template.Leak, gear) };
    }

    /// <summary>Entropy of the blame by part, in bits; what is unknown counts as one more.</summary>
    private static double Entropy(UnitCase unit, double[] shares, double unknown)
    {
        var byPart = new Dictionary<string, double> { [""] = unknown };
        for (var f = 0; f < shares.Length; f++)
            if (shares[f] > 0)
                byPart[unit.Faults[f].Part.Id] = byPart.GetValueOrDefault(unit.Faults[f].Part.Id) + shares[f];
        var total = byPart.Values.Sum();
        return -byPart.Values.Where(s => s > 0).Sum(s => s / total * Math.Log2(s / total));
    }

    private static Suspect? Leading(UnitCase unit, Func<int, double> posterior, double[] shares) =>
        Enumerable
            .Range(0, shares.Length)
            .OrderByDescending(f => shares[f])
            .Take(1)
            .Where(f => shares[f] > 0.02)
            .Select(f => new Suspect(f, unit.Faults[f], posterior(unit.UncuredPiece(f)), shares[f]))
            .FirstOrDefault();
}
