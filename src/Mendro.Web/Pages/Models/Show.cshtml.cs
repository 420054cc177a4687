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
public sealed class ShowModel(
    ProfileStore profiles,
    ModelShelf models,
    ModelMoveStore moves,
    ModelDesk desk,
    Ledger ledger,
    TradeLibrary library
) : ShopPageModel
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

    /// <summary>True when the shop may change it.</summary>
    public bool IsOwn => ModelDesk.IsOwn(Profile);

    /// <summary>Other models of the shop, which it may turn out to be.</summary>
    public IReadOnlyList<DeviceProfile> Others { get; private set; } = [];

    /// <summary>The model it may turn out to be, when its differences are shown.</summary>
    public DeviceProfile? Into { get; private set; }

    /// <summary>In what that one differs, where both say something.</summary>
    public IReadOnlyList<ProfileDifference> Differences { get; private set; } = [];

    /// <summary>Merges, splits and names that hold, newest first.</summary>
    public IReadOnlyList<ModelMove> Moves { get; private set; } = [];

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

    /// <summary>Shows it; a model that is another one now leads there.</summary>
    /// <param name="id">Model.</param>
    /// <param name="into">Model it may turn out to be: the differences are shown.</param>
    public IActionResult OnGet(string id, string? into)
    {
        if (!Load(id))
            return NotFound();
        if (moves.NowOf(id) is { } now && now != id)
            return RedirectToPage(new { id = now });
        if (into is not null && Others.FirstOrDefault(p => p.Id == into) is { } other)
        {
            Into = other;
            // What only one of them has stays in any case.
            Differences = ProfileMerge.Between(other, Profile).Where(d => d.Mine is not null && d.Theirs is not null).ToList();
        }

        return Page();
    }

    /// <summary>Makes it one with another model.</summary>
    public IActionResult OnPostMerge(string id, string? into, List<string> take) =>
        Changed(id, () => desk.Merge(id, into ?? "", take.ToHashSet(), Once));

    /// <summary>Gives a revision a model of its own.</summary>
    public IActionResult OnPostSplit(string id, string? revision, string? name) =>
        Changed(id, () => desk.Split(id, revision ?? "", Words.Clean(name), Once));

    /// <summary>Takes a merge, a split or a model of its own back.</summary>
    public IActionResult OnPostBack(string id, long move) => Changed(id, () => desk.TakeBack(move, Once));

    private IActionResult Changed(string id, Func<Deed<ModelChanged>> work) =>
        Load(id)
            ? Answer(
                work(),
                done =>
                {
                    TempData["Said"] = done.Words;
                    return RedirectToPage(new { id = done.Id });
                }
            )
            : NotFound();

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
        Moves = moves.Of(id);
        if (IsOwn)
            Others = profiles.All().Where(p => ModelDesk.IsOwn(p) && p.Id != id).ToList();
        Device = models.Get(Profile.Id, Version);
        return true;
    }
}
