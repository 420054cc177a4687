using System.Globalization;
using System.Text.Json;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Money: the books out of what happened, payments of owners, rates, tax.</summary>
public sealed partial class MoneyDesk(
    MoneyStore money,
    JournalStore journal,
    BookKeeper keeper,
    JobStore jobs,
    BenchRecordStore records,
    JobBench bench,
    SettingsStore settings,
    Ledger ledger,
    TimeProvider time
)
{
    private const int LongestWords = 200;

    /// <summary>Payments that were taken away as a mistake, to be brought back.</summary>
    public IReadOnlyList<Payment> TakenAway(JobId job) => money.Payments(job, deleted: true);

    /// <summary>What was changed by hand in a month, the newest first.</summary>
    public IReadOnlyList<MoneyChange> Changes(DateTimeOffset from, DateTimeOffset to, int most) => journal.Changes(from, to, most);

    /// <summary>Payments of a job.</summary>
    public IReadOnlyList<Payment> Payments(JobId job) => money.Payments(job);

    /// <summary>Notes a payment: ahead, in part, or paid back. A closed job takes it too.</summary>
    public Deed<Done> Pay(long number, Payment payment, string? once = null) =>
        bench.OnAny<Done>(
            number,
            once,
            job =>
            {
                if (job.CustomerId is null)
                    return Refusal.Invalid("Shop stock has no owner who pays.");
                if (payment.Kind is not ("deposit" or "payment" or "refund") || payment.Amount <= 0)
                    return Refusal.Invalid("Say how much, and whether it is paid ahead, paid, or paid back.");
                if (DayText.Read(payment.Day) is not { } day || payment.Words.Length > LongestWords)
                    return Refusal.Invalid($"A payment has a day such as 2026-11-26, and words of up to {LongestWords} characters.");
                if (Implausible(job, day) is { } wrong)
                    return Refusal.Invalid(wrong);
                if (payment.Way is not ("" or "cash" or "bank"))
                    return Refusal.Invalid("It was paid in cash or through the bank.");
                var paid = money.Payments(job.Id).Sum(p => p.Sum);
                if (payment.Kind == "refund" && payment.Amount > paid)
                    return Refusal.Invalid($"{job.In(paid)} were paid: no more can be paid back.");
                if (payment.Way.Length == 0 && Ways is { Apart: true } ways)
                    payment = payment with { Way = ways.Paid ? "bank" : "cash" };
                money.Add(payment with { JobId = job.Id });
                var what = payment.Kind switch { "deposit" => "Paid ahead", "refund" => "Paid back", _ => "Paid" };
                bench.NoteMoney(job, $"{what}: {job.In(payment.Amount)}{(payment.Words.Length > 0 ? $", {payment.Words}" : "")}");
                return new Done($"{what}: {job.In(payment.Amount)}.");
            }
        );

    /// <summary>Takes a payment away that was noted by mistake.</summary>
    public Deed<Done> Unpay(long number, long id, bool back, string? once = null) =>
        bench.OnAny<Done>(
            number,
            once,
            job =>
            {
                money.SetDeleted(job.Id, id, !back);
                bench.NoteMoney(job, back ? "A payment counts again" : "A payment was noted by mistake and taken away");
                return new Done(back ? "Counts again." : "Taken away.");
            }
        );

    /// <summary>The books of a month: what was posted in it, added up.</summary>
    /// <param name="month">Its first day.</param>
    public MonthBooks Month(DateOnly month)
    {
        Settle();
        return Made(month, journal.Between(month, month.AddMonths(1), Own), journal.Lacking());
    }

    /// <summary>What each of some months gained.</summary>
    /// <param name="first">First day of the first month.</param>
    /// <param name="count">How many months.</param>
    public IReadOnlyList<(DateOnly Month, decimal Gain)> Gains(DateOnly first, int count)
    {
        Settle();
        var byMonth = journal.Months(first, first.AddMonths(count), Own).Where(m => m.Account >= Account.Sales).ToLookup(m => m.Month);
        return Enumerable.Range(0, count).Select(first.AddMonths).Select(m => (m, -byMonth[m].Sum(v => v.Value))).ToList();
    }

    /// <summary>The books of one job, or of all jobs of a lot, from the first day on.</summary>
    /// <param name="number">Number of the job; null for a lot.</param>
    /// <param name="lot">Lot; blank for a job.</param>
    public MonthBooks Of(long? number, string lot)
    {
        Settle();
        var entries = number is null && lot.Length == 0 ? [] : journal.Of(number, lot, Own);
        var of = number is { } one ? [one] : money.Jobs(null, lot).Select(j => j.Number);
        return Made(default, entries, journal.Lacking().Intersect(of).ToList());
    }

    /// <summary>What stands on an account, all days together.</summary>
    public Amount Balance(Account account)
    {
        Settle();
        return new Amount(journal.Balance(account, Own), Own);
    }

    /// <summary>When a month was closed and opened again, the newest first.</summary>
    public IReadOnlyList<MonthLock> Locks(DateOnly month) => journal.Locks(month);

    /// <summary>Closes a month, or opens it again. What is mended of a closed month is posted in the next open one.</summary>
    /// <param name="month">Its first day.</param>
    /// <param name="locked">True to close it.</param>
    /// <param name="today">The shop's day.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Lock(DateOnly month, bool locked, DateOnly today, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (locked && month.AddMonths(1) > today)
                    return Refusal.Invalid("A month is closed when it is over.");
                Settle();
                if (locked && ToCome > 0)
                    return Refusal.Invalid("Matters of earlier times are still being brought into the books. Close it when they are in.");
                if (journal.IsLocked(month) != locked)
                    journal.Lock(month, locked);
                var name = month.ToString("MMMM yyyy", CultureInfo.InvariantCulture);
                return new Done(locked ? $"{name} is closed: nothing in it changes any more." : $"{name} is open again.");
            }
        );

    /// <summary>What owners owe for jobs that are done, the oldest first.</summary>
    /// <param name="customer">Of one owner; null for all.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<OpenItem> OpenItems(long? customer = null, int most = int.MaxValue)
    {
        Settle();
        return journal.OpenItems(customer, Own, most);
    }

    /// <summary>A reminder of what an owner owes, as a text to send; blank where nothing is owed.</summary>
    public string Reminder(long customer, DateOnly today)
    {
        var open = OpenItems(customer).Where(i => i.Sum.Value > 0).ToList();
        if (open.Count == 0)
            return "";
        var sum = new Amount(open.Sum(i => i.Sum.Value), Own);
        var lines = open.Select(i => FormattableString.Invariant($"- no. {i.Number}, {i.Unit}: {i.Sum}, since {i.Since:d MMMM yyyy}"));
        return $"Dear {open[0].Name},\n\n{sum} {(open.Count == 1 ? "is" : "are together")} still open with us, as of "
            + FormattableString.Invariant($"{today:d MMMM yyyy}:\n\n{string.Join('\n', lines)}\n\n")
            + $"Should it have crossed with your payment, please let us know.\n\n{settings.Get().ShopName}";
    }

    /// <summary>The books of any span.</summary>
    /// <param name="from">First day.</param>
    /// <param name="to">Last day.</param>
    public MonthBooks Span(DateOnly from, DateOnly to)
    {
        Settle();
        return Made(from, journal.Between(from, to.AddDays(1), Own), journal.Lacking());
    }

    // What an older shop has of them is brought in behind the work; a page waits for little of it.
    private const int WaitedFor = 120;
    private const int DaysAhead = 60;

    /// <summary>Matters that are still to be brought into the books; what is shown lacks them.</summary>
    public long ToCome => journal.DueCount();

    private void Settle() => keeper.Settle(WaitedFor);

    // Money comes when the unit does or later; what is sent in by post may be paid for before.
    private string? Implausible(Job job, DateOnly day)
    {
        var (came, today) = (ShopZone.Day(job.ReceivedAt, settings, time), ShopZone.Day(time.GetUtcNow(), settings, time));
        return day > today ? $"{DayText.Write(day)} is still to come. A payment is noted when it was made."
            : day < came.AddDays(-DaysAhead) ? $"The unit came in on {DayText.Write(came)}; {DayText.Write(day)} is long before that."
            : null;
    }

    private Currency Own => new(settings.Get().Currency);

    private MonthBooks Made(DateOnly month, IReadOnlyList<BookEntry> entries, IReadOnlyList<long> lacking)
    {
        var byJob = entries.Where(e => e.Job is not null).ToLookup(e => e.Job!.Value);
        var gone = money
            .Jobs(byJob.Select(g => g.Key).ToList())
            .Where(j => byJob[j.Number].Any(e => e.On(Account.Sales) + e.On(Account.UnitsGone) + e.On(Account.Repairs) != 0))
            .ToList();
        // The gain of its whole life beside the minutes of its whole life.
        var whole = journal.GainsOf([.. gone.Select(j => j.Number)], Own);
        IReadOnlyList<GainLine> Lines(Func<BookJob, string> name) =>
            gone.GroupBy(name)
                .Select(g => new GainLine(
                    g.Key,
                    g.Count(),
                    g.Sum(j => j.Minutes),
                    new Amount(g.Sum(j => whole.GetValueOrDefault(j.Number)), Own)
                ))
                .OrderByDescending(l => l.AnHour?.Value ?? decimal.MinValue)
                .ToList();
        return new MonthBooks(
            month,
            entries,
            Books.Sums(entries),
            Lines(j => j.ModelName),
            Lines(j => j.CustomerId is not null ? "repaired for owners" : j.Ending == JobEnd.Parts ? "given up for parts" : "repaired and sold"),
            lacking
        );
    }

    /// <summary>Units of the shop's own that lie longest, with what was paid for them.</summary>
    /// <param name="most">How many.</param>
    public IReadOnlyList<AgeingUnit> Ageing(int most) =>
        jobs.Live()
            .Where(j => j.ShopStock)
            .OrderBy(j => j.ReceivedAt)
            .Take(most)
            .Select(j => new AgeingUnit(j.Number, j.Title, (int)(time.GetUtcNow() - j.ReceivedAt).TotalDays, new Amount(j.Paid ?? 0, j.Currency)))
            .ToList();

    /// <summary>Quotes of a job and what was answered, the oldest first; they are promises and move no account.</summary>
    public IReadOnlyList<string> Quotes(long number) =>
        jobs.Find(number) is not { } job
            ? []
            : records
                .Of(job.Id)
                .Where(r => r.Body is QuoteGiven or QuoteAnswered)
                .Select(r => r.Words)
                .ToList();
}
