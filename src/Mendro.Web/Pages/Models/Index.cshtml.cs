using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Models;

/// <summary>Lists the profiles.</summary>
public sealed class IndexModel(ProfileStore profiles, TimeProvider time) : PageModel
{
    /// <summary>Latest version of every profile.</summary>
    public IReadOnlyList<DeviceProfile> Profiles { get; private set; } = [];

    /// <summary>Models that are neither builds nor generic.</summary>
    public IEnumerable<DeviceProfile> Own => Profiles.Where(ModelDesk.IsOwn);

    /// <summary>The build a model was made from, else its kind.</summary>
    public string BuildOf(DeviceProfile profile) =>
        Profiles.FirstOrDefault(p => p.Id == profile.Build)?.Name
        ?? profile.Kind.ToString().Replace("DiscConsole", "Disc console", StringComparison.Ordinal);

    /// <summary>Shows the list.</summary>
    public void OnGet() => Profiles = profiles.All();

    /// <summary>Sends all models of the shop's own in one file.</summary>
    public IActionResult OnGetAll() =>
        File(
            ModelBundle.Write(profiles.All().Where(ModelDesk.IsOwn)),
            "application/zip",
            FormattableString.Invariant($"models-{time.GetUtcNow():yyyy-MM-dd}.zip")
        );
}
