using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Shop;
using Mendro.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>One point of a unit beside the known-good ones.</summary>
/// <param name="Probe">Probe.</param>
/// <param name="Reading">Newest reading here, or null.</param>
/// <param name="Known">What good units show, or null.</param>
/// <param name="Match">Comparison, when both are there.</param>
public sealed record ComparedPoint(Probe Probe, ProbeReading? Reading, Signature? Known, SignatureMatch? Match);

/// <summary>Compares a unit with known-good ones, point by point.</summary>
public sealed class CompareModel(JobStore jobs, BenchDesk desk, GoodReadingStore goodReadings, TradeLibrary library)
    : JobPageModel(jobs, desk, library)
{
    /// <summary>The points, those that differ first.</summary>
    public IReadOnlyList<ComparedPoint> Points { get; private set; } = [];

    /// <inheritdoc/>
    protected override bool TakesPractice => true;

    /// <summary>Shows them.</summary>
    public IActionResult OnGet()
    {
        if (!Load())
            return NotFound();
        var metered = View.Profile.Probes.Where(p => ProbeWalk.IsMetered(p.Kind)).ToList();
        var known = goodReadings.Signatures(View.Job.ProfileId, metered, View.Job.Revision);
        var held = View.LastReadings;
        Points = metered
            .Select(probe =>
            {
                var (reading, seen) = (held.TryGetValue(probe.Id, out var last) ? last.Body : null, known.GetValueOrDefault(probe.Id));
                var match = reading is { IsMetered: true } ? seen?.Compare(reading.Reading!.Value, probe.Kind) : null;
                return new ComparedPoint(probe, reading, seen, match);
            })
            .OrderBy(p =>
                p.Match is null ? 2
                : p.Match.Alike ? 1
                : 0
            )
            .ToList();
        return Page();
    }
}
