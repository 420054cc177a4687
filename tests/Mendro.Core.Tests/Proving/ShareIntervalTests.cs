using CsCheck;
using Mendro.Core.Proving;

namespace Mendro.Core.Tests.Proving;

/// <summary>Intervals of shares that were counted.</summary>
public sealed class ShareIntervalTests
{
    // Clopper and Pearson, Biometrika 1934, as tabled in handbooks for 95 %: values from memory.
    [Theory]
    [InlineData(0, 10, 0, 0.3085)]
    [InlineData(1, 10, 0.0025, 0.4450)]
    [InlineData(5, 10, 0.1871, 0.8129)]
    [InlineData(10, 10, 0.6915, 1)]
    [InlineData(10, 20, 0.2720, 0.7280)]
    public void The_ends_are_those_of_the_published_table(int count, int of, double low, double high)
    {
        var interval = ShareInterval.Make(count, of, 0.95);
        interval.Low.ShouldBe(low, 0.00006);
        interval.High.ShouldBe(high, 0.00006);
    }

    /// <summary>The definition itself, summed term by term: at each end, what was counted or more extreme has just the tail's chance.</summary>
    [Fact]
    public void At_each_end_the_tail_has_its_chance() =>
        Gen.Select(Gen.Int[1, 40], Gen.Double[0.5, 0.99], Gen.Double.Unit)
            .Sample(
                (of, confidence, at) =>
                {
                    var count = (int)(at * (of + 1));
                    var interval = ShareInterval.Make(count, of, confidence);
                    var tail = (1 - confidence) / 2;
                    if (count > 0)
                        Enumerable.Range(count, of - count + 1).Sum(k => Chance(k, of, interval.Low)).ShouldBe(tail, 1e-6);
                    if (count < of)
                        Enumerable.Range(0, count + 1).Sum(k => Chance(k, of, interval.High)).ShouldBe(tail, 1e-6);
                    interval.Share.ShouldBeInRange(interval.Low, interval.High);
                },
                iter: 300
            );

    [Fact]
    public void Of_nothing_counted_everything_is_open() => ShareInterval.Make(0, 0).ShouldBe(new ShareInterval(0, 0, 0, 1));

    private static double Chance(int k, int n, double p)
    {
        var ways = 1.0;
        for (var i = 0; i < k; i++)
            ways *= (double)(n - i) / (i + 1);
        return ways * Math.Pow(p, k) * Math.Pow(1 - p, n - k);
    }
}
