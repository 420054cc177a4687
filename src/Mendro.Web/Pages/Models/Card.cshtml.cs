using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Models;

/// <summary>A model on one printed page, to hang over the bench.</summary>
public sealed class CardModel(ProfileStore profiles, TradeLibrary library) : PageModel
{
    /// <summary>The profile.</summary>
    public DeviceProfile Profile { get; private set; } = null!;

    /// <summary>Its version.</summary>
    public long Version { get; private set; }

    /// <summary>The trade library.</summary>
    public TradeLibrary Library { get; } = library;

    /// <summary>Checks in the order of the supply and the board, with the limits they are judged by.</summary>
    public IEnumerable<Expected> Checks => Profile.Probes.OrderBy(p => p.State).Select(p => ExpectationRules.For(Profile, p));

    /// <summary>Shows it.</summary>
    public IActionResult OnGet(string id)
    {
        if (profiles.Latest(id) is not { } latest)
            return NotFound();
        (Profile, Version) = latest;
        return Page();
    }
}
