using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Makes book entries of what happened to jobs and orders.</summary>
/// <param name="own">The shop's currency.</param>
/// <param name="tax">Tax.</param>
/// <param name="zone">The shop's zone.</param>
/// <param name="within">Days that are booked.</param>
/// <param name="rate">What one of a currency was worth on a day, or null.</param>
/// <param name="saleOf">The sale of a job, or null.</param>
/// <param name="charge">What a done repair is charged at.</param>
internal sealed class BookMaker(
    Currency own,
    TaxRule tax,
    TimeZoneInfo zone,
    Func<DateOnly, bool> within,
    Func<string, DateOnly, decimal?> rate,
    Func<JobId, Sale?> saleOf,
    Func<JobId, decimal> charge
)
{
    private readonly List<BookEntry> _entries = [];
    private readonly List<long> _leftOut = [];

    /// <summary>The shop's currency.</summary>
    public Currency Own => own;

    /// <summary>Entries made.</summary>
    public IReadOnlyList<BookEntry> Entries => _entries;

    /// <summary>Jobs of which something is left out for want of a rate.</summary>
    public IReadOnlyList<long> LeftOut => _leftOut;

    /// <summary>Books what happened to a job.</summary>
    public void Add(BookJob job, IEnumerable<PartsSpent> spent, IEnumerable<Payment> payments, IEnumerable<PartSold> sold)
    {
        var lacking = false;
        void Book(decimal value, DateOnly day, Func<decimal, BookEntry> make)
        {
            if (!within(day) || value == 0)
                return;
            if (Here(job, value, day) is { } here)
                _entries.Add(make(here));
            else
                lacking = true;
        }

        var paid = job.CustomerId is null ? job.Paid ?? 0 : 0;
        Book(paid, On(job.ReceivedAt), v => Books.Bought(On(job.ReceivedAt), job.Number, job.Lot, v));
        foreach (var parts in spent)
            Book(
                parts.Cost,
                On(parts.At),
                v => parts.FromDonor
                    ? Books.FromDonor(On(parts.At), job.Number, job.Lot, v)
                    : Books.Used(On(parts.At), job.Number, job.Lot, v, parts.FromStock)
            );
        foreach (var payment in payments)
            Book(payment.Sum, DayText.Read(payment.Day) ?? default, v => Books.Paid(DayText.Read(payment.Day) ?? default, job.Number, payment.Kind, v));
        foreach (var part in sold)
            Book(part.Price, On(part.At), v => Books.PartSold(On(part.At), job.Number, job.Lot, v, tax, own));
        if (job.ClosedAt is { } closed && job.CustomerId is null && job.Ending == JobEnd.Parts)
            Book(paid, On(closed), v => Books.GivenUp(On(closed), job.Number, job.Lot, v));
        // Work has a price in the shop's own currency only.
        if (job.ClosedAt is { } done && job.CustomerId is not null && job.Currency == own.Code && within(On(done)))
            Book(charge(job.Id), On(done), v => Books.Charged(On(done), job.Number, v, tax, own));
        if (saleOf(job.Id) is { State: SaleState.Sold, Price: { } price } sale && within(On(sale.ChangedAt)))
        {
            var day = On(sale.ChangedAt);
            if (Here(job, price, day) is { } got)
                _entries.Add(
                    Books.Sold(
                        day,
                        job.Number,
                        job.Lot,
                        got,
                        Here(job, sale.Fees, day)!.Value,
                        Here(job, sale.Postage + sale.Packing, day)!.Value,
                        Here(job, paid, day)!.Value,
                        tax,
                        own
                    )
                );
            else
                lacking = true;
        }

        if (lacking)
            _leftOut.Add(job.Number);
    }

    /// <summary>Books an order that is here.</summary>
    public void Add(SentOrder order)
    {
        if (order.Currency != own.Code || order.EndedAt is not { } ended || !within(On(ended)) || order.Lines.All(l => l.Received == 0))
            return;
        _entries.Add(Books.Received(On(ended), order.Supplier, order.Lines.Sum(l => l.Price * l.Received), order.Postage));
    }

    // In another currency by the rate of its day; the sum is rounded once.
    private decimal? Here(BookJob job, decimal value, DateOnly day) =>
        job.Currency == own.Code ? value
        : rate(job.Currency, day) is { } worth ? own.Round(value * worth)
        : null;

    private DateOnly On(DateTimeOffset at) => DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(at, zone).DateTime);
}
