using CsCheck;
using Mendro.Core.Offers;

namespace Mendro.Core.Tests.Offers;

/// <summary>What a purchase is worth: against closed forms and by hand.</summary>
public sealed class OfferTests
{
    private static readonly OfferTerms Terms = new(20, 4, 0, 50, 8, 0, 0.1m, 5, 30);

    // One repair that cures for certain in 20 minutes with parts of 2: 50·0.9 − 5 − 2 − 10 = 28; less 4 postage, 24 is the most to pay.
    [Fact]
    public void A_sure_cure_is_reckoned_by_hand()
    {
        var worth = OfferWorth.Of([new OfferWay(1, 0, [new OfferStep(20, 2, 1)])], Terms);
        (worth.Chance, worth.Minutes, worth.Parts, worth.Mean).ShouldBe((1, 20, 2, 28));
        worth.Draws.ShouldAllBe(d => d == 28);
        worth.HighestOffer(Terms).ShouldBe(24);
        worth.CautiousOffer(Terms).ShouldBe(24);
        worth.LosesAt(24, Terms).ShouldBe(0);
        worth.LosesAt(24.01m, Terms).ShouldBe(1);
    }

    // Cured with 3 in 10: 50·0.9 − 5 = 40, else 8·0.9 − 5 = 2.20; ten minutes are 5. So 0.3·40 + 0.7·2.2 − 5 = 8.54.
    [Fact]
    public void A_gamble_is_reckoned_by_hand_and_the_cautious_offer_is_that_of_its_bad_end()
    {
        var worth = OfferWorth.Of([new OfferWay(1, 10, [new OfferStep(0, 0, 0.3)])], Terms);
        worth.Mean.ShouldBe(8.54m, 1e-9m);
        worth.Tenth.ShouldBe(-2.8m);
        worth.Ninetieth.ShouldBe(35);
        worth.HighestOffer(Terms).ShouldBe(4.54m, 1e-9m);
        worth.CautiousOffer(Terms).ShouldBe(0);
    }

    [Fact]
    public void A_fee_on_the_purchase_comes_off_what_may_be_offered() =>
        (Terms with { BuyFee = 0.2m }).PriceFor(28).ShouldBe(20);

    private static Gen<OfferWay> Way { get; } =
        from look in Gen.Double[0, 30]
        from steps in Gen.Select(Gen.Double[1, 40], Gen.Int[0, 900], Gen.Double[0, 0.3]).Array[0, 3]
        select new OfferWay(1, look, steps.Select(s => new OfferStep(s.Item1, s.Item2 / 100m, s.Item3)).ToList());

    /// <summary>The mean of what is drawn is the exact expectation, within four and a half standard errors, and what a chance so small
    /// that no draw meets it may add: up to ten in all the draws of the most that is at stake.</summary>
    [Fact]
    public void What_is_drawn_has_the_exact_mean() =>
        Gen.Select(Way.Array[1, 3], Gen.Double[0, 0.5], Gen.Int[0, 60], Gen.Int[0, 12], Gen.Int[0, 1000])
            .Sample(
                (ways, spread, working, postage, seed) =>
                {
                    var told = ways.Select(w => w with { Weight = 1.0 / ways.Length }).ToList();
                    var terms = Terms with { Spread = spread, Working = working, SellPostage = postage };
                    var worth = OfferWorth.Of(told, terms, seed, 20_000);
                    var mean = worth.Draws.Average();
                    var error = Math.Sqrt(worth.Draws.Average(d => Math.Pow((double)(d - mean), 2)) / worth.Draws.Count);
                    Math.Abs((double)(mean - worth.Mean)).ShouldBeLessThan(4.5 * error + 10.0 * (working + 10) / worth.Draws.Count);
                    worth.Draws.ShouldBe(OfferWorth.Of(told, terms, seed, 20_000).Draws);
                    worth.LosesAt(worth.CautiousOffer(terms), terms).ShouldBeLessThanOrEqualTo(worth.CautiousOffer(terms) > 0 ? 0.1 : 1);
                },
                iter: 40
            );

    // Partial expectation of a log-normal, summed by brute force over its quantiles.
    [Theory]
    [InlineData(50, 5, 0.25)]
    [InlineData(6, 5, 0.4)]
    [InlineData(2, 5, 0.6)]
    public void What_is_left_on_the_average_is_that_of_all_prices(decimal price, decimal postage, double spread)
    {
        var terms = Terms with { SellPostage = postage, Spread = spread };
        const int N = 200_000;
        var normal = new MathNet.Numerics.Distributions.Normal();
        var sum = Enumerable
            .Range(0, N)
            .Select(n => Math.Exp(spread * normal.InverseCumulativeDistribution((n + 0.5) / N) - spread * spread / 2))
            .Sum(factor => Math.Max(0, 0.9 * (double)price * factor - (double)postage));
        terms.MeanLeft(price).ShouldBe(sum / N, 0.002);
    }

    // Murphy's partition by hand: two groups, 0.2 (1 of 4 came true) and 0.8 (3 of 4).
    [Fact]
    public void Chances_given_are_scored_and_the_score_is_parted_as_published()
    {
        Forecast[] told = [.. Enumerable.Range(0, 4).Select(n => new Forecast(0.2, n == 0)), .. Enumerable.Range(0, 4).Select(n => new Forecast(0.8, n < 3))];
        var calibration = Calibration.Of(told).ShouldNotBeNull();
        calibration.Brier.ShouldBe((1 * 0.64 + 3 * 0.04 + 3 * 0.04 + 1 * 0.64) / 8, 1e-12);
        calibration.Reliability.ShouldBe(0.0025, 1e-12);
        calibration.Resolution.ShouldBe(0.0625, 1e-12);
        calibration.Uncertainty.ShouldBe(0.25, 1e-12);
        calibration.Groups.Select(g => (g.Said, g.Came.Count, g.Came.Of)).ShouldBe([(0.2, 1, 4), (0.8, 3, 4)]);
        calibration.Groups.ShouldAllBe(g => !g.IsOff);
        Calibration.Of([]).ShouldBeNull();
    }

    /// <summary>Brier = reliability − resolution + uncertainty where all chances of a group are the same (Murphy 1973).</summary>
    [Fact]
    public void The_parts_make_the_score() =>
        Gen.Select(Gen.Int[0, 9], Gen.Bool)
            .Array[1, 200]
            .Sample(told =>
            {
                var calibration = Calibration.Of(told.Select(t => new Forecast(t.Item1 / 10.0 + 0.05, t.Item2)).ToList())!;
                calibration.Brier.ShouldBe(calibration.Reliability - calibration.Resolution + calibration.Uncertainty, 1e-9);
            });

    [Fact]
    public void Words_of_sellers_are_trusted_as_they_have_held()
    {
        Calibration.Trust(0, 0).ShouldBe(0.7);
        Calibration.Trust(0, 10).ShouldBe(0.35);
        Calibration.Trust(90, 100).ShouldBe(97 / 110.0);
    }
}
