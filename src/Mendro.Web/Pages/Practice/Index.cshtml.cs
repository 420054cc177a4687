using System.Globalization;
using System.Security.Cryptography;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Practice;

/// <summary>Practice: units with hidden faults, for learning without harm.</summary>
public sealed class IndexModel(JobStore jobs, ProfileStore profiles, PracticeDesk practice) : ShopPageModel
{
    private const int LargestSeed = 1_000_000;

    /// <summary>Practice units so far, newest first.</summary>
    public IReadOnlyList<Job> Units { get; private set; } = [];

    /// <summary>Models to practise on.</summary>
    public IReadOnlyList<DeviceProfile> Models { get; private set; } = [];

    /// <summary>Model chosen.</summary>
    public string? Chosen { get; private set; }

    /// <summary>Where a unit stands.</summary>
    public static string StateOf(Job job) =>
        job.ClosedAt is not null ? "finished"
        : job.Shelf == Shelf.Ready ? "everything works: see the score"
        : "on the bench";

    /// <summary>Shows them.</summary>
    public void OnGet() => Load();

    /// <summary>Starts a unit; without a number a new one is drawn.</summary>
    public IActionResult OnPost(string? model, string? seed)
    {
        Chosen = model;
        long number = RandomNumberGenerator.GetInt32(1, LargestSeed);
        if (
            Words.Clean(seed).Length > 0
            && (!long.TryParse(Words.Clean(seed), NumberStyles.None, CultureInfo.InvariantCulture, out number) || number > LargestSeed)
        )
            ModelState.AddModelError("", $"The unit number is a whole number up to {LargestSeed}; leave it blank for a new unit.");
        if (profiles.Latest(model ?? "") is null)
            ModelState.AddModelError("", "Choose a model.");
        if (!ModelState.IsValid)
        {
            Load();
            return RefuseAsShown();
        }

        return Answer(practice.Start(model!, number, Once), unit => RedirectToPage("/Jobs/Find", new { number = unit.Number }));
    }

    private void Load() => (Units, Models) = (jobs.Practice(), profiles.All());
}
