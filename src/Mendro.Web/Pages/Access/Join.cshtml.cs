using Mendro.Shop;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Access;

/// <summary>A phone joins by the code it read: a session that may only look at one job and add to it.</summary>
public sealed class JoinModel(ShopDoor door, SignInDesk desk, TimeProvider time) : DoorPageModel(door, time)
{
    /// <summary>Code as it was read.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Code { get; set; }

    /// <summary>True while the code holds.</summary>
    public bool Holds => desk.CanJoin(Code);

    /// <summary>Asks before the code is used: a preview of the address must not use it up.</summary>
    public void OnGet() { }

    /// <summary>Joins.</summary>
    public Task<IActionResult> OnPostAsync()
    {
        var answer = desk.Join(Code, ShopDoor.Visitor(HttpContext));
        return Enter(answer, answer.Session is { JobNumber: { } job } ? FormattableString.Invariant($"/Jobs/{job}/Pictures") : null);
    }
}
