using Mendro.Core.Dismantling;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;

namespace Mendro.Core.Jobs;

/// <summary>A probe was taken: the reading with its unit, and how it was judged then.</summary>
/// <param name="Probe">Probe.</param>
/// <param name="Outcome">What it showed.</param>
/// <param name="Reading">The reading as understood; null when only good or bad was told.</param>
/// <param name="Verdict">Verdict in words.</param>
/// <param name="Reason">Why, in a sentence; empty for nothing to add.</param>
/// <param name="Caution">Caution that the reading calls for, or null.</param>
/// <param name="On">Position of the switch, when one was told.</param>
/// <param name="Degree">How far the reading is off.</param>
[RecordKind("probe")]
public sealed record ProbeReading(
    ProbeId Probe,
    ProbeOutcome Outcome,
    Reading? Reading,
    string Verdict,
    string Reason = "",
    string? Caution = null,
    bool? On = null,
    ReadingDegree? Degree = null
) : RecordBody, IEvidenceEntryReader
{
    /// <inheritdoc/>
    public override string Subject => Probe;

    /// <inheritdoc/>
    public override RecordSign Sign => Outcome == ProbeOutcome.Normal ? RecordSign.Good : RecordSign.Bad;

    /// <inheritdoc/>
    public override JobStep Step => JobStep.Looked;

    /// <inheritdoc/>
    public override string? Stop => Caution;

    /// <inheritdoc/>
    public override string UsualNote => Reason;

    /// <summary>True when a meter gave a value, or over range; words and beeps are none.</summary>
    public bool IsMetered => Reading is { Unit: not (ReadingUnit.Word or ReadingUnit.Beep) };

    /// <summary>The reading as the bench writes it.</summary>
    public string Shown => Reading?.ToString() ?? (Outcome == ProbeOutcome.Normal ? "good" : "not good");

    /// <summary>A reading as it was judged.</summary>
    public static ProbeReading Of(Probe probe, JudgedReading judged) =>
        new(
            probe.Id,
            judged.Outcome,
            judged.Reading,
            judged.Words,
            judged.Reason,
            judged.Stop,
            judged.On,
            judged.Degree == ReadingDegree.Untold ? null : judged.Degree
        );

    /// <summary>A probe that told only good or bad, as a practice unit does.</summary>
    public static ProbeReading Told(Probe probe, ProbeOutcome outcome) =>
        new(probe.Id, outcome, null, outcome == ProbeOutcome.Normal ? MoveWords.GoodAnswer(probe) : MoveWords.BadAnswer(probe));

    /// <inheritdoc/>
    public override BenchEvent ToEvent(long id) => new ProbeTaken(id, Probe, Outcome, Reading?.Word, On, Degree ?? ReadingDegree.Untold);

    /// <inheritdoc/>
    public override string Describe(DeviceModel model) => $"{Title(model, "")}: {(Reading is null ? Verdict : $"{Reading}, {Verdict}")}";

    /// <inheritdoc/>
    public override string Title(DeviceModel model, string words) => model.Profile.FindProbe(Probe)?.Name ?? Probe;

    /// <inheritdoc/>
    public override string Value(DeviceModel model) => Shown;

    /// <inheritdoc/>
    public override string Small(DeviceModel model, BenchRecord record) =>
        model.Profile.FindProbe(Probe)?.Kind.ToString().ToLowerInvariant() ?? "";

    /// <inheritdoc/>
    public override AccessState After(DeviceModel model, AccessState before) =>
        Further(before, model.Profile.FindProbe(Probe)?.State ?? AccessState.Closed);

    /// <inheritdoc/>
    public override Apart After(DeviceModel model, Apart before) =>
        model.Profile.FindProbe(Probe) is { } probe ? model.Disassembly.After(before, model.Disassembly.Goal(probe)) : before;

    /// <inheritdoc/>
    public override double UsualMinutes(DeviceModel model) => model.Profile.FindProbe(Probe)?.Minutes ?? 0;

    /// <inheritdoc/>
    public override void Replay(IReplayBench bench)
    {
        if (bench.Model.Profile.FindProbe(Probe) is { } probe)
            bench.Measure(probe);
    }

    /// <inheritdoc/>
    public static Outcome<RecordBody>? FromEntry(EvidenceEntry entry, EntryContext context)
    {
        if (entry is not { Probe: { } id, Function: null, Swap: null })
            return null;
        if (context.Model.Profile.FindProbe(id) is not { } probe)
            return Outcome<RecordBody>.Fail($"there is no probe “{id}”.");
        var judged = ReadingJudge.Judge(context.Model.Profile, probe, entry.Reading);
        return judged.IsOk ? Outcome<RecordBody>.Ok(Of(probe, judged.Value)) : Outcome<RecordBody>.Fail(judged.Problem);
    }
}
