using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>A condition mark was noted at intake.</summary>
/// <param name="Mark">Mark of the library.</param>
[RecordKind("mark")]
public sealed record MarkNoted(string Mark) : RecordBody, IEvidenceEntryReader
{
    /// <inheritdoc/>
    public override string Subject => Mark;

    /// <inheritdoc/>
    public override bool IsSymptom => true;

    /// <summary>A mark of the library.</summary>
    /// <returns>The mark, or null when there is no such one.</returns>
    public static MarkNoted? Make(TradeLibrary library, string mark) =>
        library.FindMark(mark) is { } found ? new MarkNoted(found.Id) : null;

    /// <inheritdoc/>
    public override BenchEvent ToEvent(long id) => new MarkSeen(id, Mark);

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"Seen at intake: {model.Library.FindMark(Mark)?.Name ?? Mark}";

    /// <inheritdoc/>
    public static Outcome<RecordBody>? FromEntry(EvidenceEntry entry, EntryContext context)
    {
        if (entry is not { Mark: { } mark, Function: null, Swap: null, Probe: null })
            return null;
        return context.Model.Library.FindMark(mark) is null
            ? Outcome<RecordBody>.Fail($"the library has no condition mark “{mark}”.")
            : Outcome<RecordBody>.Ok(new MarkNoted(mark));
    }
}
