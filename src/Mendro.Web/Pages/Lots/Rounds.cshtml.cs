using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Lots;

/// <summary>Rounds over all that is on the bench.</summary>
public sealed class RoundsModel(RoundDesk rounds) : PageModel
{
    /// <summary>All that is on the bench.</summary>
    public RoundScope Scope { get; private set; } = null!;

    /// <summary>Rounds that were left.</summary>
    public IReadOnlyList<(RoundUnderWay Round, int Ahead)> UnderWay { get; private set; } = [];

    /// <summary>Shows them.</summary>
    public void OnGet()
    {
        Scope = rounds.Whole();
        UnderWay = rounds.UnderWay(Scope);
    }
}
