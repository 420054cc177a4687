using Mendro.Core.Library;
using Mendro.Core.Quantities;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages;

/// <summary>Parts of units that were given up: what is there, and how surely it is good.</summary>
public sealed class DonorsModel(DonorStore donors, DonorDesk desk, TradeLibrary library) : ShopPageModel
{
    /// <summary>Kind of part; null for all.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Kind { get; set; }

    /// <summary>True with those taken and bad.</summary>
    [BindProperty(SupportsGet = true)]
    public bool All { get; set; }

    /// <summary>The parts.</summary>
    public IReadOnlyList<DonorPart> Parts { get; private set; } = [];

    /// <summary>Kinds there are parts of, with their names.</summary>
    public IReadOnlyList<(string Kind, string Name)> Kinds { get; private set; } = [];

    /// <summary>Models of which a unit is in the shop.</summary>
    public IReadOnlySet<string> Wanted => _wanted ??= desk.Wanted();

    private IReadOnlySet<string>? _wanted;

    /// <summary>Shows them.</summary>
    public void OnGet() => Load();

    /// <summary>Notes what became of a part.</summary>
    public IActionResult OnPost(long id, string? state, string? words)
    {
        Load();
        var into = state == "pull" ? Words.Whole(words) : null;
        if (state == "pull" && into is not > 0)
            return Refuse("Say which job it goes into, by the number on its tag.");
        var price = state == "sell" ? NumberText.ReadDecimal(Words.Clean(words)) : null;
        if (state == "sell" && price is not > 0)
            return Refuse("Say what it fetched, such as 4.50.");
        return Answer(
            price is { } fetched ? desk.Sell(id, fetched, Once)
            : into is { } job ? desk.Pull(id, job, Once) : desk.Set(id, state ?? "", Words.Clean(words), Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage(new { kind = Kind, all = All ? "true" : null });
            }
        );
    }

    private void Load()
    {
        Kind = string.IsNullOrEmpty(Kind) ? null : Kind;
        Parts = donors.List(Kind, All);
        Kinds = donors
            .Kinds()
            .Select(k => (k, library.FindPartKind(k)?.Name ?? k))
            .OrderBy(k => k.Item2, StringComparer.Ordinal)
            .ToList();
    }
}
