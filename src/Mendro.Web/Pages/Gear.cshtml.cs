using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>The shop's test gear: how often it was used since it was cleaned, and how far it is to be trusted.</summary>
public sealed class GearModel(GearStore gear, Ledger ledger, TradeLibrary library) : ShopPageModel
{
    private const int LongestName = 80;

    /// <summary>A piece is worth cleaning when it has become this many times as suspect as when clean.</summary>
    private const double CleanAt = 1.5;

    private const double LeastDirt = 0.05;

    /// <summary>All pieces.</summary>
    public IReadOnlyList<Gear> Pieces { get; private set; } = [];

    /// <summary>Kinds that can stand in for something.</summary>
    public IEnumerable<PartKind> Kinds =>
        library.PartKinds.Where(k => k.Swappable).OrderByDescending(k => k.Gear).ThenBy(k => k.Name, StringComparer.Ordinal);

    /// <summary>As typed.</summary>
    public string? Name { get; private set; }

    /// <summary>As chosen.</summary>
    public string? Kind { get; private set; }

    /// <summary>Name of a kind.</summary>
    public string KindName(string kind) => library.FindPartKind(kind)?.Name ?? kind;

    /// <summary>Chance that a piece is at fault, clean and now.</summary>
    public (double Clean, double Now) Chances(Gear piece)
    {
        var kind = library.FindPartKind(piece.Kind);
        double Any(int uses) => 1 - (kind?.Modes ?? []).Aggregate(1.0, (p, m) => p * (1 - GearWear.Prior(kind, m, uses)));
        return (Any(0), Any(piece.Uses));
    }

    /// <summary>True when cleaning is due.</summary>
    public bool Due(Gear piece) => Chances(piece) is var (clean, now) && now > CleanAt * clean && now - clean > LeastDirt;

    /// <summary>Shows the gear.</summary>
    public void OnGet() => Pieces = gear.All();

    /// <summary>Adds a piece.</summary>
    public IActionResult OnPostAdd(string? name, string? kind)
    {
        (Name, Kind) = (Words.Clean(name), kind);
        if (Name.Length is 0 or > LongestName)
            ModelState.AddModelError("", $"A piece needs a name of up to {LongestName} characters, as written on it.");
        else if (Kinds.All(k => k.Kind != kind))
            ModelState.AddModelError("", "Choose what it is.");
        if (!ModelState.IsValid)
        {
            Pieces = gear.All();
            return RefuseAsShown();
        }

        return Answer(ledger.Once(Once, () => gear.Add(Name, kind!)), _ => RedirectToPage());
    }

    /// <summary>Does something to a piece.</summary>
    public IActionResult OnPostDo(long id, string? act)
    {
        if (gear.All().FirstOrDefault(g => g.Id == id) is not { } piece)
            return NotFound();
        Action? change = act switch
        {
            "clean" => () => gear.Clean(id),
            "uses" => () => gear.AddUses(id, 10),
            "standard" => () => gear.MakeStandard(id),
            "retire" => () => gear.Retire(id),
            "restore" => () => gear.Restore(id),
            _ => null,
        };
        if (change is null)
            return NotFound();
        ledger.Once(Once, change);
        TempData["Said"] = act switch
        {
            "clean" => $"{piece.Name}: cleaned, its counter begins anew.",
            "uses" => $"{piece.Name}: ten uses more.",
            "standard" => $"{piece.Name} is what a unit is tried with unless said otherwise.",
            "retire" => $"{piece.Name} is out of use; it can be brought back below.",
            _ => $"{piece.Name} is back in use.",
        };
        return RedirectToPage();
    }
}
