using Mendro.Shop;
using Mendro.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Access;

/// <summary>What the pages share by which one comes in.</summary>
public abstract class DoorPageModel(ShopDoor door, TimeProvider time) : ShopPageModel
{
    /// <summary>The door.</summary>
    protected ShopDoor Door { get; } = door;

    /// <summary>Where one wanted to go; blank for the bench.</summary>
    [BindProperty(SupportsGet = true, Name = "to")]
    public string? To { get; set; }

    /// <summary>Word with which the code of the second factor is told; null while the password is owed.</summary>
    public string? Owes { get; private set; }

    /// <summary>Lets in, or shows the page again after the wait that a wrong answer costs.</summary>
    protected async Task<IActionResult> Enter(SignInAnswer answer, string? to)
    {
        if (answer.Secret is null)
        {
            Owes = answer.Owes;
            if (answer.Problem is null)
                return Page();
            if (answer.Wait > TimeSpan.Zero)
                await Task.Delay(answer.Wait, time, HttpContext.RequestAborted);
            return Refuse(answer.Problem!);
        }

        await Door.ComeInAsync(HttpContext, answer);
        return LocalRedirect(to is { Length: > 0 } && Url.IsLocalUrl(to) ? to : "/");
    }
}

/// <summary>Signing in with name and password.</summary>
public sealed class SignInModel(ShopDoor door, SignInDesk desk, AccountDesk accounts, TimeProvider time) : DoorPageModel(door, time)
{
    /// <summary>Shows the form; where no accounts are there is nothing to sign in to.</summary>
    public IActionResult OnGet() => accounts.Any ? Page() : Redirect("/");

    /// <summary>Signs in.</summary>
    public Task<IActionResult> OnPostAsync(string? name, string? password)
    {
        Remember(("name", name));
        return Enter(desk.SignIn(name, password, ShopDoor.Visitor(HttpContext)), To);
    }

    /// <summary>Tells the code of the second factor.</summary>
    public Task<IActionResult> OnPostSecondAsync(string? word, string? code) =>
        Enter(desk.SignInSecond(word, code, ShopDoor.Visitor(HttpContext)), To);
}
