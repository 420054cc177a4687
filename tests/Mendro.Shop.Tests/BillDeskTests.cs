using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Papers;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>Bills: numbers without a gap, sums that agree with sheet and books, taken back and never changed.</summary>
public sealed class BillDeskTests : IDisposable
{
    private static readonly DateOnly Today = new(2026, 3, 5);

    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private long Done(decimal? limit = null, int minutes = 40)
    {
        var number = _shop.TakeIn(fails: "power-light");
        if (limit is { } most)
        {
            _shop.Owners.Quote(number, new QuoteGiven(1, 2, 500, "EUR", "", ConsentWay.Phone), waits: false).Done.ShouldNotBeNull();
            _shop.Owners.Answer(number, new QuoteAnswered(true, most, "EUR", "Ilka Dorn", ConsentWay.Phone)).Done.ShouldNotBeNull();
        }

        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: minutes, Cost: 1.50m)).Done.ShouldNotBeNull();
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
        return number;
    }

    private IReadOnlyList<GivenBill> Of(long number) => _shop.Bills.Of(_shop.Jobs.Find(number)!.Id);

    [Fact]
    public void Sheet_bill_and_books_say_the_same_sum_and_every_line_is_in_it()
    {
        _shop.Money.SetTax(new TaxRule(20, false), new DateOnly(2026, 1, 1)).Done.ShouldNotBeNull();
        foreach (var limit in (decimal?[])[null, 12m])
        {
            var number = Done(limit);
            _shop.Money.Pay(number, new Payment { Kind = "deposit", Amount = 5, Day = "2026-03-01" }).Done.ShouldNotBeNull();
            _shop.Bills.Give(number, "Lantern Yard 3\nRegister 17", Today).Done.ShouldNotBeNull();
            var bill = Of(number).Single().Paper;
            var charge = _shop.Costs.Of(_shop.View(number)).Charge!.Value.Value;
            bill.Lines.Sum(l => l.Amount).ShouldBe(charge);
            if (limit is { } most)
            {
                charge.ShouldBe(most);
                bill.Lines[^1].What.ShouldBe("Less, as agreed at most");
            }

            // 20 % on top: net is what was agreed, gross what is owed; the books say the same.
            (bill.Net, bill.Tax, bill.Gross).ShouldBe((charge, Math.Round(charge * 0.2m, 2, MidpointRounding.AwayFromZero), bill.Net + bill.Tax));
            var books = _shop.Money.Of(number, "").Sums;
            (-books[Account.Repairs], -books[Account.Tax], books[Account.Owners] + 5).ShouldBe((bill.Net, bill.Tax, bill.Gross));
            (bill.Paid, bill.Open).ShouldBe((5, bill.Gross - 5));
            var text = PaperText.Write(bill.ToPaper());
            text.ShouldContain("Register 17");
            text.ShouldContain(new Amount(bill.Gross, "EUR").ToString());
            Bill.Read(bill.ToJson())!.ToJson().ShouldBe(bill.ToJson());
        }
    }

    [Fact]
    public void Numbers_go_on_without_a_gap_in_each_year_and_a_bill_is_taken_back_and_not_changed()
    {
        var (one, two, open) = (Done(), Done(), _shop.TakeIn());
        _shop.Bills.Give(open, "", Today).Refusal.ShouldNotBeNull().Problem.ShouldContain("Hand it over first");
        _shop.Bills.Give(one, "", Today, "formone1").Done.ShouldNotBeNull();
        // The same form sent twice is one bill, and a second is refused while the first stands.
        _shop.Bills.Give(one, "", Today, "formone1").Done.ShouldNotBeNull();
        _shop.Bills.Give(one, "", Today).Refusal.ShouldNotBeNull().Problem.ShouldContain("2026-0001");
        _shop.Bills.Give(two, "", Today).Done.ShouldNotBeNull().Words.ShouldBe("Bill 2026-0002.");

        _shop.Bills.Reverse(one, "2026-0002", Today).Refusal.ShouldNotBeNull();
        _shop.Bills.Reverse(one, "2026-0001", Today).Done.ShouldNotBeNull();
        _shop.Bills.Reverse(one, "2026-0001", Today).Refusal.ShouldNotBeNull();
        _shop.Settings.Save(_shop.Settings.Get() with { RatePerHour = 90 });
        _shop.Bills.Give(one, "", Today).Done.ShouldNotBeNull().Words.ShouldBe("Bill 2026-0004.");
        var given = Of(one);
        given.Select(b => (b.Paper.Number, b.Stands)).ShouldBe([("2026-0001", false), ("2026-0003", false), ("2026-0004", true)]);
        given.Sum(b => b.Paper.Gross).ShouldBe(given[0].Paper.Gross);
        _shop.Bills.OfYear(2026).Select(b => b.Paper.Number).ShouldBe(["2026-0001", "2026-0002", "2026-0003", "2026-0004"]);
        _shop.Bills.Give(Done(), "", new DateOnly(2027, 1, 2)).Done.ShouldNotBeNull().Words.ShouldBe("Bill 2027-0001.");
        using var connection = _shop.Database.Open();
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Dapper.SqlMapper.Execute(connection, "UPDATE bills SET paper = '{}'"));
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Dapper.SqlMapper.Execute(connection, "DELETE FROM bills"));
    }

    [Fact]
    public void What_was_declined_or_is_the_shops_own_has_no_bill()
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Owners.Quote(number, new QuoteGiven(1, 2, 500, "EUR", "", ConsentWay.Phone), waits: false).Done.ShouldNotBeNull();
        _shop.Owners.Answer(number, new QuoteAnswered(false, null, "EUR", "Ilka Dorn", ConsentWay.Phone)).Done.ShouldNotBeNull();
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "declined", null, false)).Done.ShouldNotBeNull();
        _shop.Bills.Give(number, "", Today).Refusal.ShouldNotBeNull().Problem.ShouldContain("nothing to charge");
        var own = _shop.TakeIn(owner: null);
        _shop.HandOver.Close(new CloseOrder(own, JobEnd.Parts, "", "", null, false)).Done.ShouldNotBeNull();
        _shop.Bills.Give(own, "", Today).Refusal.ShouldNotBeNull();
    }
}
