using System.Text.Json;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Offers;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>A question to the seller, with what its answers would change.</summary>
/// <param name="Words">The question.</param>
/// <param name="IfYes">Highest sensible offer when the answer is yes.</param>
/// <param name="IfNo">When it is no.</param>
/// <param name="YesChance">Chance of a yes, 0 to 1.</param>
/// <param name="Gain">What it is worth to ask at the price asked: what is gained by buying only where it pays.</param>
public sealed record SellerQuestion(string Words, Amount IfYes, Amount IfNo, double YesChance, Amount Gain);

/// <summary>An offer as it is weighed.</summary>
/// <param name="Offer">The offer; its figures are for one unit, its price for all.</param>
/// <param name="Models">Models that it may be.</param>
/// <param name="Said">Functions that the seller speaks of and marks that are seen, in words.</param>
/// <param name="Unsure">Words that were not understood.</param>
/// <param name="Trust">How often such words hold, 0 to 1.</param>
/// <param name="Held">Claims that held.</param>
/// <param name="Looked">Claims that were looked into.</param>
/// <param name="Terms">Costs and prices of one unit.</param>
/// <param name="Worth">What one is worth.</param>
/// <param name="Highest">Highest sensible offer for all of them.</param>
/// <param name="Cautious">Cautious offer for all of them.</param>
/// <param name="AtAsking">What is to be expected at the price asked, for all of them, the shop's hour paid.</param>
/// <param name="Loses">Share of single purchases at that price that lose money.</param>
/// <param name="Questions">Questions to the seller, the most telling first.</param>
public sealed record OfferSheet(
    Offer Offer,
    IReadOnlyList<DeviceProfile> Models,
    IReadOnlyList<string> Said,
    IReadOnlyList<string> Unsure,
    double Trust,
    int Held,
    int Looked,
    OfferTerms Terms,
    OfferWorth Worth,
    Amount Highest,
    Amount Cautious,
    Amount AtAsking,
    double Loses,
    IReadOnlyList<SellerQuestion> Questions
);

/// <summary>Offers: what something is worth to buy, from what its seller says; what became of it; how true the chances were.</summary>
public sealed class OfferDesk(
    OfferStore offers,
    ForecastStore forecasts,
    BenchRecordStore records,
    ModelShelf models,
    SettingsStore settings,
    SaleDesk sales,
    DoorWords door,
    Ledger ledger
)
{
    /// <summary>Most models that it may be.</summary>
    public const int MostModels = 6;

    /// <summary>Most units of an offer.</summary>
    public const int MostUnits = 500;

    private const int LongestTitle = 120;
    private const int LongestClaim = 600;
    private const int Seed = 1;
    private const int LooksBack = 400;
    private const int Asked = 3;

    /// <summary>Weighs an offer; nothing is kept.</summary>
    /// <param name="offer">The offer.</param>
    /// <param name="ask">True to work out what to ask the seller too.</param>
    public Deed<OfferSheet> Weigh(Offer offer, bool ask = true)
    {
        if (Problem(offer) is { } wrong)
            return Refusal.Invalid(wrong);
        var shop = settings.Get();
        if (shop.PerHour.Currency.Code != offer.Currency)
            return Refusal.Invalid($"The shop's hour is in {shop.PerHour.Currency}: weigh the offer in that currency.");
        var (held, looked) = Claims();
        var trust = Calibration.Trust(held, looked);
        var count = Math.Max(1, offer.Count);
        var terms = new OfferTerms(
            offer.Asking / count,
            offer.Postage / count,
            offer.BuyFee,
            offer.Working,
            offer.InParts,
            offer.Spread,
            sales.Terms.FeePercent / 100,
            sales.Terms.Postage + sales.Terms.Packing,
            shop.RatePerHour
        );
        var known = offer.ModelIds.Select(id => models.Latest(id)!.Value.Model).ToList();
        var costs = new BenchCosts(
            (double)shop.RatePerHour,
            shop.OriginalityMinutes,
            WorthLine.UncuredMinutes(new UnitValues(offer.Working, offer.InParts, null, new Currency(offer.Currency)), shop.PerHour),
            StakeKnown: true
        );
        var heard = known.Select(m => door.Hear(offer.Claim, m.Profile)).ToList();
        var cases = known.Zip(heard, (m, h) => new OfferCase(m, h.Facts, costs, trust)).ToList();
        var ways = cases.SelectMany(c => c.Ways(1.0 / cases.Count)).ToList();
        var worth = OfferWorth.Of(ways, terms, Seed);
        Amount All(decimal each) => new Amount(each * count, offer.Currency).Rounded();
        return new OfferSheet(
            offer,
            known.Select(m => m.Profile).ToList(),
            [.. cases.SelectMany(c => c.Words).Distinct()],
            [.. heard.SelectMany(h => h.Unsure).Distinct()],
            trust,
            held,
            looked,
            terms,
            worth,
            All(worth.HighestOffer(terms)),
            All(worth.CautiousOffer(terms)),
            All(worth.Mean - terms.Costs(terms.Asking)),
            worth.LosesAt(terms.Asking, terms),
            ask && known.Count == 1 ? Questions(cases[0], terms, worth, offer.Currency) : []
        );
    }

    /// <summary>Keeps an offer with what was said of it.</summary>
    /// <returns>Its id, in words.</returns>
    public Deed<Done> Keep(Offer offer, string? once = null) =>
        Weigh(offer, ask: false)
            .Match(
                sheet =>
                    ledger.Once<Done>(
                        once,
                        () =>
                        {
                            var id = offers.Save(
                                offer with
                                {
                                    Chance = sheet.Worth.Chance,
                                    Minutes = sheet.Worth.Minutes,
                                    Highest = sheet.Highest.Value,
                                    Cautious = sheet.Cautious.Value,
                                }
                            );
                            return new Done(id.ToString(System.Globalization.CultureInfo.InvariantCulture));
                        }
                    ),
                refusal => refusal
            );

    /// <summary>Notes what became of an offer. What was bought becomes a lot, to be taken in.</summary>
    /// <param name="id">Offer.</param>
    /// <param name="state">What became of it.</param>
    /// <param name="paid">Price it went for, when it was bought.</param>
    /// <param name="words">Own words.</param>
    /// <param name="once">Key of the form.</param>
    public Deed<Done> Becomes(long id, OfferState state, decimal? paid, string words, string? once = null) =>
        ledger.Once<Done>(
            once,
            () =>
            {
                if (offers.Find(id) is not { } offer)
                    return Refusal.Missing;
                if (state == OfferState.Bought && paid is null or < 0)
                    return Refusal.Invalid("Give the price that it went for.");
                if (words.Length > LongestTitle)
                    return Refusal.Invalid($"The words take {LongestTitle} characters.");
                offers.Save(offer with { State = state, Paid = state == OfferState.Bought ? paid : null, Words = words });
                return new Done(state switch { OfferState.Bought => "Bought.", OfferState.Lost => "Not bought.", _ => "Open again." });
            }
        );

    /// <summary>Takes an offer away, or brings it back.</summary>
    public Deed<Done> Remove(long id, bool back, string? once = null) => ledger.Once(once, () => offers.SetDeleted(id, !back));

    /// <summary>How true the chances were: those given before repairs, and those of offers whose units are decided.</summary>
    public (Calibration? Repairs, Calibration? Offers) Truth() =>
        (
            Calibration.Of(
                forecasts.Newest(LooksBack * 10).Where(f => f.Worked is not null).Select(f => new Forecast(f.Chance, f.Worked!.Value)).ToList()
            ),
            Calibration.Of(
                offers
                    .Units(null, LooksBack)
                    .Where(u => u.Job.Ending != JobEnd.Open)
                    .Select(u => new Forecast(u.Chance, u.Job.Ending != JobEnd.Parts && u.Job.StatedReason.Length == 0))
                    .ToList()
            )
        );

    /// <summary>How many claims of sellers held: what they said of functions, against the first own trial of each.</summary>
    public (int Held, int Looked) Claims()
    {
        var (held, looked) = (0, 0);
        foreach (var unit in offers.Units(null, LooksBack))
        {
            if (offers.Find(unit.Offer) is not { Claim.Length: > 0 } offer)
                continue;
            var model = models.Of(unit.Job);
            var tried = records.Of(unit.Job.Id).Select(r => r.Body).OfType<FunctionTrial>().ToList();
            foreach (var fact in door.Hear(offer.Claim, model.Profile).Trials)
                if (tried.FirstOrDefault(t => t.Function == fact.Function!.Value) is { } own)
                    (held, looked) = (held + (own.Passed == fact.Passed ? 1 : 0), looked + 1);
        }

        return (held, looked);
    }

    /// <summary>Puts a model's ids into an offer.</summary>
    public static string Ids(IEnumerable<string?> ids) => JsonSerializer.Serialize(ids.Where(id => !string.IsNullOrEmpty(id)).Distinct());

    private string? Problem(Offer offer) =>
        offer.Title.Length is 0 or > LongestTitle ? $"Say what it is, in up to {LongestTitle} characters."
        : offer.Claim.Length > LongestClaim ? $"What the seller says takes {LongestClaim} characters."
        : offer.ModelIds.Count is 0 or > MostModels ? $"Choose one to {MostModels} models that it may be."
        : offer.ModelIds.Any(id => models.Latest(id) is null) ? "That model is not known; choose one from the list."
        : offer.Count is < 1 or > MostUnits ? $"One to {MostUnits} units."
        : offer.Asking < 0 || offer.Postage < 0 || offer.Working < 0 || offer.InParts < 0 ? "Amounts are nothing or more."
        : offer.BuyFee is < 0 or > 1 ? "The fee is 0 to 100 % of the price."
        : offer.Spread is < 0 or > 1 ? "Prices spread by 0 to 100 %."
        : offer.Working == 0 ? "Give what one fetches when it works: from the sales of like units."
        : null;

    /// <summary>The questions whose answers would change most: asked at the price, buying only where it pays.</summary>
    private static List<SellerQuestion> Questions(OfferCase unit, OfferTerms terms, OfferWorth now, string currency)
    {
        var at = terms.Costs(terms.Asking);
        var without = Math.Max(0, now.Mean - at);
        Amount In(decimal value) => new Amount(value, currency).Rounded();
        return unit
            .Questions()
            .Select(a =>
            {
                var (yes, no) = (OfferWorth.MeanOf(a.Yes, terms), OfferWorth.MeanOf(a.No, terms));
                var gain =
                    (decimal)a.YesChance * Math.Max(0, yes - at) + (1 - (decimal)a.YesChance) * Math.Max(0, no - at) - without;
                return (
                    Question: new SellerQuestion(a.Words, In(terms.PriceFor(yes)), In(terms.PriceFor(no)), a.YesChance, In(Math.Max(0, gain))),
                    Apart: a.YesChance * (1 - a.YesChance) * (double)Math.Abs(yes - no)
                );
            })
            .Where(q => q.Apart > 0.005)
            .OrderByDescending(q => q.Question.Gain.Value)
            .ThenByDescending(q => q.Apart)
            .Take(Asked)
            .Select(q => q.Question)
            .ToList();
    }
}
