using Mendro.Core.Planning;
using Mendro.Shop;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages;

/// <summary>The shop's own words for what is said at the door, and a line to try them on.</summary>
public sealed class DoorWordsModel(DoorWords door) : ShopPageModel
{
    /// <summary>The words, one a line, as typed.</summary>
    public string Text { get; private set; } = "";

    /// <summary>Why they were not kept.</summary>
    public string? Problem { get; private set; }

    /// <summary>A line to try.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Line { get; set; }

    /// <summary>What that line says now; null when none was typed.</summary>
    public Understanding? Heard { get; private set; }

    /// <summary>Shows them.</summary>
    public void OnGet()
    {
        Text = door.Own.Text;
        if (Words.Clean(Line).Length > 0)
            Heard = door.Hear(Words.Clean(Line));
    }

    /// <summary>Keeps them.</summary>
    public IActionResult OnPost(string? text)
    {
        Text = text ?? "";
        return door.Keep(text, Once)
            .Match(
                done =>
                {
                    TempData["Said"] = done.Words;
                    return RedirectToPage();
                },
                refusal =>
                {
                    Problem = refusal.Problem;
                    return RefuseAsShown();
                }
            );
    }
}
