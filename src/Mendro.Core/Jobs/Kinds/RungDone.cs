using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>A rung of a cleaning ladder was gone on a contact. A rung that is a method of the library counts as that repair.</summary>
/// <param name="Part">Part cleaned.</param>
/// <param name="Ladder">Ladder.</param>
/// <param name="Rung">Rung.</param>
/// <param name="SwabClean">True when the swab came off clean in the end.</param>
/// <param name="Works">Whether the function works now; null when it was not tried.</param>
[RecordKind("rung")]
public sealed record RungDone(PartId Part, string Ladder, string Rung, bool SwabClean, bool? Works = null) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => Part;

    /// <inheritdoc/>
    public override RecordSign Sign => RecordSign.Done;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Repaired;

    /// <inheritdoc/>
    public override BenchEvent? ToEvent(long id) => Known?.Method is { } method ? new RepairDone(id, Part, method, Held: SwabClean) : null;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"{Known?.Name ?? Rung} ({MoveWords.Lower(model.Profile.FindPart(Part)?.Name ?? Part)}): swab {(SwabClean ? "clean" : "still dirty")}";

    /// <inheritdoc/>
    public override double UsualMinutes(DeviceModel model) => Known?.Minutes ?? 0;

    /// <inheritdoc/>
    public override void Replay(IReplayBench bench)
    {
        if (Known?.Method is { } method)
            bench.Repair(Part, method);
    }

    private LadderRung? Known =>
        TradeLibrary.Shipped.Ladders.FirstOrDefault(l => l.Id == Ladder)?.Rungs.FirstOrDefault(r => r.Id == Rung);
}
