using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>A place of the tray.</summary>
/// <param name="Name">Name of the place.</param>
/// <param name="Screws">What goes there.</param>
/// <param name="From">Steps that it comes from.</param>
public sealed record TrayPlace(string Name, IReadOnlyList<Fastener> Screws, IReadOnlyList<string> From);

/// <summary>A sheet to lay screws on: one field a place of the tray, all of the model's or those that are out.</summary>
public sealed class TraysModel(JobStore jobs, BenchDesk desk, TradeLibrary library) : JobPageModel(jobs, desk, library)
{
    /// <summary>Places.</summary>
    public IReadOnlyList<TrayPlace> Places { get; private set; } = [];

    /// <summary>Cables that are unplugged or will be.</summary>
    public IReadOnlyList<string> Cables { get; private set; } = [];

    /// <summary>True when only what is out now is shown.</summary>
    public bool OnlyOut { get; private set; }

    /// <summary>Shows it.</summary>
    public IActionResult OnGet(bool all)
    {
        if (!Load())
            return NotFound();
        var apart = UnitApart.Of(View.Profile, View.Records.Select(r => r.Body));
        OnlyOut = !all && apart.Done.Count > 0;
        var steps = OnlyOut ? apart.Done : View.Profile.Steps ?? [];
        var by = (View.Profile.Fasteners ?? []).Where(f => !f.NoScrew).ToDictionary(f => f.Id);
        Places = steps
            .SelectMany(s => (s.Fasteners ?? []).Where(by.ContainsKey).Select(f => (Step: s.Name ?? s.Id, Screw: by[f])))
            .GroupBy(x => x.Screw.Group ?? x.Screw.Face ?? "back")
            .Select(g => new TrayPlace(g.Key, g.Select(x => x.Screw).Distinct().ToList(), g.Select(x => x.Step).Distinct().ToList()))
            .ToList();
        Cables = steps.SelectMany(s => s.Cables ?? []).ToList();
        return Page();
    }
}
