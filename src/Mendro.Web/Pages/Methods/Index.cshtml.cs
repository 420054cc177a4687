using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Methods;

/// <summary>The method library: for each kind of part all schools side by side.</summary>
public sealed class IndexModel(MethodDesk methods, TradeLibrary library) : ShopPageModel
{
    /// <summary>Kind of part chosen.</summary>
    [BindProperty(SupportsGet = true, Name = "kind")]
    public string? Kind { get; set; }

    /// <summary>Kinds of part that have methods.</summary>
    public IReadOnlyList<PartKind> Kinds { get; private set; } = [];

    /// <summary>The kind shown.</summary>
    public PartKind Shown { get; private set; } = null!;

    /// <summary>Its methods.</summary>
    public IReadOnlyList<MethodLine> Lines { get; private set; } = [];

    /// <summary>What benches argue about among them.</summary>
    public IEnumerable<Regime> Regimes => library.Regimes.Where(r => Lines.Any(l => r.Concerns(l.Method)));

    /// <summary>Other work: shell, window, improvements.</summary>
    public IEnumerable<Method> Other => library.Methods.Where(m => m.Place is not null);

    /// <summary>Shows a kind.</summary>
    public IActionResult OnGet() => Prepare() ? Page() : NotFound();

    /// <summary>Says which way the shop goes first.</summary>
    public IActionResult OnPostUsual(string? method) =>
        Prepare()
            ? Answer(
                methods.SetUsual(Shown.Kind, method is { Length: > 0 } way ? way : (MethodId?)null, Once),
                _ => RedirectToPage(new { kind = Shown.Kind })
            )
            : NotFound();

    private bool Prepare()
    {
        methods.RefreshWhenChanged();
        Kinds = library.PartKinds.Where(k => library.MethodsFor(k.Kind).Any()).OrderBy(k => k.Name, StringComparer.Ordinal).ToList();
        if ((Kind is { Length: > 0 } ? Kinds.FirstOrDefault(k => k.Kind == Kind) : Kinds[0]) is not { } shown)
            return false;
        Shown = shown;
        Lines = methods.Of(shown.Kind);
        return true;
    }
}
