using Mendro.Shop;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Access;

/// <summary>A password set with a one-time code: of a new account, or in place of one that was forgotten.</summary>
public sealed class CodeModel(ShopDoor door, SignInDesk desk, AccountDesk accounts, TimeProvider time) : DoorPageModel(door, time)
{
    /// <summary>Shows the form.</summary>
    public IActionResult OnGet() => accounts.Any ? Page() : Redirect("/");

    /// <summary>Sets the password and signs in.</summary>
    public Task<IActionResult> OnPostAsync(string? code, string? password)
    {
        Remember(("code", code));
        return Enter(desk.SetWithCode(code, password, ShopDoor.Visitor(HttpContext)), null);
    }
}
