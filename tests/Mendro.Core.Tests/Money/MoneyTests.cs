using Mendro.Core.Diagnosis;
using Mendro.Core.Money;
using Mendro.Core.Planning;

namespace Mendro.Core.Tests.Money;

/// <summary>Amounts as typed and as written, labour, and the worth line.</summary>
public class MoneyTests
{
    private static readonly Currency Euro = new("EUR");

    private static Amount Eur(decimal value) => new(value, Euro);

    private static UnitValues Values(decimal? working, decimal? asItStands, decimal? inParts, string currency = "EUR") =>
        new(working, asItStands, inParts, new Currency(currency));

    [Theory]
    [InlineData("6.40", 6.40)]
    [InlineData("6,4", 6.4)]
    [InlineData("€ 12", 12)]
    [InlineData(" 0 ", 0)]
    public void Amounts_are_understood_with_point_and_comma(string text, double expected)
    {
        Amount.TryRead(text, Euro, out var amount).ShouldBeNull();
        amount.ShouldBe(Eur((decimal)expected));
    }

    [Theory]
    [InlineData("-1", "EUR")]
    [InlineData("1.234", "EUR")]
    [InlineData("1,000.00", "EUR")]
    [InlineData("ten", "EUR")]
    [InlineData("99999999", "EUR")]
    [InlineData("6.4", "JPY")]
    public void Nonsense_is_told(string text, string currency)
    {
        Amount.TryRead(text, new Currency(currency), out var amount).ShouldNotBeNullOrEmpty();
        amount.ShouldBeNull();
    }

    [Fact]
    public void A_blank_is_no_amount_and_no_error()
    {
        Amount.TryRead(" ", Euro, out var amount).ShouldBeNull();
        amount.ShouldBeNull();
    }

    [Fact]
    public void Amounts_are_written_the_way_the_currency_wants()
    {
        Eur(6.4m).ToString().ShouldBe("€6.40");
        Eur(-6.4m).ToString().ShouldBe("−€6.40");
        new Amount(1200m, "JPY").ToString().ShouldBe("¥1200");
        new Amount(12m, "PLN").ToString().ShouldBe("12.00 PLN");
        new Amount(1.5m, "KWD").ToString().ShouldBe("1.500 KWD");
        Currency.IsCode("eur").ShouldBeFalse();
        Currency.IsCode("EUR").ShouldBeTrue();
    }

    // ISO 4217, list one: minor units of these codes.
    [Theory]
    [InlineData("JPY", 0)]
    [InlineData("KRW", 0)]
    [InlineData("EUR", 2)]
    [InlineData("MGA", 2)]
    [InlineData("KWD", 3)]
    [InlineData("TND", 3)]
    [InlineData("CLF", 4)]
    public void Minor_units_are_those_of_the_standard(string code, int digits) => new Currency(code).MinorUnits.ShouldBe(digits);

    // Hand arithmetic; a half goes away from zero, where banker's rounding would give 7.62, 2, 0.12 and 0.062.
    [Theory]
    [InlineData(15, 30.50, "EUR", 7.63)]
    [InlineData(5, 30, "JPY", 3)]
    [InlineData(1, 7.5, "EUR", 0.13)]
    [InlineData(1, 3.75, "KWD", 0.063)]
    [InlineData(0, 30, "EUR", 0)]
    public void Work_is_rounded_half_away_from_zero_to_what_can_be_paid(double minutes, double rate, string currency, double expected) =>
        Labour.Of(minutes, new Amount((decimal)rate, currency)).ShouldBe(new Amount((decimal)expected, currency));

    [Fact]
    public void A_job_in_another_currency_is_not_priced_with_the_shops_rate()
    {
        Labour.For(60, Eur(30), Euro).ShouldBe(Eur(30));
        Labour.For(60, Eur(30), new Currency("JPY")).ShouldBeNull();
        Should.Throw<InvalidOperationException>(() => Eur(1) + new Amount(1, "JPY"));
        WorthLine.UncuredMinutes(Values(4800, 0, 0, "JPY"), Eur(30)).ShouldBe(WorthLine.DefaultUncuredMinutes);
        WorthLine.Judge(Advised(0.5, 4), Values(4800, 0, 0, "JPY"), Eur(30)).Brings.ShouldBeNull();
    }

    [Fact]
    public void Money_is_decimal_and_not_a_binary_float()
    {
        // Ten times a tenth: a double gives 0.9999999999999999.
        Enumerable.Repeat(Eur(0.1m), 10).Aggregate((sum, next) => sum + next).Value.ShouldBe(1m);
        typeof(Amount).GetProperty(nameof(Amount.Value))!.PropertyType.ShouldBe(typeof(decimal));
    }

    [Fact]
    public void What_is_at_stake_sets_the_minutes_a_repair_may_cost()
    {
        // 48 working, 14 in parts: 34 at stake; at 30 an hour that pays 68 minutes.
        WorthLine.UncuredMinutes(Values(48, 10, 14), Eur(30)).ShouldBe(68, 1e-9);
        WorthLine.UncuredMinutes(Values(null, 10, 14), Eur(30)).ShouldBe(WorthLine.DefaultUncuredMinutes);
        // Nothing to win: hardly a look is worth it.
        WorthLine.UncuredMinutes(Values(10, 10, 14), Eur(30)).ShouldBe(5);
    }

    [Theory]
    [InlineData(0.86, "Worth going on", true)]
    [InlineData(0.3, "A gamble", true)]
    public void The_verdict_follows_the_chance(double chance, string verdict, bool goOn)
    {
        var worth = WorthLine.Judge(Advised(chance, 0), Values(null, null, null), Eur(30));
        worth.Verdict.ShouldBe(verdict);
        worth.GoOn.ShouldBe(goOn);
    }

    [Theory]
    [InlineData(Move.AsideId, "Nothing known explains it")]
    [InlineData(Move.StopId, "Beyond repair")]
    public void Where_nothing_is_left_to_go_on_with_no_chance_is_told(string end, string verdict)
    {
        var worth = WorthLine.Judge(new Advice([new Move(end, "X", "", 0, 0, 0, 1, [], null)], null), Values(null, null, null), Eur(30));
        (worth.Verdict, worth.GoOn, worth.CostMore).ShouldBe((verdict, false, null));
    }

    [Fact]
    public void What_it_costs_stands_beside_what_it_brings()
    {
        // Hand arithmetic: 20 min at 30 an hour and 4 for parts are 14; 34 at stake with a chance of one half bring 17.
        var worth = WorthLine.Judge(Advised(0.5, 4), Values(48, 10, 14), Eur(30));
        (worth.CostMore, worth.Brings, worth.Verdict).ShouldBe((Eur(14), Eur(17), "Worth going on"));
        var dear = WorthLine.Judge(Advised(0.5, 4), Values(30, 10, 14), Eur(30));
        (dear.Brings, dear.Verdict).ShouldBe((Eur(8), "Hardly worth it"));
    }

    private static Advice Advised(double chance, double parts) =>
        new([new Move("x", "X", "", 1, 0, 0, 1, [], new Outlook(chance, 20, 50, parts))], null);
}
