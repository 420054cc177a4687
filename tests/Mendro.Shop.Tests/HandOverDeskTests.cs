using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>What a unit leaves behind when it goes.</summary>
public class HandOverDeskTests
{
    [Fact]
    public void A_proved_job_leaves_its_newest_good_metered_readings()
    {
        var job = new Job
        {
            Number = 131,
            ProfileId = "harrow-quartet",
            Revision = "B",
        };
        BenchRecord Probe(string id, ProbeOutcome outcome, ReadingUnit unit, double? value, string? word = null) =>
            new() { Body = new ProbeReading(id, outcome, new Reading(unit, value, word), "") };
        HandOverDesk
            .Leaves(
                job,
                [
                    Probe("tp4", ProbeOutcome.Abnormal, ReadingUnit.Volts, 0.02),
                    Probe("tp4", ProbeOutcome.Normal, ReadingUnit.Volts, 6.2),
                    Probe("tp5", ProbeOutcome.Abnormal, ReadingUnit.Volts, 4.1),
                    Probe("contacts-eye", ProbeOutcome.Normal, ReadingUnit.Word, null, "ok, clean"),
                    Probe("fuse-beep", ProbeOutcome.Normal, ReadingUnit.Beep, 1),
                    Probe("rail-ohms", ProbeOutcome.Normal, ReadingUnit.OverRange, null),
                    Probe("speaker-ohms", ProbeOutcome.Normal, ReadingUnit.Ohms, 8.2),
                ]
            )
            .ShouldBe([
                new GoodReading("harrow-quartet", "B", "tp4", "V", 6.2, "job 131"),
                new GoodReading("harrow-quartet", "B", "rail-ohms", "ohm", null, "job 131"),
                new GoodReading("harrow-quartet", "B", "speaker-ohms", "ohm", 8.2, "job 131"),
            ]);
    }
}
