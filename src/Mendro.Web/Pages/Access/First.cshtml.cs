using Mendro.Core.Access;
using Mendro.Shop;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Access;

/// <summary>The first owner of a shop on the network, let in by the code in the terminal.</summary>
public sealed class FirstModel(ShopDoor door, FirstOwner first, AccountDesk accounts, SignInDesk desk, GuessGuard guard, TimeProvider time)
    : DoorPageModel(door, time)
{
    private const string Guessing = "first owner";

    /// <summary>Shows the form while it is wanted.</summary>
    public IActionResult OnGet() => Door.WaitsForOwner ? Page() : NotFound();

    /// <summary>Makes the first account.</summary>
    public async Task<IActionResult> OnPostAsync(string? code, string? name, string? password)
    {
        if (!Door.WaitsForOwner)
            return NotFound();
        Remember(("code", code), ("name", name));
        var from = ShopDoor.Visitor(HttpContext);
        if (guard.Shut(Guessing, from.Address) > TimeSpan.Zero)
            return Refuse("Too many wrong codes. Wait a quarter of an hour, or start Mendro again.");
        if (!first.Fits(code))
            return await Enter(
                new SignInAnswer(null, null, "That is not the code in the terminal.", guard.Wrong(Guessing, from.Address)),
                null
            );
        var made = accounts.MakeFirst(name, password);
        if (made.Done is not { } owner)
            return Refuse(made.Refusal!.Problem);
        first.Done();
        return await Enter(desk.Begin(owner, from), null);
    }
}
