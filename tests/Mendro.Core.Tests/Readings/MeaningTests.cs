using CsCheck;
using Mendro.Core.Diagnosis;
using Mendro.Core.Electrical;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Tests.Readings;

/// <summary>What a reading means where the profile is silent, and when to stop. Limits: common practice, no source.</summary>
public partial class MeaningTests
{
    private static readonly DeviceProfile Quartet = Shipped.Profile("harrow-quartet");
    private static readonly DeviceProfile Minnow = Shipped.Profile("quillon-minnow");
    private static readonly DeviceProfile Atrium = Shipped.Profile("pellin-atrium");
    private static readonly DeviceProfile Tripos = Shipped.Profile("quillon-tripos");
    private static readonly DeviceProfile Cartridge = Shipped.Profile("pellin-atrium-cartridge");

    [Theory]
    [InlineData("6.24", "1.56 V a cell, full")]
    [InlineData("5.4", "1.35 V a cell, good")]
    [InlineData("4.6", "1.15 V a cell, weak")]
    [InlineData("3.2", "0.80 V a cell, empty")]
    [InlineData("0.02", "Nothing arrives")]
    public void A_pack_is_told_by_the_cell(string reading, string words) => Judge(Quartet, "tp1", reading).Reason.ShouldContain(words);

    [Theory]
    [InlineData("7.9", null, ProbeOutcome.Normal)]
    [InlineData("6.4", null, ProbeOutcome.Abnormal)]
    [InlineData("5.8", "lithium-precharge", ProbeOutcome.Abnormal)]
    [InlineData("4.9", "lithium-low", ProbeOutcome.Abnormal)]
    [InlineData("3.6 / 3.55", null, ProbeOutcome.Normal)]
    [InlineData("8.7", "lithium-over", ProbeOutcome.Abnormal)]
    [InlineData("3.9 / 3.85", null, ProbeOutcome.Normal)]
    [InlineData("4,1 / 3,8", "lithium-unbalanced", ProbeOutcome.Abnormal)]
    [InlineData("3.6 + 3.5 V", null, ProbeOutcome.Normal)]
    [InlineData("4.3/4.3", "lithium-over", ProbeOutcome.Abnormal)]
    [InlineData("0.1", "lithium-protection", ProbeOutcome.Abnormal)]
    public void Lithium_that_is_low_overcharged_or_unbalanced_stops_the_work(string reading, string? stop, ProbeOutcome outcome)
    {
        var judged = Judge(Minnow, "tp2", reading);
        judged.Stop.ShouldBe(stop);
        judged.Outcome.ShouldBe(outcome);
        if (stop is not null)
            TradeLibrary.Shipped.FindCaution(stop)!.Stop.ShouldBeTrue();
    }

    [Fact]
    public void A_low_reading_behind_the_switch_says_nothing_against_the_pack()
    {
        Judge(Minnow, "tp3", "5.2").Stop.ShouldBeNull();
        Judge(Minnow, "tp3", "5.2").Outcome.ShouldBe(ProbeOutcome.Abnormal);
        Judge(Minnow, "tp3", "0.01").Stop.ShouldBeNull();
    }

    [Theory]
    [InlineData("tp1", "5.12", "+2.4 % of 5 V, within ±5 %", ProbeOutcome.Normal)]
    [InlineData("tp2", "−4.86", "−2.8 % of −5 V, within ±5 %", ProbeOutcome.Normal)]
    [InlineData("tp3", "12.0", "±0 % of 12 V, within", ProbeOutcome.Normal)]
    [InlineData("tp1", "4.6", "does it rise?", ProbeOutcome.Abnormal)]
    public void A_rail_is_told_in_per_cent(string probe, string reading, string words, ProbeOutcome outcome)
    {
        var judged = Judge(Tripos, probe, reading);
        judged.Reason.ShouldContain(words);
        judged.Outcome.ShouldBe(outcome);
    }

    // A voltmeter shows minus when its tips are swapped; filed, it would speak against sound parts.
    [Theory]
    [InlineData("tripos", "tp2", "4.9", "Plus where minus is expected: swap the tips")]
    [InlineData("tripos", "tp1", "-5.1", "Minus where plus is expected: swap the tips")]
    [InlineData("quartet", "tp4", "-6.2", "Minus where plus is expected: swap the tips")]
    [InlineData("atrium", "tp2", "-12", "Minus where plus is expected: swap the tips")]
    [InlineData("quartet", "tp4", "4k7", "wants volts; that was ohms")]
    public void A_reading_with_the_tips_swapped_is_not_taken(string model, string probe, string reading, string words)
    {
        var profile = model switch
        {
            "tripos" => Tripos,
            "atrium" => Atrium,
            _ => Shipped.Profile("harrow-quartet"),
        };
        ReadingJudge.Judge(profile, profile.FindProbe(probe)!, reading).Problem.ShouldNotBeNull().ShouldContain(words);
    }

    [Fact]
    public void A_little_below_zero_is_a_dead_point_not_a_reversed_one() =>
        Judge(Shipped.Profile("harrow-quartet"), "tp4", "-0.02").Words.ShouldBe("missing");

    [Fact]
    public void More_than_a_pack_can_give_is_not_called_full() =>
        Judge(Shipped.Profile("harrow-quartet"), "tp1", "12")
            .Reason.ShouldBe("Fresh, 4 × alkaline is 6.4 V at most: is an adapter or charger connected, or the meter in another range?");

    // Data sheets of 5 V logic give 6 to 7 V as absolute maximum (value from memory).
    [Theory]
    [InlineData("tp1", "5.3", null, "high")]
    [InlineData("tp1", "6.1", "rail-over", "high")]
    [InlineData("tp3", "14.5", "rail-over", "high")]
    [InlineData("tp2", "-6.1", "rail-over", "high")]
    [InlineData("tp2", "-3", null, "low")]
    [InlineData("tp2", "-5.3", null, "high")]
    [InlineData("tp2", "-0.1", null, "missing")]
    public void A_rail_far_over_its_volts_is_a_reason_to_switch_off(string probe, string reading, string? stop, string words)
    {
        Judge(Tripos, probe, reading).Stop.ShouldBe(stop);
        Judge(Tripos, probe, reading).Words.ShouldBe(words);
    }

    [Fact]
    public void A_negative_range_is_written_so_that_it_can_be_read() =>
        MoveWords.GoodAnswer(Tripos.FindProbe("tp2")!).ShouldBe("−5.25 to −4.75 V");

    [Fact]
    public void An_adapter_with_too_little_for_the_regulator_says_so_and_one_far_over_stops()
    {
        Judge(Minnow, "tp1", "8.8").Stop.ShouldBeNull();
        Judge(Minnow, "tp1", "18").Stop.ShouldBe("adapter-wrong");
        Judge(Minnow, "tp1", "-9").Stop.ShouldBe("adapter-wrong");
        Judge(Minnow, "tp1", "-9").Outcome.ShouldBe(ProbeOutcome.Abnormal);
        // 7 V in for 5 V out is the least by data sheet; 6 V is too little.
        Judge(Atrium, "tp2", "6").Reason.ShouldContain("5 V needs 7 V");
        Judge(Atrium, "tp2", "11.3").Reason.ShouldContain("4.3 V of headroom");
        Judge(Atrium, "tp2", "36").Stop.ShouldBe("adapter-wrong");
        // At the plug the meter is in AC: 9.5 V are √2 × 9.5 − 1.4 = 12.0 V behind the rectifier, 5 V above what the regulator needs.
        Judge(Atrium, "tp1", "9.5").Reason.ShouldStartWith("About 12 V behind the rectifier. The regulator has 5 V of headroom");
        Judge(Atrium, "tp1", "14").Stop.ShouldBe("adapter-wrong");
    }

    [Theory]
    [InlineData("beep", "short")]
    [InlineData("3.4", "short")]
    [InlineData("120", null)]
    [InlineData("12k", null)]
    [InlineData("OL", null)]
    public void A_short_on_the_supply_stops_the_work(string reading, string? stop) =>
        Judge(Quartet, "rail-ohms", reading).Stop.ShouldBe(stop);

    // The electrolyte dries out and the value falls; a reading far above comes from leakage (common practice, no source).
    // The profiles' own limits were written by hand: where a rule can be found, it must meet them.
    [Fact]
    public void The_rules_agree_with_the_limits_the_profiles_state()
    {
        var met = 0;
        foreach (var profile in TradeLibrary.Shipped.Profiles)
        foreach (var probe in profile.Probes.Where(p => p.Kind is ProbeKind.Volts or ProbeKind.Continuity || p.Rail is not null))
        {
            var silent = ExpectationRules.For(profile, probe with { Expect = probe.Expect with { Low = null, High = null } });
            if (!silent.ByRule)
                continue;
            met++;
            var (low, high) = (silent.Probe.Expect.Low ?? double.MinValue, silent.Probe.Expect.High ?? double.MaxValue);
            (low <= (probe.Expect.High ?? double.MaxValue) && high >= (probe.Expect.Low ?? double.MinValue)).ShouldBeTrue(
                $"{profile.Id} {probe.Id}: {low}–{high}"
            );
        }

        met.ShouldBeGreaterThan(40);
    }

    [Fact]
    public void Without_limits_in_the_profile_the_rule_judges_and_is_named()
    {
        var bare = Quartet.FindProbe("tp3")! with { Expect = new Expectation(null, null, "V") };
        var expected = ExpectationRules.For(Quartet, bare);
        expected.ByRule.ShouldBeTrue();
        expected.From.ShouldBe("4 × alkaline, weak to fresh");
        (expected.Probe.Expect.Low, expected.Probe.Expect.High).ShouldBe((4.6, 7.2));
        ReadingJudge.Judge(Quartet, bare, "6.2").Value!.Outcome.ShouldBe(ProbeOutcome.Normal);
        ReadingJudge.Judge(Quartet, bare, "4.1").Value!.Words.ShouldBe("low");
        var diode = new Probe(
            "d",
            "Diode",
            "",
            ProbeKind.Diode,
            null,
            null,
            ["main"],
            null,
            new Expectation(null, null, "V"),
            AccessState.Open
        );
        ReadingJudge.Judge(Quartet, diode, "0.43").Value!.Outcome.ShouldBe(ProbeOutcome.Normal);
        ReadingJudge.Judge(Quartet, diode, "0.01").Value!.Stop.ShouldBe("short");
        ReadingJudge.Judge(Quartet, diode, "OL").Value!.Outcome.ShouldBe(ProbeOutcome.Abnormal);
        var draw = new Probe(
            "i",
            "Current",
            "",
            ProbeKind.Current,
            "main",
            null,
            null,
            null,
            new Expectation(null, null, "A"),
            AccessState.Open
        );
        ReadingJudge.Judge(Quartet, draw, "120m").Value!.Outcome.ShouldBe(ProbeOutcome.Normal);
        ReadingJudge.Judge(Quartet, draw, "0.9").Value!.Stop.ShouldBe("short");
        ReadingJudge.Judge(Quartet, draw, "0.0").Value!.Reason.ShouldContain("Nothing is drawn");
    }

    [Theory]
    [InlineData("speaker-ohms", "8.2", "Within what is expected")]
    [InlineData("speaker-ohms", "2", "Below 6 Ω")]
    [InlineData("speaker-ohms", "OL", "does not conduct")]
    [InlineData("pads-ohms", "4k7", "Above 2 kΩ")]
    public void Every_metered_verdict_has_a_reason(string probe, string reading, string words) =>
        Judge(Quartet, probe, reading).Reason.ShouldContain(words);

    [Theory]
    [InlineData("bad, swollen", "lithium-swollen")]
    [InlineData("swollen", "lithium-swollen")]
    [InlineData("bad: bulges at one end", "lithium-swollen")]
    [InlineData("bad, a dent", null)]
    [InlineData("ok, not swollen", null)]
    public void A_swollen_pack_stops_the_work(string seen, string? stop)
    {
        Judge(Minnow, "pack-eye", seen).Stop.ShouldBe(stop);
        Judge(Minnow, "pack-eye", seen)
            .Outcome.ShouldBe(seen.StartsWith("ok", StringComparison.Ordinal) ? ProbeOutcome.Normal : ProbeOutcome.Abnormal);
        Judge(Shipped.Profile("tarn-leaflet"), "pack-eye", seen).Stop.ShouldBe(stop);
        // A capacitor that bulges is bad, but nothing to run from.
        Judge(Atrium, "filter-eye", seen).Stop.ShouldBeNull();
    }

    // Fuzzing the bar: whatever is typed at whatever probe is answered.
    [Fact]
    public void Anything_typed_at_any_probe_is_answered_without_throwing()
    {
        var probes = TradeLibrary.Shipped.Profiles.SelectMany(p => p.Probes.Select(probe => (Profile: p, Probe: probe))).ToList();
        string[] pieces =
        [
            "0",
            "5",
            "12",
            ".",
            ",",
            "-",
            "−",
            "k",
            "M",
            "u",
            "V",
            "Ω",
            "F",
            "A",
            " ",
            "/",
            "+",
            "on ",
            "off:",
            "beep",
            "OL",
            "open",
            "ok",
            "bad",
            "jumps",
            "diode",
            "٥",
            "😀",
            "<b>",
            "'",
        ];
        Gen.Select(Gen.Int[0, probes.Count - 1], Gen.Int[0, pieces.Length - 1].Array[0, 7], Gen.String[0, 12])
            .Sample(
                (which, chosen, noise) =>
                {
                    var (profile, probe) = probes[which];
                    var text = chosen.Length % 2 == 0 ? string.Concat(chosen.Select(c => pieces[c])) : noise;
                    var outcome = ReadingJudge.Judge(profile, probe, text);
                    (outcome.Value is null).ShouldBe(outcome.Problem is not null);
                    if (outcome.Value?.Stop is { } stop)
                        TradeLibrary.Shipped.FindCaution(stop).ShouldNotBeNull();
                },
                iter: 10000
            );
    }

    private static JudgedReading Judge(DeviceProfile profile, string probe, string text)
    {
        var outcome = ReadingJudge.Judge(profile, profile.FindProbe(probe)!, text);
        outcome.Problem.ShouldBeNull();
        return outcome.Value!;
    }
}
