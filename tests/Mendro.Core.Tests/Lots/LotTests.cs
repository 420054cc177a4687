using CsCheck;
using Mendro.Core.Lots;
using Mendro.Core.Money;

namespace Mendro.Core.Tests.Lots;

/// <summary>Prices spread, items read, lots added up, benches doubted.</summary>
public sealed class LotTests
{
    private static readonly Currency Euro = new("EUR");

    [Fact]
    public void Shares_add_up_to_the_last_cent_and_none_is_a_cent_off_its_due() =>
        Gen.Select(Gen.Long[0, 10_000_000], Gen.Int[0, 500].Array[1, 40], Gen.OneOf(Gen.Const("EUR"), Gen.Const("JPY"), Gen.Const("KWD")))
            .Sample(
                (units, weights, code) =>
                {
                    var currency = new Currency(code);
                    var unit = (decimal)Math.Pow(10, -currency.MinorUnits);
                    var price = new Amount(units * unit, currency);
                    var shares = PriceSpread.Of(price, weights.Select(w => (decimal)w).ToList());
                    shares.Sum(s => s.Value).ShouldBe(price.Value);
                    var sum = weights.Sum();
                    for (var n = 0; n < weights.Length; n++)
                    {
                        var due = sum == 0 ? price.Value / weights.Length : price.Value * weights[n] / sum;
                        Math.Abs(shares[n].Value - due).ShouldBeLessThan(unit);
                        currency.Round(shares[n].Value).ShouldBe(shares[n].Value);
                    }
                }
            );

    // Hamilton's method by hand: 10.00 in three are 3.34, 3.33 and 3.33; 1.00 by 1, 2, 3 leaves 0.17, 0.33 and 0.50.
    [Fact]
    public void The_cent_that_is_left_goes_to_who_lost_most()
    {
        PriceSpread.Of(new Amount(10, Euro), [1, 1, 1]).Select(s => s.Value).ShouldBe([3.34m, 3.33m, 3.33m]);
        PriceSpread.Of(new Amount(1, Euro), [1, 2, 3]).Select(s => s.Value).ShouldBe([0.17m, 0.33m, 0.50m]);
        PriceSpread.Of(new Amount(5, Euro), []).ShouldBeEmpty();
    }

    [Fact]
    public void Items_are_lines_of_words_or_a_table_out_of_a_spreadsheet()
    {
        var plain = BatchLines.Read("legless, black box, liquid\n\n! a racing game of another system\nnothing\tstuck label\n", out var problems);
        problems.ShouldBeEmpty();
        plain.ShouldBe([
            new BatchItem("legless, black box, liquid", false),
            new BatchItem("a racing game of another system", true),
            new BatchItem("nothing, stuck label", false),
        ]);
        var table = BatchLines.Read("Item\tworth\tapart\tserial\nblack box\t12,50\t\tA-7\nother\t\tx\t\n", out problems);
        problems.ShouldBeEmpty();
        table.ShouldBe([new BatchItem("black box", false, "", "A-7", 12.50m), new BatchItem("other", true)]);
    }

    [Fact]
    public void A_table_of_two_thousand_lines_tells_every_wrong_line_and_field()
    {
        var lines = Enumerable.Range(2, 2000).Select(n => n % 500 == 0 ? "cartridge;ten" : "cartridge;10");
        BatchLines.Read("item;worth\n" + string.Join('\n', lines), out var problems).Count.ShouldBe(1996);
        problems.ShouldBe(new[] { 500, 1000, 1500, 2000 }.Select(n => $"line {n}: worth: “ten” is no amount such as 12.50."));
        BatchLines.Read(new string('x', 301), out problems).ShouldBeEmpty();
        problems.Single().ShouldStartWith("line 1: item");
    }

    private static LotItem Item(long number, LotState state, double? chance = null, decimal? working = 20, decimal? left = null, bool apart = false) =>
        new(number, state, apart, chance, state == LotState.Open ? 10 : 0, 0, 5, 0.5m, working, 4, left);

    [Fact]
    public void A_lot_is_added_up_by_hand()
    {
        LotItem[] items =
        [
            Item(1, LotState.Cured, left: 17),
            Item(2, LotState.Cured),
            Item(3, LotState.Failed),
            Item(4, LotState.Open, 0.5),
            Item(5, LotState.Open, 0.1),
            Item(6, LotState.Failed, working: null, left: 3, apart: true),
        ];
        var sum = LotSum.Of(items, new Amount(12, Euro), new Amount(30, Euro));
        (sum.Counted, sum.Cured, sum.Failed, sum.Open).ShouldBe((5, 2, 1, 2));
        sum.Rate.Share.ShouldBe(2 / 3.0);
        sum.End.Expected.ShouldBe(2.6, 1e-12);
        sum.Minutes.ShouldBe(30);
        // Half a chance of 16 in ten minutes is 48 an hour; a tenth is 9.60, less than the shop's 30: there one stops.
        items[3].GainAnHour!.Value.ShouldBe(48, 1e-9m);
        items[4].GainAnHour!.Value.ShouldBe(9.6m, 1e-9m);
        sum.MinutesMore.ShouldBe(10);
        sum.Spent.Value.ShouldBe(15);
        sum.Received.Value.ShouldBe(20);
        sum.SoFar.Value.ShouldBe(5);
        // 17 + 20 + 4 + (0.5·20 + 0.5·4) + 4 as it stands + 3, less 15.
        sum.Expected!.Value.Value.ShouldBe(45);
        sum.ExpectedAnHour!.Value.Value.ShouldBe(67.5m);
        LotSum.ByGain(items).Select(i => i.Number).ShouldBe([4, 5]);
        LotSum.IsNotWorthIt(items[4], Euro, new Amount(30, "USD")).ShouldBeFalse();
    }

    [Fact]
    public void Where_a_worth_is_not_known_no_end_is_told() =>
        LotSum.Of([Item(1, LotState.Open, 0.5, working: null)], new Amount(1, Euro), new Amount(30, Euro)).Expected.ShouldBeNull();

    [Fact]
    public void Several_failures_in_a_row_against_the_odds_cast_doubt_on_the_bench()
    {
        RepairTried Failed(long number, double chance) => new(number, chance, false);
        RepairTried[] row = [new(1, 0.8, true), Failed(2, 0.6), Failed(3, 0.6), Failed(4, 0.6)];
        var doubt = BenchDoubt.Of(row).ShouldNotBeNull();
        doubt.InARow.ShouldBe([2, 3, 4]);
        doubt.Chance.ShouldBe(0.064, 1e-12);
        // Three that were hardly to be cured are no wonder; two are none either; one that runs clears the bench.
        BenchDoubt.Of([Failed(2, 0.2), Failed(3, 0.2), Failed(4, 0.2)]).ShouldBeNull();
        BenchDoubt.Of([Failed(2, 0.9), Failed(3, 0.9), Failed(3, 0.9)]).ShouldBeNull();
        BenchDoubt.Of([.. row, new RepairTried(5, 0.5, true)]).ShouldBeNull();
    }
}
