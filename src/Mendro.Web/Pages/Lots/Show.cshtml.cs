using Mendro.Core.Diagnosis;
using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Lots;

/// <summary>The board of a lot: all its items, the rounds, what it comes to.</summary>
public sealed class ShowModel(LotDesk desk, ProfileStore profiles, SettingsStore settings) : ShopPageModel
{
    /// <summary>Lot.</summary>
    [BindProperty(SupportsGet = true)]
    public long Id { get; set; }

    /// <summary>Order of the items: by number or by gain.</summary>
    [BindProperty(SupportsGet = true)]
    public string? By { get; set; }

    /// <summary>What is told of the lot, as typed.</summary>
    [BindProperty]
    public LotForm Form { get; set; } = new();

    /// <summary>The board.</summary>
    public LotBoard Board { get; private set; } = null!;

    /// <summary>Units that do better as donors of others.</summary>
    public IReadOnlyList<Pairing> Pairs => _pairs ??= desk.Pairs(Board);

    private IReadOnlyList<Pairing>? _pairs;

    /// <summary>True when items stand by what an hour on them brings.</summary>
    public bool ByGain => By == "gain";

    /// <summary>Items in the order asked for.</summary>
    public IEnumerable<LotRow> Rows => ByGain ? Board.ByGain.Concat(Board.Rows.Where(r => !r.Item.IsOpen)) : Board.Rows;

    /// <summary>The shop's hour.</summary>
    public Amount PerHour => LotDesk.HourOf(Board.Lot, settings.Get());

    /// <summary>Models to choose from.</summary>
    public IReadOnlyList<(string Id, string Name)> Models => ModelChoice.Of(profiles);

    /// <summary>Name of the part that a donor gives.</summary>
    public string PartName(Pairing pair) =>
        MoveWords.Lower(Board.Rows.First(r => r.Item.Number == pair.To).View.Profile.FindPart(pair.Part)?.Name ?? pair.Part);

    /// <summary>Shows it.</summary>
    public IActionResult OnGet()
    {
        if (!Load())
            return NotFound();
        Form = LotForm.From(Board.Lot);
        return Page();
    }

    /// <summary>Sets an item apart, or back.</summary>
    public IActionResult OnPostPlace(long number, bool apart)
    {
        if (!Load() || Board.Rows.FirstOrDefault(r => r.Item.Number == number) is not { } row)
            return NotFound();
        return Answer(
            desk.Place(number, apart, row.Place.Why, row.Place.Weight, Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage(new { id = Id, by = By });
            }
        );
    }

    /// <summary>Keeps what is told of the lot.</summary>
    public IActionResult OnPostSave()
    {
        if (!Load())
            return NotFound();
        if (Form.Into(Board.Lot, out var told) is { } wrong)
            return Refuse(wrong);
        return Answer(desk.Save(told, Once), _ => RedirectToPage(new { id = Id, by = By }));
    }

    private bool Load()
    {
        if (desk.Open(Id) is not { } board)
            return false;
        Board = board;
        return true;
    }
}
