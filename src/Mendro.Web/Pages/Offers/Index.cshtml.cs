using System.Globalization;
using Mendro.Core.Money;
using Mendro.Core.Offers;
using Mendro.Core.Quantities;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Offers;

/// <summary>An offer as typed.</summary>
public sealed class OfferForm
{
    /// <summary>Row of one that is kept already; 0 for a new one.</summary>
    public long Id { get; set; }

    /// <summary>What it is.</summary>
    public string? Title { get; set; }

    /// <summary>How many units.</summary>
    public string? Count { get; set; } = "1";

    /// <summary>What the seller says.</summary>
    public string? Claim { get; set; }

    /// <summary>Models that it may be.</summary>
    public List<string> Models { get; set; } = [];

    /// <summary>Price asked.</summary>
    public string? Asking { get; set; }

    /// <summary>Postage.</summary>
    public string? Postage { get; set; }

    /// <summary>Fee on the price, %.</summary>
    public string? Fee { get; set; }

    /// <summary>What one fetches working.</summary>
    public string? Working { get; set; }

    /// <summary>What one fetches that does not.</summary>
    public string? InParts { get; set; }

    /// <summary>Spread of such prices, %.</summary>
    public string? Spread { get; set; } = "25";
}

/// <summary>Offers: what something is worth to buy, what became of it, and how true the chances were.</summary>
public sealed class IndexModel(OfferStore offers, OfferDesk desk, LotDesk lots, ProfileStore profiles, SettingsStore settings, ShopCalendar calendar)
    : ShopPageModel
{
    private const int Shown = 40;

    /// <summary>The offer, as typed.</summary>
    [BindProperty]
    public OfferForm Form { get; set; } = new();

    /// <summary>It weighed; null before that.</summary>
    public OfferSheet? Sheet { get; private set; }

    /// <summary>Offers kept, the newest first.</summary>
    public IReadOnlyList<Offer> Kept => offers.Newest(Shown);

    /// <summary>Offer taken away just now, or null.</summary>
    public object? Gone => TempData["Gone"];

    /// <summary>How true the chances were.</summary>
    public (Calibration? Repairs, Calibration? Offers) Truth => _truth ??= desk.Truth();

    /// <summary>How true what was said of the ends of lots was.</summary>
    public (int Within, int Said) Ends => lots.EndsTruth();

    /// <summary>Currency.</summary>
    public string Currency => settings.Get().Currency;

    /// <summary>The shop's hour.</summary>
    public Amount PerHour => settings.Get().PerHour;

    /// <summary>Models to choose from.</summary>
    public IReadOnlyList<(string Id, string Name)> Models => ModelChoice.Of(profiles);

    private (Calibration? Repairs, Calibration? Offers)? _truth;

    /// <summary>An amount of the shop's currency.</summary>
    public Amount In(decimal value) => new Amount(value, Currency).Rounded();

    /// <summary>Shows the page, with an offer that was kept.</summary>
    public IActionResult OnGet(long? id)
    {
        if (id is not { } known)
            return Page();
        if (offers.Find(known) is not { DeletedAt: null } offer)
            return NotFound();
        string Text(decimal value) => value == 0 ? "" : value.ToString("0.####", CultureInfo.InvariantCulture);
        Form = new OfferForm
        {
            Id = offer.Id,
            Title = offer.Title,
            Count = offer.Count.ToString(CultureInfo.InvariantCulture),
            Claim = offer.Claim,
            Models = [.. offer.ModelIds],
            Asking = Text(offer.Asking),
            Postage = Text(offer.Postage),
            Fee = Text(offer.BuyFee * 100),
            Working = Text(offer.Working),
            InParts = Text(offer.InParts),
            Spread = (offer.Spread * 100).ToString("0.##", CultureInfo.InvariantCulture),
        };
        Sheet = desk.Weigh(offer).Done;
        return Page();
    }

    /// <summary>Weighs what was typed.</summary>
    public IActionResult OnPostWeigh() => With(offer => Answer(desk.Weigh(offer), Show));

    /// <summary>Keeps what was typed.</summary>
    public IActionResult OnPostKeep() => With(offer => Answer(desk.Keep(offer, Once), done => Redirect($"/Offers?id={done.Words}")));

    /// <summary>Notes what became of an offer.</summary>
    public IActionResult OnPostBecomes(long id, OfferState state, string? paid)
    {
        if (Amount.TryRead(paid, new Currency(Currency), out var price) is { } wrong)
            return Refuse(wrong);
        return Answer(
            desk.Becomes(id, state, price?.Value, "", Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage();
            }
        );
    }

    /// <summary>Makes a lot of what was bought.</summary>
    public IActionResult OnPostLot(long id)
    {
        if (offers.Find(id) is not { State: OfferState.Bought } offer)
            return NotFound();
        var lot = new Lot
        {
            Name = offer.Title,
            Price = offer.Paid * (1 + offer.BuyFee),
            Postage = offer.Postage,
            Currency = offer.Currency,
            BoughtOn = DayText.Write(calendar.Today),
            Words = offer.Claim.Length > 0 ? $"said: {offer.Claim}"[..Math.Min(offer.Claim.Length + 6, 300)] : "",
            ProfileId = offer.ModelIds.Count == 1 ? offer.ModelIds[0] : "",
            Working = offer.Working,
            Otherwise = offer.InParts,
        };
        return Answer(
            lots.Save(lot, Once),
            done =>
            {
                offers.Save(offer with { Lot = lot.Name });
                return Redirect($"/Lots/{done.Words}/Items");
            }
        );
    }

    /// <summary>Takes an offer away, or brings it back.</summary>
    public IActionResult OnPostRemove(long id, bool back) =>
        Answer(
            desk.Remove(id, back, Once),
            _ =>
            {
                if (!back)
                    TempData["Gone"] = id.ToString(CultureInfo.InvariantCulture);
                return RedirectToPage();
            }
        );

    private IActionResult Show(OfferSheet sheet)
    {
        Sheet = sheet;
        return Page();
    }

    private IActionResult With(Func<Offer, IActionResult> work)
    {
        var before = Form.Id > 0 ? offers.Find(Form.Id) : null;
        if (Amount.TryRead([Form.Asking, Form.Postage, Form.Working, Form.InParts], new Currency(Currency), out var amounts) is { } wrong)
            return Refuse(wrong);
        if (NumberText.ReadCount(Words.Clean(Form.Count)) is not { } count)
            return Refuse("Say how many units it is.");
        decimal? Share(string? text) => Words.Clean(text).Length == 0 ? 0 : Words.Number(text) is { } percent and <= 1000 ? (decimal)percent / 100 : null;
        if (Share(Form.Fee) is not { } fee || Share(Form.Spread) is not { } spread)
            return Refuse("The fee and the spread are shares in %, such as 12.5.");
        return work(
            (before ?? new Offer()) with
            {
                Title = Words.Clean(Form.Title),
                Count = count,
                Claim = Words.Clean(Form.Claim),
                Profiles = OfferDesk.Ids(Form.Models),
                Currency = Currency,
                Asking = amounts[0] ?? 0,
                Postage = amounts[1] ?? 0,
                Working = amounts[2] ?? 0,
                InParts = amounts[3] ?? 0,
                BuyFee = fee,
                Spread = (double)spread,
            }
        );
    }
}
