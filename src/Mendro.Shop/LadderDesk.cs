using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A contact on its ladder.</summary>
/// <param name="Part">Part.</param>
/// <param name="Ladder">Its ladder.</param>
/// <param name="Gone">Rungs gone, over all jobs of the unit.</param>
/// <param name="State">What to do next.</param>
public sealed record PartOnLadder(Part Part, ContactLadder Ladder, IReadOnlyList<RungGone> Gone, LadderState State);

/// <summary>Cleans contacts rung by rung.</summary>
public sealed class LadderDesk(JobBench bench, BenchRecordStore records, RunDesk runs, TradeLibrary library, TimeProvider time)
{
    /// <summary>Where a part stands, or null when there is no ladder for it.</summary>
    /// <param name="job">Job.</param>
    /// <param name="profile">Model of the unit.</param>
    /// <param name="partId">Part.</param>
    /// <param name="condition">Condition seen, or null.</param>
    /// <param name="noFurther">Last rung that is gone, or null.</param>
    public PartOnLadder? Find(Job job, DeviceProfile profile, PartId partId, string? condition, string? noFurther)
    {
        if (profile.FindPart(partId) is not { } part || library.FindLadder(part.Kind) is not { } ladder)
            return null;
        var gone = records
            .OfUnit(job, RecordKinds.KeyOf(typeof(RungDone)))
            .Where(r => r.Body is RungDone rung && rung.Part == partId && rung.Ladder == ladder.Id)
            .Select(r => (r.JobId, Rung: (RungDone)r.Body))
            .Select(r => new RungGone(r.Rung.Rung, r.Rung.SwabClean, r.Rung.Works, r.JobId == job.Id))
            .ToList();
        return new PartOnLadder(part, ladder, gone, LadderClimb.Of(ladder, condition, gone, Residue(job, ladder), noFurther));
    }

    /// <summary>A rung was gone.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="partId">Part.</param>
    /// <param name="rungId">Rung.</param>
    /// <param name="swabClean">True when the swab came off clean.</param>
    /// <param name="works">Whether the function worked on works now; null when it was not tried.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Go(long number, PartId partId, string rungId, bool swabClean, bool? works, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (job.Model.Profile.FindPart(partId) is not { } part || library.FindLadder(part.Kind) is not { } ladder)
                    return Refusal.Missing;
                if (ladder.Rungs.FirstOrDefault(r => r.Id == rungId) is not { } rung)
                    return Refusal.Missing;
                if (Residue(job.Job, ladder) is [var left, ..])
                    return Refusal.Invalid($"{left.Name} is still on it: take all of it off first, and note it.");
                if (rung.Agent is { } agent)
                {
                    var put = new SequenceStep(agent, ladder.Surface);
                    if (runs.Before(job.Job, [put]).Stops is [var stop, ..])
                        return Refusal.Invalid(stop.Reason);
                    bench.File(job, new MaterialUsed(put, partId), WorkStage.Fix);
                }

                var target = works is null ? null : bench.Target(job);
                var filed = bench.File(job, new RungDone(partId, ladder.Id, rungId, swabClean, works), WorkStage.Fix);
                List<JobStep> steps = [JobStep.Repaired];
                if (target is not null && FunctionTrial.Make(job.Model, target.Id, works == true, null) is { } trial)
                {
                    bench.File(job, trial, WorkStage.Fix);
                    steps.Add(trial.Step);
                }

                bench.Settle(job, steps);
                return new Done(filed.Words);
            }
        );

    /// <summary>What a rung left was taken off.</summary>
    public Deed<Done> TakeOff(long number, PartId partId, string agentId, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (job.Model.Profile.FindPart(partId) is not { } part || library.FindLadder(part.Kind) is not { } ladder)
                    return Refusal.Missing;
                var off = new SequenceStep(agentId, ladder.Surface);
                if (MaterialLibrary.Shipped.FindAgent(agentId) is null)
                    return Refusal.Missing;
                return runs.Before(job.Job, [off]).Stops is [var stop, ..]
                    ? Refusal.Invalid(stop.Reason)
                    : new Done(bench.File(job, new MaterialUsed(off, partId), WorkStage.Fix, r => r with { Minutes = 1 }).Words);
            }
        );

    private IReadOnlyList<MaterialAgent> Residue(Job job, ContactLadder ladder) =>
        MaterialCheck.Residue(UnitMaterials.Sequence(runs.OnUnit(job), time.GetUtcNow()), ladder.Surface, MaterialLibrary.Shipped);
}
