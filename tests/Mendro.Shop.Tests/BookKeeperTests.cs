using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Papers;
using Mendro.Core.Stock;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>What is in the books stands: it is written once, mended by its reverse, and never worked out anew. Sums by hand.</summary>
public sealed class BookKeeperTests : IDisposable
{
    private static readonly DateOnly March = new(2026, 3, 1);
    private static readonly DateOnly April = new(2026, 4, 1);

    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private MonthBooks Books(DateOnly month)
    {
        var books = _shop.Money.Month(month);
        books.Entries.ShouldAllBe(e => e.Postings.Sum(p => p.Value) == 0);
        _shop.Money.Balance(Account.Stock).Value.ShouldBe(_shop.StockRows.Worth());
        return books;
    }

    private void On(int month, int day) => _shop.Time.SetUtcNow(new DateTimeOffset(2026, month, day, 10, 0, 0, TimeSpan.Zero));

    private long Bought(decimal paid, string lot = "")
    {
        var number = _shop.TakeIn(owner: null);
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Paid = paid, Lot = lot }, null, "");
        return number;
    }

    private void Offer(long number, decimal asking)
    {
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.ForSale, "", "", asking, false)).Done.ShouldNotBeNull();
    }

    private void Becomes(long number, SaleState state, decimal price = 0, decimal fees = 0) =>
        _shop.Sale.Becomes(number, new Sale { State = state, Price = price, Fees = fees }).Done.ShouldNotBeNull();

    [Fact]
    public void A_unit_that_came_back_is_paid_back_on_its_own_day()
    {
        On(3, 5);
        var number = Bought(10);
        Offer(number, 40);
        Becomes(number, SaleState.Sold, 40, 4);
        On(4, 2);
        Becomes(number, SaleState.Returned, 40, 4);
        // March stays: 40 less 4 of fee less 10 that it cost.
        Books(March).Gain.ShouldBe(26);
        // In April the 40 go out again and the 10 are a unit again; the fee is spent.
        var april = Books(April);
        (april.Gain, april.Sums[Account.Cash], april.Sums[Account.Units]).ShouldBe((-30, -40, 10));
        // Sold again it is another sale.
        On(4, 20);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.ForSale, "", "still there", 35, false)).Done.ShouldNotBeNull();
        Becomes(number, SaleState.Sold, 35);
        Books(April).Gain.ShouldBe(-30 + 25);
        Books(March).Gain.ShouldBe(26);
        _shop.Money.Balance(Account.Units).Value.ShouldBe(0);
    }

    [Fact]
    public void A_correction_of_a_fee_stays_in_the_month_of_the_sale_while_it_is_open()
    {
        On(3, 5);
        var number = Bought(10);
        Offer(number, 40);
        Becomes(number, SaleState.Sold, 40, 4);
        On(4, 2);
        Becomes(number, SaleState.Sold, 40, 5);
        Books(March).Gain.ShouldBe(25);
        Books(April).Entries.ShouldBeEmpty();
        // Three entries more: what was wrong stands with its reverse.
        Books(March).Entries.Count(e => e.Job == number).ShouldBe(4);
        Books(March).Entries.Single(e => e.Reverses is not null).What.ShouldBe("taken back: sold");

        // Closed, it is mended in April instead.
        _shop.Money.Lock(March, true, new DateOnly(2026, 4, 2)).Done.ShouldNotBeNull();
        Becomes(number, SaleState.Sold, 40, 6);
        Books(March).Gain.ShouldBe(25);
        Books(April).Gain.ShouldBe(-1);
        // A month that is not over is not closed; opened again it takes what belongs to it.
        _shop.Money.Lock(April, true, new DateOnly(2026, 4, 2)).Refusal.ShouldNotBeNull();
        _shop.Money.Lock(March, false, new DateOnly(2026, 4, 2)).Done.ShouldNotBeNull();
        _shop.Money.Locks(March).Select(l => l.Locked).ShouldBe([false, true]);
    }

    [Fact]
    public void Tax_and_the_hour_have_days_and_what_is_closed_keeps_what_it_had()
    {
        _shop.Money.SetTax(new TaxRule(19, true), March).Done.ShouldNotBeNull();
        On(3, 5);
        var number = Bought(0);
        Offer(number, 119);
        Becomes(number, SaleState.Sold, 119);
        var owners = _shop.TakeIn(fails: "power-light");
        _shop.Repairs.Log(new RepairOrder(owners, "switch", "flush-switch", Minutes: 30)).Done.ShouldNotBeNull();
        _shop.AllWork(owners, proving: true);
        _shop.HandOver.Close(new CloseOrder(owners, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
        var (before, sheet) = (Books(March).Sums, Sheet(owners));

        On(4, 2);
        _shop.Money.SetTax(new TaxRule(20, false), April).Done.ShouldNotBeNull();
        _shop.Settings.Save(_shop.Settings.Get() with { RatePerHour = 90 });
        Books(March).Sums.ShouldBe(before);
        (before[Account.Tax] < -19, before[Account.Sales]).ShouldBe((true, -100));
        Sheet(owners).ShouldBe(sheet);
        // From April on 20 % come on top.
        var other = Bought(0);
        Offer(other, 100);
        Becomes(other, SaleState.Sold, 100);
        var april = Books(April).Sums;
        (april[Account.Tax], april[Account.Sales], april[Account.Cash]).ShouldBe((-20, -100, 120));
    }

    private string Sheet(long number) => PaperText.Write(_shop.Papers.Of(_shop.View(number), PaperKind.Job, _ => "5 Mar 2026"));

    [Fact]
    public void Bins_go_first_in_first_out_and_the_stock_account_is_what_lies_in_them()
    {
        On(3, 2);
        // Six at 1.00, then six at 2.00.
        _shop.Stock.Import("name;bin;count;cost\nFuse;A1;6;1.00\n").Done.ShouldNotBeNull();
        var id = _shop.StockRows.Named("Fuse")!.Id;
        _shop.StockRows.Save(_shop.StockRows.Find(id)! with { Cost = 2 });
        _shop.StockRows.Move(id, 6, null, "by a file");
        Books(March).Sums[Account.Stock].ShouldBe(18);
        var number = Bought(0);
        _shop.Stock.Use(id, number, 8).Done.ShouldNotBeNull();
        // Six of the old ones and two of the new: 6 + 4, not 16.
        _shop.View(number).PartsCost.Value.ShouldBe(10);
        Books(March).Sums[Account.PartsUsed].ShouldBe(10);
        _shop.StockRows.Layers(id, new("EUR")).ShouldBe([new StockLayer(4, 8)]);
        // Taken back it lies in the bin again, for what it had cost.
        _shop.Readings.Undo(number).Done.ShouldNotBeNull();
        _shop.StockRows.Find(id)!.Count.ShouldBe(12);
        Books(March).Sums.GetValueOrDefault(Account.PartsUsed).ShouldBe(0);
        // Counted fewer, and at last thrown away: gone at what they cost; brought back they are worth it again.
        _shop.Stock.Correct(id, 11, "one lost").Done.ShouldNotBeNull();
        var worth = _shop.StockRows.Worth();
        _shop.Stock.Remove(id, back: false).Done.ShouldNotBeNull();
        Books(March).Sums[Account.Stock].ShouldBe(0);
        _shop.Stock.Remove(id, back: true).Done.ShouldNotBeNull();
        Books(March).Sums[Account.Stock].ShouldBe(worth);
    }

    [Fact]
    public void What_a_sold_unit_of_a_lot_cost_stands_whatever_becomes_of_the_lot()
    {
        On(3, 5);
        var lot = long.Parse(
            _shop.Lots.Save(new Lot { Name = "attic", Price = 12, Currency = "EUR", BoughtOn = "2026-03-02", ProfileId = "harrow-quartet" }).Done!.Words,
            System.Globalization.CultureInfo.InvariantCulture
        );
        // Without items it is in the books already, on its own day.
        var lotAlone = Books(March).Entries.Single();
        (lotAlone.Day, lotAlone.On(Account.Units)).ShouldBe((new DateOnly(2026, 3, 2), 12));
        var numbers = _shop.LotItems.TakeIn(lot, "no light\nno light\nno light\n").Done.ShouldNotBeNull().Numbers;
        Books(March).Sums[Account.Units].ShouldBe(12);
        Offer(numbers[0], 20);
        Becomes(numbers[0], SaleState.Sold, 20);
        Books(March).Sums[Account.UnitsGone].ShouldBe(4);

        _shop.LotItems.TakeIn(lot, "no light\n").Done.ShouldNotBeNull();
        _shop.LotItems.Place(numbers[1], true, "", null).Done.ShouldNotBeNull();
        _shop.Lots.Save(_shop.LotRows.Find(lot)! with { Price = 15 }).Done.ShouldNotBeNull();
        var march = Books(March);
        (march.Sums[Account.UnitsGone], march.Sums[Account.Units], march.Sums[Account.Cash]).ShouldBe((4, 11, 20 - 15));
        _shop.Jobs.Find(numbers[0])!.Paid.ShouldBe(4);
        _shop.Money.Of(null, "attic").Sums[Account.Cash].ShouldBe(5);
        _shop.Lots.Open(lot)!.Sum.SoFar.Value.ShouldBe(5);
    }

    [Fact]
    public async Task An_order_is_booked_as_it_comes_and_a_foreign_one_by_the_rate_of_the_day()
    {
        On(3, 2);
        long Supplier(string name, string currency) =>
            long.Parse(
                _shop.Suppliers.Save(new Supplier { Name = name, Postage = 2, Currency = currency }).Done.ShouldNotBeNull().Words,
                System.Globalization.CultureInfo.InvariantCulture
            );
        var id = Supplier("Over there", "EUR");
        _shop.Suppliers.Prices(id, "part,price\nFuse,0.50\n").Done.ShouldNotBeNull();
        var number = Bought(0);
        _shop.Stock.Want(number, "Fuse", 4).Done.ShouldNotBeNull();
        (await _shop.Orders.SendAsync(id, false, TestContext.Current.CancellationToken)).Done.ShouldNotBeNull();
        var line = _shop.OrderRows.List(1)[0].Lines[0];
        _shop.Arrivals.Receive(line.Id, 1, 0).Done.ShouldNotBeNull();
        var march = Books(March).Sums;
        (march[Account.Stock], march[Account.Postage], march[Account.Cash]).ShouldBe((0.50m, 2, -2.50m));

        // The rest comes in April. An order that was placed in another currency is worth what its day says.
        On(4, 3);
        using (var connection = _shop.Database.Open())
            Dapper.SqlMapper.Execute(connection, "UPDATE orders SET currency = 'USD'");
        _shop.Arrivals.Receive(line.Id, 3, 0).Refusal.ShouldNotBeNull().Problem.ShouldContain("USD");
        _shop.Money.SetRate("USD", new DateOnly(2026, 4, 1), 0.90m).Done.ShouldNotBeNull();
        _shop.Arrivals.Receive(line.Id, 3, 0).Done.ShouldNotBeNull();
        Books(April).Sums[Account.Stock].ShouldBe(1.35m);
        Books(March).Sums[Account.Stock].ShouldBe(0.50m);
    }

    [Fact]
    public void Sheet_counter_and_books_say_the_same_sum()
    {
        On(3, 5);
        foreach (var (limit, approved, charged) in ((decimal?, bool, decimal?)[])[(5m, true, 5m), (500m, true, null), (null, false, 0m)])
        {
            var number = _shop.TakeIn(fails: "power-light");
            _shop.Owners.Quote(number, new QuoteGiven(1, 2, 500, "EUR", "", ConsentWay.Phone), waits: false).Done.ShouldNotBeNull();
            _shop.Owners.Answer(number, new QuoteAnswered(approved, limit, "EUR", "Ilka Dorn", ConsentWay.Phone)).Done.ShouldNotBeNull();
            _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 40, Cost: 1.50m)).Done.ShouldNotBeNull();
            _shop.AllWork(number, proving: true);
            _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
            var due = _shop.Costs.Of(_shop.View(number)).Charge.ShouldNotBeNull();
            if (charged is { } sum)
                due.Value.ShouldBe(sum);
            _shop.LastCalls.Of(_shop.View(number)).Due.ShouldBe(due);
            _shop.Money.Of(number, "").Sums.GetValueOrDefault(Account.Owners).ShouldBe(due.Value);
            Sheet(number).ShouldContain(due.Value == 0 ? "To pay, as declined" : due.ToString());
        }
    }

    [Fact]
    public void A_payment_by_mistake_and_a_deleted_job_are_reversed_and_what_was_sold_stays()
    {
        On(3, 5);
        var (kept, mistaken) = (Bought(10), Bought(7));
        Offer(kept, 30);
        Becomes(kept, SaleState.Sold, 30);
        _shop.HandOver.Delete(mistaken).Done.ShouldNotBeNull();
        _shop.HandOver.Delete(kept).Done.ShouldNotBeNull();
        Books(March).Sums[Account.Cash].ShouldBe(20);
        _shop.HandOver.BringBack(mistaken).Done.ShouldNotBeNull();
        Books(March).Sums[Account.Cash].ShouldBe(13);

        var number = _shop.TakeIn();
        _shop.Money.Pay(number, new Payment { Kind = "deposit", Amount = 5, Day = "2026-03-05" }).Done.ShouldNotBeNull();
        var paid = _shop.Money.Payments(_shop.Jobs.Find(number)!.Id).Single();
        _shop.Money.Unpay(number, paid.Id, back: false).Done.ShouldNotBeNull();
        Books(March).Sums[Account.Cash].ShouldBe(13);
        _shop.Money.Unpay(number, paid.Id, back: true).Done.ShouldNotBeNull();
        Books(March).Sums[Account.Cash].ShouldBe(18);
    }

    [Fact]
    public void An_entry_cannot_be_changed_or_taken_away()
    {
        Bought(10);
        Books(March).Entries.ShouldNotBeEmpty();
        using var connection = _shop.Database.Open();
        foreach (
            var sql in (string[])
                ["UPDATE journal SET day = '2026-01-01'", "DELETE FROM journal_lines", "UPDATE journal_lines SET value = 0", "DELETE FROM journal"]
        )
            Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Dapper.SqlMapper.Execute(connection, sql)).Message.ShouldContain("reversed");
    }

    [Fact]
    public void What_owners_owe_is_told_with_its_age_and_other_costs_count()
    {
        On(3, 5);
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 30, Cost: 0)).Done.ShouldNotBeNull();
        _shop.AllWork(number, proving: true);
        _shop.Money.OpenItems().ShouldBeEmpty();
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
        On(4, 4);
        var item = _shop.Money.OpenItems().ShouldHaveSingleItem();
        (item.Number, item.Name, item.Days(new DateOnly(2026, 4, 4))).ShouldBe((number, "Ilka Dorn", 30));
        _shop.Money.Reminder(item.CustomerId, new DateOnly(2026, 4, 4)).ShouldContain($"no. {number}");
        _shop.Money.Pay(number, new Payment { Amount = item.Sum.Value, Day = "2026-04-04" }).Done.ShouldNotBeNull();
        _shop.Money.OpenItems().ShouldBeEmpty();
        _shop.Money.Reminder(item.CustomerId, April).ShouldBeEmpty();

        var gain = Books(April).Gain;
        _shop.Money.Note(new OwnEntry { Kind = "cost", Amount = 120, Day = "2026-04-01", Words = "rent" }).Done.ShouldNotBeNull();
        _shop.Money.Note(new OwnEntry { Kind = "brought", Amount = 500, Day = "2026-04-01", Words = "opening balance" }).Done.ShouldNotBeNull();
        _shop.Money.Note(new OwnEntry { Kind = "drawn", Amount = 50, Day = "2026-04-02" }).Done.ShouldNotBeNull();
        _shop.Money.Note(new OwnEntry { Kind = "cost", Amount = 0, Day = "2026-04-02" }).Refusal.ShouldNotBeNull();
        _shop.Money.Note(new OwnEntry { Kind = "cost", Amount = 1, Day = "2026-02-30" }).Refusal.ShouldNotBeNull();
        var april = Books(April);
        (april.Gain, april.Sums[Account.Other], april.Sums[Account.Own]).ShouldBe((gain - 120, 120, -450));
        var rent = _shop.Money.OwnEntries(5).Single(e => e.Words == "rent");
        _shop.Money.Unnote(rent.Id, back: false).Done.ShouldNotBeNull();
        Books(April).Gain.ShouldBe(gain);
        // Quarter, and each line with debit and credit: both sides are the same.
        var quarter = _shop.Money.Span(new DateOnly(2026, 1, 1), new DateOnly(2026, 6, 30));
        quarter.Gain.ShouldBe(Books(March).Gain + Books(April).Gain);
        var lines = BooksFile.Lines(quarter, "EUR", AccountNumbers.Read(null)).Trim().Split("\r\n").Skip(1).Select(l => l.Split(',')).ToList();
        decimal Side(int column) =>
            lines.Where(l => l[column].Length > 0).Sum(l => decimal.Parse(l[column], System.Globalization.CultureInfo.InvariantCulture));
        Side(9).ShouldBe(Side(10));
        Side(9).ShouldBeGreaterThan(600);
    }
}
