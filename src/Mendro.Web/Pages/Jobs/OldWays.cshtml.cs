using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Which way the old capacitors of a board point, noted before they come off; by taps on a photo, or by hand.</summary>
public sealed class OldWaysModel(JobStore jobs, BenchDesk desk, RecapDesk recap, TradeLibrary library)
    : RecapPageModel(jobs, desk, recap, library)
{
    /// <summary>Board.</summary>
    [BindProperty(SupportsGet = true, Name = "board")]
    public string? BoardId { get; set; }

    /// <summary>The board; null when there is none with polar places.</summary>
    public Board? Board => Places.FirstOrDefault()?.Position.Board;

    /// <summary>Polar positions of the board whose pads are known.</summary>
    public IReadOnlyList<RecapLine> Places =>
        Sheet
            ?.Lines.Where(l => l.Position.Capacitor is { Polar: true, Pads: not null })
            .Where(l => l.Position.Board.Id == (BoardId ?? Sheet.Lines[0].Position.Board.Id))
            .ToList()
        ?? [];

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() && Board is not null ? Page() : NotFound();

    /// <summary>Notes what was told.</summary>
    public IActionResult OnPost(Dictionary<string, string> way)
    {
        if (!Prepare() || Board is not { } board)
            return NotFound();
        var told = Places
            .Where(l => way.GetValueOrDefault(l.Position.Capacitor.Refdes) is "as drawn" or "turned")
            .Where(l => way[l.Position.Capacitor.Refdes] != l.Old?.Way)
            .Select(l => new CapacitorOut(board.Id, l.Position.Capacitor.Refdes, way[l.Position.Capacitor.Refdes]))
            .ToList();
        return Answer(
            Recap.Ways(Number, told, Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage("/Jobs/Capacitors", new { number = Number, board = board.Id });
            }
        );
    }
}
