using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>Corrects what a unit is: another model of the shop, or a new name.</summary>
public sealed class ModelModel(JobStore jobs, BenchDesk desk, ModelChangeDesk changes, DoorWords door, ProfileStore profiles, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    private const int NearestShown = 3;

    /// <summary>Model that it is.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Into { get; set; }

    /// <summary>Name as on the label, when the shop does not know it.</summary>
    [BindProperty(SupportsGet = true)]
    public string? NewName { get; set; }

    /// <summary>Build that the new name is nearest to.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Build { get; set; }

    /// <summary>Functions of the model it was taken for, by those of the other that they are; blank keeps the words only.</summary>
    [BindProperty]
    public Dictionary<string, string?> Same { get; set; } = [];

    /// <summary>Models nearest to what was typed at the door.</summary>
    public IReadOnlyList<DeviceProfile> Nearest { get; private set; } = [];

    /// <summary>All other models by name.</summary>
    public IReadOnlyList<(string Id, string Name)> Others { get; private set; } = [];

    /// <summary>Model chosen, or null while none is.</summary>
    public DeviceProfile? Chosen { get; private set; }

    /// <summary>Builds for a new name, the likeliest first.</summary>
    public IReadOnlyList<DeviceProfile> Builds { get; private set; } = [];

    /// <summary>Functions that go by another name there.</summary>
    public IReadOnlyList<(DeviceFunction From, DeviceFunction? To)> Asked { get; private set; } = [];

    /// <summary>What the claim says of the model chosen.</summary>
    public Understanding? Heard { get; private set; }

    /// <summary>Why it was not changed.</summary>
    public string? Problem { get; private set; }

    /// <summary>Shows what can be meant; with a model chosen, what will be changed.</summary>
    public IActionResult OnGet() => Show() ? Page() : NotFound();

    /// <summary>Changes it.</summary>
    public IActionResult OnPost()
    {
        var same = Same.Where(s => !string.IsNullOrEmpty(s.Value)).ToDictionary(s => new FunctionId(s.Key), s => new FunctionId(s.Value!));
        var deed = changes.Change(Number, new OtherModel(Words.Clean(Into), Words.Clean(NewName), Words.Clean(Build), same), Once);
        if (deed.Done is { } done)
        {
            TempData["Said"] = done.Words;
            return ToJob("Find");
        }

        Problem = deed.Refusal!.Problem;
        return Show() ? RefuseAsShown() : NotFound();
    }

    private bool Show()
    {
        if (!Load())
            return false;
        var known = profiles.All();
        Nearest = [.. ModelSearch.Nearest(View.Job.Claim, known, NearestShown + 1).Where(p => p.Id != View.Job.ProfileId).Take(NearestShown)];
        Others = [.. ModelChoice.Of(profiles).Where(m => m.Id != View.Job.ProfileId && Nearest.All(n => n.Id != m.Id))];
        var name = Words.Clean(NewName);
        Chosen = name.Length > 0 ? Library.Archetypes.FirstOrDefault(a => a.Id == Build) : known.FirstOrDefault(p => p.Id == Into);
        if (name.Length > 0 && Chosen is null)
            Builds = BuildChoice.Nearest(
                Library,
                new BuildQuestion(Words: $"{name} {Core.Planning.NewName.Tells(View.Job.Claim, Library)}", Claim: View.Job.Claim)
            );
        if (Chosen is null)
            return true;
        Asked = changes.Asked(Number, Chosen);
        Heard = door.Hear(View.Job.Claim, Chosen);
        return true;
    }
}
