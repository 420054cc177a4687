using System.Text;
using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Money;

/// <summary>The purchase book.</summary>
public sealed class PurchasesModel(PurchaseDesk desk) : ShopPageModel
{
    /// <summary>True to show those only of whom no seller is told.</summary>
    [BindProperty(SupportsGet = true)]
    public bool Missing { get; set; }

    /// <summary>How many are left out at the beginning.</summary>
    [BindProperty(SupportsGet = true)]
    public int Skip { get; set; }

    /// <summary>How many are shown at once.</summary>
    public int Shown => 100;

    /// <summary>Lines.</summary>
    public IReadOnlyList<Purchase> Lines => _lines ??= desk.Lines(Missing, Math.Clamp(Skip, 0, int.MaxValue / 2), Shown);

    /// <summary>Job whose form is open.</summary>
    public long? At { get; private set; }

    private IReadOnlyList<Purchase>? _lines;

    /// <summary>Shows it.</summary>
    public void OnGet() { }

    /// <summary>All of it as a file.</summary>
    public IActionResult OnGetCsv() => File(Encoding.UTF8.GetBytes(desk.Csv()), "text/csv", "purchases.csv");

    /// <summary>Keeps of whom one was bought.</summary>
    public IActionResult OnPost([FromForm] long number, string? seller, string? address, string? proof, bool lot)
    {
        (At, _lines) = (number, null);
        Remember(("seller", seller), ("address", address), ("proof", proof));
        return Answer(
            desk.Keep(number, lot, Words.Clean(seller), Words.Clean(address), Words.Clean(proof), Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage(new { missing = Missing ? "true" : null, skip = Skip > 0 ? (int?)Skip : null });
            }
        );
    }
}
