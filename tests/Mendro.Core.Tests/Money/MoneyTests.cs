using Mendro.Core.Diagnosis;
using Mendro.Core.Money;
using Mendro.Core.Planning;

namespace Mendro.Core.Tests.Money;

/// <summary>Amounts as typed and as written, and the worth line.</summary>
public class MoneyTests
{
    [Theory]
    [InlineData("6.40", 6.40)]
    [InlineData("6,4", 6.4)]
    [InlineData("€ 12", 12)]
    [InlineData(" 0 ", 0)]
    public void Amounts_are_understood_with_point_and_comma(string text, double expected)
    {
        Price.TryAmount(text, out var amount).ShouldBeNull();
        amount.ShouldBe((decimal)expected);
    }

    [Theory]
    [InlineData("-1")]
    [InlineData("1.234")]
    [InlineData("1,000.00")]
    [InlineData("ten")]
    [InlineData("99999999")]
    public void Nonsense_is_told(string text)
    {
        Price.TryAmount(text, out var amount).ShouldNotBeNullOrEmpty();
        amount.ShouldBeNull();
    }

    [Fact]
    public void A_blank_is_no_amount_and_no_error()
    {
        Price.TryAmount(" ", out var amount).ShouldBeNull();
        amount.ShouldBeNull();
    }

    [Fact]
    public void Prices_are_written_the_way_the_currency_wants()
    {
        new Price(6.4m, "EUR").ToString().ShouldBe("€6.40");
        new Price(1200m, "JPY").ToString().ShouldBe("¥1200");
        new Price(12m, "PLN").ToString().ShouldBe("12.00 PLN");
        Price.IsCurrency("eur").ShouldBeFalse();
        Price.IsCurrency("EUR").ShouldBeTrue();
    }

    [Fact]
    public void What_is_at_stake_sets_the_minutes_a_repair_may_cost()
    {
        // 48 working, 14 in parts: 34 at stake; at 30 an hour that pays 68 minutes.
        WorthLine.UncuredMinutes(new UnitValues(48, 10, 14), 30).ShouldBe(68, 1e-9);
        WorthLine.UncuredMinutes(new UnitValues(null, 10, 14), 30).ShouldBe(WorthLine.DefaultUncuredMinutes);
        // Nothing to win: hardly a look is worth it.
        WorthLine.UncuredMinutes(new UnitValues(10, 10, 14), 30).ShouldBe(5);
    }

    [Theory]
    [InlineData(0.86, "Worth going on", true)]
    [InlineData(0.3, "A gamble", true)]
    [InlineData(0.0, "Not worth going on", false)]
    public void The_verdict_follows_the_chance(double chance, string verdict, bool goOn)
    {
        var move = new Move("x", "X", "", 1, 0, 0, 1, [], new Outlook(chance, 20, 50));
        var worth = WorthLine.Judge(new Advice([move], null), new UnitValues(null, null, null), 30);
        worth.Verdict.ShouldBe(verdict);
        worth.GoOn.ShouldBe(goOn);
    }

    [Fact]
    public void What_it_costs_stands_beside_what_it_brings()
    {
        // Hand arithmetic: 20 min at 30 an hour and 4 for parts are 14; 34 at stake with a chance of one half bring 17.
        var move = new Move("x", "X", "", 1, 0, 0, 1, [], new Outlook(0.5, 20, 50, 4));
        var worth = WorthLine.Judge(new Advice([move], null), new UnitValues(48, 10, 14), 30);
        (worth.CostMore, worth.Brings, worth.Verdict).ShouldBe((14m, 17m, "Worth going on"));
        var dear = WorthLine.Judge(new Advice([move], null), new UnitValues(30, 10, 14), 30);
        (dear.Brings, dear.Verdict).ShouldBe((8m, "Hardly worth it"));
    }
}
