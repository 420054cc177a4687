using System.Globalization;
using Mendro.Core.Money;
using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Lots;

/// <summary>Several units listed and sold for one price.</summary>
public sealed class BundleModel(BundleDesk desk, SaleDesk sale, ShopCalendar calendar) : ShopPageModel
{
    /// <summary>Numbers of the units, with commas.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Jobs { get; set; }

    /// <summary>Units with what each is worth.</summary>
    public BundleSheet Sheet { get; private set; } = null!;

    /// <summary>Text of the listing.</summary>
    public string Listing => sale.Together([.. Sheet.Units.Select(u => u.View)], Sheet.Asking, calendar.Day);

    /// <summary>Shows them.</summary>
    public IActionResult OnGet() => Load() ? Page() : NotFound();

    /// <summary>They were sold.</summary>
    public IActionResult OnPost(string? price, string? fees, string? postage, string? packing, string? words, string? reason)
    {
        if (!Load())
            return NotFound();
        Remember(("price", price), ("fees", fees), ("postage", postage), ("packing", packing), ("words", words), ("reason", reason));
        if (Amount.TryRead([price, fees, postage, packing], Sheet.Currency, out var told) is { } wrong)
            return Refuse(wrong);
        if (told[0] is not { } all)
            return Refuse("Give the price that they fetched together.");
        var deed = desk.Sold(Sheet, all, told[1] ?? 0, told[2] ?? 0, told[3] ?? 0, Words.Clean(words), Words.Clean(reason), Once);
        return Answer(
            deed,
            done =>
            {
                TempData["Said"] = done.Words;
                return Redirect(Sheet.Units[0].View.Job.Lot.Length > 0 ? "/Lots" : "/Jobs");
            }
        );
    }

    private bool Load()
    {
        var numbers = (Jobs ?? "")
            .Split([',', ' '], StringSplitOptions.RemoveEmptyEntries)
            .Select(w => long.TryParse(w, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : 0)
            .ToList();
        if (desk.Open(numbers) is not { } sheet)
            return false;
        Sheet = sheet;
        return true;
    }
}
