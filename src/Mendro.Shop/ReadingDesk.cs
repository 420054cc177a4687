using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>An entry was filed.</summary>
/// <param name="Record">Id of its record.</param>
public sealed record FiledEntry(long Record);

/// <summary>A reading as it arrives at the bar.</summary>
/// <param name="Job">Number of the job.</param>
/// <param name="Probe">Probe.</param>
/// <param name="Text">What was typed or metered.</param>
/// <param name="Corrects">Record that it corrects, or null.</param>
/// <param name="Metered">True when the meter gave it.</param>
public sealed record ReadingOrder(long Job, ProbeId Probe, string Text, long? Corrects = null, bool Metered = false);

/// <summary>The trial of a function.</summary>
/// <param name="Job">Number of the job.</param>
/// <param name="Function">Function.</param>
/// <param name="Passed">True when it worked.</param>
/// <param name="Look">Look of the failure, when told.</param>
/// <param name="Starts">How many times running with this result, 1 to 100.</param>
/// <param name="Corrects">Record that it corrects, or null.</param>
/// <param name="Proving">True when it is tried to prove it.</param>
public sealed record TrialOrder(
    long Job,
    FunctionId Function,
    bool Passed,
    string? Look = null,
    int Starts = 1,
    long? Corrects = null,
    bool Proving = false
);

/// <summary>Readings, trials and what pressing did: filed, corrected, undone.</summary>
public sealed class ReadingDesk(JobBench bench, BenchRecordStore records, PracticeDesk practice, PartsBack parts)
{
    /// <summary>Most starts filed in one entry.</summary>
    public const int MostStarts = 100;

    /// <summary>Files a reading, or puts it in the place of another.</summary>
    public Deed<FiledEntry> Read(ReadingOrder order, string? once = null) =>
        bench.On<FiledEntry>(
            order.Job,
            once,
            job =>
            {
                if (job.Model.Profile.FindProbe(order.Probe) is not { } probe)
                    return Refusal.Missing;
                var judged = ReadingJudge.Judge(job.Model.Profile, probe, order.Text);
                if (job.Job.PracticeSeed is not null && !order.Metered)
                    return Refusal.Invalid("A practice unit answers by itself: take the reading.");
                if (!judged.IsOk)
                    return Refusal.Invalid(judged.Problem);
                if (job.Job.PracticeSeed is not null)
                    return practice.Do(job, unit => unit.Measure(probe), judged.Value);
                return File(job, ProbeReading.Of(probe, judged.Value), order.Corrects, null, JobStep.Looked);
            },
            practice: true
        );

    /// <summary>Files the trial of a function, or several with the same result.</summary>
    public Deed<FiledEntry> Try(TrialOrder order, string? once = null) =>
        bench.On<FiledEntry>(
            order.Job,
            once,
            job =>
            {
                if (order.Starts is < 1 or > MostStarts)
                    return Refusal.Invalid(FormattableString.Invariant($"A run has 1 to {MostStarts} starts."));
                if (FunctionTrial.Make(job.Model, order.Function, order.Passed, order.Look, order.Starts) is not { } trial)
                    return Refusal.Missing;
                return order.Proving
                    ? File(job, trial, order.Corrects, WorkStage.Prove, order.Passed ? JobStep.Proving : JobStep.FailureFound)
                    : File(job, trial, order.Corrects, null, trial.Step);
            }
        );

    /// <summary>Files what pressing, flexing or warming did.</summary>
    public Deed<FiledEntry> Provoke(long number, FunctionId function, Provocation how, bool changed, string? once = null) =>
        bench.On<FiledEntry>(
            number,
            once,
            job =>
            {
                if (ProvokeTrial.Make(job.Model, function, how, changed) is not { } trial)
                    return Refusal.Missing;
                return File(job, trial, null, null, JobStep.Looked);
            }
        );

    /// <summary>Files what the unit drew from the bench supply.</summary>
    /// <returns>The record in words.</returns>
    public Deed<Done> Draw(long number, SupplyDraw draw, string? once = null) =>
        bench.On<Done>(number, once, job => new Done(bench.File(job, draw, job.Job.Stage).Words), practice: true);

    /// <summary>Asks a practice unit: a probe, a function, or what provoking it does.</summary>
    public Deed<FiledEntry> Ask(long number, Probe? probe, DeviceFunction? function, Provocation? how, string? once = null) =>
        bench.On<FiledEntry>(
            number,
            once,
            job =>
            {
                if (job.Job.PracticeSeed is null)
                    return Refusal.Missing;
                if (probe is not null)
                    return practice.Do(job, unit => unit.Measure(probe));
                if (function is null)
                    return Refusal.Missing;
                return practice.Do(
                    job,
                    unit =>
                    {
                        if (how is { } way)
                            unit.Provoke(function, way);
                        else
                            unit.Try(function);
                    }
                );
            },
            practice: true
        );

    /// <summary>Takes the last entry back; after a correction what it had replaced holds again.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="once">Key of the form.</param>
    /// <param name="seen">The entry that was seen as the last; when another has come since, nothing is taken back. Null for the last.</param>
    public Deed<FiledEntry> Undo(long number, string? once = null, long? seen = null) =>
        bench.On<FiledEntry>(
            number,
            once,
            job =>
            {
                if (seen is { } entry && records.Of(job.Job.Id).MaxBy(r => r.Id) is { } last && last.Id != entry && records.Find(entry) is { } meant)
                    return new Refusal(
                        RefusalKind.Changed,
                        meant.WithdrawnAt is not null
                            ? $"“{meant.Words}” was taken back already; the last is “{last.Words}” now."
                            : $"“{last.Words}” was filed since you saw “{meant.Words}”: look at both, and take back the wrong one under What we know."
                    );
                if (records.Undo(job.Job.Id) is not { } gone)
                    return Refusal.Missing;
                parts.Turn(gone, withdrawn: true);
                bench.Settle(job, JobStep.Noted);
                return new FiledEntry(gone.Id);
            }
        );

    /// <summary>Takes one entry back.</summary>
    public Deed<FiledEntry> Withdraw(long number, long record, string? once = null) => Change(number, record, once, records.Withdraw, true);

    /// <summary>Brings an entry back to its place; what replaced it gives way.</summary>
    public Deed<FiledEntry> Restore(long number, long record, string? once = null) => Change(number, record, once, records.Restore, false);

    private Deed<FiledEntry> Change(long number, long record, string? once, Func<JobId, long, bool> change, bool withdrawn) =>
        bench.On<FiledEntry>(
            number,
            once,
            job =>
            {
                if (!change(job.Job.Id, record))
                    return Refusal.Missing;
                if (records.Find(record) is { } turned)
                    parts.Turn(turned, withdrawn);
                bench.Settle(job, JobStep.Noted);
                return new FiledEntry(record);
            }
        );

    /// <summary>What became of an entry meanwhile, so that one can decide what holds. Until there is a sign-in, who did it is the other
    /// page.</summary>
    private string Gone(long id) =>
        records.InPlaceOf(id) is { } now
            ? $"Another page has corrected that entry meanwhile; it says now: {now.Words}. Correct that one instead."
        : records.Find(id) is { WithdrawnAt: not null }
            ? "Another page has withdrawn that entry meanwhile. Bring it back first, or file it anew."
        : "There is no such entry in this job, or it is of another kind.";

    private Deed<FiledEntry> File(OpenJob job, RecordBody body, long? corrects, WorkStage? stage, JobStep step)
    {
        long id;
        if (corrects is { } old)
        {
            if (records.Correct(job.Job.Id, old, bench.Make(job, body, stage)) is not { } corrected)
                return Refusal.Invalid(Gone(old));
            id = corrected;
        }
        else
        {
            id = bench.File(job, body, stage).Id;
        }

        bench.Settle(job, step);
        return new FiledEntry(id);
    }
}
