namespace Mendro.Core.Money;

/// <summary>Accounts of the shop.</summary>
public enum Account
{
    /// <summary>Money in the drawer; all money there is where the shop does not keep the two apart.</summary>
    Cash,

    /// <summary>Money at the bank.</summary>
    Bank,

    /// <summary>Parts in bins, at own cost.</summary>
    Stock,

    /// <summary>Units bought and not gone yet, at what was paid for them.</summary>
    Units,

    /// <summary>What owners owe; below nothing what they paid ahead.</summary>
    Owners,

    /// <summary>Tax owed.</summary>
    Tax,

    /// <summary>Tax paid on what was bought, to be had back.</summary>
    InputTax,

    /// <summary>Tax owed already on what was paid ahead, until the work is charged.</summary>
    TaxAhead,

    /// <summary>What the shop's owner brought in: stock that was there before, or was put in by hand.</summary>
    Own,

    /// <summary>Income of sales.</summary>
    Sales,

    /// <summary>Income of repairs for owners.</summary>
    Repairs,

    /// <summary>Cost of parts used.</summary>
    PartsUsed,

    /// <summary>Cost of units that went: sold or given up.</summary>
    UnitsGone,

    /// <summary>Fees of places where is sold.</summary>
    Fees,

    /// <summary>Postage and packing.</summary>
    Postage,

    /// <summary>Other costs: rent, tools.</summary>
    Other,
}

/// <summary>A sum on one side of an account.</summary>
/// <param name="Account">Account.</param>
/// <param name="Value">Debit above nothing, credit below.</param>
public sealed record Posting(Account Account, decimal Value);

/// <summary>One matter in the books: its postings add up to nothing (double entry, Pacioli 1494).</summary>
/// <param name="Day">Day.</param>
/// <param name="What">What it was.</param>
/// <param name="Job">Number of its job, or null.</param>
/// <param name="Lot">Lot of that job, or blank.</param>
/// <param name="Postings">Postings.</param>
public sealed record BookEntry(DateOnly Day, string What, long? Job, string Lot, IReadOnlyList<Posting> Postings)
{
    /// <summary>Number in the journal; 0 before it is written.</summary>
    public long Number { get; init; }

    /// <summary>Number of the entry that it takes back, or null.</summary>
    public long? Reverses { get; init; }

    /// <summary>What one of the foreign currency was worth; 1 for the shop's own.</summary>
    public decimal Rate { get; init; } = 1;

    /// <summary>Tax rate in it, %.</summary>
    public decimal TaxPercent { get; init; }

    /// <summary>How it is taxed; null where no tax has to do with it.</summary>
    public TaxTreatment? TaxCode { get; init; }

    /// <summary>What it belongs to, such as <c>job 12</c> or <c>order 3</c>; blank before it is written.</summary>
    public string Document { get; init; } = "";

    /// <summary>Who did what it came of; blank where nobody signs in.</summary>
    public string Who { get; init; } = "";

    /// <summary>What is gained by it: income less cost. What is only bought, owed or paid moves none.</summary>
    public decimal Gain => -Postings.Where(p => p.Account >= Account.Sales).Sum(p => p.Value);

    /// <summary>The same with the money through the bank, or not.</summary>
    public BookEntry Through(bool bank) =>
        bank ? this with { Postings = [.. Postings.Select(p => p.Account == Account.Cash ? p with { Account = Account.Bank } : p)] } : this;

    /// <summary>Sum on an account.</summary>
    public decimal On(Account account) => Postings.Where(p => p.Account == account).Sum(p => p.Value);
}

/// <summary>How each thing that happens in a shop is booked.</summary>
public static class Books
{
    /// <summary>A unit was bought.</summary>
    public static BookEntry Bought(DateOnly day, long job, string lot, decimal paid) =>
        new(day, "bought", job, lot, [new(Account.Units, paid), new(Account.Cash, -paid)]);

    /// <summary>Parts of an order came.</summary>
    public static BookEntry Received(DateOnly day, string supplier, decimal goods, decimal postage) =>
        new(day, $"parts from {supplier}", null, "", [new(Account.Stock, goods), new(Account.Postage, postage), new(Account.Cash, -goods - postage)]);

    /// <summary>Parts went into a unit: out of a bin, or bought for it.</summary>
    public static BookEntry Used(DateOnly day, long job, string lot, decimal cost, bool fromStock) =>
        new(day, "parts", job, lot, [new(Account.PartsUsed, cost), new(fromStock ? Account.Stock : Account.Cash, -cost)]);

    /// <summary>A part of a donor lives on in another unit: its cost is not gone with the donor.</summary>
    public static BookEntry OutOfDonor(DateOnly day, long donor, string lot, decimal cost) =>
        new(day, "part of it in another unit", donor, lot, [new(Account.Units, cost), new(Account.UnitsGone, -cost)]);

    /// <summary>A part of a donor went into a unit, which bears its cost.</summary>
    public static BookEntry FromDonor(DateOnly day, long job, string lot, decimal cost) =>
        new(day, "part of a donor", job, lot, [new(Account.PartsUsed, cost), new(Account.Units, -cost)]);

    /// <summary>A unit was sold.</summary>
    /// <param name="day">Day.</param>
    /// <param name="job">Number of its job.</param>
    /// <param name="lot">Its lot, or blank.</param>
    /// <param name="price">Price it fetched, tax in it or not by the rule.</param>
    /// <param name="fees">Fees.</param>
    /// <param name="postage">Postage and packing.</param>
    /// <param name="paid">What was paid for it once.</param>
    /// <param name="tax">Tax rule.</param>
    /// <param name="currency">Currency.</param>
    /// <param name="own">Treatment of this sale; null for the shop's usual one.</param>
    public static BookEntry Sold(
        DateOnly day,
        long job,
        string lot,
        decimal price,
        decimal fees,
        decimal postage,
        decimal paid,
        TaxRule tax,
        Currency currency,
        TaxTreatment? own = null
    )
    {
        var (net, owed, got) = tax.OfSale(price, paid, own, currency);
        return new(
            day,
            "sold",
            job,
            lot,
            [
                new(Account.Cash, got - fees - postage),
                new(Account.Fees, fees),
                new(Account.Postage, postage),
                new(Account.Sales, -net),
                new(Account.Tax, -owed),
                new(Account.UnitsGone, paid),
                new(Account.Units, -paid),
            ]
        );
    }

    /// <summary>A part of a donor was sold; what was paid for the donor is gone since it was given up.</summary>
    public static BookEntry PartSold(DateOnly day, long job, string lot, decimal price, TaxRule tax, Currency currency)
    {
        var (net, owed, got) = tax.Of(price, currency);
        return new(day, "part of a donor sold", job, lot, [new(Account.Cash, got), new(Account.Sales, -net), new(Account.Tax, -owed)]);
    }

    /// <summary>A unit came back from its buyer: the price is paid back, the unit is the shop's again; fees and postage are spent.</summary>
    public static BookEntry CameBack(BookEntry sold, DateOnly day)
    {
        Account[] back = [Account.Sales, Account.Tax, Account.Units, Account.UnitsGone];
        var turned = sold.Postings.Where(p => back.Contains(p.Account)).Select(p => p with { Value = -p.Value }).ToList();
        return sold with
        {
            Day = day,
            What = "came back: paid back",
            Postings = [new(sold.On(Account.Bank) != 0 ? Account.Bank : Account.Cash, -turned.Sum(p => p.Value)), .. turned],
        };
    }

    /// <summary>What a lot cost beyond what its units bear: units to come, or what those that went bear too little.</summary>
    public static BookEntry RestOfLot(DateOnly day, string lot, decimal rest, bool gone) =>
        new(day, "lot, beyond its units", null, lot, [new(gone ? Account.UnitsGone : Account.Units, rest), new(Account.Cash, -rest)]);

    /// <summary>Parts were put into a bin by hand, or were there before.</summary>
    public static BookEntry PutIn(DateOnly day, string part, decimal value) =>
        new(day, $"stock: {part}", null, "", [new(Account.Stock, value), new(Account.Own, -value)]);

    /// <summary>Tax on an order, to be had back.</summary>
    public static BookEntry InputTax(DateOnly day, string supplier, decimal tax) =>
        new(day, $"tax on parts from {supplier}", null, "", [new(Account.InputTax, tax), new(Account.Cash, -tax)]);

    /// <summary>Another cost was paid: rent, tools.</summary>
    /// <param name="day">Day.</param>
    /// <param name="what">What for.</param>
    /// <param name="sum">What was paid.</param>
    /// <param name="tax">Tax in it that is had back.</param>
    public static BookEntry OtherCost(DateOnly day, string what, decimal sum, decimal tax = 0) =>
        new(day, what, null, "", [new(Account.Other, sum - tax), new(Account.InputTax, tax), new(Account.Cash, -sum)]);

    /// <summary>Money was carried to the bank; below nothing it was fetched from there.</summary>
    public static BookEntry ToBank(DateOnly day, string what, decimal sum) =>
        new(day, what, null, "", [new(Account.Bank, sum), new(Account.Cash, -sum)]);

    /// <summary>The drawer was counted and holds more than the books say; below nothing less.</summary>
    public static BookEntry DrawerCounted(DateOnly day, string what, decimal more) =>
        new(day, what, null, "", [new(Account.Cash, more), new(Account.Other, -more)]);

    /// <summary>Tax is owed on what was paid ahead; below nothing it is the charge that owes it now.</summary>
    public static BookEntry TaxAhead(DateOnly day, long job, decimal tax) =>
        new(day, tax > 0 ? "tax on what was paid ahead" : "tax on what was paid ahead, now on the work", job, "",
            [new(Account.TaxAhead, tax), new(Account.Tax, -tax)]);

    /// <summary>Its owner brought money in, an opening balance among it; below nothing it was drawn.</summary>
    public static BookEntry BroughtIn(DateOnly day, string what, decimal sum) =>
        new(day, what, null, "", [new(Account.Cash, sum), new(Account.Own, -sum)]);

    /// <summary>A bin was counted: more, fewer, or spoilt.</summary>
    public static BookEntry Counted(DateOnly day, string part, decimal value) =>
        new(day, $"counted: {part}", null, "", [new(Account.Stock, value), new(Account.PartsUsed, -value)]);

    /// <summary>A unit was given up: what was paid for it is gone.</summary>
    public static BookEntry GivenUp(DateOnly day, long job, string lot, decimal paid) =>
        new(day, "given up", job, lot, [new(Account.UnitsGone, paid), new(Account.Units, -paid)]);

    /// <summary>An owner's repair was done and is owed.</summary>
    public static BookEntry Charged(DateOnly day, long job, decimal price, TaxRule tax, Currency currency)
    {
        var (net, owed, due) = tax.Of(price, currency);
        return new(day, "repair charged", job, "", [new(Account.Owners, due), new(Account.Repairs, -net), new(Account.Tax, -owed)]);
    }

    /// <summary>An owner paid, ahead or afterwards; below nothing it was paid back.</summary>
    public static BookEntry Paid(DateOnly day, long job, string what, decimal sum) =>
        new(day, what, job, "", [new(Account.Cash, sum), new(Account.Owners, -sum)]);

    /// <summary>The contrary of a matter, for what is taken back.</summary>
    public static BookEntry Back(BookEntry entry, DateOnly day, string what) =>
        entry with
        {
            Day = day,
            What = what,
            Postings = entry.Postings.Select(p => p with { Value = -p.Value }).ToList(),
        };

    /// <summary>Sums of accounts over entries.</summary>
    public static IReadOnlyDictionary<Account, decimal> Sums(IEnumerable<BookEntry> entries) =>
        entries.SelectMany(e => e.Postings).GroupBy(p => p.Account).ToDictionary(g => g.Key, g => g.Sum(p => p.Value));
}
