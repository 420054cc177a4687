using Mendro.Core.Money;

namespace Mendro.Core.Tests.Money;

/// <summary>How a price is parted by the ways in which a shop may be taxed. Sums by hand.</summary>
public sealed class TaxRuleTests
{
    private static readonly Currency Euro = new("EUR");

    [Fact]
    public void On_a_margin_only_what_was_gained_is_taxed()
    {
        // Bought at 40, sold at 100: a margin of 60 holds 60·19/119 = 9.58 (Council Directive 2006/112/EC, article 315).
        var rule = new TaxRule(19, true) { Treatment = TaxTreatment.Margin };
        rule.OfSale(100, 40, null, Euro).ShouldBe((90.42m, 9.58m, 100));
        // Sold below what it cost: no tax, and none comes back.
        rule.OfSale(30, 40, null, Euro).ShouldBe((30, 0, 30));
        // Work is taxed in full: 119 hold 19.
        rule.Of(119, Euro).ShouldBe((100, 19, 119));
        // Prices without tax: the tax on a margin is in the price all the same.
        (rule with { Inclusive = false }).OfSale(100, 40, null, Euro).ShouldBe((90.42m, 9.58m, 100));
    }

    [Fact]
    public void One_sale_may_be_taxed_otherwise_than_usual()
    {
        var rule = new TaxRule(19, true) { Reduced = 7 };
        rule.OfSale(107, 0, TaxTreatment.Reduced, Euro).ShouldBe((100, 7, 107));
        rule.OfSale(119, 0, null, Euro).ShouldBe((100, 19, 119));
        rule.OfSale(119, 0, TaxTreatment.None, Euro).ShouldBe((119, 0, 119));
        rule.OfSale(119, 100, TaxTreatment.Margin, Euro).ShouldBe((115.97m, 3.03m, 119));
    }

    [Fact]
    public void A_small_business_charges_none_on_anything()
    {
        var rule = new TaxRule(19, true) { Treatment = TaxTreatment.None };
        rule.IsNone.ShouldBeTrue();
        rule.Of(119, Euro).ShouldBe((119, 0, 119));
        foreach (var way in Enum.GetValues<TaxTreatment>())
            rule.OfSale(119, 10, way, Euro).ShouldBe((119, 0, 119));
    }

    [Theory]
    [InlineData(19, true, TaxTreatment.Standard)]
    [InlineData(19, false, TaxTreatment.Standard)]
    [InlineData(19, true, TaxTreatment.Margin)]
    [InlineData(19, true, TaxTreatment.None)]
    [InlineData(0, true, TaxTreatment.Standard)]
    public void At_the_price_that_pays_for_itself_just_that_is_left(int percent, bool inclusive, TaxTreatment way)
    {
        var rule = new TaxRule(percent, inclusive) { Treatment = way };
        foreach (var paid in (decimal[])[0, 20, 60, 400])
        {
            var wanted = new Amount(paid + 35, "EUR");
            var price = SaleSum.PriceFor(wanted, 0.11m, new Amount(4.90m, "EUR"), new Amount(1.10m, "EUR"), rule, paid).Value;
            var (net, _, got) = rule.OfSale(price, paid, null, Euro);
            (net - got * 0.11m - 6).ShouldBe(wanted.Value, 0.02m);
        }
    }

    [Fact]
    public void A_bill_of_a_small_business_says_why_there_is_no_tax()
    {
        var lines = new[] { new BillLine("Work", 50), new BillLine("Switch", 9.50m) };
        var bill = Bill.Of(lines, new TaxRule(19, true) { Treatment = TaxTreatment.None }, Euro);
        (bill.Net, bill.Tax, bill.Gross, bill.TaxPercent).ShouldBe((59.50m, 0, 59.50m, 0));
        Core.Papers.PaperText.Write(bill.ToPaper()).ShouldContain(Bill.NoTax);
        // One that charges tax says how much, and one that has set none says nothing.
        var taxed = Bill.Of(lines, new TaxRule(19, true), Euro);
        (taxed.Net, taxed.Tax, taxed.Note).ShouldBe((50, 9.50m, ""));
        Bill.Of(lines, TaxRule.None, Euro).Note.ShouldBeEmpty();
        Bill.Read(bill.ToJson())!.Note.ShouldBe(Bill.NoTax);
    }
}
