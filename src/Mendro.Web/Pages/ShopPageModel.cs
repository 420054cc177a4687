using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages;

/// <summary>What all pages share that change something: the key of the form, and how a refusal is answered.</summary>
public abstract class ShopPageModel : PageModel
{
    /// <summary>Key of the form that was sent, or null: sent twice, it is done once.</summary>
    protected string? Once => Request.HasFormContentType ? Request.Form[OnceTagHelper.Field].FirstOrDefault() : null;

    private IReadOnlyDictionary<string, string> _sent = new Dictionary<string, string>();

    /// <summary>What stands in a field: what was sent and not taken, else what is known.</summary>
    public string InField(string field, string otherwise) => _sent.GetValueOrDefault(field, otherwise);

    /// <summary>Keeps what was sent for its fields.</summary>
    protected void Remember(params (string Field, string? Value)[] sent) => _sent = sent.ToDictionary(t => t.Field, t => t.Value ?? "");

    /// <summary>Answers what came of an action.</summary>
    /// <param name="deed">What came of it.</param>
    /// <param name="done">Answer when it was done.</param>
    protected IActionResult Answer<T>(Deed<T> deed, Func<T, IActionResult> done)
        where T : class => deed.Match(done, refusal => refusal.Kind == RefusalKind.Missing ? NotFound() : Refuse(refusal.Problem));

    /// <summary>Shows the page again with the reason why what was sent is not taken.</summary>
    protected IActionResult Refuse(string problem)
    {
        ModelState.AddModelError("", problem);
        return RefuseAsShown();
    }

    /// <summary>Shows the page again; it says itself why.</summary>
    protected IActionResult RefuseAsShown()
    {
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    /// <summary>Text that was pasted, or that of a file when one was chosen.</summary>
    /// <param name="pasted">What was pasted.</param>
    /// <param name="file">File, or null; one that is too long counts as none.</param>
    /// <param name="longest">Longest file, bytes.</param>
    protected static async Task<string?> TextOf(string? pasted, IFormFile? file, int longest)
    {
        if (file is not { Length: > 0 } || file.Length > longest)
            return pasted;
        using var reader = new StreamReader(file.OpenReadStream());
        return await reader.ReadToEndAsync();
    }
}
