using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>A group of capacitors was renewed, polarity looked at a second time.</summary>
/// <param name="Board">Board.</param>
/// <param name="Refdes">Positions on it.</param>
/// <param name="Part">Part of the profile they belong to; null when the model has none for them.</param>
/// <param name="Method">Method it counts as; null with <paramref name="Part"/>.</param>
[RecordKind("capacitors-fitted")]
public sealed record CapacitorsFitted(string Board, IReadOnlyList<string> Refdes, PartId? Part = null, MethodId? Method = null) : RecordBody
{
    /// <inheritdoc/>
    public override string Subject => Part?.Value ?? Board;

    /// <inheritdoc/>
    public override RecordSign Sign => RecordSign.Done;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Repaired;

    /// <inheritdoc/>
    public override BenchEvent? ToEvent(long id) => this is { Part: { } part, Method: { } method } ? new RepairDone(id, part, method) : null;

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) =>
        $"New capacitors, {MoveWords.Lower(model.Profile.FindBoard(Board)?.Name ?? Board)}: {string.Join(" ", Refdes)}";

    /// <inheritdoc/>
    public override string Small(DeviceModel model, BenchRecord record) =>
        string.Create(CultureInfo.InvariantCulture, $"{record.Minutes:0.#}\u00A0min");

    /// <inheritdoc/>
    public override AccessState After(DeviceModel model, AccessState before) => Further(before, AccessState.BoardOut);
}
