using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Owners;

/// <summary>Owners: found by name or contact, and who has not been here for long.</summary>
public sealed class IndexModel(PeopleDesk desk) : ShopPageModel
{
    /// <summary>Words of name or contact, as typed.</summary>
    [BindProperty(SupportsGet = true, Name = "words")]
    public string? Asked { get; set; }

    /// <summary>True for those only who have not been here for the years that are set.</summary>
    [BindProperty(SupportsGet = true)]
    public bool Gone { get; set; }

    /// <summary>How many are left out at the beginning.</summary>
    [BindProperty(SupportsGet = true)]
    public int Skip { get; set; }

    /// <summary>How many are shown at once.</summary>
    public int Shown => 100;

    /// <summary>The same, cleaned.</summary>
    public string Words => Mendro.Web.Words.Clean(Asked);

    /// <summary>Years after which somebody is listed.</summary>
    public int Years => desk.Years;

    /// <summary>People.</summary>
    public IReadOnlyList<PersonLine> People => _people ??= desk.List(Words, Gone, Math.Clamp(Skip, 0, int.MaxValue / 2), Shown);

    private IReadOnlyList<PersonLine>? _people;

    /// <summary>Address of another part of the list.</summary>
    public string At(int skip) => $"?words={Uri.EscapeDataString(Words)}&gone={Gone}&skip={skip}";

    /// <summary>Shows it.</summary>
    public void OnGet() { }

    /// <summary>Keeps the years.</summary>
    public IActionResult OnPostYears([FromForm] int years)
    {
        Remember(("years", $"{years}"));
        return Answer(
            desk.SetYears(years, Once),
            done =>
            {
                TempData["Said"] = done.Words;
                return RedirectToPage(new { gone = true });
            }
        );
    }
}
