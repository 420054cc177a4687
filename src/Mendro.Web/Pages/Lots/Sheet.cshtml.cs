using System.Text;
using Mendro.Core.Papers;
using Mendro.Shop;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Lots;

/// <summary>One job sheet for all that an owner brought together; to be printed, or as text to paste.</summary>
public sealed class SheetModel(LotDesk lots, BatchDesk batches, BatchPaper papers, ShopCalendar calendar, Viewer viewer) : ShopPageModel
{
    /// <summary>Batch.</summary>
    [BindProperty(SupportsGet = true)]
    public long Id { get; set; }

    /// <summary>Name of the batch.</summary>
    public string Name { get; private set; } = "";

    /// <summary>The paper.</summary>
    public Paper Paper { get; private set; } = null!;

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Load() ? Page() : NotFound();

    /// <summary>The same as text.</summary>
    public IActionResult OnGetText() => Load() ? Content(PaperText.Write(Paper), "text/plain; charset=utf-8", Encoding.UTF8) : NotFound();

    private bool Load()
    {
        if (lots.Open(Id) is not { Lot.IsBatch: true } board)
            return false;
        Name = board.Lot.Name;
        Paper = papers.Of(batches.Open(board), calendar.Day, viewer.SeesCosts);
        return true;
    }
}
