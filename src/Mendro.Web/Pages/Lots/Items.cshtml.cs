using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Lots;
using Mendro.Core.Planning;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Lots;

/// <summary>Items of a lot taken in by the line.</summary>
public sealed class ItemsModel(LotStore lots, LotItemsDesk desk, ProfileStore profiles, TradeLibrary library) : ShopPageModel
{
    /// <summary>Lot.</summary>
    [BindProperty(SupportsGet = true)]
    public long Id { get; set; }

    /// <summary>The lot.</summary>
    public Lot Lot { get; private set; } = new();

    /// <summary>Units in it.</summary>
    public int Count { get; private set; }

    /// <summary>Model of most of them, or null.</summary>
    public string? Kind { get; private set; }

    /// <summary>What was typed.</summary>
    public string Text { get; private set; } = "";

    /// <summary>How it would be taken in.</summary>
    public IReadOnlyList<(BatchItem Item, Outcome<Understanding> Said)> Heard { get; private set; } = [];

    /// <summary>Shows the page.</summary>
    public IActionResult OnGet() => Load() ? Page() : NotFound();

    /// <summary>Reads the lines without taking them in.</summary>
    public IActionResult OnPostRead(string? text)
    {
        if (!Load())
            return NotFound();
        Text = text ?? "";
        Heard = BatchLines.Read(Text, out var problems).Select(i => (i, desk.Heard(Lot, i))).ToList();
        return problems.Count > 0 ? Refuse(string.Join('\n', problems.Take(12))) : Page();
    }

    /// <summary>Takes them in.</summary>
    public IActionResult OnPost(string? text)
    {
        if (!Load())
            return NotFound();
        Text = text ?? "";
        return Answer(
            desk.TakeIn(Id, text, Once),
            done =>
            {
                TempData["Said"] = done.Numbers.Count == 1 ? $"Taken in as {done.Numbers[0]}." : $"Taken in as {done.Numbers[0]} to {done.Numbers[^1]}.";
                return Redirect($"/Lots/{Id}");
            }
        );
    }

    /// <summary>What a line says, in words.</summary>
    public string WordsOf(Understanding said)
    {
        var words = said
            .Facts.Select(f =>
                f.Function is { } id ? $"{said.Profile!.FindFunction(id)?.Name} {(f.Passed ? "works" : "fails")}"
                : f.Mark is { } mark ? library.FindMark(mark)?.Name
                : null
            )
            .OfType<string>()
            .ToList();
        return words.Count > 0 ? string.Join(", ", words.Select((w, n) => n == 0 ? w : MoveWords.Lower(w))) : "nothing to test by; kept as words";
    }

    private bool Load()
    {
        if (lots.Find(Id) is not { } lot)
            return false;
        Lot = lot;
        Count = lots.Units(lot.Name).Count;
        Kind = profiles.All().FirstOrDefault(p => p.Id == lot.ProfileId)?.FullName;
        return true;
    }
}
