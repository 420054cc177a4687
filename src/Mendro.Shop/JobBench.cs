using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A job opened for an action, as it stands inside the action's transaction.</summary>
/// <param name="Job">The job.</param>
/// <param name="Model">Its model.</param>
internal sealed record OpenJob(Job Job, DeviceModel Model)
{
    /// <summary>Stage to which measuring and trying belong: Find until the job has come further.</summary>
    public WorkStage BenchStage => Job.Stage > WorkStage.Find ? Job.Stage : WorkStage.Find;
}

/// <summary>Files records in a job and moves the job on by the rules of its life. Used inside the transaction of an action.</summary>
public sealed class JobBench(JobStore jobs, BenchRecordStore records, ModelShelf models, Ledger ledger, TimeProvider time)
{
    /// <summary>A job was changed, by its number.</summary>
    public event Action<long>? Changed;

    /// <summary>Works on a job: in one transaction, once for a key, and refused when the job takes nothing now.</summary>
    /// <param name="number">Number on the tag.</param>
    /// <param name="once">Key of the form; null to do it every time it is asked.</param>
    /// <param name="work">What to do.</param>
    /// <param name="practice">True when a practice unit is worked on by this action.</param>
    internal Deed<T> On<T>(long number, string? once, Func<OpenJob, Deed<T>> work, bool practice = false)
        where T : class => Told(number, ledger.Once(once, () => Open(number, practice).Match(work, refusal => refusal)));

    /// <summary>The same for what may be done to a job however it stands, also when it is closed or deleted.</summary>
    internal Deed<T> OnAny<T>(long number, string? once, Func<Job, Deed<T>> work)
        where T : class => Told(number, ledger.Once(once, () => jobs.Find(number) is { } job ? work(job) : Refusal.Missing));

    /// <summary>Something that is shown with a job was changed elsewhere.</summary>
    internal void Tell(long number) => Changed?.Invoke(number);

    private Deed<T> Told<T>(long number, Deed<T> deed)
        where T : class
    {
        if (deed.Done is not null)
            Changed?.Invoke(number);
        return deed;
    }

    /// <summary>A job as it stands, to be read; null when there is none.</summary>
    internal OpenJob? Find(long number) => jobs.Find(number) is { } job ? new OpenJob(job, models.Of(job)) : null;

    /// <summary>Opens a job to be worked on.</summary>
    /// <param name="number">Number on the tag.</param>
    /// <param name="practice">True when a practice unit is worked on by this action.</param>
    private Deed<OpenJob> Open(long number, bool practice)
    {
        if (jobs.Find(number) is not { } job)
            return Refusal.Missing;
        return Locked(job, practice) is { } locked ? new Refusal(RefusalKind.Locked, locked) : new OpenJob(job, models.Of(job));
    }

    /// <summary>Why nothing may be written to a job now, or null.</summary>
    /// <param name="job">The job.</param>
    /// <param name="practice">True when a practice unit is worked on here.</param>
    public static string? Locked(Job job, bool practice) =>
        job.DeletedAt is not null ? "This job was deleted. Bring it back first."
        : job.ClosedAt is not null
            ? job.PracticeSeed is null ? "This job is closed. Reopen it first."
                : "This practice unit is put away."
        : job.PracticeSeed is not null && !practice ? "A practice unit is worked on under Find and Fix."
        : null;

    /// <summary>The function that is worked on, by the records that hold; null when none fails.</summary>
    internal DeviceFunction? Target(OpenJob open) => UnitDiagnosis.ChooseTarget(open.Model, BenchRecord.Events(records.Of(open.Job.Id)));

    /// <summary>Files a record.</summary>
    /// <param name="open">The job.</param>
    /// <param name="body">What it says.</param>
    /// <param name="stage">Stage it belongs to; null for that of measuring and trying.</param>
    /// <param name="more">Adds what was told beside it.</param>
    /// <returns>The record with its id.</returns>
    internal BenchRecord File(OpenJob open, RecordBody body, WorkStage? stage = null, Func<BenchRecord, BenchRecord>? more = null)
    {
        var record = Make(open, body, stage);
        if (more is not null)
            record = more(record);
        return record with { Id = records.Add(record) };
    }

    /// <summary>Makes a record without filing it.</summary>
    internal BenchRecord Make(OpenJob open, RecordBody body, WorkStage? stage = null) =>
        BenchRecord.Of(body, open.Model, stage ?? open.BenchStage, time.GetUtcNow()) with
        {
            JobId = open.Job.Id,
        };

    /// <summary>Moves the job on after its records changed.</summary>
    /// <param name="open">The job as it was opened.</param>
    /// <param name="steps">What happened, in order.</param>
    internal void Settle(OpenJob open, params IReadOnlyList<JobStep> steps)
    {
        var events = BenchRecord.Events(records.Of(open.Job.Id));
        var proof = ProofSheet.Make(open.Model.Profile, events);
        // A practice unit is done when everything works; it is not proved anew after every touch.
        var proved = open.Job.PracticeSeed is null
            ? proof.Complete
            : !proof.Failures.Any() && proof.Lines.All(l => l.State != ProofState.NotTried);
        var status = steps.Aggregate(open.Job.Status, (at, step) => JobLife.AfterEvidence(at, step, proved, proof.Failures.Any()));
        Move(open.Job, status, Why(proof, events), status.Shelf == Shelf.Ready ? "everything works" : null);
    }

    /// <summary>Moves a job and writes down what changed.</summary>
    internal void Move(Job job, JobStatus to, string why, string? reason = null, string? nextTry = null)
    {
        if (to == job.Status && reason is null && nextTry is null)
            return;
        var told = new List<string>();
        if (to.Shelf != job.Shelf)
            told.Add(to.Shelf == Shelf.None ? $"Back on the bench{(why.Length > 0 ? ": " + why : "")}" : ShelfWords(to.Shelf, reason));
        else if (to.Shelf != Shelf.None && reason is not null && reason != job.ShelfReason)
            told.Add(ShelfWords(to.Shelf, reason));
        if (to.Stage != job.Stage && to.Ending == job.Ending)
            told.Add($"{(to.Stage > job.Stage ? "On" : "Back")} to {StageWords.Name(to.Stage)}");
        jobs.Move(job, to, told.Count > 0 ? string.Join(". ", told) : null, reason, nextTry);
    }

    /// <summary>Leaves a line in the timeline of a job, also of a closed one.</summary>
    internal void Note(Job job, string words) => jobs.Note(job.Id, words);

    /// <summary>Notes what passed between the shop and who pays: not shown to who only looks on.</summary>
    internal void NoteMoney(Job job, string words) => jobs.Note(job.Id, words, TimelineEntry.Money);

    private static string ShelfWords(Shelf shelf, string? reason) =>
        StageWords.Name(shelf) + (reason is { Length: > 0 } ? ": " + reason : "");

    private static string Why(ProofSheet proof, IReadOnlyList<BenchEvent> events) =>
        proof.Failures.FirstOrDefault() is { } failing ? $"{MoveWords.Lower(failing.Function.Name)} fails"
        : events.Count > 0 && events[^1] is RepairDone ? "worked on since it was proved"
        : "not all is proved";
}
