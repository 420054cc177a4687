using Mendro.Core.Profiles;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Models;

/// <summary>Lists the profiles.</summary>
public sealed class IndexModel(ProfileStore profiles) : PageModel
{
    /// <summary>Latest version of every profile.</summary>
    public IReadOnlyList<DeviceProfile> Profiles { get; private set; } = [];

    /// <summary>Shows the list.</summary>
    public void OnGet() => Profiles = profiles.All();
}
