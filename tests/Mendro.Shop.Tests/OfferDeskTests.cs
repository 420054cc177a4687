using Mendro.Core.Jobs;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>Offers: weighed from what sellers say, kept, and measured by what came of them.</summary>
public sealed class OfferDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static Offer Of(string claim, decimal asking = 12, params string[] models) =>
        new()
        {
            Title = "grey handheld, broken",
            Profiles = OfferDesk.Ids(models.Length > 0 ? models : ["harrow-quartet"]),
            Claim = claim,
            Currency = "EUR",
            Asking = asking,
            Postage = 4,
            Working = 48,
            InParts = 14,
        };

    private OfferSheet Weigh(Offer offer) => _shop.Offers.Weigh(offer).Done.ShouldNotBeNull();

    [Fact]
    public void An_offer_says_chance_work_and_what_to_pay_at_most()
    {
        var sheet = Weigh(Of("no light at all"));
        sheet.Said.ShouldBe(["Power light fails"]);
        sheet.Trust.ShouldBe(0.7);
        sheet.Worth.Chance.ShouldBeInRange(0.6, 1);
        sheet.Highest.Value.ShouldBeGreaterThan(sheet.Cautious.Value);
        sheet.Highest.Value.ShouldBeLessThan(48);
        // Nobody loses by buying at the highest offer on the average: it is what is left, less the postage.
        sheet.Highest.Value.ShouldBe(Math.Max(0, decimal.Round(sheet.Worth.Mean - 4, 2, MidpointRounding.AwayFromZero)));
        sheet.AtAsking.Value.ShouldBe(decimal.Round(sheet.Worth.Mean - 16, 2, MidpointRounding.AwayFromZero));
        sheet.Questions.ShouldNotBeEmpty();
        sheet.Questions.ShouldAllBe(q => q.YesChance > 0 && q.YesChance < 1 && q.Gain.Value >= 0);
    }

    [Fact]
    public void Untested_is_any_failure_and_one_of_two_models_is_half_of_each()
    {
        var (quartet, leaflet) = (Weigh(Of("broken, untested")), Weigh(Of("broken, untested", models: "tarn-leaflet")));
        quartet.Said.ShouldBeEmpty();
        var either = Weigh(Of("broken, untested", 12, "harrow-quartet", "tarn-leaflet"));
        either.Worth.Chance.ShouldBe((quartet.Worth.Chance + leaflet.Worth.Chance) / 2, 1e-9);
        either.Worth.Minutes.ShouldBe((quartet.Worth.Minutes + leaflet.Worth.Minutes) / 2, 1e-9);
        either.Questions.ShouldBeEmpty();
    }

    [Fact]
    public void A_mark_in_the_pictures_counts_and_what_is_not_understood_is_told()
    {
        var (plain, leaked) = (Weigh(Of("no light at all")), Weigh(Of("no light at all, leaked batteries, flumpy")));
        leaked.Said.ShouldBe(["Power light fails", "corrosion at the battery contacts"]);
        leaked.Unsure.ShouldContain("flumpy");
        // Crust at the contacts explains a dead light by what is cleaned in minutes (common practice, no source): less work than to search for it.
        leaked.Worth.Minutes.ShouldBeLessThan(plain.Worth.Minutes);
        Weigh(Of("water damage")).Said.ShouldHaveSingleItem();
    }

    [Fact]
    public void A_lot_is_as_many_times_one()
    {
        var (one, ten) = (Weigh(Of("dead", 5)), Weigh(Of("dead", 50) with { Count = 10, Postage = 40 }));
        ten.Worth.Mean.ShouldBe(one.Worth.Mean);
        Math.Abs(ten.Highest.Value - 10 * one.Highest.Value).ShouldBeLessThan(0.1m);
    }

    [Fact]
    public void What_makes_no_offer_is_refused_with_its_reason()
    {
        _shop.Offers.Weigh(Of("dead") with { Working = 0 }).Refusal.ShouldNotBeNull().Problem.ShouldContain("fetches");
        _shop.Offers.Weigh(Of("dead") with { Profiles = "[]" }).Refusal.ShouldNotBeNull().Problem.ShouldContain("models");
        _shop.Offers.Weigh(Of("dead") with { Currency = "USD" }).Refusal.ShouldNotBeNull().Problem.ShouldContain("EUR");
        _shop.Offers.Weigh(Of("dead") with { Title = "" }).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void Bought_units_say_how_true_the_chance_was_and_how_far_sellers_words_hold()
    {
        var id = long.Parse(
            _shop.Offers.Keep(Of("no light, phones work")).Done.ShouldNotBeNull().Words,
            System.Globalization.CultureInfo.InvariantCulture
        );
        _shop.Offers.Becomes(id, OfferState.Bought, null, "").Refusal.ShouldNotBeNull();
        _shop.Offers.Becomes(id, OfferState.Bought, 11, "").Done.ShouldNotBeNull();
        var number = _shop.TakeIn(owner: null);
        _shop.OfferRows.Join(id, _shop.Jobs.Find(number)!.Id);
        _shop.Offers.Claims().ShouldBe((0, 0));
        // The light is dead, as was said; the phones are too, which was not.
        _shop.Try(number, "power-light", false);
        _shop.Try(number, "phones", false);
        _shop.Offers.Claims().ShouldBe((1, 2));
        Weigh(Of("dead")).Trust.ShouldBe(8 / 12.0);
        _shop.Offers.Truth().Offers.ShouldBeNull();
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Parts, "", "", null, false)).Done.ShouldNotBeNull();
        var truth = _shop.Offers.Truth().Offers.ShouldNotBeNull();
        (truth.Count, truth.Groups.Single().Came.Count).ShouldBe((1, 0));
        var offer = _shop.OfferRows.Find(id)!;
        (offer.State, offer.Paid, offer.Chance).ShouldBe((OfferState.Bought, 11, truth.Groups.Single().Said));
    }
}
