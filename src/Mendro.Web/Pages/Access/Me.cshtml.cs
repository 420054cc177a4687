using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;

namespace Mendro.Web.Pages.Access;

/// <summary>One's own sessions and password.</summary>
public sealed class MeModel(ShopDoor door, SignInDesk desk, SecondFactorDesk second, SettingsStore settings, Viewer viewer) : ShopPageModel
{
    /// <summary>Session that asks.</summary>
    public SignedIn Session => viewer.Session!;

    /// <summary>All of one's own.</summary>
    public IReadOnlyList<SignedIn> Sessions => desk.SessionsOf(Session.AccountId);

    /// <summary>Recovery codes that are left.</summary>
    public int RecoveryLeft => second.RecoveryLeft(Session.AccountId);

    /// <summary>Recovery codes, shown only now; null else.</summary>
    public IReadOnlyList<string>? Codes { get; private set; }

    /// <summary>Secret that is being set up, in base 32; null else.</summary>
    public string? Secret { get; private set; }

    /// <summary>The same as the form carries it.</summary>
    public string? Carried { get; private set; }

    /// <summary>What an authenticator reads off the QR code.</summary>
    public string SecretAddress => Core.Access.SecondFactor.Address(Secret!, settings.Get().ShopName, Session.Name);

    /// <summary>True when the shop demands one of this account.</summary>
    public bool MustHave => door.Lacks(Session);

    /// <summary>Begins to set the second factor up.</summary>
    public IActionResult OnPostSecond()
    {
        (Secret, Carried) = second.Begin();
        return Page();
    }

    /// <summary>Sets it up.</summary>
    public IActionResult OnPostSecondSet(string? carried, string? code)
    {
        (Carried, Secret) = (carried, second.Carried(carried));
        return Answer(
            second.SetUp(Session, carried, code),
            made =>
            {
                (Codes, Secret) = (made.Codes, null);
                return Page();
            }
        );
    }

    /// <summary>Takes it away.</summary>
    public IActionResult OnPostSecondOff(string? password) =>
        Answer(
            second.Remove(Session, password),
            done =>
            {
                TempData["Said"] = done.Words;
                return Redirect("/Me");
            }
        );

    /// <summary>A shop without accounts has no such page.</summary>
    public override void OnPageHandlerExecuting(PageHandlerExecutingContext context)
    {
        if (viewer.Session is null)
            context.Result = NotFound();
    }

    /// <summary>Shows it.</summary>
    public void OnGet() { }

    /// <summary>Signs out.</summary>
    public async Task<IActionResult> OnPostOutAsync()
    {
        await door.GoAsync(HttpContext);
        return Redirect("/SignIn");
    }

    /// <summary>Ends one of one's own sessions.</summary>
    public IActionResult OnPostEnd(long session) =>
        Answer(
            desk.End(Session.Name, Session.AccountId, session),
            done =>
            {
                TempData["Said"] = done.Words;
                return Redirect("/Me");
            }
        );

    /// <summary>Changes one's own password.</summary>
    public IActionResult OnPostPassword(string? before, string? password) =>
        Answer(
            desk.ChangePassword(Session, before, password, ShopDoor.Visitor(HttpContext)),
            done =>
            {
                TempData["Said"] = done.Words;
                return Redirect("/Me");
            }
        );

    /// <summary>What kind of browser it is, from its own words.</summary>
    public static string Browser(string told)
    {
        var on = told.Contains("Android", StringComparison.Ordinal) || told.Contains("Mobile", StringComparison.Ordinal) ? "phone" : "desk";
        return told.Length == 0 ? "no browser" : told.Contains("Mozilla", StringComparison.Ordinal) ? $"a browser, {on}" : told.Split(' ', '/')[0];
    }
}
