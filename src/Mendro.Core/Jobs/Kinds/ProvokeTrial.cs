using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>A function was watched while the unit was pressed, flexed or warmed.</summary>
/// <param name="Function">Function watched.</param>
/// <param name="How">What was done.</param>
/// <param name="Changed">True when it came or went.</param>
[RecordKind("provoke")]
public sealed record ProvokeTrial(FunctionId Function, Provocation How, bool Changed) : RecordBody, IEvidenceEntryReader
{
    /// <inheritdoc/>
    public override string Subject => Function;

    /// <inheritdoc/>
    public override RecordSign Sign => Changed ? RecordSign.Bad : RecordSign.Good;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Looked;

    /// <summary>Watches a function of this model.</summary>
    /// <returns>The trial, or null when there is no such function.</returns>
    public static ProvokeTrial? Make(DeviceModel model, FunctionId function, Provocation how, bool changed) =>
        model.Profile.FindFunction(function) is { } found ? new ProvokeTrial(found.Id, how, changed) : null;

    /// <inheritdoc/>
    public override BenchEvent ToEvent(long id) => new Provoked(id, Function, How, Changed);

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"{Title(model, "")}: {(Changed ? "it changes" : "nothing changes")}";

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words) =>
        model.Profile.FindFunction(Function) is { } function ? MoveWords.ProvokeTitle(function, How) : Function;

    /// <inheritdoc/>
    public override string Value(DeviceModel model) => Changed ? "changes" : "no change";

    /// <inheritdoc/>
    public override AccessState After(DeviceModel model, AccessState before) =>
        How == Provocation.Flexed ? Further(before, AccessState.Open) : before;

    /// <inheritdoc/>
    public override double UsualMinutes(DeviceModel model) =>
        model.Profile.FindFunction(Function) is { } function ? MoveWords.ProvokeMinutes(function, How) : 0;

    /// <inheritdoc/>
    public override void Replay(IReplayBench bench)
    {
        if (bench.Model.Profile.FindFunction(Function) is { } function)
            bench.Provoke(function, How);
    }

    /// <inheritdoc/>
    public static Outcome<RecordBody>? FromEntry(EvidenceEntry entry, EntryContext context)
    {
        if (entry is not { Function: { } id, Provoked: { } how })
            return null;
        if (context.Model.Profile.FindFunction(id) is null)
            return Outcome<RecordBody>.Fail($"there is no function “{id}”.");
        return entry.Changed is { } changed
            ? Outcome<RecordBody>.Ok(new ProvokeTrial(id, how, changed))
            : Outcome<RecordBody>.Fail("with provoked goes “changed”: true or false.");
    }
}
