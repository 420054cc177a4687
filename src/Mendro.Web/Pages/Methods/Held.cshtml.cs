using Mendro.Shop;

namespace Mendro.Web.Pages.Methods;

/// <summary>How the shop's repairs held: share of units that came back, by method.</summary>
public sealed class HeldModel(MethodDesk methods) : ShopPageModel
{
    /// <summary>Methods that a unit left cured by.</summary>
    public IReadOnlyList<MethodHeld> Lines { get; private set; } = [];

    /// <summary>Shows them.</summary>
    public void OnGet()
    {
        methods.RefreshWhenChanged();
        Lines = methods.Held();
    }
}
