using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;
using Mendro.Web.Drawing;
using Mendro.Web.Profiles;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Models;

/// <summary>The profile editor: the map is drawn and the problems are listed while it is typed.</summary>
public sealed class EditModel(ProfileStore profiles, TradeLibrary library) : PageModel
{
    /// <summary>What stands in the editor.</summary>
    [BindProperty]
    public ProfileForm Form { get; set; } = new();

    /// <summary>Problems found.</summary>
    public IReadOnlyList<ProfileProblem> Problems { get; private set; } = [];

    /// <summary>The map as markup; blank when there is nothing to draw.</summary>
    public string Map { get; private set; } = "";

    /// <summary>True when saving was refused because of the problems.</summary>
    public bool Refused { get; private set; }

    /// <summary>The trade library, for the pick lists.</summary>
    public TradeLibrary Library { get; } = library;

    /// <summary>Opens a model to change it, or another to begin a new one from.</summary>
    public IActionResult OnGet(string? id, string? from)
    {
        if (profiles.Latest(id ?? from ?? "generic-handheld") is not { } latest)
            return NotFound();
        Form = ProfileForm.From(latest.Profile, latest.Version, existing: id is not null);
        Look();
        return Page();
    }

    /// <summary>Draws and checks what stands in the form.</summary>
    public IActionResult OnPostPreview()
    {
        Look();
        return Partial("_Preview", this);
    }

    /// <summary>Adds blank rows.</summary>
    public IActionResult OnPostRows()
    {
        Look();
        Form.AddSpareRows();
        ModelState.Clear();
        return Page();
    }

    /// <summary>Keeps it as a new version.</summary>
    public IActionResult OnPostSave()
    {
        var profile = Look();
        if (!Form.Existing && profiles.Latest(profile.Id) is not null)
            Problems =
            [
                .. Problems,
                new ProfileProblem("id", $"there is a model “{profile.Id}” already. Change that one, or choose another id."),
            ];
        if (Problems.Count > 0)
        {
            Refused = true;
            Form.AddSpareRows();
            ModelState.Clear();
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }

        var version = profiles.Save(profile);
        TempData["Said"] = $"Kept as version {version}. Units taken in from now on use it; those in the shop stay on theirs.";
        return RedirectToPage("/Models/Show", new { id = profile.Id });
    }

    private DeviceProfile Look()
    {
        var origin =
            Words.Clean(Form.Base).Split('@') is [var id, var version]
            && long.TryParse(version, System.Globalization.CultureInfo.InvariantCulture, out var number)
                ? profiles.Find(id, number)
                : null;
        var reader = new ProfileFormReader(Library);
        var profile = reader.Read(Form, origin);
        Problems = reader.Problems;
        if (profile.Parts.Count > 0)
            Map = PathMapSvg.Draw(
                new MapScene(
                    new DeviceModel(profile, Library),
                    null,
                    new Dictionary<string, string>(),
                    new Dictionary<string, string>(),
                    null,
                    null,
                    null,
                    null
                )
            );
        return profile;
    }
}
