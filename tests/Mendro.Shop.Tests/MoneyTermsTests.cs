using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>Ways of being taxed, cash and bank apart, and who changed what. Sums by hand.</summary>
public sealed class MoneyTermsTests : IDisposable
{
    private static readonly DateOnly Long = new(2020, 1, 1);
    private static readonly DateOnly March = new(2026, 3, 1);

    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private IReadOnlyDictionary<Account, decimal> Sums() => _shop.Money.Month(March).Sums;

    private void On(int day) => _shop.Time.SetUtcNow(new DateTimeOffset(2026, 3, day, 10, 0, 0, TimeSpan.Zero));

    private long Sold(decimal paid, decimal price, string tax = "")
    {
        var number = _shop.TakeIn(owner: null);
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Paid = paid }, null, "");
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.ForSale, "", "", price, false)).Done.ShouldNotBeNull();
        _shop.Sale.Becomes(number, new Sale { State = SaleState.Sold, Price = price, Tax = tax }).Done.ShouldNotBeNull();
        return number;
    }

    [Fact]
    public void Used_goods_are_taxed_on_their_margin_and_one_sale_otherwise()
    {
        _shop.Money.SetTax(new TaxRule(19, true) { Reduced = 7, Treatment = TaxTreatment.Margin }, Long).Done.ShouldNotBeNull();
        On(5);
        var number = Sold(40, 100);
        // 60·19/119 = 9.58 of the margin.
        (Sums()[Account.Tax], Sums()[Account.Sales]).ShouldBe((-9.58m, -90.42m));
        _shop.Money.Month(March).Entries.Single(e => e.What == "sold").TaxCode.ShouldBe(TaxTreatment.Margin);
        // Told that it was bought with tax on its bill: 100·19/119 = 15.97. What was posted is reversed.
        _shop.Sale.Becomes(number, new Sale { State = SaleState.Sold, Price = 100, Tax = "Standard" }).Done.ShouldNotBeNull();
        Sums()[Account.Tax].ShouldBe(-15.97m);
        // At the reduced rate: 107·7/107 = 7.
        Sold(0, 107, "Reduced");
        Sums()[Account.Tax].ShouldBe(-22.97m);
    }

    [Fact]
    public void A_small_business_owes_no_tax_and_says_so()
    {
        _shop.Money.SetTax(new TaxRule(19, true) { Treatment = TaxTreatment.None, InputTax = false }, Long).Done.ShouldNotBeNull();
        On(5);
        Sold(10, 119);
        Sums().GetValueOrDefault(Account.Tax).ShouldBe(0);
        Sums()[Account.Sales].ShouldBe(-119);
        _shop.Money.SetTax(new TaxRule(19, true) { Treatment = TaxTreatment.Reduced }, Long).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void Tax_on_what_is_bought_is_had_back_where_it_is_so()
    {
        On(5);
        OwnEntry Rent() => new() { Kind = "cost", Amount = 119, Day = "2026-03-05", TaxPercent = 19, Words = "rent" };
        _shop.Money.Note(Rent()).Done.ShouldNotBeNull();
        (Sums()[Account.Other], Sums().GetValueOrDefault(Account.InputTax)).ShouldBe((119, 0));
        _shop.Money.SetTax(new TaxRule(19, true) { InputTax = true }, Long).Done.ShouldNotBeNull();
        _shop.Money.Note(Rent() with { Words = "tools" }).Done.ShouldNotBeNull();
        // The first stays as it was booked; of the second 19 are no cost.
        (Sums()[Account.Other], Sums()[Account.InputTax], Sums()[Account.Cash]).ShouldBe((219, 19, -238));
    }

    [Fact]
    public void Tax_on_what_was_paid_ahead_is_owed_at_once_and_only_once()
    {
        _shop.Money.SetTax(new TaxRule(19, true) { OnAhead = true }, Long).Done.ShouldNotBeNull();
        _shop.Settings.Save(_shop.Settings.Get() with { RatePerHour = 119 });
        On(5);
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Money.Pay(number, new Payment { Kind = "deposit", Amount = 11.90m, Day = "2026-03-05" }).Done.ShouldNotBeNull();
        // 11.90 hold 1.90.
        (Sums()[Account.Tax], Sums()[Account.TaxAhead], Sums()[Account.Owners]).ShouldBe((-1.90m, 1.90m, -11.90m));
        _shop.FinalPrices.Set(number, new FinalPrice(59.50m, "EUR", PriceReason.Agreed)).Done.ShouldNotBeNull();
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
        // 59.50 hold 9.50 in all; nothing is owed twice.
        (Sums()[Account.Tax], Sums()[Account.TaxAhead], Sums()[Account.Owners]).ShouldBe((-9.50m, 0, 47.60m));
        _shop.Money.Month(March).Gain.ShouldBe(50);
    }

    [Fact]
    public void Cash_and_bank_stand_apart_and_the_drawer_is_counted()
    {
        On(5);
        _shop.Money.Note(new OwnEntry { Kind = "brought", Amount = 100, Day = "2026-03-05" }).Done.ShouldNotBeNull();
        _shop.Money.SetWays(new MoneyWays(Sales: true, Bought: false, Orders: true, Paid: false)).Done.ShouldNotBeNull();
        Sold(30, 80);
        (Sums()[Account.Cash], Sums()[Account.Bank]).ShouldBe((70, 80));
        _shop.Money.Note(new OwnEntry { Kind = "to-bank", Amount = 50, Day = "2026-03-05" }).Done.ShouldNotBeNull();
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Money.Pay(number, new Payment { Kind = "deposit", Amount = 10, Day = "2026-03-05", Way = "bank" }).Done.ShouldNotBeNull();
        _shop.Money.Pay(number, new Payment { Kind = "deposit", Amount = 5, Day = "2026-03-05" }).Done.ShouldNotBeNull();
        (Sums()[Account.Cash], Sums()[Account.Bank]).ShouldBe((25, 140));
        _shop.Money.Pay(number, new Payment { Kind = "deposit", Amount = 5, Day = "2026-03-05", Way = "shells" }).Refusal.ShouldNotBeNull();
        // What came back is paid back from where it came.
        var back = Sold(0, 20);
        _shop.Sale.Becomes(back, new Sale { State = SaleState.Returned, Price = 20 }).Done.ShouldNotBeNull();
        Sums()[Account.Bank].ShouldBe(140);
        // Counted: 24.50 lie there where the books say 25.
        _shop.Money.CountDrawer(25, new DateOnly(2026, 3, 5)).Done!.Words.ShouldContain("as the books say");
        _shop.Money.CountDrawer(24.50m, new DateOnly(2026, 3, 5)).Done!.Words.ShouldContain("€0.50 less");
        (Sums()[Account.Cash], Sums()[Account.Other]).ShouldBe((24.50m, 0.50m));
        _shop.Money.CountDrawer(24.50m, new DateOnly(2026, 3, 5)).Done!.Words.ShouldContain("as the books say");
    }

    [Fact]
    public void A_payment_has_a_day_that_can_be_and_is_brought_back()
    {
        On(5);
        var number = _shop.TakeIn(fails: "power-light");
        string? Refused(string day) =>
            _shop.Money.Pay(number, new Payment { Kind = "deposit", Amount = 10, Day = day }).Refusal?.Problem;
        Refused("2026-03-06").ShouldNotBeNull().ShouldContain("still to come");
        Refused("2025-03-05").ShouldNotBeNull().ShouldContain("long before");
        Refused("2026-02-20").ShouldBeNull();
        var paid = _shop.Money.Payments(_shop.Jobs.Find(number)!.Id).Single();
        _shop.Money.Unpay(number, paid.Id, back: false).Done.ShouldNotBeNull();
        _shop.Money.TakenAway(paid.JobId).Single().Id.ShouldBe(paid.Id);
        _shop.Money.Balance(Account.Cash).Value.ShouldBe(0);
        _shop.Money.Unpay(number, paid.Id, back: true).Done.ShouldNotBeNull();
        _shop.Money.Balance(Account.Cash).Value.ShouldBe(10);
        _shop.Money.TakenAway(paid.JobId).ShouldBeEmpty();
    }

    [Fact]
    public void What_is_changed_by_hand_stands_with_what_it_was()
    {
        On(5);
        var number = Sold(10, 50);
        _shop.Sale.Becomes(number, new Sale { State = SaleState.Sold, Price = 55, Fees = 3 }).Done.ShouldNotBeNull();
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Paid = 12 }, null, "");
        _shop.Settings.Save(_shop.Settings.Get() with { RatePerHour = 77 });
        _shop.Money.SetRate("USD", March, 0.9m).Done.ShouldNotBeNull();
        _shop.Money.SetRate("USD", March, 0.8m).Done.ShouldNotBeNull();
        var changes = _shop.Money.Changes(new DateTimeOffset(2026, 3, 1, 0, 0, 0, TimeSpan.Zero), new DateTimeOffset(2026, 4, 1, 0, 0, 0, TimeSpan.Zero), 100);
        changes.ShouldContain(c => c.Job == number && c.Field == "price" && c.Old == "50" && c.New == "55");
        changes.ShouldContain(c => c.Job == number && c.Field == "fees" && c.Old == "0" && c.New == "3");
        changes.ShouldContain(c => c.Job == number && c.Field == "paid for it" && c.Old == "10" && c.New == "12");
        changes.ShouldContain(c => c.Field == "an hour" && c.New == "77");
        changes.ShouldContain(c => c.About == "rate of USD" && c.Old == "0.9" && c.New == "0.8");
        changes.ShouldAllBe(c => c.At.Month == 3);
    }

    [Fact]
    public void The_purchase_book_says_of_whom_and_what_came_of_it()
    {
        On(5);
        var number = Sold(40, 100);
        _shop.Purchases.Keep(number, false, "Ada Vint", "Mill Lane 3", "receipt 7").Done.ShouldNotBeNull();
        var other = _shop.TakeIn(owner: null);
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(other)! with { Paid = 5 }, null, "");
        var line = _shop.Purchases.Lines(false, 0, 10).Single(l => l.Of.Number == number);
        (line.Of.Seller, line.Of.Proof, line.Margin, line.Sold).ShouldBe(("Ada Vint", "receipt 7", 60, new DateOnly(2026, 3, 5)));
        _shop.Purchases.Lines(true, 0, 10).Select(l => l.Of.Number).ShouldBe([other]);
        _shop.Purchases.Csv().ShouldContain("Ada Vint");
        // A unit that somebody brought is not bought.
        _shop.Purchases.Keep(_shop.TakeIn(), false, "x", "", "").Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void The_journal_file_has_the_accountants_numbers_and_the_other_side()
    {
        On(5);
        Sold(40, 100);
        _shop.Money.SetNumbers(new Dictionary<Account, string> { [Account.Cash] = "1600", [Account.Sales] = "8400" }).Done.ShouldNotBeNull();
        _shop.Money.SetNumbers(new Dictionary<Account, string> { [Account.Cash] = "=1+1" }).Refusal.ShouldNotBeNull();
        var lines = BooksFile.Lines(_shop.Money.Month(March), "EUR", _shop.Money.Numbers).Split('\n').Select(l => l.Trim().Split(',')).ToList();
        int Column(string name) => Array.IndexOf(lines[0], name);
        var sold = lines.Where(l => l.Length > 2 && l[Column("what")] == "sold").ToList();
        var cash = sold.Single(l => l[Column("account")] == "1600");
        (cash[Column("debit")], cash[Column("counter-account")], cash[Column("tax-code")]).ShouldBe(("100.00", "8400", "none"));
        cash[Column("document")].ShouldStartWith("job ");
    }
}
