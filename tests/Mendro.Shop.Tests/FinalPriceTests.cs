using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Papers;
using Mendro.Core.Quantities;

namespace Mendro.Shop.Tests;

/// <summary>What a repair is charged at in the end: one sum on sheet, counter, bill and books. Sums by hand.</summary>
public sealed class FinalPriceTests : IDisposable
{
    private readonly TestShop _shop = new();

    public FinalPriceTests() => _shop.Settings.Save(_shop.Settings.Get() with { RatePerHour = 60 });

    public void Dispose() => _shop.Dispose();

    private long Repaired(DateOnly? warranty = null, FinalPrice? price = null)
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 30)).Done.ShouldNotBeNull();
        if (price is not null)
            _shop.FinalPrices.Set(number, price).Done.ShouldNotBeNull();
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false, "", warranty)).Done.ShouldNotBeNull();
        return number;
    }

    private (decimal Due, decimal Books, string Sheet) Sums(long number)
    {
        var view = _shop.View(number);
        var sheet = _shop.Papers.Of(view, PaperKind.Job, d => d.ToString("yyyy-MM-dd"));
        return (
            _shop.LastCalls.Of(view).Due!.Value.Value,
            _shop.Money.Of(number, "").Sums.GetValueOrDefault(Account.Owners),
            PaperText.Write(sheet)
        );
    }

    [Theory]
    [InlineData(PriceReason.Discount, 20, 20, "To pay, with a discount: a regular")]
    [InlineData(PriceReason.Agreed, 45, 45, "To pay, as agreed: a regular")]
    [InlineData(PriceReason.Waived, 45, 0, "To pay, waived: a regular")]
    public void A_price_with_its_reason_is_one_sum_everywhere(PriceReason reason, int price, int charged, string line)
    {
        var number = Repaired(price: new FinalPrice(price, "EUR", reason, null, "a regular"));
        var (due, books, sheet) = Sums(number);
        (due, books).ShouldBe((charged, charged));
        sheet.ShouldContain(line);
        var bill = _shop.Bills.Draft(_shop.View(number), new DateOnly(2026, 4, 1));
        bill?.Gross.ShouldBe(charged);
        (bill is null).ShouldBe(charged == 0);
    }

    [Fact]
    public void A_warranty_names_its_job_and_costs_nothing()
    {
        var today = DateOnly.FromDateTime(_shop.Time.GetUtcNow().Date);
        var first = Repaired(today.AddMonths(6));
        Sums(first).Due.ShouldNotBe(0);
        var again = _shop.TakeIn(fails: "power-light");
        var job = _shop.Jobs.Find(again)!;
        _shop.FinalPrices.Warranty(job, today).ShouldBe(first);
        // Not after its last day.
        _shop.FinalPrices.Warranty(job, today.AddMonths(6).AddDays(1)).ShouldBeNull();

        FinalPrice Of(long? number) => new(0, "EUR", PriceReason.Warranty, number);
        _shop.FinalPrices.Set(again, Of(null)).Refusal!.Problem.ShouldContain("which job's");
        _shop.FinalPrices.Set(again, Of(again)).Refusal!.Problem.ShouldContain("its own");
        _shop.FinalPrices.Set(again, Of(9999)).Refusal!.Problem.ShouldContain("no job 9999");
        _shop.FinalPrices.Set(again, Of(first)).Done!.Words.ShouldBe($"Charged €0.00, warranty of job {first}");
        _shop.AllWork(again, proving: true);
        _shop.HandOver.Close(new CloseOrder(again, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
        Sums(again).ShouldSatisfyAllConditions(s => s.Due.ShouldBe(0), s => s.Books.ShouldBe(0), s => s.Sheet.ShouldContain($"warranty of job {first}"));
    }

    [Fact]
    public void The_last_price_stands_and_taken_back_the_work_is_charged_again()
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 30)).Done.ShouldNotBeNull();
        // Half a minute of trying it, half an hour of work, at 60 an hour.
        _shop.Costs.Of(_shop.View(number)).Charge!.Value.Value.ShouldBe(30.50m);
        _shop.FinalPrices.Set(number, new FinalPrice(10, "EUR", PriceReason.Discount)).Done.ShouldNotBeNull();
        _shop.FinalPrices.Set(number, new FinalPrice(12, "EUR", PriceReason.Discount)).Done.ShouldNotBeNull();
        _shop.Costs.Of(_shop.View(number)).Charge!.Value.Value.ShouldBe(12);
        _shop.Readings.Withdraw(number, _shop.View(number).Records.Last(r => r.Body is FinalPrice).Id).Done.ShouldNotBeNull();
        _shop.Costs.Of(_shop.View(number)).Charge!.Value.Value.ShouldBe(10);
        // More than work and parts is no discount.
        var more = new FinalPrice(31, "EUR", PriceReason.Discount);
        _shop.FinalPrices.Set(number, more, null, new Amount(30.50m, "EUR")).Refusal!.Problem.ShouldContain("no discount");
        _shop.FinalPrices.Set(number, new FinalPrice(-1, "EUR", PriceReason.Discount)).Refusal.ShouldNotBeNull();
        _shop.FinalPrices.Set(_shop.TakeIn(owner: null), new FinalPrice(1, "EUR", PriceReason.Discount)).Refusal!.Problem.ShouldContain("shop's own");
    }

    [Fact]
    public void Tax_on_top_is_owed_at_the_counter_on_the_sheet_and_on_the_bill()
    {
        _shop.Money.SetTax(new TaxRule(20, false), new DateOnly(2020, 1, 1)).Done.ShouldNotBeNull();
        var number = Repaired();
        // 30.00 of work and what proving took stand on the sheet; a fifth of it comes on top.
        var charge = _shop.Costs.Of(_shop.View(number)).Charge!.Value.Value;
        var gross = charge + decimal.Round(charge * 0.2m, 2, MidpointRounding.AwayFromZero);
        var (due, books, sheet) = Sums(number);
        (due, books).ShouldBe((gross, gross));
        sheet.ShouldContain("Tax, 20 %");
        _shop.Bills.Draft(_shop.View(number), new DateOnly(2026, 4, 1))!.Gross.ShouldBe(gross);
    }

    [Fact]
    public void A_job_in_yen_is_quoted_and_charged_in_yen()
    {
        // One yen is 0.006 euros: an hour at 60 is 10,000 yen (60 / 0.006).
        _shop.Money.SetRate("JPY", new DateOnly(2020, 1, 1), 0.006m).Done.ShouldNotBeNull();
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Currency = "JPY" }, "Ilka Dorn", "");
        _shop.Repairs.Log(new RepairOrder(number, "switch", "flush-switch", Minutes: 30)).Done.ShouldNotBeNull();
        var cost = _shop.Costs.Of(_shop.View(number));
        // Thirty minutes and a half of it: 10,000 · 30.5 / 60 = 5,083.3, and a yen has no smaller coin.
        (cost.Labour!.Value.Value, cost.Charge!.Value.Currency.Code).ShouldBe((5_083, "JPY"));
        _shop.Owners.Range(_shop.View(number)).Low.Currency.Code.ShouldBe("JPY");
        // Agreed up to 4,000 yen: that is what is charged, 24.00 in the books.
        _shop.Owners.Quote(number, new QuoteGiven(3_000, 3_500, 4_000, "JPY", "the switch", ConsentWay.Phone), false).Done.ShouldNotBeNull();
        _shop.Owners.Answer(number, new QuoteAnswered(true, 4_000, "JPY", "she", ConsentWay.Phone)).Done.ShouldNotBeNull();
        _shop.AllWork(number, proving: true);
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Returned, "", "", null, false)).Done.ShouldNotBeNull();
        Sums(number).ShouldSatisfyAllConditions(s => s.Due.ShouldBe(4_000), s => s.Books.ShouldBe(24));
        _shop.Money.Month(new DateOnly(2026, 3, 1)).LeftOut.ShouldBeEmpty();
    }

    [Fact]
    public void A_receipt_says_what_was_paid_how_and_what_is_open()
    {
        _shop.Money.SetWays(new MoneyWays(false, false, false, true)).Done.ShouldNotBeNull();
        var number = Repaired(price: new FinalPrice(20, "EUR", PriceReason.Agreed));
        var job = _shop.Jobs.Find(number)!.Id;
        var day = DayText.Write(DateOnly.FromDateTime(_shop.Time.GetUtcNow().Date));
        _shop.Money.Pay(number, new Mendro.Storage.Payment { Amount = 15, Day = day, Words = "the switch" }).Done.ShouldNotBeNull();
        var paid = _shop.Money.Payments(job).Single();
        var text = PaperText.Write(_shop.Bills.Receipt(_shop.View(number), paid.Id).ShouldNotBeNull());
        foreach (var words in (string[])["Receipt", "€15.00", "bank", "the switch", "Still open", "€5.00", "Ilka Dorn"])
            text.ShouldContain(words);
        _shop.Money.Unpay(number, paid.Id, back: false).Done.ShouldNotBeNull();
        _shop.Bills.Receipt(_shop.View(number), paid.Id).ShouldBeNull();
    }
}
