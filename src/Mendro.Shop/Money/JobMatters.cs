using System.Globalization;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>What of a job belongs into the books, as it is now and by what stands of it.</summary>
/// <param name="job">The job.</param>
/// <param name="standing">Entries of it that stand, by matter.</param>
/// <param name="own">The shop's currency.</param>
/// <param name="on">Day of a moment in the shop.</param>
/// <param name="rate">What one of a currency was worth on a day, or null.</param>
/// <param name="tax">Tax that applies on a day.</param>
/// <param name="ways">What goes through the bank.</param>
internal sealed class JobMatters(
    BookJob job,
    Dictionary<string, StandingEntry> standing,
    Currency own,
    Func<DateTimeOffset, DateOnly> on,
    Func<string, DateOnly, decimal?> rate,
    Func<DateOnly, TaxRule> tax,
    MoneyWays ways
)
{
    private readonly string _key = string.Create(CultureInfo.InvariantCulture, $"job:{job.Id.Value}:");

    private bool _inLot;

    /// <summary>True when something was left out for want of a rate.</summary>
    public bool Lacks { get; private set; }

    /// <summary>A unit was bought. What it cost stands once it is gone.</summary>
    /// <param name="lot">Its lot, where that has a price; else null.</param>
    /// <param name="gone">True when it was sold or given up.</param>
    public IEnumerable<BookMatter> Bought(Lot? lot, bool gone)
    {
        var key = _key + "bought";
        _inLot = lot is { Cost: not null };
        // What a lot is mended of falls to those of its units that are still there.
        if (gone && _inLot && standing.TryGetValue(key, out var stays))
        {
            yield return BookMatter.Stays(stays);
            yield break;
        }

        if (job.CustomerId is not null || job.Paid is not ({ } paid and not 0))
            yield break;
        var day = lot is { Cost: not null } ? lot.Day : on(job.ReceivedAt);
        yield return One(key, paid, day, v => Books.Bought(day, job.Number, job.Lot, v).Through(ways.Bought));
    }

    /// <summary>Parts that went into it.</summary>
    /// <param name="spent">Parts.</param>
    /// <param name="lotOf">Lot of a job by its number; blank for none.</param>
    public IEnumerable<BookMatter> Parts(IEnumerable<PartsSpent> spent, Func<long, string> lotOf)
    {
        foreach (var p in spent.Where(p => p.Cost != 0))
        {
            var (day, key) = (on(p.At), string.Create(CultureInfo.InvariantCulture, $"{_key}parts:{p.Record}"));
            if (p.Donor is not { } donor)
            {
                yield return One(key, p.Cost, day, v => Books.Used(day, job.Number, job.Lot, v, p.FromStock).Through(ways.Orders));
                continue;
            }

            // Booked once in one entry, before the donor and the unit each had their own, it stands.
            if (standing.TryGetValue(key, out var one) && one.Entry.On(Account.UnitsGone) != 0)
            {
                yield return BookMatter.Stays(one);
                continue;
            }

            yield return One(key + ":out", p.Cost, day, v => Books.OutOfDonor(day, donor, lotOf(donor), v));
            yield return One(key, p.Cost, day, v => Books.FromDonor(day, job.Number, job.Lot, v));
        }
    }

    /// <summary>What its owner paid.</summary>
    public IEnumerable<BookMatter> Payments(IEnumerable<Payment> payments) =>
        payments.Select(p =>
        {
            var day = DayText.Read(p.Day) ?? default;
            return One(
                string.Create(CultureInfo.InvariantCulture, $"{_key}paid:{p.Id}"),
                p.Sum,
                day,
                v => Books.Paid(day, job.Number, p.Kind, v).Through(p.Bank),
                p.Bank ? "|bank" : ""
            );
        });

    /// <summary>Tax on what was paid ahead, where it is owed on that day already; it turns into the tax on the work when that is charged.</summary>
    public IEnumerable<BookMatter> TaxAhead(IEnumerable<Payment> payments)
    {
        var charged = job is { ClosedAt: { } closed, CustomerId: not null } ? on(closed) : default(DateOnly?);
        foreach (var p in payments.Where(p => p.Kind == "deposit"))
        {
            var day = DayText.Read(p.Day) ?? default;
            if (tax(day) is not { OnAhead: true, IsNone: false } rule || charged < day)
                continue;
            BookMatter Ahead(string key, DateOnly on, int sign) =>
                One(
                    string.Create(CultureInfo.InvariantCulture, $"{_key}{key}:{p.Id}"),
                    p.Sum,
                    on,
                    v => Books.TaxAhead(on, job.Number, sign * TaxRule.In(v, rule.Percent, own)) with { TaxPercent = rule.Percent }
                );
            yield return Ahead("tax-ahead", day, 1);
            if (charged is { } then)
                yield return Ahead("tax-ahead-charged", then, -1);
        }
    }

    /// <summary>Parts of it that were sold.</summary>
    public IEnumerable<BookMatter> PartsSold(IEnumerable<PartSold> sold) =>
        sold.Select(p =>
        {
            var key = string.Create(CultureInfo.InvariantCulture, $"{_key}part-sold:{p.Id}");
            var day = standing.TryGetValue(key, out var known) ? known.OwnDay : on(p.At);
            return One(key, p.Price, day, v => Taxed(tax(day), rule => Books.PartSold(day, job.Number, job.Lot, v, rule, own).Through(ways.Sales)));
        });

    /// <summary>It was given up: what was paid for it is gone.</summary>
    public IEnumerable<BookMatter> GivenUp()
    {
        if (job is not { ClosedAt: { } closed, CustomerId: null, Ending: JobEnd.Parts })
            yield break;
        var day = on(closed);
        yield return new BookMatter(
            _key + "given-up",
            DayText.Write(day) + PaidAs,
            day,
            () => Cost is not 0 and var cost ? Books.GivenUp(day, job.Number, job.Lot, cost) : null
        );
    }

    /// <summary>Its repair was done and is owed.</summary>
    /// <param name="charge">What it is charged at, in its currency, given the rate of a day.</param>
    public IEnumerable<BookMatter> Charged(Func<decimal?, Amount?> charge)
    {
        if (job is not { ClosedAt: { } closed, CustomerId: not null })
            yield break;
        var day = on(closed);
        if (charge(job.Currency == own.Code ? 1 : rate(job.Currency, day)) is not { } due)
        {
            Lacks = true;
            yield break;
        }

        if (due.Value != 0)
            yield return One(_key + "charged", due.Value, day, v => Taxed(tax(day), rule => Books.Charged(day, job.Number, v, rule, own)));
    }

    /// <summary>Its sale. A sale that came back stands, and the paying back beside it; sold again it is another sale.</summary>
    public IEnumerable<BookMatter> Sold(Sale? sale)
    {
        var turn = 0;
        for (; standing.TryGetValue(Back(turn), out var back); turn++)
        {
            if (standing.TryGetValue(Sale(turn), out var before))
                yield return BookMatter.Stays(before);
            yield return BookMatter.Stays(back);
        }

        var known = standing.GetValueOrDefault(Sale(turn));
        if (sale is { State: SaleState.Returned } && known is not null)
        {
            yield return BookMatter.Stays(known);
            var day = on(sale.ChangedAt);
            yield return new BookMatter(Back(turn), "", day, () => Books.CameBack(known.Entry, day));
        }

        if (sale is not { State: SaleState.Sold, Price: { } price })
            yield break;
        // A correction of a fee is no sale of another day.
        var sold = known?.OwnDay ?? on(sale.ChangedAt);
        var basis = string.Create(CultureInfo.InvariantCulture, $"{price}|{sale.Fees}|{sale.Postage + sale.Packing}|{job.Currency}{PaidAs}")
            + (sale.Treatment is { } told ? $"|{told}" : "");
        yield return new BookMatter(
            Sale(turn),
            basis,
            sold,
            () =>
                Here(price, sold) is { } got
                    ? Taxed(
                        tax(sold),
                        sale.Treatment ?? tax(sold).Treatment,
                        rule => Books.Sold(
                            sold,
                            job.Number,
                            job.Lot,
                            got,
                            Here(sale.Fees, sold)!.Value,
                            Here(sale.Postage + sale.Packing, sold)!.Value,
                            Cost,
                            rule,
                            own,
                            sale.Treatment
                        ).Through(ways.Sales)
                    )
                    : null
        );
    }

    // Outside a lot what was paid may be corrected, and then it is another cost.
    private string PaidAs => _inLot ? "" : string.Create(CultureInfo.InvariantCulture, $"|{job.Paid}");

    // What stands as paid for it, in the shop's currency: asked when an entry is made, after what comes before it.
    private decimal Cost => standing.TryGetValue(_key + "bought", out var bought) ? bought.Entry.On(Account.Units) : 0;

    private string Sale(int turn) => string.Create(CultureInfo.InvariantCulture, $"{_key}sold:{turn}");

    private string Back(int turn) => string.Create(CultureInfo.InvariantCulture, $"{_key}came-back:{turn}");

    private BookMatter One(string key, decimal value, DateOnly day, Func<decimal, BookEntry> make, string more = "") =>
        new(
            key,
            string.Create(CultureInfo.InvariantCulture, $"{value}|{job.Currency}|{DayText.Write(day)}{more}"),
            day,
            () => Here(value, day) is { } here ? here == 0 ? null : make(here) with { Rate = Rate(day) ?? 1 } : null
        );

    private static BookEntry Taxed(TaxRule rule, Func<TaxRule, BookEntry> make) => Taxed(rule, TaxTreatment.Standard, make);

    private static BookEntry Taxed(TaxRule rule, TaxTreatment treatment, Func<TaxRule, BookEntry> make) =>
        make(rule) with { TaxPercent = rule.Rate(treatment), TaxCode = rule.IsNone ? TaxTreatment.None : treatment };

    private decimal? Rate(DateOnly day) => job.Currency == own.Code ? 1 : rate(job.Currency, day);

    // In another currency by the rate of its day; the sum is rounded once.
    private decimal? Here(decimal value, DateOnly day)
    {
        if (Rate(day) is { } worth)
            return own.Round(value * worth);
        Lacks = true;
        return null;
    }
}
