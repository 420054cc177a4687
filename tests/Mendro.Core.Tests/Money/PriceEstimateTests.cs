using CsCheck;
using MathNet.Numerics.Statistics;
using Mendro.Core.Money;

namespace Mendro.Core.Tests.Money;

/// <summary>Prices out of what others fetched, against an independent median and hand arithmetic.</summary>
public sealed class PriceEstimateTests
{
    private static readonly Currency Euro = new("EUR");

    private static SoldPrice Good(double price, double daysAgo = 0) => new(daysAgo, ConditionGrade.Good, (decimal)price);

    [Fact]
    public void Of_equal_age_and_condition_the_expected_price_is_the_median() =>
        Gen.Double[5, 300]
            .List[1, 30]
            .Sample(prices =>
            {
                var told = prices.Select(p => Math.Round(p, 2)).ToList();
                var ours = PriceEstimate.Of([.. told.Select(p => Good(p))], ConditionGrade.Good, Euro)!;
                // The median of logarithms: between two middle ones it is their geometric mean.
                var expected = Math.Exp(told.Select(p => Math.Log(p)).Median());
                ((double)ours.Expected.Value).ShouldBe(expected, 0.006);
                ours.RestsOn.ShouldBe(told.Count);
                ours.Worth.ShouldBe(told.Count, 1e-9);
            });

    [Fact]
    public void The_five_prices_stand_in_order_and_scale_with_what_they_rest_on() =>
        Gen.Select(Gen.Double[5, 300].List[1, 20], Gen.Double[0, 900], Gen.Int[0, 4])
            .Sample(
                (prices, days, grade) =>
                {
                    List<SoldPrice> told = [.. prices.Select((p, n) => Good(Math.Round(p, 2), days * n / prices.Count))];
                    var ours = PriceEstimate.Of(told, ConditionGrade.All[grade], Euro)!;
                    var order = new[] { ours.Low, ours.Least, ours.Expected, ours.Asking, ours.High }.Select(a => a.Value).ToList();
                    order.ShouldBe(order.Order());
                    var tenfold = PriceEstimate.Of([.. told.Select(t => t with { Price = t.Price * 10 })], ConditionGrade.All[grade], Euro)!;
                    ((double)tenfold.Expected.Value).ShouldBe(10 * (double)ours.Expected.Value, 0.06);
                }
            );

    [Fact]
    public void One_freak_price_moves_little()
    {
        double[] usual = [40, 42, 44, 45, 46, 47, 49, 51];
        var before = PriceEstimate.Of([.. usual.Select(p => Good(p))], ConditionGrade.Good, Euro)!;
        var after = PriceEstimate.Of([.. usual.Select(p => Good(p)), Good(4500)], ConditionGrade.Good, Euro)!;
        ((double)after.Expected.Value).ShouldBe((double)before.Expected.Value, 1.01);
        ((double)after.High.Value).ShouldBeLessThan(1.2 * (double)before.High.Value);
    }

    // By hand: 0.45 of a good one's price.
    [Fact]
    public void A_price_is_brought_to_the_condition_of_the_unit() =>
        PriceEstimate.Of([Good(100)], ConditionGrade.Faulty, Euro)!.Expected.Value.ShouldBe(45);

    // By hand: weights 1, 1 and 1/16; half of the weight lies between the first two.
    [Fact]
    public void An_old_price_counts_for_less()
    {
        var ours = PriceEstimate.Of([Good(50), Good(52), Good(200, 4 * PriceEstimate.HalfLifeDays)], ConditionGrade.Good, Euro)!;
        ours.Expected.Value.ShouldBe(52);
        // Effective count: (2.0625)² / (1 + 1 + 1/256).
        ours.Worth.ShouldBe(2.0625 * 2.0625 / (2 + 1 / 256.0), 1e-9);
        PriceEstimate.Of([], ConditionGrade.Good, Euro).ShouldBeNull();
    }

    [Fact]
    public void More_prices_make_it_surer()
    {
        var few = PriceEstimate.Of([Good(40), Good(50)], ConditionGrade.Good, Euro)!;
        var many = PriceEstimate.Of([.. Enumerable.Range(0, 30).Select(n => Good(40 + n % 11))], ConditionGrade.Good, Euro)!;
        (many.High.Value / many.Low.Value).ShouldBeLessThan(few.High.Value / few.Low.Value);
    }

    [Fact]
    public void What_is_left_and_the_price_for_it_agree() =>
        Gen.Select(Gen.Int[0, 50_000], Gen.Int[0, 40], Gen.Int[0, 2_000])
            .Sample(
                (cents, percent, postage) =>
                {
                    var (wanted, post, pack) = (new Amount(cents / 100m, Euro), new Amount(postage / 100m, Euro), new Amount(0.4m, Euro));
                    var price = SaleSum.PriceFor(wanted, percent / 100m, post, pack);
                    var left = new SaleSum(price, price with { Value = price.Value * percent / 100m }, post, pack).Left;
                    left.Value.ShouldBe(wanted.Value, 0.01m);
                }
            );

    [Fact]
    public void Prices_of_others_are_read_from_csv_and_every_bad_line_is_told()
    {
        var today = new DateOnly(2026, 11, 26);
        var text = "date,condition,price,words\n2026-10-01,good,\"45,50\",with game\n2026-13-01,good,4,\n2026-10-02,shiny,4,\n2027-01-01,good,4,\n";
        var read = ComparableFile.Read(text, Euro, today, out var problems);
        read.Single().ShouldBe(new ComparablePrice(new DateOnly(2026, 10, 1), ConditionGrade.Good, new Amount(45.5m, Euro), "with game"));
        problems.Count.ShouldBe(3);
        problems[1].ShouldContain("shiny");
        ComparableFile.Read(ComparableFile.Write(read), Euro, today, out var none).ShouldBe(read);
        none.ShouldBeEmpty();
    }

    [Fact]
    public void A_listing_is_filled_in_once_and_empty_lines_go()
    {
        var values = new Dictionary<string, string> { ["title"] = "Harrow {price} Quartet", ["price"] = "45" };
        ListingText.Fill("{title}\nFaults: {faults}\n\n{price} or near {", values).ShouldBe("Harrow {price} Quartet\n\n45 or near {");
        ListingText.Problem("{title} {moon}").ShouldNotBeNull().ShouldContain("moon");
        ListingText.Problem(ListingText.Usual).ShouldBeNull();
    }
}
