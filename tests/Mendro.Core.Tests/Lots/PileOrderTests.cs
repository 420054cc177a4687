using CsCheck;
using Mendro.Core.Lots;

namespace Mendro.Core.Tests.Lots;

/// <summary>The order in which a pile of like units is worked through, and how many of it are cured in the end.</summary>
public sealed class PileOrderTests
{
    private static readonly string[] Parts = ["board", "screen", "shell"];

    private static Gen<PileUnit> Unit(int number) =>
        Gen.Select(Gen.Double[0, 1], Gen.Double[0, 0.33].Array[3], Gen.Double[0, 1].Array[3], Gen.Double[0, 40], Gen.Double[0, 15])
            .Select(
                (alone, blame, good, worth, cost) =>
                    new PileUnit(
                        new DonorCandidate(
                            number,
                            alone,
                            Parts.Zip(blame).ToDictionary(b => b.First, b => b.Second),
                            Parts.Zip(good).ToDictionary(g => g.First, g => g.Second),
                            worth
                        ),
                        cost
                    )
            );

    private static Gen<PileUnit[]> Pile(int most) =>
        Gen.Int[2, most].SelectMany(Units);

    private static Gen<PileUnit[]> Units(int n) =>
        n == 0 ? Gen.Const(Array.Empty<PileUnit>()) : Gen.Select(Units(n - 1), Unit(n)).Select((some, one) => some.Append(one).ToArray());

    // All that can be done, one after the other: try one, keep one for parts, stop.
    private static double Brute(IReadOnlyList<PileUnit> left, IReadOnlyList<DonorCandidate> gone)
    {
        var best = 0.0;
        foreach (var unit in left)
        {
            var rest = left.Where(u => u != unit).ToList();
            var asDonor = Brute(rest, [.. gone, unit.Unit]);
            var chance = PileOrder.Chance(unit.Unit, gone);
            best = Math.Max(best, asDonor);
            best = Math.Max(best, chance * (unit.Unit.Worth + Brute(rest, gone)) + (1 - chance) * asDonor - unit.Cost);
        }

        return best;
    }

    // A fixed order in which each is tried, whatever happened before.
    private static double Fixed(IReadOnlyList<PileUnit> order, int from, IReadOnlyList<DonorCandidate> gone)
    {
        if (from == order.Count)
            return 0;
        var (unit, chance) = (order[from], PileOrder.Chance(order[from].Unit, gone));
        return chance * (unit.Unit.Worth + Fixed(order, from + 1, gone))
            + (1 - chance) * Fixed(order, from + 1, [.. gone, unit.Unit])
            - unit.Cost;
    }

    private static IEnumerable<List<PileUnit>> Orders(IReadOnlyList<PileUnit> units) =>
        units.Count == 0 ? [[]] : units.SelectMany(u => Orders(units.Where(o => o != u).ToList()).Select(rest => rest.Prepend(u).ToList()));

    // At each unit the first of what is equal within a billionth is kept.
    [Fact]
    public void The_gain_is_that_of_the_best_that_can_be_done_tried_by_brute_force() =>
        Pile(4).Sample(pile => PileOrder.Next(pile)!.Gain.ShouldBe(Brute(pile, []), 4 * 1e-9), iter: 60);

    [Fact]
    public void No_fixed_order_of_up_to_eight_gains_more() =>
        Units(5).Sample(pile => Orders(pile).Max(o => Fixed(o, 0, [])).ShouldBeLessThanOrEqualTo(PileOrder.Next(pile)!.Gain + 5 * 1e-9), iter: 30);

    [Fact]
    public void Eight_are_compared_with_every_one_of_their_orders()
    {
        // The same board, some better than others: 40,320 orders.
        var pile = Enumerable
            .Range(1, 8)
            .Select(n => new PileUnit(
                new DonorCandidate(
                    n,
                    0.1 * n,
                    new Dictionary<string, double> { ["board"] = 0.9 - 0.1 * n },
                    new Dictionary<string, double> { ["board"] = n % 2 == 0 ? 0.9 : 0.3 },
                    20
                ),
                4
            ))
            .ToArray();
        var best = Orders(pile).Max(o => Fixed(o, 0, []));
        PileOrder.Next(pile)!.Gain.ShouldBeGreaterThanOrEqualTo(best - 1e-9);
    }

    [Fact]
    public void One_that_is_worth_more_in_another_is_kept_for_its_parts_and_nothing_is_done_for_nothing()
    {
        // A dead board with a good screen, and a good board with a broken screen: the first is the second's.
        var dead = new DonorCandidate(1, 0.05, new Dictionary<string, double>(), new Dictionary<string, double> { ["screen"] = 0.95 }, 30);
        var blind = new DonorCandidate(2, 0.1, new Dictionary<string, double> { ["screen"] = 0.9 }, new Dictionary<string, double>(), 30);
        var move = PileOrder.Next([new PileUnit(dead, 8), new PileUnit(blind, 5)]).ShouldNotBeNull();
        (move.Number, move.Step).ShouldBe((1, PileStep.Donate));
        // 0.1 + 0.9 × 0.9 × 0.95 = 0.8695, of 30, less 5.
        move.Gain.ShouldBe(0.8695 * 30 - 5, 1e-9);
        move.Helps.ShouldNotBeNull().After.ShouldBe(0.8695, 1e-9);
        PileOrder.Next([new PileUnit(dead, 90), new PileUnit(blind, 90)]).ShouldNotBeNull().Number.ShouldBe(0);
        PileOrder.Next([new PileUnit(dead, 1)]).ShouldBeNull();
    }

    // Binomial of five at one half: 1, 5, 10, 10, 5, 1 of 32; its 5 % point is 1, its 95 % point 4.
    [Fact]
    public void The_end_lies_between_the_points_of_the_binomial_and_nothing_open_leaves_no_doubt()
    {
        CuredRange.Of(0, [0.5, 0.5, 0.5, 0.5, 0.5]).ShouldBe(new CuredRange(2.5, 1, 4));
        CuredRange.Of(3, []).ShouldBe(new CuredRange(3, 3, 3));
        CuredRange.Of(2, [1, 1, 0]).ShouldBe(new CuredRange(4, 4, 4));
    }

    [Fact]
    public void The_end_covers_nine_in_ten_lots_drawn_from_its_own_chances() =>
        Gen.Double[0, 1]
            .Array[1, 10]
            .Sample(
                chances =>
                {
                    var told = CuredRange.Of(0, chances);
                    var within = 0.0;
                    // Every outcome with its chance.
                    for (var bits = 0; bits < 1 << chances.Length; bits++)
                    {
                        var (p, cured) = (1.0, 0);
                        for (var n = 0; n < chances.Length; n++)
                        {
                            var works = (bits & 1 << n) != 0;
                            p *= works ? chances[n] : 1 - chances[n];
                            cured += works ? 1 : 0;
                        }

                        if (cured >= told.Low && cured <= told.High)
                            within += p;
                    }

                    within.ShouldBeGreaterThanOrEqualTo(CuredRange.Covers - 1e-9);
                },
                iter: 100
            );
}
