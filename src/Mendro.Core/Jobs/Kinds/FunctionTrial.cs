using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>A function was tried, once or several times with the same result.</summary>
/// <param name="Function">Function.</param>
/// <param name="Passed">True when it worked.</param>
/// <param name="Look">Look of the failure, when told.</param>
/// <param name="Starts">How many times in a row, 1 or more.</param>
[RecordKind("function")]
public sealed record FunctionTrial(FunctionId Function, bool Passed, string? Look = null, int Starts = 1) : RecordBody, IEvidenceEntryReader
{
    private const int MostStarts = 1000;

    /// <inheritdoc/>
    public override string Subject => Function;

    /// <inheritdoc/>
    public override RecordSign Sign => Passed ? RecordSign.Good : RecordSign.Bad;

    /// <inheritdoc/>
    public override JobStep Step => Passed ? JobStep.Looked : JobStep.FailureFound;

    /// <inheritdoc/>
    public override bool IsSymptom => !Passed;

    /// <summary>A trial of a function of this model; a look that its kind does not have is left out.</summary>
    /// <returns>The trial, or null when there is no such function.</returns>
    public static FunctionTrial? Make(DeviceModel model, FunctionId function, bool passed, string? look = null, int starts = 1) =>
        model.Profile.FindFunction(function) is { } found
            ? new FunctionTrial(found.Id, passed, !passed && model.HasLook(found, look) ? look : null, starts)
            : null;

    /// <inheritdoc/>
    public override BenchEvent ToEvent(long id) => new FunctionTried(id, Function, Passed, Look, Math.Max(1, Starts));

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"{Name(model)}: {Outcome(model)}{(Starts > 1 ? FormattableString.Invariant($", {Starts} times running") : "")}";

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words) => Name(model);

    /// <inheritdoc/>
    public override string Value(DeviceModel model) => Outcome(model) + (Starts > 1 ? FormattableString.Invariant($" ×{Starts}") : "");

    /// <inheritdoc/>
    public override string Small(DeviceModel model, BenchRecord record) =>
        record.Stage == WorkStage.Intake ? "baseline" : StageWords.Name(record.Stage).ToLowerInvariant();

    /// <inheritdoc/>
    public override double UsualMinutes(DeviceModel model) => (model.Profile.FindFunction(Function)?.Minutes ?? 0) * Starts;

    /// <inheritdoc/>
    public override void Replay(IReplayBench bench)
    {
        if (bench.Model.Profile.FindFunction(Function) is { } function)
            bench.Try(function);
    }

    /// <summary>Look of the failure in words, or <c>fails</c>; <c>works</c> for a pass.</summary>
    public string Outcome(DeviceModel model)
    {
        if (Passed)
            return "works";
        var kind = model.Profile.FindFunction(Function)?.Kind ?? "";
        return model.Library.FindLook(kind, Look)?.Name ?? "fails";
    }

    /// <inheritdoc/>
    public static Outcome<RecordBody>? FromEntry(EvidenceEntry entry, EntryContext context)
    {
        if (entry is not { Function: { } id, Provoked: null })
            return null;
        if (context.Model.Profile.FindFunction(id) is not { } function)
            return Outcome<RecordBody>.Fail($"there is no function “{id}”.");
        if (entry.Result is not ("pass" or "fail"))
            return Outcome<RecordBody>.Fail("result must be “pass” or “fail”, of a swap also “flicker”.");
        if (entry.Look is { } look && !context.Model.HasLook(function, look))
            return Outcome<RecordBody>.Fail($"“{function.Name}” has no look “{look}”.");
        if (entry.Starts is < 1 or > MostStarts)
            return Outcome<RecordBody>.Fail(FormattableString.Invariant($"starts must be 1 to {MostStarts}."));
        return Outcome<RecordBody>.Ok(new FunctionTrial(id, entry.Result == "pass", entry.Look, entry.Starts ?? 1));
    }

    private string Name(DeviceModel model) => model.Profile.FindFunction(Function)?.Name ?? Function;
}
