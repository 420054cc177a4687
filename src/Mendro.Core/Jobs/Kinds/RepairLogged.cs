using Mendro.Core.Dismantling;
using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>A method was carried out on a part.</summary>
/// <param name="Part">Part treated.</param>
/// <param name="Method">Method of the library.</param>
/// <param name="Used">Parts and materials used, in words.</param>
/// <param name="Claimed">True when the owner says that it was done; null for own work.</param>
/// <param name="Held">What the check at the method's end said, where no probe of the model says it; null when it was not told.</param>
/// <param name="Originals">Where the original parts are kept; null when it was not said.</param>
[RecordKind("repair")]
public sealed record RepairLogged(PartId Part, MethodId Method, string Used = "", bool? Claimed = null, bool? Held = null, string? Originals = null)
    : RecordBody, IEvidenceEntryReader
{
    /// <inheritdoc/>
    public override string Subject => Part;

    /// <inheritdoc/>
    public override RecordSign Sign => RecordSign.Done;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Repaired;

    /// <summary>A method on a part of this model.</summary>
    /// <returns>The repair, or null when the method does not go with the part.</returns>
    public static RepairLogged? Make(DeviceModel model, PartId part, MethodId method, string used = "") =>
        model.Profile.FindPart(part) is { } found
        && model.Library.FindMethod(method) is { } known
        && known.Cures.Any(c => c.Kind == found.Kind || c.Kind == "*")
            ? new RepairLogged(found.Id, known.Id, used)
            : null;

    /// <summary>The repair as it is filed: a method done in one go with others as those it consists of, each on its own part.</summary>
    public IReadOnlyList<RepairLogged> InOneGo(DeviceModel model) =>
        model.Profile.FindPart(Part) is { } part && model.Library.FindMethod(Method) is { Together: not null } method
            ? model.InOneGo(part, method).Select((x, n) => this with { Part = x.Part.Id, Method = x.Method.Id, Used = n == 0 ? Used : "" }).ToList()
            : [this];

    /// <inheritdoc/>
    public override BenchEvent ToEvent(long id) => new RepairDone(id, Part, Method, Claimed == true, Held);

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"{model.Library.FindMethod(Method)?.Name ?? Method} ({model.Profile.FindPart(Part)?.Name ?? Part})"
        + (Held is { } held && model.Library.FindMethod(Method)?.Check is { } check ? $": {(held ? check.Good : check.Bad)}" : "");

    /// <inheritdoc/>
    public override string Small(DeviceModel model, BenchRecord record) =>
        string.Create(CultureInfo.InvariantCulture, $"{record.Minutes:0.#}\u00A0min");

    /// <inheritdoc/>
    public override AccessState After(DeviceModel model, AccessState before) =>
        Further(before, model.Library.FindMethod(Method)?.State ?? AccessState.Closed);

    /// <inheritdoc/>
    public override Apart After(DeviceModel model, Apart before) =>
        model.Library.FindMethod(Method) is { } method
            ? model.Disassembly.After(before, model.Disassembly.Goal(Part, method.State))
            : before;

    /// <inheritdoc/>
    public override double UsualMinutes(DeviceModel model) => model.Library.FindMethod(Method)?.Minutes ?? 0;

    /// <inheritdoc/>
    public override void Replay(IReplayBench bench) => bench.Repair(Part, Method);

    /// <inheritdoc/>
    public static Outcome<RecordBody>? FromEntry(EvidenceEntry entry, EntryContext context)
    {
        if (entry is not { Part: { } part, Method: { } method, Function: null, Swap: null, Probe: null, Mark: null })
            return null;
        if (context.Model.Profile.FindPart(part) is null)
            return Outcome<RecordBody>.Fail($"there is no part “{part}”.");
        return context.Model.Library.FindMethod(method) is null
            ? Outcome<RecordBody>.Fail($"the library has no method “{method}”.")
            : Outcome<RecordBody>.Ok(new RepairLogged(part, method, "", entry.Claimed == true ? true : null, entry.Held));
    }
}
