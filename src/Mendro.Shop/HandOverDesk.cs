using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A job to be closed.</summary>
/// <param name="Job">Number of the job.</param>
/// <param name="Ending">Where it goes.</param>
/// <param name="Note">Honest condition and what is kept, up to 2000 characters.</param>
/// <param name="StatedReason">Why it goes with something failing or untried, up to 500 characters; blank for none.</param>
/// <param name="Asking">Asking price in the job's currency, when it goes to sale.</param>
/// <param name="LeaveReadings">True to keep its readings as those of a good unit.</param>
public sealed record CloseOrder(long Job, JobEnd Ending, string Note, string StatedReason, decimal? Asking, bool LeaveReadings);

/// <summary>The end of a job and its shelves: closed, put aside, taken down, deleted, brought back.</summary>
public sealed class HandOverDesk(JobBench bench, JobStore jobs, BenchRecordStore records, GoodReadingStore goodReadings)
{
    private const int LongestNote = 2000;
    private const int LongestReason = 500;
    private const int LongestShelfWords = 300;

    /// <summary>Closes a job.</summary>
    public Deed<Done> Close(CloseOrder order, string? once = null) =>
        bench.On<Done>(
            order.Job,
            once,
            job =>
            {
                if (order.Ending == JobEnd.Returned && job.Job.ShopStock)
                    return Refusal.Invalid("Shop stock has no owner to return it to. Send it to sale or to parts.");
                if (order.Note.Length > LongestNote || order.StatedReason.Length > LongestReason)
                    return Refusal.Invalid(
                        FormattableString.Invariant($"The words take {LongestNote} characters, the reason {LongestReason}.")
                    );
                if (order.Ending == JobEnd.ForSale && order.Asking is null)
                    return Refusal.Invalid("Give the asking price: from comparable sales.");
                var held = records.Of(job.Job.Id);
                var proof = ProofSheet.Make(job.Model.Profile, BenchRecord.Events(held));
                // What goes to parts is not sold as working: nothing has to be proved.
                if (order.Ending != JobEnd.Parts && proof.Bar(order.StatedReason, Kept(job.Model, held)) is { } bar)
                    return Refusal.Invalid(bar);
                if (JobLife.Close(job.Job.Status, order.Ending) is not { } closed)
                    return Refusal.Invalid("Choose where it goes.");
                jobs.WriteEnding(job.Job.Id, order.Note, order.StatedReason, order.Ending == JobEnd.ForSale ? order.Asking : null);
                var goes = order.StatedReason.Length > 0 ? ". Goes all the same: " + order.StatedReason : "";
                jobs.Move(job.Job, closed, $"Closed: {StageWords.Name(order.Ending)}{goes}");
                if (order.LeaveReadings && order.Ending != JobEnd.Parts && proof.Complete)
                    goodReadings.Add(Leaves(job.Job, held), job.Job.Id);
                return new Done($"Closed: {StageWords.Name(order.Ending)}. The sheet is ready to print.");
            }
        );

    /// <summary>Puts a job on a shelf where it waits.</summary>
    public Deed<Done> Shelve(long number, Shelf shelf, string why, string nextTry, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (JobLife.Shelve(job.Job.Status, shelf) is not { } shelved)
                    return Refusal.Invalid("Choose a shelf.");
                if (why.Length is 0 or > LongestShelfWords)
                    return Refusal.Invalid("Say why it waits, in up to 300 characters: it must stay visible until then.");
                if (nextTry.Length > LongestShelfWords)
                    return Refusal.Invalid("What to try next takes 300 characters.");
                bench.Move(job.Job, shelved, "", why, nextTry);
                return new Done($"{job.Job.Tag}: {StageWords.Name(shelf).ToLowerInvariant()}.");
            }
        );

    /// <summary>Takes a job down from its shelf.</summary>
    public Deed<Done> TakeDown(long number, string? once = null) => Step(number, once, JobLife.TakeDown, "Back on the bench");

    /// <summary>Brings a closed job back to the bench.</summary>
    public Deed<Done> Reopen(long number, string? once = null) => Step(number, once, JobLife.Reopen, "Reopened");

    /// <summary>Deletes a job; it can be brought back.</summary>
    public Deed<Done> Delete(long number, string? once = null) => Step(number, once, JobLife.Delete, "Deleted");

    /// <summary>Brings a deleted job back to where it was.</summary>
    public Deed<Done> BringBack(long number, string? once = null) => Step(number, once, JobLife.BringBack, "Brought back");

    /// <summary>What fails and stays so, with the reason, by item of the test plan.</summary>
    public static IReadOnlyDictionary<string, string> Kept(DeviceModel model, IEnumerable<BenchRecord> records) =>
        UnitTrail.Of(model, [.. records.Select(r => r.Body)]).Kept;

    /// <summary>The metered readings of a job that a good unit shows: the newest at each probe, when it is as expected.</summary>
    public static IReadOnlyList<GoodReading> Leaves(Job job, IEnumerable<BenchRecord> records) =>
        records
            .Select(r => r.Body)
            .OfType<ProbeReading>()
            .GroupBy(r => r.Probe)
            .Select(g => g.Last())
            .Where(r => r is { IsMetered: true, Reading: not null } && r.Sign == RecordSign.Good)
            .Select(r => (r.Probe, r.Reading!.Value, Unit: GoodReadingFile.UnitOf(r.Reading.Unit)))
            .Where(r => r.Unit is not null)
            .Select(r => new GoodReading(
                job.ProfileId,
                job.Revision,
                r.Probe,
                r.Unit!,
                r.Value,
                FormattableString.Invariant($"job {job.Number}")
            ))
            .ToList();

    private Deed<Done> Step(long number, string? once, Func<JobStatus, JobStatus?> step, string words) =>
        bench.OnAny<Done>(
            number,
            once,
            job =>
            {
                if (step(job.Status) is { } to)
                    jobs.Move(job, to, words);
                return new Done(words);
            }
        );
}
