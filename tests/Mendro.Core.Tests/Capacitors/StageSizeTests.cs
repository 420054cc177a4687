using CsCheck;
using Mendro.Core.Capacitors;
using Mendro.Core.Tests.Calculators;

namespace Mendro.Core.Tests.Capacitors;

/// <summary>After how many new capacitors to power up. Dorfman, Annals of Mathematical Statistics 14, 1943.</summary>
public class StageSizeTests
{
    // Dorfman's table: optimal group size and relative cost in percent, by prevalence.
    [Theory]
    [InlineData(0.01, 11, 20)]
    [InlineData(0.02, 8, 27)]
    [InlineData(0.05, 5, 43)]
    [InlineData(0.10, 4, 59)]
    public void The_sizes_are_those_that_Dorfman_published(double chance, int size, double percent)
    {
        var best = StageSize.Best(chance, 1, 1);
        best.Size.ShouldBe(size);
        (best.MinutesPerPart * 100).ShouldBe(percent, 1);
        Calc.Number("stage-size", "groupSize", $"faultChance={chance}", "testMinutes=1", "inspectMinutes=1").ShouldBe(size);
    }

    // From about 31 % on groups save nothing (Dorfman; 1 − 3^(−1/3), textbook).
    [Fact]
    public void Where_faults_are_common_each_part_is_tried_by_itself()
    {
        StageSize.Best(0.32, 1, 1).ShouldBe((1, 1.0));
        StageSize.Best(0.30, 1, 1).Size.ShouldBe(3);
    }

    [Fact]
    public void The_best_of_all_sizes_is_found() =>
        Gen.Select(Gen.Double[0.002, 0.6], Gen.Double[0.1, 20], Gen.Double[0.1, 20])
            .Sample(
                (chance, test, inspect) =>
                {
                    var best = StageSize.Best(chance, test, inspect);
                    var least = Enumerable.Range(1, StageSize.MostParts).Min(n => StageSize.MinutesPerPart(n, chance, test, inspect));
                    return Math.Abs(best.MinutesPerPart - least) < 1e-9;
                },
                iter: 100
            );
}
