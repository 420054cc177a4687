using Mendro.Core.Access;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Access;

/// <summary>Who may sign in, and as what.</summary>
public sealed class AccountsModel(AccountDesk desk, SignInDesk signIn, SecondFactorDesk second, AccessLog log, ShopDoor door, Viewer viewer) : ShopPageModel
{
    /// <summary>Lines of the log that are shown.</summary>
    public const int Lines = 60;

    private IReadOnlyList<ShopAccount>? _all;

    /// <summary>All accounts.</summary>
    public IReadOnlyList<ShopAccount> All => _all ??= desk.All();

    /// <summary>The code that was just made.</summary>
    public GivenCode? Given { get; private set; }

    /// <summary>Newest lines of the log.</summary>
    public IReadOnlyList<AccessLine> Log => log.Newest(Lines);

    /// <summary>Where a code is used.</summary>
    public string CodeAddress => $"{Request.Scheme}://{Request.Host}/Code";

    /// <summary>Open sessions of an account.</summary>
    public IReadOnlyList<SignedIn> Sessions(ShopAccount account) => signIn.SessionsOf(account.Id);

    /// <summary>Shows them.</summary>
    public void OnGet() { }

    /// <summary>The first account of a shop at its own machine; its owner is signed in at once.</summary>
    public async Task<IActionResult> OnPostFirstAsync(string? name, string? password)
    {
        if (!viewer.IsHouse)
            return NotFound();
        Remember(("name", name));
        var made = desk.MakeFirst(name, password);
        if (made.Done is not { } owner)
            return Refuse(made.Refusal!.Problem);
        await door.ComeInAsync(HttpContext, signIn.Begin(owner, ShopDoor.Visitor(HttpContext)));
        TempData["Said"] = "You are the owner. From now on everybody signs in.";
        return Redirect("/Accounts");
    }

    /// <summary>True when owners must have a second factor.</summary>
    public bool Demanded => second.Demanded;

    /// <summary>Says whether they must.</summary>
    public IActionResult OnPostDemand(bool demanded)
    {
        second.Demand(viewer.Name, demanded);
        return Said(new Done("Kept."));
    }

    /// <summary>Takes the second factor of an account away.</summary>
    public IActionResult OnPostSecond(long id) => Answer(second.TakeAway(viewer.Name, id), Said);

    /// <summary>Adds an account.</summary>
    public IActionResult OnPostAdd(string? name, string? role)
    {
        Remember(("name", name));
        return Role(role) is { } told ? Answer(desk.Add(viewer.Name, name, told), Shown) : Refuse("Choose a role.");
    }

    /// <summary>Gives another role.</summary>
    public IActionResult OnPostRole(long id, string? role) =>
        Role(role) is { } told ? Answer(desk.SetRole(viewer.Name, id, told), Said) : Refuse("Choose a role.");

    /// <summary>Gives a code for a new password.</summary>
    public IActionResult OnPostCode(long id) =>
        All.FirstOrDefault(a => a.Id == id) is { } account ? Answer(desk.Recover(viewer.Name, account.Name), Shown) : NotFound();

    /// <summary>Ends all sessions of an account.</summary>
    public IActionResult OnPostEnd(long id) => Answer(signIn.End(viewer.Name, id, null), Said);

    /// <summary>Closes an account, or opens it again.</summary>
    public IActionResult OnPostClose(long id, bool closed) => Answer(desk.SetClosed(viewer.Name, id, closed), Said);

    private static ShopRole? Role(string? told) =>
        RoleRights.Words.Where(w => w.Role.ToString() == told).Select(w => (ShopRole?)w.Role).FirstOrDefault();

    /// <summary>Shown only now: it is kept nowhere, not even for the next page.</summary>
    private IActionResult Shown(GivenCode given)
    {
        (Given, _all) = (given, null);
        return Page();
    }

    private IActionResult Said(Done done)
    {
        TempData["Said"] = done.Words;
        return Redirect("/Accounts");
    }
}
