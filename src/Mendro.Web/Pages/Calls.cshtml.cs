using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages;

/// <summary>Calls to be made, and parts to come: what shelved jobs wait for.</summary>
public sealed class CallsModel(OwnerDesk owners, ShelfStore shelves, HandOverDesk handOver) : ShopPageModel
{
    /// <summary>Calls to be made.</summary>
    public IReadOnlyList<CallDue> Due { get; private set; } = [];

    /// <summary>Parts that are waited for, with the jobs that wait.</summary>
    public IReadOnlyList<(string Part, IReadOnlyList<ShelfWait> Jobs)> Parts { get; private set; } = [];

    /// <summary>Jobs that come back on a day.</summary>
    public IReadOnlyList<ShelfWait> Days { get; private set; } = [];

    /// <summary>Shows them.</summary>
    public void OnGet() => Load();

    /// <summary>A part came.</summary>
    public IActionResult OnPostCame(string? part)
    {
        Load();
        return Answer(
            handOver.PartCame(Words.Clean(part), Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage();
            }
        );
    }

    private void Load()
    {
        Due = owners.Due();
        var waits = shelves.All();
        Parts = waits
            .Where(w => w.Part.Length > 0)
            .GroupBy(w => w.Part, StringComparer.OrdinalIgnoreCase)
            .Select(g => (g.Key, (IReadOnlyList<ShelfWait>)g.ToList()))
            .ToList();
        Days = waits.Where(w => w.Until is not null).ToList();
    }
}
