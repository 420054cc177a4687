using Mendro.Core.Diagnosis;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Models;

/// <summary>How good a model is to diagnose with, what good units say of its limits, and what one more check would save.</summary>
public sealed class CheckModel(ProfileStore profiles, ModelShelf models, GoodReadingStore goodReadings, ModelDesk desk, ProbeGainDesk gains)
    : ShopPageModel
{
    /// <summary>The profile.</summary>
    public DeviceProfile Profile { get; private set; } = null!;

    /// <summary>Its version.</summary>
    public long Version { get; private set; }

    /// <summary>The compiled model.</summary>
    public DeviceModel Device { get; private set; } = null!;

    /// <summary>What was found.</summary>
    public ModelReport Report { get; private set; } = null!;

    /// <summary>Limits that good units fill, narrow or break.</summary>
    public IReadOnlyList<LimitOffer> Limits { get; private set; } = [];

    /// <summary>How far the measurement on practice units is; null when none was asked for.</summary>
    public GainProgress? Gain => gains.Of(Profile.Id, Version);

    /// <summary>True when the shop may change it.</summary>
    public bool IsOwn => ModelDesk.IsOwn(Profile);

    /// <summary>Shows it.</summary>
    public IActionResult OnGet(string id) => Load(id) ? Page() : NotFound();

    /// <summary>How far the measurement is.</summary>
    public IActionResult OnGetGain(string id) => Load(id, full: false) ? Partial("_Gain", this) : NotFound();

    /// <summary>Begins or stops the measurement.</summary>
    public IActionResult OnPostGain(string id, bool stop)
    {
        if (!Load(id))
            return NotFound();
        if (stop)
            gains.Stop(id, Version);
        else
            _ = gains.Start(id, Version);
        return Request.Headers.ContainsKey("HX-Request") ? Partial("_Gain", this) : RedirectToPage(new { id });
    }

    /// <summary>Teaches the model one line.</summary>
    public IActionResult OnPostTeach(string id, string? line) =>
        Load(id)
            ? Answer(
                desk.Teach(id, Words.Clean(line), Once),
                done =>
                {
                    TempData["Said"] = done.Words;
                    return RedirectToPage(new { id });
                }
            )
            : NotFound();

    private bool Load(string id, bool full = true)
    {
        if (profiles.Latest(id) is not { } latest)
            return false;
        (Profile, Version) = latest;
        if (!full)
            return true;
        Device = models.Get(Profile.Id, Version);
        Report = ModelCheck.Of(Device);
        Limits = LimitOffers.For(Profile, goodReadings.Of(id));
        return true;
    }
}
