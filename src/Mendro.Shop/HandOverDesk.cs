using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
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
/// <param name="To">Who takes it, or blank.</param>
/// <param name="WarrantyUntil">Last day of a warranty, or null.</param>
/// <param name="Grade">Grade under which it is offered; null for what is known of it.</param>
/// <param name="Donates">Parts of it that become stock, when it goes to parts.</param>
public sealed record CloseOrder(
    long Job,
    JobEnd Ending,
    string Note,
    string StatedReason,
    decimal? Asking,
    bool LeaveReadings,
    string To = "",
    DateOnly? WarrantyUntil = null,
    string? Grade = null,
    IReadOnlyList<DonorPart>? Donates = null
);

/// <summary>The end of a job and its shelves: closed, put aside, taken down, deleted, brought back.</summary>
public sealed class HandOverDesk(
    JobBench bench,
    JobStore jobs,
    BenchRecordStore records,
    GoodReadingStore goodReadings,
    SaleStore sales,
    DonorStore donors,
    ShelfStore shelves,
    SettingsStore settings
)
{
    private const int LongestNote = 2000;
    private const int LongestReason = 500;
    private const int LongestTo = 120;
    private const int LongestPart = 80;
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
                var proof = ProofSheet.Make(job.Model, BenchRecord.Events(held));
                // What goes to parts is not sold as working: nothing has to be proved.
                if (order.Ending != JobEnd.Parts && proof.Bar(order.StatedReason, Kept(job.Model, held)) is { } bar)
                    return Refusal.Invalid(bar);
                if (JobLife.Close(job.Job.Status, order.Ending) is not { } closed)
                    return Refusal.Invalid("Choose where it goes.");
                if (order.To.Length > LongestTo)
                    return Refusal.Invalid(FormattableString.Invariant($"A name takes {LongestTo} characters."));
                // Filed before the job is closed: afterwards it takes nothing more.
                if (order.Ending != JobEnd.Parts && (order.To.Length > 0 || order.WarrantyUntil is not null))
                    bench.File(job, new HandedOver(order.To, order.WarrantyUntil), WorkStage.HandOver);
                if (order.Ending == JobEnd.ForSale)
                    sales.Save(
                        new Sale
                        {
                            JobId = job.Job.Id,
                            State = SaleState.Offered,
                            Asking = order.Asking,
                            Condition = (ConditionGrade.Find(order.Grade) ?? ConditionGrade.Good).Id,
                        }
                    );
                if (order.Ending == JobEnd.Parts)
                    donors.Add(job.Job.Id, job.Job.ProfileId, order.Donates ?? []);
                jobs.WriteEnding(
                    job.Job.Id,
                    order.Note,
                    order.StatedReason,
                    order.Ending == JobEnd.ForSale ? order.Asking : null,
                    settings.Get().PerHour.Value
                );
                var goes = order.StatedReason.Length > 0 ? ". Goes all the same: " + order.StatedReason : "";
                jobs.Move(job.Job, closed, $"Closed: {StageWords.Name(order.Ending)}{goes}");
                if (order.LeaveReadings && order.Ending != JobEnd.Parts && proof.Complete)
                    goodReadings.Add(Leaves(job.Job, held), job.Job.Id);
                return new Done($"Closed: {StageWords.Name(order.Ending)}. The sheet is ready to print.");
            }
        );

    /// <summary>Puts a job on a shelf where it waits.</summary>
    /// <param name="number">Number on the tag.</param>
    /// <param name="shelf">Shelf.</param>
    /// <param name="why">Why it waits.</param>
    /// <param name="nextTry">What to try next.</param>
    /// <param name="once">Key of the form.</param>
    /// <param name="part">Part that is on its way: when it comes, so does the job. Blank for none.</param>
    /// <param name="until">Day on which it comes back whatever happens, or null.</param>
    public Deed<Done> Shelve(
        long number,
        Shelf shelf,
        string why,
        string nextTry,
        string? once = null,
        string part = "",
        DateOnly? until = null
    ) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                if (JobLife.Shelve(job.Job.Status, shelf) is not { } shelved)
                    return Refusal.Invalid("Choose a shelf.");
                // A part that is named says it.
                if (why.Length == 0 && shelf == Shelf.WaitingPart && part.Length is > 0 and <= LongestPart)
                    why = $"{part} on its way";
                if (why.Length is 0 or > LongestShelfWords)
                    return Refusal.Invalid("Say why it waits, in up to 300 characters: it must stay visible until then.");
                if (nextTry.Length > LongestShelfWords)
                    return Refusal.Invalid("What to try next takes 300 characters.");
                if (part.Length > LongestPart)
                    return Refusal.Invalid(FormattableString.Invariant($"The part takes {LongestPart} characters."));
                bench.Move(job.Job, shelved, "", why, nextTry);
                if (part.Length > 0 || until is not null)
                    shelves.Save(job.Job.Id, part, until);
                else
                    shelves.Forget(job.Job.Id);
                return new Done($"{job.Job.Tag}: {StageWords.Name(shelf).ToLowerInvariant()}.");
            }
        );

    /// <summary>Brings back to the bench what waits for a day that has come.</summary>
    /// <returns>Numbers of the jobs.</returns>
    public IReadOnlyList<long> WakeDue(DateOnly today) =>
        shelves.Due(today).Select(w => w.Number).Where(n => Wake(n, "its day has come").Done is not null).ToList();

    /// <summary>A part came: every job that waits for it is back on the bench.</summary>
    public Deed<Done> PartCame(string part, string? once = null)
    {
        var waiting = shelves.All().Where(w => string.Equals(w.Part, part, StringComparison.OrdinalIgnoreCase)).ToList();
        if (part.Length == 0 || waiting.Count == 0)
            return Refusal.Invalid("No job waits for that.");
        var woken = waiting.OrderBy(w => w.Number).Where(w => Wake(w.Number, $"{part} came", once).Done is not null).Select(w => w.Number).ToList();
        return new Done($"{part}: {string.Join(", ", woken)} back on the bench.");
    }

    /// <summary>Brings a job back to the bench from its shelf.</summary>
    internal Deed<Done> Wake(long number, string why, string? once = null) =>
        bench.On<Done>(
            number,
            once is null ? null : $"{once}{number}",
            job =>
            {
                if (JobLife.TakeDown(job.Job.Status) is { } down)
                    bench.Move(job.Job, down, why);
                return new Done(why);
            }
        );

    /// <summary>A unit is mended whatever it brings, or weighed again.</summary>
    public Deed<Done> Anyway(long number, bool anyway, string? once = null) =>
        bench.On<Done>(
            number,
            once,
            job =>
            {
                jobs.SetAnyway(job.Job.Id, anyway);
                return new Done(anyway ? "It is mended whatever it brings." : "It is weighed by what it brings.");
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

    /// <summary>What is good in a unit, the surest first: its parts but the bench's own, with the chance from the diagnosis.</summary>
    public static IReadOnlyList<DonorPart> Parts(JobView view) =>
        view.Profile.Parts.Where(p => view.Model.Library.FindPartKind(p.Kind)?.Gear != true)
            .Select(p => new DonorPart
            {
                Part = p.Id.Value,
                Name = p.Name,
                Kind = p.Kind,
                Good = 1 - (view.Diagnosis?.Parts.GetValueOrDefault(p.Id)?.Posterior ?? 0),
            })
            .OrderByDescending(p => p.Good)
            .ToList();

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
