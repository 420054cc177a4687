using System.Text;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Mendro.Web.Pages.Models;

/// <summary>Known-good readings of a model: what good units show at each probe, and which units they are.</summary>
public sealed class GoodModel(ProfileStore profiles, GoodReadingStore goodReadings, Ledger ledger) : ShopPageModel
{
    private const int LargestFile = 1024 * 1024;

    /// <summary>The profile.</summary>
    public DeviceProfile Profile { get; private set; } = null!;

    /// <summary>Signatures by probe.</summary>
    public IReadOnlyDictionary<ProbeId, Signature> Signatures { get; private set; } = new Dictionary<ProbeId, Signature>();

    /// <summary>First letters of the units asked for, or blank.</summary>
    [BindProperty(SupportsGet = true, Name = "name")]
    public string? Begins { get; set; }

    /// <summary>The good units.</summary>
    public IReadOnlyList<GoodUnit> Units { get; private set; } = [];

    /// <summary>What was wrong with an import.</summary>
    public IReadOnlyList<string> Problems { get; private set; } = [];

    /// <summary>Probes that a meter answers.</summary>
    public IEnumerable<Probe> Metered => Profile.Probes.Where(p => ProbeWalk.IsMetered(p.Kind));

    /// <summary>Shows them.</summary>
    public IActionResult OnGet(string id) => Load(id) ? Page() : NotFound();

    /// <summary>Sends them as CSV.</summary>
    public IActionResult OnGetCsv(string id) =>
        profiles.Latest(id) is not null
            ? File(Encoding.UTF8.GetBytes(GoodReadingFile.Write(goodReadings.Of(id))), "text/csv", $"{id}-good-readings.csv")
            : NotFound();

    /// <summary>Takes in a CSV file; all of it or nothing.</summary>
    public async Task<IActionResult> OnPostAsync(string id, IFormFile? file)
    {
        if (!Load(id))
            return NotFound();
        if (file is null or { Length: 0 or > LargestFile })
            return RefuseFile("Choose a CSV file of up to 1 MB.");
        using var reader = new StreamReader(file.OpenReadStream(), Encoding.UTF8);
        var readings = GoodReadingFile.Read(await reader.ReadToEndAsync(), out var problems);
        var strange = readings
            .Where(r => r.Profile != id)
            .Select(r => $"“{r.Profile}” is another model.")
            .Concat(
                readings
                    .Where(r => r.Profile == id && Metered.All(p => p.Id != r.Probe))
                    .Select(r => $"“{r.Probe}” is no probe of this model that a meter answers.")
            )
            .Distinct();
        Problems = [.. problems, .. strange];
        if (Problems.Count > 0)
            return RefuseFile(null);
        if (readings.Count == 0)
            return RefuseFile("The file has no readings.");
        ledger.Once(Once, () => goodReadings.Add(readings));
        TempData["Said"] = $"{readings.Count} readings of {readings.Select(r => r.GoodUnit).Distinct().Count()} good units taken in.";
        return RedirectToPage("/Models/Good", new { id });
    }

    /// <summary>Puts a unit aside, or lets it count again.</summary>
    public IActionResult OnPostUnit(string id, string? unit, bool back)
    {
        if (!Load(id))
            return NotFound();
        if (back)
            goodReadings.Restore(id, unit ?? "");
        else
            goodReadings.Withdraw(id, unit ?? "");
        return RedirectToPage("/Models/Good", new { id });
    }

    private bool Load(string id)
    {
        if (profiles.Latest(id) is not { } latest)
            return false;
        Profile = latest.Profile;
        (Signatures, Units) = (goodReadings.Signatures(id, Metered), goodReadings.Units(id, Words.Clean(Begins)));
        return true;
    }

    private IActionResult RefuseFile(string? problem)
    {
        if (problem is not null)
            Problems = [problem];
        return RefuseAsShown();
    }
}
