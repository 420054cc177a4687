using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Jobs;

/// <summary>One entry of <c>mendro.evidence/1</c>; which members are there says of what kind it is.</summary>
public sealed record EvidenceEntry(
    FunctionId? Function,
    FunctionId? Swap,
    IReadOnlyList<PartId>? Chain,
    IReadOnlyList<string>? Gear,
    string? Result,
    string? Look,
    int? Starts,
    Provocation? Provoked,
    bool? Changed,
    ProbeId? Probe,
    string? Reading,
    string? Mark,
    PartId? Part,
    MethodId? Method,
    string? Cause,
    bool? Present,
    bool? Claimed = null,
    string? Grade = null,
    string? Place = null,
    bool? Held = null
);

/// <summary>What an entry is read against.</summary>
/// <param name="Model">Model of the unit.</param>
/// <param name="Gear">Gear that the file names.</param>
public sealed record EntryContext(DeviceModel Model, IReadOnlyList<GearItem> Gear);

/// <summary>A kind of record that an evidence file can hold.</summary>
public interface IEvidenceEntryReader
{
    /// <summary>Reads an entry.</summary>
    /// <returns>What it says or why it cannot be read; null when it is of another kind.</returns>
    static abstract Outcome<RecordBody>? FromEntry(EvidenceEntry entry, EntryContext context);
}
