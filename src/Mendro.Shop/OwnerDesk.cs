using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Planning;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A call to be made.</summary>
/// <param name="Job">Job.</param>
/// <param name="Why">Why.</param>
/// <param name="Since">Since when it is due, UTC.</param>
public sealed record CallDue(Job Job, string Why, DateTimeOffset Since);

/// <summary>What passes between the shop and an owner: quotes, answers, calls, reminders.</summary>
public sealed class OwnerDesk(JobBench bench, JobStore jobs, BenchRecordStore records, CostDesk costs, TimeProvider time)
{
    /// <summary>Days after which an owner who was told is reminded.</summary>
    public const int RemindDays = 7;

    /// <summary>Days after which a quote without an answer is asked for.</summary>
    public const int AnswerDays = 3;

    private const int LongestWho = ConsentGiven.LongestWho;
    private const int LongestWords = QuoteGiven.LongestWords;

    /// <summary>Range of what it may cost, out of the plan.</summary>
    public QuoteRange Range(JobView view) =>
        QuoteRange.Of(
            view.Advice,
            view.MinutesSpent,
            view.PartsCost.Value,
            view.Profile.Functions.Sum(f => f.Minutes),
            costs.Hour(view)
        );

    /// <summary>How the owner stands to it.</summary>
    public OwnerAgreement Agreement(JobView view) =>
        OwnerAgreement.Of(view.Records.Select(r => r.Body), costs.Of(view).WorkAndParts);

    /// <summary>Notes what was quoted; the job may wait for the answer.</summary>
    public Deed<Done> Quote(long number, QuoteGiven quote, bool waits, string? once = null) =>
        OwnersJob(
            number,
            once,
            job =>
            {
                if (quote.Low < 0 || quote.Low > quote.Likely || quote.Likely > quote.High)
                    return Refusal.Invalid("A quote goes from low over likely to high.");
                if (quote.Works.Length > LongestWords)
                    return Refusal.Invalid($"The words take {LongestWords} characters.");
                var filed = bench.File(job, quote, job.Job.Stage);
                if (waits && JobLife.Shelve(job.Job.Status, Shelf.WaitingOwner) is { } shelved)
                    bench.Move(job.Job, shelved, "", "answer to the quote", "");
                return new Done(filed.Words);
            }
        );

    /// <summary>Notes the answer; a job that waited for it is back on the bench.</summary>
    public Deed<Done> Answer(long number, QuoteAnswered answer, string? once = null) =>
        OwnersJob(
            number,
            once,
            job =>
            {
                if (Wrong(answer.Who, answer.Words) is { } wrong)
                    return Refusal.Invalid(wrong);
                if (answer.UpTo is < 0)
                    return Refusal.Invalid("A limit is not negative.");
                var filed = bench.File(job, answer, job.Job.Stage);
                if (job.Job.Shelf == Shelf.WaitingOwner && JobLife.TakeDown(job.Job.Status) is { } down)
                    bench.Move(job.Job, down, answer.Approved ? "the owner agreed" : "the owner declined");
                return new Done(filed.Words);
            }
        );

    /// <summary>Notes a call.</summary>
    public Deed<Done> Tell(long number, OwnerTold told, string? once = null) =>
        OwnersJob(
            number,
            once,
            job => Wrong(told.Who, told.Words) is { } wrong ? Refusal.Invalid(wrong) : new Done(bench.File(job, told, job.Job.Stage).Words)
        );

    /// <summary>Calls to be made, the longest due first: quotes without an answer, and what is ready and not fetched.</summary>
    public IReadOnlyList<CallDue> Due()
    {
        var now = time.GetUtcNow();
        var due = new List<CallDue>();
        foreach (var job in jobs.Live().Where(j => !j.ShopStock && j.Shelf is Shelf.Ready or Shelf.WaitingOwner))
        {
            var held = records.Of(job.Id);
            var told = held.Where(r => r.Body is OwnerTold).Select(r => (r.At, Body: (OwnerTold)r.Body)).ToList();
            if (job.Shelf == Shelf.WaitingOwner)
            {
                var asked = held.Where(r => r.Body is QuoteGiven or OwnerTold).Select(r => (DateTimeOffset?)r.At).LastOrDefault();
                if (asked is { } at && now - at >= TimeSpan.FromDays(AnswerDays))
                    due.Add(new CallDue(job, "no answer yet", at));
                continue;
            }

            var since = held.Count > 0 ? held[^1].At : job.ReceivedAt;
            var ready = told.LastOrDefault(t => t.Body.Matter == OwnerMatter.Ready);
            var last = told.Count > 0 ? told[^1].At : default(DateTimeOffset?);
            if (ready.Body is null)
                due.Add(new CallDue(job, last is null ? "ready: tell the owner" : "ready: not reached yet", last ?? since));
            else if (now - last!.Value >= TimeSpan.FromDays(RemindDays))
                due.Add(new CallDue(job, "not picked up yet", ready.At));
        }

        return due.OrderBy(d => d.Since).ToList();
    }

    private Deed<Done> OwnersJob(long number, string? once, Func<OpenJob, Deed<Done>> work) =>
        bench.On<Done>(
            number,
            once,
            job => job.Job.ShopStock ? Refusal.Invalid("This unit is the shop's own: there is nobody to ask.") : work(job)
        );

    private static string? Wrong(string who, string words) =>
        who.Length is 0 or > LongestWho ? $"Say in up to {LongestWho} characters who it was."
        : words.Length > LongestWords ? $"The words take {LongestWords} characters."
        : null;
}
