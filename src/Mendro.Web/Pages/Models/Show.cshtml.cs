using System.Text;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Mendro.Web.Drawing;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Models;

/// <summary>One profile: its map, checks and starting weights.</summary>
public sealed class ShowModel(ProfileStore profiles, ModelShelf models, Ledger ledger, TradeLibrary library) : ShopPageModel
{
    /// <summary>The profile.</summary>
    public DeviceProfile Profile { get; private set; } = null!;

    /// <summary>Its version.</summary>
    public long Version { get; private set; }

    /// <summary>All versions, newest first.</summary>
    public IReadOnlyList<ProfileVersion> Versions { get; private set; } = [];

    /// <summary>The compiled model.</summary>
    public DeviceModel Device { get; private set; } = null!;

    /// <summary>The trade library.</summary>
    public TradeLibrary Library { get; } = library;

    /// <summary>The map as markup.</summary>
    public string Map =>
        PathMapSvg.Draw(
            new MapScene(Device, null, new Dictionary<string, string>(), new Dictionary<string, string>(), null, null, null, null)
        );

    /// <summary>Ways a part fails, with the chance of each.</summary>
    public string WaysOf(Part part) =>
        string.Join(
            ", ",
            Device
                .FaultsOf(part.Id)
                .Select(i => Device.Faults[i])
                .Select(f => FormattableString.Invariant($"{f.Mode.Name} {f.Prior * 100:0.#} %"))
        );

    /// <summary>Shows it.</summary>
    public IActionResult OnGet(string id) => Load(id) ? Page() : NotFound();

    /// <summary>Sends it as <c>mendro.profile/1</c>.</summary>
    public IActionResult OnGetJson(string id) =>
        Load(id) ? File(Encoding.UTF8.GetBytes(ProfileJson.Write(Profile)), "application/json", $"{Profile.Id}.json") : NotFound();

    /// <summary>Makes an older version the newest again.</summary>
    public IActionResult OnPostRevert(string id, long version)
    {
        if (profiles.Find(id, version) is not { } old)
            return NotFound();
        long now = 0;
        ledger.Once(Once, () => now = profiles.Save(old));
        TempData["Said"] = $"Version {version} is in use again{(now > 0 ? $", as version {now}" : "")}.";
        return RedirectToPage(new { id });
    }

    private bool Load(string id)
    {
        if (profiles.Latest(id) is not { } latest)
            return false;
        (Profile, Version) = latest;
        Versions = profiles.Versions(id);
        Device = models.Get(Profile.Id, Version);
        return true;
    }
}
