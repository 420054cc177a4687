using System.Text;
using Mendro.Core.Money;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Stock;

/// <summary>The stock: bins, what is free in them, what is low.</summary>
public sealed class IndexModel(StockStore stock, StockDesk desk, OrderDesk orders, ProfileStore profiles, SettingsStore settings) : ShopPageModel
{
    private const int LongestFile = 1024 * 1024;

    /// <summary>What is looked for.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Q { get; set; }

    /// <summary>A new bin, as typed.</summary>
    [BindProperty]
    public BinForm Form { get; set; } = new();

    /// <summary>What was pasted and not taken.</summary>
    public string Text { get; private set; } = "";

    /// <summary>Bins.</summary>
    public IReadOnlyList<StockItem> Bins => _bins ??= stock.List(Words.Clean(Q));

    /// <summary>Parts that have to be ordered.</summary>
    public int Wanted => orders.Wanted().Count;

    /// <summary>All of it at own cost.</summary>
    public Amount Worth => In(Bins.Sum(b => (b.Cost ?? 0) * b.Count));

    /// <summary>Currency of the stock.</summary>
    public string Currency => settings.Get().Currency;

    /// <summary>Models to choose from.</summary>
    public IReadOnlyList<(string Id, string Name)> Models => ModelChoice.Of(profiles);

    /// <summary>Bin taken away just now, or null.</summary>
    public object? Gone => TempData["Gone"];

    private IReadOnlyList<StockItem>? _bins;

    /// <summary>An amount of the stock's currency.</summary>
    public Amount In(decimal value) => new Amount(value, Currency).Rounded();

    /// <summary>Shows it.</summary>
    public void OnGet() { }

    /// <summary>The stock as a file.</summary>
    public IActionResult OnGetCsv() => File(Encoding.UTF8.GetBytes(desk.Export()), "text/csv", "stock.csv");

    /// <summary>Adds a bin.</summary>
    public IActionResult OnPost()
    {
        var line = Form.Read();
        if (!line.IsOk)
            return Refuse(line.Problem);
        return Answer(
            desk.Save(0, line.Value, Once),
            _ =>
            {
                TempData["Said"] = $"{line.Value.Spec.Name}: {line.Value.Count} put in.";
                return RedirectToPage(new { q = (string?)null });
            }
        );
    }

    /// <summary>Takes a file in.</summary>
    public async Task<IActionResult> OnPostImport(string? text, IFormFile? file)
    {
        Text = text ?? "";
        return Answer(
            desk.Import(await TextOf(text, file, LongestFile) ?? "", Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage();
            }
        );
    }

    /// <summary>Takes a bin away, or brings it back.</summary>
    public IActionResult OnPostRemove(long id, bool back) =>
        Answer(
            desk.Remove(id, back, Once),
            _ =>
            {
                if (!back)
                    TempData["Gone"] = id.ToString(System.Globalization.CultureInfo.InvariantCulture);
                return RedirectToPage();
            }
        );
}
