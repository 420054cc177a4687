using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What any bench knows, asked of the engine. Label of every check here: common practice, no source.</summary>
public class TradeFactTests
{
    [Fact]
    public void Good_before_the_switch_and_missing_after_it_names_the_switch()
    {
        var bench = new Bench("harrow-quartet")
            .Fails("power-light", "nothing")
            .Fails("picture", "nothing")
            .Reads("tp1", "6.24 V")
            .Reads("tp3", "6.21")
            .Reads("tp4", "0,02");
        var diagnosis = bench.Diagnose();
        diagnosis.Suspects[0].Fault.Part.Id.ShouldBe("switch");
        diagnosis.Parts["switch"].Share.ShouldBeGreaterThan(0.7);
        diagnosis.Parts["fuse"].State.ShouldBe(PartState.Proved);
        diagnosis.Stretch!.LastGood!.Id.ShouldBe("tp3");
        diagnosis.Stretch.FirstBad.Id.ShouldBe("tp4");
        diagnosis.Stretch.Parts.Select(p => p.Id).ShouldBe(["switch"]);
    }

    [Theory]
    [InlineData("tp2", "contacts")]
    [InlineData("tp3", "fuse")]
    [InlineData("tp4", "switch")]
    [InlineData("tp5", "psu")]
    [InlineData("tp6", "joint")]
    public void The_first_point_where_the_supply_is_missing_encloses_the_fault(string firstBad, string culprit)
    {
        string[] points = ["tp1", "tp2", "tp3", "tp4", "tp5", "tp6"];
        var bench = new Bench("harrow-quartet").Fails("power-light", "nothing");
        foreach (var point in points[..Array.IndexOf(points, firstBad)])
            bench.Reads(point, point is "tp5" or "tp6" ? "5.02" : "6.2");
        bench.Reads(firstBad, "0.01");
        var diagnosis = bench.Diagnose();
        diagnosis.Suspects[0].Fault.Part.Id.ShouldBe(culprit);
        diagnosis.Stretch!.Parts.Select(p => p.Id).ShouldContain(culprit);
    }

    [Fact]
    public void A_passing_swap_chain_clears_all_its_parts()
    {
        // The picture fails on the bench set; with another cable everything else of the chain passes.
        var failing = new Bench("pellin-atrium").Works("power-light", "start-up").Fails("video", "nothing");
        var before = failing.Diagnose();
        var chain = failing.Model.Closure("video").Where(p => p != "cable").ToList();
        failing.Add(new SwapTried(99, "video", chain, Passed: true));
        var after = failing.Diagnose();
        // Against the part that was swapped out every fault of the chain loses ground, solid ones most of it.
        double Odds(UnitDiagnosis d, int fault) =>
            d.Suspects.Single(s => s.FaultIndex == fault).Posterior / d.Suspects.Single(s => s.Fault.Id == "cable.broken").Posterior;
        foreach (var suspect in before.Suspects.Where(s => chain.Contains(s.Fault.Part.Id)))
        {
            var solid = suspect.Fault.Mode.Effect is ModeEffect.Open or ModeEffect.Dead;
            Odds(after, suspect.FaultIndex).ShouldBeLessThan(Odds(before, suspect.FaultIndex) * (solid ? 0.25 : 0.7), suspect.Fault.Words);
        }

        after.Suspects[0].Fault.Part.Id.ShouldBe("cable");
        after.Parts["screen"].Share.ShouldBeLessThan(0.03);
    }

    [Fact]
    public void A_console_that_blinks_once_a_second_has_bad_contacts_not_a_bad_chip()
    {
        var bench = new Bench("pellin-atrium").Works("power-light").Fails("start-up", "blinks").Fails("video", "blinks");
        bench.ShareOf("connector").ShouldBeGreaterThan(0.6);
        bench.ShareOf("connector").ShouldBeGreaterThan(bench.ShareOf("auth"));
        bench.ShareOf("testcart").ShouldBeGreaterThan(bench.ShareOf("auth"));

        var repairs = bench.Advise().Moves.Where(m => m.Repair is not null).Select(m => m.Repair!).ToList();
        repairs[0].Method.Type.ShouldBe(MethodType.Clean);
        var modification = repairs.FindIndex(r => r.Method.Type == MethodType.Modification);
        foreach (var cleaning in repairs.Where(r => r.Method.Type == MethodType.Clean && r.Part.Id.Value is "connector" or "testcart"))
            (modification < 0 || repairs.IndexOf(cleaning) < modification).ShouldBeTrue(cleaning.Method.Name);
    }

    [Fact]
    public void Light_for_a_second_on_plugging_the_charger_points_to_the_fuse()
    {
        var bench = new Bench("tarn-leaflet").Fails("charging", "one-second");
        bench.Diagnose().Suspects[0].Fault.Id.ShouldBe("fuse1.open");
        bench.ShareOf("fuse1").ShouldBeGreaterThan(0.5);
        // Also when the unit does not run on its pack, which a dead pack would explain too.
        bench.Fails("power-light", "nothing").Diagnose().Suspects[0].Fault.Id.ShouldBe("fuse1.open");
    }

    [Fact]
    public void Charges_but_does_not_start_points_past_the_charger()
    {
        var bench = new Bench("tarn-leaflet").Works("charging").Fails("power-light", "nothing");
        foreach (var part in new[] { "charger", "socket", "fuse1", "charge" })
            bench.ShareOf(part).ShouldBeLessThan(0.02, part);
        bench.Diagnose().Suspects[0].Fault.Part.Id.Value.ShouldBeOneOf("fuse2", "switch");
    }

    [Fact]
    public void A_dead_battery_handheld_starts_with_cells_contacts_and_switch()
    {
        var bench = new Bench("harrow-quartet").AllFail("nothing");
        var leading = bench.Diagnose().Parts.Values.OrderByDescending(p => p.Share).Take(3).Select(p => p.Part.Id);
        leading.ShouldBe(["contacts", "switch", "cells"], ignoreOrder: true);
        // Switch and contacts together: well over half.
        (bench.ShareOf("contacts") + bench.ShareOf("switch")).ShouldBeGreaterThan(0.5);
        bench.Advise().Moves[0].Probe!.Id.Value.ShouldBeOneOf("tp1", "contacts-eye", "switch-press");
    }

    [Fact]
    public void A_dead_cartridge_is_dirty_first_then_a_lifted_leg()
    {
        var bench = new Bench("pellin-atrium-cartridge").Fails("cartridge");
        var parts = bench.Diagnose().Parts.Values.OrderByDescending(p => p.Share).Select(p => p.Part.Id).ToList();
        parts[0].ShouldBe("edge");
        parts[1].ShouldBe("legs1");
        bench.Advise().Moves.First(m => m.Repair is not null).Repair!.Method.Id.ShouldBe("swab-edge");
    }

    [Fact]
    public void Vertical_lines_are_the_display_joint_and_horizontal_ones_the_ribbon()
    {
        Bench Lines(string look) =>
            new Bench("harrow-quartet").Works("power-light", "start-up", "speaker", "phones", "buttons").Fails("picture", look);
        Lines("vertical-lines").Diagnose().Suspects[0].Fault.Id.ShouldBe("seal.lifting");
        Lines("horizontal-lines").Diagnose().Suspects[0].Fault.Id.ShouldBe("ribbon.failed");
    }

    [Fact]
    public void Phones_play_and_the_speaker_does_not_then_it_is_the_speaker_side()
    {
        var bench = new Bench("harrow-quartet")
            .Works("power-light", "start-up", "picture", "phones", "buttons", "wheels")
            .Fails("speaker", "nothing");
        var diagnosis = bench.Diagnose();
        (diagnosis.Parts["speaker"].Share + diagnosis.Parts["phones"].Share).ShouldBeGreaterThan(0.75);
        diagnosis.Parts["main"].State.ShouldBe(PartState.Proved);
    }

    [Fact]
    public void A_reading_that_jumps_under_the_probe_is_a_cracked_joint_right_there()
    {
        var bench = new Bench("harrow-quartet").Fails("power-light").Reads("tp1", "6.2").Reads("joint-press", "jumps");
        bench.Diagnose().Suspects[0].Fault.Id.ShouldBe("joint.cracked");
    }

    [Fact]
    public void A_flat_save_cell_explains_a_lost_save()
    {
        var bench = new Bench("pellin-atrium-cartridge")
            .Works("cartridge", "picture")
            .Fails("saving", "nothing")
            .Reads("cell-volts", "1.9 V");
        bench.Diagnose().Suspects[0].Fault.Id.ShouldBe("cell.flat");
        bench.Advise().Moves[0].Repair!.Method.Id.ShouldBe("replace-save-cell");
    }

    [Fact]
    public void Corrosion_seen_at_intake_moves_suspicion_to_the_contacts()
    {
        var plain = new Bench("harrow-quartet").Fails("power-light", "nothing").ShareOf("contacts");
        var marked = new Bench("harrow-quartet")
            .Add(new MarkSeen(0, "corrosion-contacts"))
            .Fails("power-light", "nothing")
            .ShareOf("contacts");
        marked.ShouldBeGreaterThan(plain + 0.2);
    }

    [Fact]
    public void Every_look_offered_has_a_cause_in_its_profile()
    {
        foreach (var profile in TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes))
        {
            var model = new DeviceModel(profile, TradeLibrary.Shipped);
            foreach (var function in profile.Functions)
            {
                var offered = model.LooksOf(function);
                // Something can fail in every function, and it is told how that looks.
                offered.ShouldNotBeEmpty($"{profile.Id} {function.Id}");
                offered.ShouldAllBe(look => model.CausesOf(function, look.Id).Any());
            }
        }
    }

    [Fact]
    public void A_look_that_nothing_in_the_profile_causes_is_not_offered_but_still_understood()
    {
        // Its buttons hang on no ribbon: they are never dead on one side only.
        var quartet = new Bench("harrow-quartet").Model;
        var buttons = quartet.Profile.FindFunction("buttons")!;
        var offered = quartet.LooksOf(buttons).Select(l => l.Id).ToList();
        offered.ShouldContain("hard-press");
        offered.ShouldNotContain("one-side");
        quartet.HasLook(buttons, "one-side").ShouldBeTrue();
    }

    [Theory]
    [InlineData(SeenGrade.Slight, "wipe-contacts")]
    [InlineData(SeenGrade.Heavy, "acid-contacts")]
    public void A_film_seen_at_the_door_is_wiped_and_a_thick_crust_dissolved(SeenGrade grade, string method)
    {
        var bench = new Bench("harrow-quartet").Marked("corrosion-contacts", grade).Fails("power-light", "nothing");
        var first = bench.Advise().Moves.First(m => m.Repair is not null);
        (first.Repair!.Part.Id.Value, first.Repair.Method.Id.Value).ShouldBe(("contacts", method));
    }

    [Fact]
    public void A_mark_with_a_place_points_there_alone()
    {
        double Share(string? place, string part) =>
            new Bench("harrow-quartet")
                .Marked("rattle", place: place)
                .Fails("speaker", "nothing")
                .Diagnose()
                .Suspects.Where(s => s.Fault.Part.Id == part)
                .Sum(s => s.Share);
        Share("Speaker", "speaker").ShouldBeGreaterThan(Share(null, "speaker"));
        // Words that name no part leave it where it may be.
        Share("somewhere inside", "speaker").ShouldBe(Share(null, "speaker"), 1e-9);
    }

    [Fact]
    public void A_contact_of_a_connector_is_a_place()
    {
        var model = new Bench("harrow-quartet").Model;
        model.PartAt("slot:14")!.Value.Value.ShouldBe("slot");
        model.PartAt("F1")!.Value.Value.ShouldBe("fuse");
        model.PartAt("power switch")!.Value.Value.ShouldBe("switch");
        model.PartAt("under the label").ShouldBeNull();
    }
}
