using CsCheck;
using MathNet.Numerics;
using MathNet.Numerics.Distributions;
using Mendro.Core.Methods;
using Mendro.Core.Proving;
using Mendro.Core.Quantities;

namespace Mendro.Core.Tests.Calculators;

/// <summary>Liquids, degrees, and what a run of starts proves.</summary>
public class MixtureAndProofTests
{
    [Fact]
    public void Alcohol_is_diluted_by_its_strength()
    {
        var answer = Calc.Run("dilute", "volumeMl=100");
        answer.Number("stockMl").ShouldBe(70.7071, 0.0001);
        answer.Number("waterMl").ShouldBe(29.2929, 0.0001);
        Calc.Problem("dilute", "fromPercent=70", "toPercent=90", "volumeMl=100").ShouldStartWith("toPercent:");
    }

    // Bleach only one part to ten of water (common practice, no source).
    [Fact]
    public void Parts_share_the_total()
    {
        var answer = Calc.Run("ratio", "parts=1", "to=10", "totalMl=1100");
        answer.Number("partMl").ShouldBe(100, 1e-9);
        answer.Number("restMl").ShouldBe(1000, 1e-9);
    }

    // IUPAC atomic weights: C 12.011, H 1.008, O 15.999, Na 22.990. 12.5 g of acid are 0.20815 mol, 17.486 g of bicarbonate.
    [Fact]
    public void Vinegar_is_neutralised_mole_for_mole()
    {
        (2 * 12.011 + 4 * 1.008 + 2 * 15.999).ShouldBe(Mendro.Core.Methods.Mixtures.AceticAcidGramsPerMole, 0.001);
        (22.990 + 1.008 + 12.011 + 3 * 15.999).ShouldBe(Mendro.Core.Methods.Mixtures.BicarbonateGramsPerMole, 0.002);
        Calc.Number("neutralise", "bicarbonateGrams", "acidPercent=5", "volumeMl=250").ShouldBe(17.486, 0.001);
    }

    [Theory]
    [InlineData("280", 536)]
    [InlineData("-40", -40)]
    [InlineData("0", 32)]
    [InlineData("400", 752)]
    public void Degrees_are_turned(string celsius, double fahrenheit) =>
        Calc.Number("temperature", "fahrenheit", $"celsius={celsius}").ShouldBe(fahrenheit, 1e-9);

    // Rule of three: with n good starts and none failed the 95 % bound is about 3 / n.
    [Theory]
    [InlineData(50)]
    [InlineData(100)]
    [InlineData(1000)]
    public void Without_a_failure_the_bound_is_the_rule_of_three(int starts) =>
        Calc.Number("starts", "upperFailureRate", $"successes={starts}").ShouldBe(3.0 / starts, 0.04 * 3 / starts);

    // Clopper–Pearson tables: 20 of 20, one-sided 95 %: 0.1391; 1 in 10: 0.3942; 2 in 20: 0.2826.
    [Theory]
    [InlineData(20, 0, 0.1391)]
    [InlineData(9, 1, 0.3942)]
    [InlineData(18, 2, 0.2826)]
    [InlineData(0, 5, 1)]
    public void The_bound_is_that_of_Clopper_and_Pearson(int successes, int failures, double upper) =>
        Calc.Number("starts", "upperFailureRate", $"successes={successes}", $"failures={failures}").ShouldBe(upper, 0.0002);

    [Fact]
    public void At_the_bound_so_few_failures_have_the_chance_left_by_the_confidence() =>
        Gen.Select(Gen.Int[1, 60], Gen.Int[0, 12], Gen.Double[0.5, 0.999])
            .Sample(
                (successes, failures, confidence) =>
                {
                    var upper = StartRun.UpperFailureRate(successes, failures, confidence);
                    // The definition of the bound, by MathNet's binomial and beta distributions.
                    Binomial.CDF(upper, successes + failures, failures).ShouldBe(1 - confidence, 1e-6);
                    SpecialFunctions.BetaRegularized(failures + 1, successes, upper).ShouldBe(confidence, 1e-6);
                },
                iter: 400
            );

    [Theory]
    [InlineData("0.05", "0.95", 59)]
    [InlineData("0.1", "0.95", 29)]
    [InlineData("0.01", "0.95", 299)]
    [InlineData("5 %", "90 %", 45)]
    public void Starts_needed_are_the_fewest_that_show_it(string rate, string confidence, double starts)
    {
        Calc.Number("starts-needed", "starts", $"maxFailureRate={rate}", $"confidence={confidence}").ShouldBe(starts);
        var (p, c) = (QuantityValue(rate), QuantityValue(confidence));
        StartRun.UpperFailureRate((int)starts, 0, c).ShouldBeLessThanOrEqualTo(p);
        StartRun.UpperFailureRate((int)starts - 1, 0, c).ShouldBeGreaterThan(p);
    }

    private static double QuantityValue(string text) => Mendro.Core.Quantities.QuantityText.Parse(text, "")!.Value;
}
