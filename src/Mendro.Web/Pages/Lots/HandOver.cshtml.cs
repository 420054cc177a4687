using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Lots;

/// <summary>A customer's batch is handed over, whole or in part.</summary>
public sealed class HandOverModel(LotDesk lots, BatchDesk batches, MethodDesk methods, ShopCalendar calendar) : ShopPageModel
{
    private HashSet<long>? _chosen;

    /// <summary>Batch.</summary>
    [BindProperty(SupportsGet = true)]
    public long Id { get; set; }

    /// <summary>The batch.</summary>
    public BatchSheet Batch { get; private set; } = null!;

    /// <summary>What is due for all that is ready.</summary>
    public string DueNow =>
        BatchSheet.Due(Batch.Here.Where(u => u.Bar is null), new Currency(Batch.Board.Lot.Currency)).Value is > 0 and var due
            ? due.ToString("0.00", System.Globalization.CultureInfo.InvariantCulture)
            : "";

    /// <summary>True for what is handed over: what was chosen, or what is ready.</summary>
    public bool IsChosen(BatchUnit unit) => _chosen?.Contains(unit.Row.Item.Number) ?? unit.Bar is null;

    /// <summary>Shows what is here.</summary>
    public IActionResult OnGet() => Load() ? Page() : NotFound();

    /// <summary>Hands over what was chosen.</summary>
    public IActionResult OnPost(long[]? number, string? to, string? paid, string? warranty)
    {
        if (!Load())
            return NotFound();
        var units = (number ?? []).Distinct().Select(n => (Number: n, Reason: Words.Clean(Request.Form[$"reason-{n}"].FirstOrDefault()))).ToList();
        _chosen = units.Select(u => u.Number).ToHashSet();
        Remember([("to", to), ("paid", paid), ("warranty", warranty), .. units.Select(u => ($"reason-{u.Number}", (string?)u.Reason))]);
        if (Amount.TryRead(paid, new Currency(Batch.Board.Lot.Currency), out var sum) is { } wrong)
            return Refuse(wrong);
        var until = DayText.Read(Words.Clean(warranty));
        if (until is null && !string.IsNullOrWhiteSpace(warranty))
            return Refuse("The warranty ends on a day such as 2027-11-26.");
        return Answer(
            batches.HandOver(Batch, new BatchLeaves(units, Words.Clean(to), until, sum?.Value), calendar.Today, Once),
            done =>
            {
                // What came of their repairs counts for the methods from now on.
                foreach (var (gone, _) in units)
                    methods.Closed(gone);
                TempData["Said"] = done.Words;
                return Redirect($"/Lots/{Id}/Sheet");
            }
        );
    }

    private bool Load()
    {
        if (lots.Open(Id) is not { Lot.IsBatch: true } board)
            return false;
        Batch = batches.Open(board);
        return true;
    }
}
