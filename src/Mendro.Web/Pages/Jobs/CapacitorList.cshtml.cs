using System.Text;
using Mendro.Core.Capacitors;
using Mendro.Core.Library;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Shopping list, the kit that came, and a list of one's own for a unit without one.</summary>
public sealed class CapacitorListModel(JobStore jobs, BenchDesk desk, RecapDesk recap, StockDesk stock, TradeLibrary library)
    : RecapPageModel(jobs, desk, recap, library)
{
    private const int LongestText = 60_000;

    /// <summary>What was pasted, kept when it is refused.</summary>
    [BindProperty]
    public string? Text { get; set; }

    /// <summary>Lines that could not be read.</summary>
    public IReadOnlyList<string> Problems { get; private set; } = [];

    /// <summary>The kit that was checked; null when none was.</summary>
    public IReadOnlyList<CapacitorPart>? Kit { get; private set; }

    /// <summary>What the kit lacks.</summary>
    public IReadOnlyList<KitGap> Gaps { get; private set; } = [];

    /// <summary>What to buy.</summary>
    public IReadOnlyList<ShoppingLine> Shopping => Sheet is { WantsRevision: false } sheet ? Recap.Shopping(sheet) : [];

    /// <summary>Shows it.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>The shopping list as a file.</summary>
    public IActionResult OnGetCsv() =>
        Prepare() ? File(Encoding.UTF8.GetBytes(ShoppingList.Csv(Shopping)), "text/csv", $"capacitors-{Number}.csv") : NotFound();

    /// <summary>The list of positions as a file, for the next unit.</summary>
    public IActionResult OnGetPositions() =>
        Prepare() && Sheet is { } sheet
            ? File(Encoding.UTF8.GetBytes(CapacitorFile.WriteList(sheet.Lines.Select(Measured))), "text/csv", $"positions-{Number}.csv")
            : NotFound();

    /// <summary>For how many units.</summary>
    public IActionResult OnPostUnits(int units) =>
        Prepare() ? Answer(Recap.Decide(Number, plan => plan with { Units = units }, Once), _ => RedirectToPage(new { number = Number })) : NotFound();

    /// <summary>Puts what is to be bought on the list of orders.</summary>
    public IActionResult OnPostOrder() =>
        Prepare()
            ? Answer(
                stock.WantAll(Number, Shopping.Where(l => l.ToBuy > 0).Select(l => (l.Part.Words, l.ToBuy)).ToList(), Once),
                done =>
                {
                    TempData["Said"] = done.Words;
                    return Redirect("/Orders");
                }
            )
            : NotFound();

    /// <summary>Checks a kit, or puts it away.</summary>
    public async Task<IActionResult> OnPostKitAsync(IFormFile? file, bool keep, string? source)
    {
        if (!Prepare() || Sheet is not { WantsRevision: false } sheet)
            return NotFound();
        Text = await TextOf(Text, file, LongestText);
        var kit = CapacitorFile.ReadParts(Text ?? "", source == "stock" ? CapacitorSource.Stock : CapacitorSource.Kit, out var problems);
        Problems = problems;
        if (kit.Count == 0 || problems.Count > 0)
            return RefuseAsShown();
        if (keep && LockedBecause is null)
        {
            return Answer(
                Recap.Add(kit, Once),
                done =>
                {
                    TempData["Said"] = done.Words;
                    return RedirectToPage(new { number = Number });
                }
            );
        }

        Kit = kit;
        Gaps = ShoppingList.Check(sheet.Renewed.Where(l => !l.IsIn).Select(l => l.Position).ToList(), kit);
        return Page();
    }

    /// <summary>Takes a list of one's own.</summary>
    public async Task<IActionResult> OnPostOwnAsync(IFormFile? file)
    {
        if (!Prepare())
            return NotFound();
        Text = await TextOf(Text, file, LongestText);
        var boards = CapacitorFile.ReadList(Text ?? "", out var problems);
        Problems = problems;
        if (boards.Count == 0 || problems.Count > 0)
            return RefuseAsShown();
        return Answer(
            Recap.UseOwn(Number, boards, Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return ToJob("Capacitors");
            }
        );
    }

    /// <summary>A position with what was measured where the model told nothing.</summary>
    private static RecapPosition Measured(RecapLine line) =>
        line.Position.Capacitor.Farads is null && line.Old?.Farads is { } farads
            ? line.Position with { Capacitor = line.Position.Capacitor with { Farads = farads } }
            : line.Position;
}
