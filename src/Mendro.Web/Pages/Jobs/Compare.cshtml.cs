using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;
using Mendro.Web.Bench;
using Microsoft.AspNetCore.Mvc;

namespace Mendro.Web.Pages.Jobs;

/// <summary>One point of a unit beside the known-good ones.</summary>
/// <param name="Probe">Probe.</param>
/// <param name="Record">Newest reading here, or null.</param>
/// <param name="Known">What good units show, or null.</param>
/// <param name="Match">Comparison, when both are there.</param>
public sealed record ComparedPoint(Probe Probe, BenchRecord? Record, Signature? Known, SignatureMatch? Match);

/// <summary>Compares a unit with known-good ones, point by point.</summary>
public sealed class CompareModel(JobStore jobs, BenchRecordStore records, BenchDesk desk, GoodReadingStore goodReadings, TradeLibrary library, TimeProvider time)
    : JobPageModel(jobs, records, desk, library, time)
{
    /// <summary>The points, those that differ first.</summary>
    public IReadOnlyList<ComparedPoint> Points { get; private set; } = [];

    /// <inheritdoc/>
    protected override bool TakesPractice => true;

    /// <summary>Shows them.</summary>
    public IActionResult OnGet()
    {
        if (!Load()) return NotFound();
        var known = goodReadings.Signatures(View.Job.ProfileId, View.Job.Revision);
        var held = View.Records.Where(r => r.Kind == RecordKind.Probe).GroupBy(r => r.Subject).ToDictionary(g => g.Key, g => g.Last());
        Points = View.Profile.Probes.Where(p => ProbeWalk.IsMetered(p.Kind)).Select(probe =>
            {
                var (record, seen) = (held.GetValueOrDefault(probe.Id), known.GetValueOrDefault(probe.Id));
                var metered = record is not null && ReadingParser.Parse(record.Reading, ReadingUnit.Volts).Value is { Unit: not (ReadingUnit.Word or ReadingUnit.Beep) };
                return new ComparedPoint(probe, record, seen, metered ? seen?.Compare(record!.Value, probe.Kind) : null);
            })
            .OrderBy(p => p.Match is null ? 2 : p.Match.Alike ? 1 : 0).ToList();
        return Page();
    }
}
