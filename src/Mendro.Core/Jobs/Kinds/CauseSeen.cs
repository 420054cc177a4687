using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>A cause was seen with one's own eyes, or ruled out that way.</summary>
/// <param name="Part">Part.</param>
/// <param name="Mode">Failure mode.</param>
/// <param name="Present">True when it is the cause, false when it is ruled out.</param>
[RecordKind("cause")]
public sealed record CauseSeen(PartId Part, string Mode, bool Present) : RecordBody, IEvidenceEntryReader
{
    /// <inheritdoc/>
    public override string Subject => Part;

    /// <inheritdoc/>
    public override RecordSign Sign => Present ? RecordSign.Bad : RecordSign.Good;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Looked;

    /// <summary>A cause in a part of this model.</summary>
    /// <returns>The cause, or null when the part has no such failure mode.</returns>
    public static CauseSeen? Make(DeviceModel model, PartId part, string mode, bool present) =>
        model.FaultsOf(part).Any(i => model.Faults[i].Mode.Id == mode) ? new CauseSeen(part, mode, present) : null;

    /// <inheritdoc/>
    public override BenchEvent ToEvent(long id) => new CauseConfirmed(id, Part, Mode, Present);

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"{(Present ? "Cause seen" : "Ruled out")}: {Fault(model)}";

    /// <summary>Part and failure mode in words.</summary>
    public string Fault(DeviceModel model)
    {
        var fault = model.FaultsOf(Part).Where(i => model.Faults[i].Mode.Id == Mode).Select(i => model.Faults[i]).FirstOrDefault();
        return fault?.Words ?? $"{model.Profile.FindPart(Part)?.Name ?? Part}, {Mode}";
    }

    /// <inheritdoc/>
    public static Outcome<RecordBody>? FromEntry(EvidenceEntry entry, EntryContext context)
    {
        if (entry is not { Part: { } part, Method: null, Function: null, Swap: null, Probe: null, Mark: null })
            return null;
        if (context.Model.Profile.FindPart(part) is null)
            return Outcome<RecordBody>.Fail($"there is no part “{part}”.");
        if (entry.Cause is not { } cause)
            return Outcome<RecordBody>.Fail("with a part goes a method that was done or a cause that was seen.");
        return Make(context.Model, part, cause, entry.Present ?? true) is { } made
            ? Outcome<RecordBody>.Ok(made)
            : Outcome<RecordBody>.Fail($"“{part}” has no failure mode “{cause}”.");
    }
}
