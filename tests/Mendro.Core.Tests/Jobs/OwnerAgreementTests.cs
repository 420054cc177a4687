using Mendro.Core.Jobs;
using Mendro.Core.Money;

namespace Mendro.Core.Tests.Jobs;

/// <summary>What an owner agreed to, over quotes and answers.</summary>
public sealed class OwnerAgreementTests
{
    private static readonly QuoteGiven Quote = new(20, 35, 60, "EUR", "switch", ConsentWay.Phone);

    private static QuoteAnswered Yes(decimal? upTo = null) => new(true, upTo, "EUR", "Ilka Dorn", ConsentWay.Phone);

    private static QuoteAnswered No => new(false, null, "EUR", "Ilka Dorn", ConsentWay.Phone);

    private static OwnerAgreement Of(decimal soFar, params RecordBody[] bodies) => OwnerAgreement.Of(bodies, new Amount(soFar, "EUR"));

    [Fact]
    public void Nothing_quoted_asks_for_nothing() => Of(500).Caution.ShouldBeNull();

    [Fact]
    public void A_quote_waits_for_its_answer() => Of(5, Quote).State.ShouldBe(AgreementState.Waiting);

    [Fact]
    public void A_yes_without_a_limit_is_up_to_the_high_end()
    {
        Of(60, Quote, Yes()).State.ShouldBe(AgreementState.Agreed);
        Of(60.01m, Quote, Yes()).State.ShouldBe(AgreementState.Exceeded);
    }

    [Fact]
    public void A_limit_of_the_owners_holds()
    {
        Of(40, Quote, Yes(39)).State.ShouldBe(AgreementState.Exceeded);
        Of(40, Quote, Yes(39)).Caution.ShouldNotBeNull().ShouldContain("39");
    }

    [Fact]
    public void A_higher_quote_waits_while_what_was_agreed_still_bounds()
    {
        Of(50, Quote, Yes(), Quote with { High = 120 }).State.ShouldBe(AgreementState.Waiting);
        Of(70, Quote, Yes(), Quote with { High = 120 }).State.ShouldBe(AgreementState.Exceeded);
        Of(70, Quote, Yes(), Quote with { High = 120 }, Yes()).State.ShouldBe(AgreementState.Agreed);
    }

    [Fact]
    public void A_no_ends_it()
    {
        Of(5, Quote, Yes(), No).State.ShouldBe(AgreementState.Declined);
        Of(5, Quote, No, Quote).State.ShouldBe(AgreementState.Waiting);
    }

    [Fact]
    public void Work_without_a_price_in_the_currency_is_not_weighed() =>
        OwnerAgreement.Of([Quote, Yes(1)], new Amount(500, "USD")).State.ShouldBe(AgreementState.Agreed);
}
