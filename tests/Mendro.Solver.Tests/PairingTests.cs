using CsCheck;
using Mendro.Core.Lots;

namespace Mendro.Solver.Tests;

/// <summary>Donors paired with units: against every pairing there is.</summary>
public sealed class PairingTests
{
    private static readonly string[] Parts = ["panel", "slot", "board"];

    private static Gen<DonorCandidate> Unit { get; } =
        from alone in Gen.Double[0, 0.9]
        from blame in Gen.Double[0, 1].Array[3]
        from good in Gen.Double[0, 1].Array[3]
        from worth in Gen.Double[0.5, 40]
        select new DonorCandidate(
            0,
            alone,
            Parts.Zip(blame, (p, b) => (p, b / Math.Max(1, blame.Sum()))).ToDictionary(x => x.p, x => x.Item2),
            Parts.Zip(good).ToDictionary(x => x.First, x => x.Second),
            worth
        );

    [Fact]
    public void No_pairing_of_all_is_worth_more() =>
        Unit.Array[1, 7]
            .Sample(
                drawn =>
                {
                    var units = drawn.Select((u, n) => u with { Number = n }).ToList();
                    var pairs = PairingSolver.Solve(units, TimeSpan.FromSeconds(20));
                    pairs.SelectMany(p => new[] { p.To, p.From }).ShouldBeUnique();
                    Works(units, pairs).ShouldBe(Best(units), 1e-4);
                },
                iter: 150
            );

    // Two with a dead panel and a dead board each: one works out of the two, where alone none would.
    [Fact]
    public void Two_with_different_faults_make_one_that_works()
    {
        DonorCandidate Dead(long number, string part) =>
            new(number, 0.05, new Dictionary<string, double> { [part] = 1 }, Parts.ToDictionary(p => p, p => p == part ? 0.0 : 0.95));
        var pair = PairingSolver.Solve([Dead(1, "panel"), Dead(2, "board")], TimeSpan.FromSeconds(20)).ShouldHaveSingleItem();
        pair.Part.ShouldBe(pair.To == 1 ? "panel" : "board");
        pair.Chance.ShouldBe(0.05 + 0.95 * 0.95, 1e-12);
        // With the same fault they are of no use to each other.
        PairingSolver.Solve([Dead(1, "panel"), Dead(2, "panel")], TimeSpan.FromSeconds(20)).ShouldBeEmpty();
    }

    // A donor must not be worth more whole than what it gives.
    [Fact]
    public void What_is_worth_more_whole_is_no_donor()
    {
        DonorCandidate One(long number, double alone, string part, double worth) =>
            new(number, alone, new Dictionary<string, double> { [part] = 1 }, Parts.ToDictionary(p => p, p => p == part ? 0.0 : 0.95), worth);
        // The cheap one gives to the dear one, not the other way round.
        var pair = PairingSolver.Solve([One(1, 0.1, "panel", 8), One(2, 0.1, "board", 60)], TimeSpan.FromSeconds(20)).ShouldHaveSingleItem();
        (pair.To, pair.From, pair.Before).ShouldBe((2, 1, 0.1));
        // What is as good as cured by itself neither gives nor takes.
        PairingSolver.Solve([One(1, 0.9, "panel", 8), One(2, 0.97, "board", 60)], TimeSpan.FromSeconds(20)).ShouldBeEmpty();
    }

    private static double Works(IReadOnlyList<DonorCandidate> units, IReadOnlyList<Pairing> pairs) =>
        units.Where(u => pairs.All(p => p.To != u.Number && p.From != u.Number)).Sum(u => u.Alone * u.Worth)
        + pairs.Sum(p => p.Chance * units.First(u => u.Number == p.To).Worth);

    /// <summary>The first unit by itself, or given to or taken for each other; the rest likewise.</summary>
    private static double Best(List<DonorCandidate> units)
    {
        if (units.Count == 0)
            return 0;
        var (first, rest) = (units[0], units[1..]);
        var best = first.Alone * first.Worth + Best(rest);
        foreach (var other in rest)
        {
            var left = rest.Where(u => u != other).ToList();
            var pair = Math.Max(DonorPairs.Chance(first, other) * first.Worth, DonorPairs.Chance(other, first) * other.Worth);
            best = Math.Max(best, pair + Best(left));
        }

        return best;
    }
}
