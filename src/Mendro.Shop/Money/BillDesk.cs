using System.Globalization;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Papers;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Bills: what an owner is charged, under a number without a gap, and the credit note that takes one back.</summary>
public sealed class BillDesk(
    BillStore bills,
    JobBench bench,
    BenchDesk desk,
    MoneyDesk money,
    CostDesk costs,
    SettingsStore settings
)
{
    private const string SenderKey = "bill-sender";

    /// <summary>Longest address, characters.</summary>
    public const int LongestSender = 600;

    /// <summary>The shop's own address and numbers, as on the last bill.</summary>
    public string Sender => settings.Value(SenderKey) ?? "";

    /// <summary>Bills of a job, the oldest first.</summary>
    public IReadOnlyList<GivenBill> Of(JobId job) => bills.Of(job);

    /// <summary>Bills of a year, by number.</summary>
    public IReadOnlyList<GivenBill> OfYear(int year) => bills.OfYear(year);

    /// <summary>The bill of a job as it would be given out now; null where there is nothing to charge.</summary>
    /// <param name="view">The job.</param>
    /// <param name="today">The shop's day.</param>
    public Bill? Draft(JobView view, DateOnly today)
    {
        var (job, cost) = (view.Job, costs.Of(view));
        if (job.ShopStock || cost.Charged is not { Sum.Value: > 0 } charged)
            return null;
        var lines = new List<BillLine>();
        if (cost.Labour is { Value: > 0 } labour)
            lines.Add(new BillLine(string.Create(CultureInfo.InvariantCulture, $"Work, {view.MinutesSpent:0.#} min at {cost.PerHour} an hour"), labour.Value));
        foreach (var record in view.Records.Where(r => r.Cost is > 0))
            lines.Add(new BillLine(record.Body is PartUsed used ? $"{used.Count} × {used.Part}" : $"Parts: {record.Words}", record.Cost!.Value));
        // What was agreed to at most is charged, and each line as it was: what is off is said.
        var off = charged.Sum.Value - lines.Sum(l => l.Amount);
        if (off != 0)
            lines.Add(new BillLine(charged.Why.Length == 0 ? "Rounding" : off < 0 ? $"Less, {charged.Why}" : $"More, {charged.Why}", off));
        return Bill.Of(lines, cost.TaxRule, view.Currency) with
        {
            Day = DayText.Write(today),
            Shop = settings.Get().ShopName,
            Sender = Sender,
            Customer = job.CustomerName ?? "",
            Contact = job.CustomerContact ?? "",
            Job = job.Tag,
            Unit = job.Title,
            Paid = money.Payments(job.Id).Sum(p => p.Sum),
        };
    }

    /// <summary>The receipt of a payment; null for one that does not count.</summary>
    public Paper? Receipt(JobView view, long payment)
    {
        var job = view.Job;
        if (money.Payments(job.Id).FirstOrDefault(p => p.Id == payment) is not { } paid)
            return null;
        string In(decimal value) => new Amount(value, view.Currency).ToString();
        var lines = new List<PaperLine>
        {
            new(paid.Kind switch { "deposit" => "Received ahead", "refund" => "Paid back", _ => "Received" }, In(paid.Amount)),
        };
        if (paid.Way.Length > 0)
            lines.Add(new PaperLine("By", paid.Bank ? "bank" : "cash"));
        if (paid.Words.Length > 0)
            lines.Add(new PaperLine("For", paid.Words));
        if (job.ClosedAt is not null && costs.Of(view).Owed is { } owed)
        {
            var open = owed.Value - money.Payments(job.Id).Sum(p => p.Sum);
            lines.Add(new PaperLine(open > 0 ? "Still open" : open < 0 ? "Too much" : "Nothing is open", open == 0 ? "" : In(Math.Abs(open))));
        }

        return new Paper(
            "Receipt",
            string.Create(CultureInfo.InvariantCulture, $"{job.Number}-{paid.Id}"),
            job.Title,
            $"{settings.Get().ShopName} · {paid.Day}",
            new (string Name, string Value)[] { ("From", Sender.ReplaceLineEndings(", ")), ("Of", job.CustomerName ?? "") }
                .Where(f => f.Value.Length > 0)
                .ToList(),
            [new PaperSection("Payment", lines, IsTable: true)]
        );
    }

    /// <summary>Gives the bill of a closed job out.</summary>
    /// <param name="number">Number of the job.</param>
    /// <param name="sender">The shop's address and numbers.</param>
    /// <param name="today">The shop's day.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Give(long number, string sender, DateOnly today, string? once = null) =>
        bench.OnAny<Done>(
            number,
            once,
            job =>
            {
                if (sender.Length > LongestSender)
                    return Refusal.Invalid($"Your address takes {LongestSender} characters.");
                if (job.ClosedAt is null)
                    return Refusal.Invalid("A bill is made when the job is closed: until then the sum may change. Hand it over first.");
                if (bills.Of(job.Id).FirstOrDefault(b => b.Stands) is { } stands)
                    return Refusal.Invalid($"Bill {stands.Paper.Number} stands. Take it back by a credit note before another is made.");
                settings.SetValue(SenderKey, sender);
                if (Draft(desk.Open(job), today) is not { } draft)
                    return Refusal.Invalid("There is nothing to charge.");
                var given = bills.Add(job.Id, today.Year, n => draft with { Number = n });
                bench.NoteMoney(job, $"Bill {given.Number}: {new Amount(given.Gross, given.Currency)}");
                return new Done($"Bill {given.Number}.");
            }
        );

    /// <summary>Takes a bill back by a credit note.</summary>
    public Deed<Done> Reverse(long number, string billNumber, DateOnly today, string? once = null) =>
        bench.OnAny<Done>(
            number,
            once,
            job =>
            {
                if (bills.Of(job.Id).FirstOrDefault(b => b.Stands && b.Paper.Number == billNumber) is not { } bill)
                    return Refusal.Missing;
                var back = bills.Add(job.Id, today.Year, n => bill.Paper.Back(n, DayText.Write(today)), bill.Id);
                bench.NoteMoney(job, $"Credit note {back.Number} takes back bill {bill.Paper.Number}");
                return new Done($"Credit note {back.Number}: bill {bill.Paper.Number} is taken back.");
            }
        );
}
