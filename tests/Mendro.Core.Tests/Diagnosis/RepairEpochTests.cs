using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Repairs split faults; findings keep the meaning they had when they were made.</summary>
public class RepairEpochTests
{
    /// <summary>One part with one fault of prior 0.3, cured by one method with success 0.8; the function has a leak of its own.</summary>
    private static Bench Small()
    {
        var kind = new PartKind("box", "Box", [new FailureMode("dead", "dead", ModeEffect.Dead, 0.3, 0.9, null, null, "made up")]);
        var function = new FunctionKind("work", "Work", "works", [new Look("nothing", "nothing")]);
        var method = new Method(
            "mend",
            "Mend",
            MethodType.Repair,
            null,
            null,
            5,
            0,
            AccessState.Closed,
            0,
            0,
            [],
            [],
            [],
            [],
            [new Cure("box", "dead", 0.8)],
            "made up"
        );
        var library = new TradeLibrary([kind], [function], [method], [], [], []);
        var profile = new DeviceProfile(
            DeviceProfile.FormatName,
            "small",
            "Small",
            "",
            DeviceKind.Accessory,
            [],
            null,
            [new Part("a", "A", "box")],
            [],
            [new DeviceFunction("work", "Work", "work", ["a"])],
            [],
            new Preparation(1, 1, 1)
        );
        return new Bench(new DeviceModel(profile, library));
    }

    [Fact]
    public void Fails_then_mended_then_works_equals_the_split_done_by_hand()
    {
        var bench = Small().Fails("work").Repairs("a", "mend").Works("work");
        var posterior = bench.Diagnose().Suspects.Single().Posterior;
        // Cured piece 0.24, uncured 0.06, independent; before: both cause, after: only the uncured one.
        const double leak = EvidenceWeights.FunctionLeak,
            q = 0.9;
        double Joint(bool cured, bool uncured)
        {
            var p = (cured ? 0.24 : 0.76) * (uncured ? 0.06 : 0.94);
            var absentBefore = (1 - leak) * (cured ? 1 - q : 1) * (uncured ? 1 - q : 1);
            var absentAfter = (1 - leak) * (uncured ? 1 - q : 1);
            return p * (1 - absentBefore) * absentAfter;
        }

        var there = Joint(false, true) + Joint(true, true);
        posterior.ShouldBe(there / (there + Joint(false, false) + Joint(true, false)), 1e-12);
        posterior.ShouldBeLessThan(0.03);
    }

    [Fact]
    public void Still_failing_after_a_repair_is_one_finding_with_the_cured_piece_taken_out()
    {
        var bench = Small().Fails("work").Repairs("a", "mend").Fails("work");
        var unit = new UnitCase(bench.Model, bench.Events);
        unit.Network.Findings.Count.ShouldBe(1);
        unit.Network.Findings[0].Links.Count(l => unit.FaultOf(l.Fault) >= 0).ShouldBe(1);
        // Bayes by hand on the uncured piece alone: 0.06 · (1 − 0.99·0.1) / P(fails).
        const double leak = EvidenceWeights.FunctionLeak;
        var with = 0.06 * (1 - (1 - leak) * 0.1);
        bench.Diagnose().Suspects.Single().Posterior.ShouldBe(with / (with + 0.94 * leak), 1e-12);
    }

    [Fact]
    public void A_repair_tried_again_has_a_lower_chance()
    {
        var bench = Small().Fails("work").Repairs("a", "mend").Fails("work");
        new UnitCase(bench.Model, bench.Events)
            .SuccessNow("mend", 0)
            .ShouldBe(0.8 * EvidenceWeights.Again(bench.Model.Library.FindMethod("mend")!), 1e-12);
    }

    [Fact]
    public void Ten_repairs_with_retests_keep_the_number_of_present_findings()
    {
        var bench = new Bench("harrow-quartet").AllFail("nothing");
        string[] methods =
        [
            "fresh-cells",
            "wipe-contacts",
            "acid-contacts",
            "flush-switch",
            "replace-fuse",
            "swap-supply",
            "reflow",
            "replace-switch",
            "replace-contact",
            "flush-switch",
        ];
        string[] parts = ["cells", "contacts", "contacts", "switch", "fuse", "psu", "joint", "switch", "contacts", "switch"];
        for (var i = 0; i < methods.Length; i++)
            bench.Repairs(parts[i], methods[i]).Fails("power-light", "nothing");
        var unit = new UnitCase(bench.Model, bench.Events);
        // Without a light the other functions are no subject, and ten failures in a row are one.
        unit.Network.Findings.Count(f => f.Id.StartsWith("fn:power-light", StringComparison.Ordinal)).ShouldBe(1);
        unit.Network.Findings.Count.ShouldBeLessThanOrEqualTo(bench.Model.Profile.Functions.Count);
        bench.Diagnose().Suspects.Sum(s => s.Share).ShouldBeLessThanOrEqualTo(1 + 1e-9);
    }

    [Fact]
    public void Works_once_and_fails_once_with_no_repair_between_speaks_for_an_intermittent()
    {
        var steady = new Bench("harrow-quartet").Fails("power-light").Diagnose();
        var flaky = new Bench("harrow-quartet").Fails("power-light").Works("power-light").Fails("power-light").Diagnose();
        double Intermittent(UnitDiagnosis d) => d.Suspects.Where(s => s.Fault.Mode.Effect == ModeEffect.Intermittent).Sum(s => s.Share);
        Intermittent(flaky).ShouldBeGreaterThan(2 * Intermittent(steady));
    }

    [Fact]
    public void Readings_go_stale_only_behind_the_repaired_part()
    {
        var bench = new Bench("harrow-quartet")
            .Fails("power-light")
            .Reads("tp3", "6.2")
            .Reads("tp4", "0")
            .Reads("slot-eye", "ok")
            .Repairs("switch", "flush-switch");
        new UnitCase(bench.Model, bench.Events).FreshReadings().Keys.ShouldBe(["tp3", "slot-eye"], ignoreOrder: true);
    }
}
