using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>How a swap trial went.</summary>
public enum SwapResult
{
    /// <summary>It works with this set.</summary>
    Pass,

    /// <summary>It fails with this set.</summary>
    Fail,

    /// <summary>It comes and goes with this set.</summary>
    Flicker,
}

/// <summary>A function was tried with something swapped.</summary>
/// <param name="Function">Function tried.</param>
/// <param name="Result">How it went.</param>
/// <param name="Chain">Parts of the profile that stayed in the chain.</param>
/// <param name="Out">Parts swapped out; <see cref="SwapPlanner.WholeUnit"/> for the unit itself.</param>
/// <param name="Gear">What stood in for them, in the same order.</param>
[RecordKind("swap")]
public sealed record SwapTrial(
    FunctionId Function,
    SwapResult Result,
    IReadOnlyList<PartId> Chain,
    IReadOnlyList<PartId> Out,
    IReadOnlyList<SwapPiece> Gear
) : RecordBody, IEvidenceEntryReader
{
    /// <inheritdoc/>
    public override string Subject => Function;

    /// <inheritdoc/>
    public override RecordSign Sign => Result == SwapResult.Pass ? RecordSign.Good : RecordSign.Bad;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Looked;

    /// <inheritdoc/>
    public override IReadOnlyList<SwapPiece> Pieces => Gear;

    /// <inheritdoc/>
    public override BenchEvent ToEvent(long id) =>
        new SwapTried(id, Function, Chain, Result == SwapResult.Pass, Gear.Select(g => g.Id).ToList(), Result == SwapResult.Flicker);

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"{Title(model, "")}: {Value(model)}";

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words)
    {
        // On a practice unit no piece of the shop stands in, but one that works.
        var swaps = Out.Select(
            (part, n) => $"{model.Profile.FindPart(part)?.Name ?? "this unit"} → {(n < Gear.Count ? Gear[n].Name : "another")}"
        );
        return $"{model.Profile.FindFunction(Function)?.Name ?? Function} with {string.Join(", ", swaps)}";
    }

    /// <inheritdoc/>
    public override string Value(DeviceModel model) =>
        Result switch
        {
            SwapResult.Pass => "works",
            SwapResult.Flicker => "comes and goes",
            _ => "fails",
        };

    /// <inheritdoc/>
    public override string Small(DeviceModel model, BenchRecord record) => "swap trial";

    /// <inheritdoc/>
    public override void Replay(IReplayBench bench)
    {
        if (bench.Model.Profile.FindFunction(Function) is { } function && Out is [var part])
            bench.Swap(function, part);
    }

    /// <inheritdoc/>
    public override double UsualMinutes(DeviceModel model) => (model.Profile.FindFunction(Function)?.Minutes ?? 0) + 1;

    /// <inheritdoc/>
    public static Outcome<RecordBody>? FromEntry(EvidenceEntry entry, EntryContext context)
    {
        if (entry is not { Swap: { } id, Function: null })
            return null;
        if (context.Model.Profile.FindFunction(id) is null)
            return Outcome<RecordBody>.Fail($"there is no function “{id}”.");
        if (!Enum.TryParse<SwapResult>(entry.Result, ignoreCase: true, out var result) || !char.IsLetter(entry.Result![0]))
            return Outcome<RecordBody>.Fail("result must be “pass” or “fail”, of a swap also “flicker”.");
        var chain = entry.Chain ?? [];
        if (chain.Any(p => context.Model.Profile.FindPart(p) is null))
            return Outcome<RecordBody>.Fail($"there is no part “{chain.First(p => context.Model.Profile.FindPart(p) is null)}”.");
        var gear = entry.Gear ?? [];
        if (gear.FirstOrDefault(g => context.Gear.All(known => known.Id != g)) is { } missing)
            return Outcome<RecordBody>.Fail($"gear names no “{missing}”.");
        var pieces = gear.Select(g => context.Gear.First(known => known.Id == g))
            .Select(g => new SwapPiece(g.Id, g.Name ?? g.Id, g.Kind))
            .ToList();
        return Outcome<RecordBody>.Ok(new SwapTrial(id, result, chain, [], pieces));
    }
}
