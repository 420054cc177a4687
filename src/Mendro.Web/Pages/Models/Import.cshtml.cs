using System.Text;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Models;

/// <summary>Takes in a profile as JSON: checked against the schema, every problem with its place.</summary>
public sealed class ImportModel(ProfileStore profiles, Ledger ledger, TradeLibrary library) : ShopPageModel
{
    private const int LargestFile = 1024 * 1024;

    /// <summary>Text as pasted or read from the file.</summary>
    public string Text { get; private set; } = "";

    /// <summary>Problems found.</summary>
    public IReadOnlyList<ProfileProblem> Problems { get; private set; } = [];

    /// <summary>In what a model differs from the shop's own of the same id; empty when there is none, or no difference.</summary>
    public IReadOnlyList<ProfileDifference> Differences { get; private set; } = [];

    /// <summary>The shop's own, when its differences are shown.</summary>
    public DeviceProfile? Mine { get; private set; }

    /// <summary>What came of a file of many models.</summary>
    public string? Came { get; private set; }

    /// <summary>Models of such a file that are here already and say something else.</summary>
    public IReadOnlyList<(DeviceProfile Profile, string Text)> Differing { get; private set; } = [];

    /// <summary>Shows the form.</summary>
    public void OnGet() { }

    /// <summary>Takes a profile in, from a file or from the field.</summary>
    public async Task<IActionResult> OnPostAsync(string? text, IFormFile? file, bool chosen, List<string> take)
    {
        Text = text ?? "";
        if (file is { Length: > LargestFile })
            return Refuse([new ProfileProblem("the file", "is larger than 1 MB; a profile has a few thousand characters.")]);
        if (file is { Length: > 0 } && await IsBundleAsync(file))
            return TakeBundle(file);
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
        if (profiles.Latest(profile.Id) is var (mine, _))
        {
            // One's own is there already: nothing of it is given up unseen.
            Differences = ProfileMerge.Between(mine, profile);
            if (Differences.Count > 0 && !chosen)
            {
                Mine = mine;
                return Page();
            }

            profile = ProfileMerge.Take(mine, profile, take.ToHashSet());
            if (ProfileValidator.Check(profile, library) is { Count: > 0 } apart)
            {
                Mine = mine;
                return Refuse(apart);
            }
        }

        var version = profiles.Save(profile);
        TempData["Said"] = $"{profile.FullName} taken in as version {version}.";
        return RedirectToPage("/Models/Show", new { id = profile.Id });
    }

    private static async Task<bool> IsBundleAsync(IFormFile file)
    {
        // Every ZIP archive begins so (APPNOTE 4.3.7).
        var head = new byte[4];
        await using var stream = file.OpenReadStream();
        return await stream.ReadAtLeastAsync(head, 4, throwOnEndOfStream: false) == 4 && head is [0x50, 0x4B, 3, 4];
    }

    /// <summary>Takes many models in: new ones at once, one's own that differ are listed to be looked at; all of it or nothing.</summary>
    private IActionResult TakeBundle(IFormFile file)
    {
        using var stream = file.OpenReadStream();
        var read = ModelBundle.Read(stream);
        if (!read.IsOk)
            return Refuse([new ProfileProblem("the file", read.Problem)]);
        var models = new List<(DeviceProfile Profile, string Text)>();
        var wrong = new List<ProfileProblem>();
        foreach (var (name, text) in read.Value)
        {
            var profile = ProfileSchema.Import(text, library, out var problems);
            wrong.AddRange(problems.Select(p => new ProfileProblem($"{name}, {p.Place}", p.Message)));
            if (profile is not null)
                models.Add((profile, text));
        }

        if (wrong.Count > 0)
            return Refuse(wrong);
        var differ = new List<(DeviceProfile, string)>();
        var (taken, alike) = (0, 0);
        ledger.Once(
            Once,
            () =>
            {
                foreach (var (profile, text) in models)
                    if (profiles.Latest(profile.Id) is not var (mine, _))
                        taken += profiles.Save(profile) > 0 ? 1 : 0;
                    else if (ProfileMerge.Between(mine, profile).Count == 0)
                        alike++;
                    else
                        differ.Add((profile, text));
            }
        );
        (Differing, Came) = (differ, $"{taken} new {(taken == 1 ? "model" : "models")} taken in; {alike} are as yours already.");
        return Page();
    }

    private PageResult Refuse(IReadOnlyList<ProfileProblem> problems)
    {
        Problems = problems;
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }
}
