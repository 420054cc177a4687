using Mendro.Core.Capacitors;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Capacitors;

/// <summary>The drawer: capacitors in stock and in kits, counted.</summary>
public sealed class IndexModel(CapacitorStore store, RecapDesk recap) : ShopPageModel
{
    private const int LongestText = 60_000;
    private const int MostOfOne = 100_000;

    /// <summary>What was pasted, kept when it is refused.</summary>
    [BindProperty]
    public string? Text { get; set; }

    /// <summary>Lines that could not be read.</summary>
    public IReadOnlyList<string> Problems { get; private set; } = [];

    /// <summary>What is there.</summary>
    public IReadOnlyList<CapacitorPart> Parts => store.Parts();

    /// <summary>Shows it.</summary>
    public void OnGet() { }

    /// <summary>Counts a part anew.</summary>
    public IActionResult OnPostCount(long id, int count) =>
        count is >= 0 and <= MostOfOne && ModelState.IsValid
            ? Answer(recap.Count(id, count, Once), _ => RedirectToPage())
            : Refuse($"A count is a whole number from 0 to {MostOfOne}.");

    /// <summary>Puts parts from a file or from pasted lines into the drawer.</summary>
    public async Task<IActionResult> OnPostAddAsync(IFormFile? file, string? source)
    {
        Text = await TextOf(Text, file, LongestText);
        var parts = CapacitorFile.ReadParts(Text ?? "", source == "kit" ? CapacitorSource.Kit : CapacitorSource.Stock, out var problems);
        Problems = problems;
        if (problems.Count > 0 || parts.Count == 0)
            return RefuseAsShown();
        return Answer(
            recap.Add(parts, Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage();
            }
        );
    }
}
