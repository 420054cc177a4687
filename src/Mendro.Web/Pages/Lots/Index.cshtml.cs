using Mendro.Core.Quantities;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Lots;

/// <summary>Lots: several units that came for one price.</summary>
public sealed class IndexModel(LotStore lots, LotDesk desk, ProfileStore profiles, SettingsStore settings, ShopCalendar calendar) : ShopPageModel
{
    private const int PageSize = 30;

    /// <summary>Only lots before this one.</summary>
    [BindProperty(SupportsGet = true)]
    public long? Before { get; set; }

    /// <summary>A new lot, as typed.</summary>
    [BindProperty]
    public LotForm Form { get; set; } = new();

    /// <summary>Lots, the newest first.</summary>
    public IReadOnlyList<LotLine> Lines { get; private set; } = [];

    /// <summary>Where the next page begins, or null.</summary>
    public long? Older { get; private set; }

    /// <summary>The shop's currency.</summary>
    public string Currency => settings.Get().Currency;

    /// <summary>Models to choose from.</summary>
    public IReadOnlyList<(string Id, string Name)> Models => ModelChoice.Of(profiles);

    /// <summary>Shows them.</summary>
    public void OnGet()
    {
        Form.Day = DayText.Write(calendar.Today);
        Load();
    }

    /// <summary>Begins a lot.</summary>
    public IActionResult OnPost()
    {
        Load();
        if (Form.Into(new Lot { Currency = Currency }, out var lot) is { } wrong)
            return Refuse(wrong);
        return Answer(desk.Save(lot, Once), done => Redirect($"/Lots/{done.Words}/Items"));
    }

    private void Load()
    {
        var found = lots.List(Before, PageSize + 1);
        Lines = found.Take(PageSize).ToList();
        Older = found.Count > PageSize ? Lines[^1].Lot.Id : null;
    }
}
