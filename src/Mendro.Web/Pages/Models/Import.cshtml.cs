using System.Text;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Models;

/// <summary>Takes in a profile as JSON: checked against the schema, every problem with its place.</summary>
public sealed class ImportModel(ProfileStore profiles, TradeLibrary library) : PageModel
{
    private const int LargestFile = 1024 * 1024;

    /// <summary>Text as pasted or read from the file.</summary>
    public string Text { get; private set; } = "";

    /// <summary>Problems found.</summary>
    public IReadOnlyList<ProfileProblem> Problems { get; private set; } = [];

    /// <summary>Shows the form.</summary>
    public void OnGet() { }

    /// <summary>Takes a profile in, from a file or from the field.</summary>
    public async Task<IActionResult> OnPostAsync(string? text, IFormFile? file)
    {
        Text = text ?? "";
        if (file is { Length: > LargestFile })
            return Refuse([new ProfileProblem("the file", "is larger than 1 MB; a profile has a few thousand characters.")]);
        if (file is { Length: > 0 })
        {
            using var reader = new StreamReader(file.OpenReadStream(), Encoding.UTF8);
            Text = await reader.ReadToEndAsync();
        }

        if (Words.Clean(Text).Length == 0)
            return Refuse([new ProfileProblem("the file", "choose a file or paste its text.")]);
        var profile = ProfileSchema.Import(Text, library, out var problems);
        if (profile is null || problems.Count > 0)
            return Refuse(problems);
        var version = profiles.Save(profile);
        TempData["Said"] = $"{profile.FullName} taken in as version {version}.";
        return RedirectToPage("/Models/Show", new { id = profile.Id });
    }

    private PageResult Refuse(IReadOnlyList<ProfileProblem> problems)
    {
        Problems = problems;
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
