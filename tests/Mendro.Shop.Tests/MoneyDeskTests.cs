using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>The books of a month out of what happened in it, payments of owners, rates and tax.</summary>
public sealed class MoneyDeskTests : IDisposable
{
    private static readonly DateOnly March = new(2026, 3, 1);

    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private MonthBooks Books(DateOnly? month = null) => _shop.Money.Month(month ?? March);

    private long Stock(decimal paid, string currency = "EUR")
    {
        var number = _shop.TakeIn(owner: null);
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Paid = paid, Lot = "attic", Currency = currency }, null, "");
        return number;
    }

    private void Sell(long number, decimal price, decimal fees = 0, decimal postage = 0)
    {
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.ForSale, "", "", price, false)).Done.ShouldNotBeNull();
        _shop
            .Sale.Becomes(number, new Sale { State = SaleState.Sold, Price = price, Fees = fees, Postage = postage })
            .Done.ShouldNotBeNull();
    }

    [Fact]
    public void A_unit_bought_mended_and_sold_is_in_the_books_to_the_cent()
    {
        var number = Stock(10);
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Cost: 0.20m, Minutes: 30)).Done.ShouldNotBeNull();
        Sell(number, 48, 4.80m, 4.10m);
        var books = Books();
        books.Entries.ShouldAllBe(e => e.Postings.Sum(p => p.Value) == 0);
        // 48 − 4.80 − 4.10 − 10 − 0.20 by hand.
        books.Gain.ShouldBe(28.90m);
        books.Sums[Account.Cash].ShouldBe(28.90m);
        books.Sums[Account.Units].ShouldBe(0);
        var line = books.ByModel.ShouldHaveSingleItem();
        (line.Name, line.Units, line.Gain.Value).ShouldBe(("Harrow Quartet", 1, 28.90m));
        line.AnHour!.Value.Value.ShouldBe(decimal.Round(28.90m * 60 / (decimal)line.Minutes, 2, MidpointRounding.AwayFromZero));
        books.ByKind.Single().Name.ShouldBe("repaired and sold");
        Books(March.AddMonths(1)).Entries.ShouldBeEmpty();
    }

    [Fact]
    public void The_file_adds_up_to_the_cent()
    {
        Sell(Stock(3.33m), 20.01m, 2.10m);
        var gone = Stock(3.34m);
        _shop.HandOver.Close(new CloseOrder(gone, JobEnd.Parts, "", "", null, false)).Done.ShouldNotBeNull();
        var rows = BooksFile.Entries(Books()).Trim().Split("\r\n").Select(r => r.Split(',')).ToList();
        var sums = rows[^1];
        for (var column = 8; column < rows[0].Length; column++)
        {
            decimal Value(string[] row) => row[column].Length > 0 ? decimal.Parse(row[column], System.Globalization.CultureInfo.InvariantCulture) : 0;
            rows.Skip(1).SkipLast(1).Sum(Value).ShouldBe(Value(sums), rows[0][column]);
        }

        rows.Skip(1).ShouldAllBe(r => r.Skip(8).Where(c => c.Length > 0).Sum(c => decimal.Parse(c, System.Globalization.CultureInfo.InvariantCulture)) == 0);
    }

    [Fact]
    public void An_owner_pays_ahead_the_rest_and_gets_back_what_was_too_much()
    {
        var number = _shop.TakeIn(fails: "power-light");
        Payment Of(string kind, decimal amount) => new() { Kind = kind, Amount = amount, Day = "2026-03-01" };
        _shop.Money.Pay(number, Of("deposit", 5)).Done.ShouldNotBeNull();
        _shop.Money.Pay(number, Of("refund", 6)).Refusal.ShouldNotBeNull();
        _shop.Money.Pay(number, Of("payment", 0)).Refusal.ShouldNotBeNull();
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 20, Cost: 1)).Done.ShouldNotBeNull();
        _shop.AllWork(number, proving: true);
        var work = _shop.View(number).MinutesSpent;
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
        var charged = Labour.Of(work, new Amount(30, "EUR")).Value + 1;
        var books = Books();
        books.Sums[Account.Owners].ShouldBe(charged - 5);
        books.Sums[Account.Repairs].ShouldBe(-charged);
        books.Gain.ShouldBe(charged - 1);
        _shop.Money.Pay(number, Of("payment", charged - 5)).Done.ShouldNotBeNull();
        Books().Sums[Account.Owners].ShouldBe(0);
        var wrong = _shop.Money.Payments(_shop.Jobs.Find(number)!.Id)[0];
        _shop.Money.Unpay(number, wrong.Id, back: false).Done.ShouldNotBeNull();
        Books().Sums[Account.Owners].ShouldBe(5);
        _shop.Money.Pay(Stock(1), Of("payment", 1)).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void A_foreign_sum_is_taken_at_the_rate_of_its_day_and_left_out_without_one()
    {
        var number = Stock(10, "USD");
        Books().LeftOut.ShouldBe([number]);
        _shop.Money.SetRate("USD", new DateOnly(2026, 2, 20), 0.915m).Done.ShouldNotBeNull();
        _shop.Money.SetRate("USD", new DateOnly(2026, 3, 5), 0.99m).Done.ShouldNotBeNull();
        var books = Books();
        books.LeftOut.ShouldBeEmpty();
        books.Sums[Account.Units].ShouldBe(9.15m);
        _shop.Money.SetRate("EUR", March, 1).Refusal.ShouldNotBeNull();
        _shop.Money.SetRate("USD", March, 0).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void Tax_is_parted_from_what_was_sold()
    {
        _shop.Money.SetTax(new TaxRule(19, true), March).Done.ShouldNotBeNull();
        Sell(Stock(0), 119);
        var books = Books();
        (books.Sums[Account.Tax], books.Sums[Account.Sales], books.Gain).ShouldBe((-19, -100, 100));
        _shop.Money.SetTax(new TaxRule(101, true), March).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public async Task Parts_of_an_order_are_stock_until_they_are_used()
    {
        var id = long.Parse(
            _shop.Suppliers.Save(new Supplier { Name = "By file", Postage = 3, Currency = "EUR" }).Done.ShouldNotBeNull().Words,
            System.Globalization.CultureInfo.InvariantCulture
        );
        _shop.Suppliers.Prices(id, "part,price\nFuse,0.50\n").Done.ShouldNotBeNull();
        var number = Stock(0);
        _shop.Stock.Want(number, "Fuse", 4).Done.ShouldNotBeNull();
        (await _shop.Orders.SendAsync(id, false, TestContext.Current.CancellationToken)).Done.ShouldNotBeNull();
        _shop.Arrivals.Receive(_shop.OrderRows.List(1)[0].Lines[0].Id, 4, 0).Done.ShouldNotBeNull();
        _shop.Stock.Use(_shop.StockRows.Named("Fuse")!.Id, number, 1).Done.ShouldNotBeNull();
        var sums = Books().Sums;
        (sums[Account.Stock], sums[Account.PartsUsed], sums[Account.Postage], sums[Account.Cash]).ShouldBe((1.50m, 0.50m, 3, -5));
    }

    [Fact]
    public void A_part_pulled_from_a_donor_takes_its_share_of_the_cost_and_its_history_along()
    {
        var (donor, other) = (Stock(10), Stock(4));
        _shop
            .HandOver.Close(
                new CloseOrder(
                    donor,
                    JobEnd.Parts,
                    "",
                    "",
                    null,
                    false,
                    Donates:
                    [
                        new DonorPart { Part = "panel", Name = "Panel", Kind = "panel", Good = 0.9 },
                        new DonorPart { Part = "speaker", Name = "Speaker", Kind = "speaker", Good = 0.6 },
                    ]
                )
            )
            .Done.ShouldNotBeNull();
        var panel = _shop.Donors.List("panel", all: false).Single();
        _shop.DonorParts.Pull(panel.Id, other).Done.ShouldNotBeNull().Words.ShouldBe($"Panel of {donor} into {other}, €6.00.");
        // Nine of fifteen tenths of what was paid for the donor.
        _shop.View(other).PartsCost.Value.ShouldBe(6);
        _shop.View(other).All<PartUsed>().Single().Body.ShouldBe(new PartUsed($"Panel of {donor}", 1, $"donor {donor}"));
        _shop.DonorParts.Pull(panel.Id, other).Refusal.ShouldNotBeNull();
        _shop.Donors.List("panel", all: true).Single().Words.ShouldBe($"into {other}");
        var sums = Books().Sums;
        // Ten are gone with the donor, six of them live on as parts.
        (sums[Account.UnitsGone], sums[Account.PartsUsed], sums[Account.Cash]).ShouldBe((4, 6, -14));

        // What is sold of the rest is money, and its cost is gone already.
        var speaker = _shop.Donors.List("speaker", all: false).Single();
        _shop.DonorParts.Sell(speaker.Id, 0).Refusal.ShouldNotBeNull();
        _shop.DonorParts.Sell(speaker.Id, 3.5m).Done.ShouldNotBeNull().Words.ShouldBe($"Speaker of {donor}: sold for €3.50.");
        _shop.DonorParts.Sell(speaker.Id, 3.5m).Refusal.ShouldNotBeNull();
        (Books().Sums[Account.Sales], Books().Sums[Account.Cash]).ShouldBe((-3.5m, -10.5m));
        _shop.Money.Of(donor, "").Entries.Single(e => e.What == "part of a donor sold").Gain.ShouldBe(3.5m);
        _shop.DonorParts.Set(speaker.Id, "there", "").Done.ShouldNotBeNull();
        Books().Sums[Account.Cash].ShouldBe(-14);
    }

    /// <summary>A year in one go is what its months are one by one.</summary>
    [Fact]
    public void The_months_of_a_year_gain_what_each_of_them_gains()
    {
        foreach (var (days, price) in new[] { (0, 20m), (31, 12.5m), (70, 9m) })
        {
            _shop.Time.SetUtcNow(new DateTimeOffset(2026, 3, 1, 9, 30, 0, TimeSpan.Zero).AddDays(days));
            Sell(Stock(4), price, 1);
        }

        var gains = _shop.Money.Gains(March.AddMonths(-1), 6);
        gains.ShouldBe(Enumerable.Range(-1, 6).Select(March.AddMonths).Select(m => (m, _shop.Money.Month(m).Gain)));
        gains.Select(g => g.Gain).Where(g => g != 0).ShouldBe([15, 7.5m, 4]);
    }

    [Fact]
    public void A_job_and_a_lot_have_books_of_their_own()
    {
        var (one, two) = (Stock(3), Stock(5));
        Sell(one, 20, 2);
        _shop.Money.Of(one, "").Gain.ShouldBe(15);
        var lot = _shop.Money.Of(null, "attic");
        (lot.Gain, lot.Sums[Account.Units], lot.Sums[Account.Cash]).ShouldBe((15, 5, 10));
        lot.Entries.Select(e => e.Job).Distinct().ShouldBe([one, two], ignoreOrder: true);
        _shop.Money.Of(null, "elsewhere").Entries.ShouldBeEmpty();
    }

    [Fact]
    public void What_lies_longest_stands_first()
    {
        var old = Stock(5);
        _shop.Time.Advance(TimeSpan.FromDays(40));
        Stock(7);
        var lies = _shop.Money.Ageing(1).ShouldHaveSingleItem();
        (lies.Number, lies.Days, lies.Bound.Value).ShouldBe((old, 40, 5));
    }
}
