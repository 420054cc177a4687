using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What comes and goes, and what works beside it. Common practice, no source.</summary>
public class ComesAndGoesTests
{
    [Theory]
    [InlineData("build-memory-card", "seen")]
    [InlineData("build-cartridge-plain", "cartridge")]
    [InlineData("build-console-front-loading", "start-up")]
    [InlineData("harrow-quartet", "power-light")]
    [InlineData("build-pad-wired", "cross")]
    public void Whether_it_worked_or_failed_first_changes_nothing(string profile, string function)
    {
        var model = Shipped.Model(profile);
        var (failed, worked) = (new Bench(model).Fails(function).Works(function), new Bench(model).Works(function).Fails(function));
        var (before, after) = (failed.Diagnose(), worked.Diagnose());
        for (var n = 0; n < failed.Model.Faults.Count; n++)
            before.Posterior.Fault(before.Case.UncuredPiece(n)).ShouldBe(after.Posterior.Fault(after.Case.UncuredPiece(n)), 1e-9, failed.Model.Faults[n].Id);
    }

    [Fact]
    public void Dirt_comes_and_goes_and_what_is_dead_does_not()
    {
        var card = new Bench(Shipped.Model("build-memory-card")).Fails("seen").Works("seen", "saving").Diagnose();
        card.Suspects[0].Fault.Id.ShouldBeOneOf("edge.dirty", "legs.lifted");
        card.Suspects.First(s => s.Fault.Id == "edge.dirty").Share.ShouldBeGreaterThan(0.2);
        card.Suspects.First(s => s.Fault.Id == "memory.dead").Share.ShouldBeLessThan(0.03);
    }

    [Fact]
    public void A_unit_that_starts_now_and_then_is_not_set_aside_at_the_door()
    {
        foreach (var profile in new[] { "build-memory-card", "build-cartridge-save-cell" })
        {
            var function = profile == "build-memory-card" ? "seen" : "cartridge";
            var advice = new Bench(Shipped.Model(profile)).Fails(function).Works(function, "saving").Advise();
            advice.Moves[0].Ends.ShouldBeFalse(profile);
        }
    }

    [Fact]
    public void Good_volts_clear_nothing_that_may_have_worked_just_then()
    {
        double Wires(bool comesBack)
        {
            var clone = new Bench(Shipped.Model("build-handheld-clone-pack")).Fails("power-light");
            if (comesBack)
                clone.Works("power-light");
            clone.Reads("tp3", "7.8 V").Reads("tp4", "5.0 V");
            return clone.Diagnose().Parts["packwires"].Share;
        }

        Wires(comesBack: true).ShouldBeGreaterThan(3 * Wires(comesBack: false));
    }

    [Fact]
    public void Sound_says_little_of_the_picture_s_line_in_a_cable()
    {
        double Cable(bool sound)
        {
            var console = new Bench(Shipped.Model("build-console-internal-supply")).Works("power-light", "start-up");
            if (sound)
                console.Works("sound");
            return console.Fails("video", "nothing").Diagnose().Parts["cable"].Posterior;
        }

        Cable(sound: true).ShouldBeGreaterThan(0.6 * Cable(sound: false));
    }

    [Fact]
    public void What_runs_on_its_pack_says_little_of_what_charges_it()
    {
        double Fuse(bool runs)
        {
            var handheld = new Bench(Shipped.Model("build-handheld-lithium")).Fails("charging", "nothing");
            if (runs)
                handheld.Works("power-light", "start-up");
            return handheld.Diagnose().Parts["fuse1"].Posterior;
        }

        Fuse(runs: true).ShouldBeGreaterThan(0.8 * Fuse(runs: false));
    }

    [Fact]
    public void A_dead_board_does_not_make_a_stick_jump()
    {
        var pad = new Bench(Shipped.Model("build-pad-wireless")).Works("power-light", "link").Fails("left", "jumps").Diagnose();
        pad.Suspects[0].Fault.Part.Id.Value.ShouldBe("left");
        pad.Parts["encoder"].Share.ShouldBeLessThan(0.05);
    }

    [Fact]
    public void What_an_owner_says_he_cleaned_is_still_looked_at()
    {
        var disc = new Bench("tarn-halyard");
        disc.Add(new RepairDone(0, "drive", "clean-lens", Claimed: true));
        disc.Works("power-light", "start-up").Fails("disc", "skips");
        disc.Advise().Moves[0].Minutes.ShouldBeLessThan(3);
    }

    [Fact]
    public void A_source_is_read_with_the_case_closed_before_it_is_changed_or_its_board_replaced()
    {
        // A pad that is not found, with a good light: the cells first, then the radio.
        var pad = new Bench(Shipped.Model("build-pad-wireless")).Works("power-light").Fails("link", "nothing").Works("cross", "left");
        pad.Advise().Moves[0].Id.ShouldBe("probe:tp1");
        // Five volts at the charger: another one tells nothing.
        var charged = new Bench(Shipped.Model("build-handheld-lithium")).Fails("charging", "nothing").Works("power-light").Reads("tp1", "5.2 V");
        charged.Advise().Moves.ShouldAllBe(m => m.SwapOut.ToString() != "charger");
        // It fails when warm: what the adapter gives is read first.
        var warm = new Bench(Shipped.Model("build-console-top-loading")).Works("power-light").Fails("start-up", "warm");
        warm.Advise().Moves[0].Id.ShouldBe("probe:tp1");
        warm.Reads("tp1", "17.5 V").Advise().Moves[0].Repair!.Part.Id.Value.ShouldBe("adapter");
    }

    [Fact]
    public void What_is_proved_bad_is_owed_whichever_complaint_is_looked_at()
    {
        // A dead fuse, and it does not charge either: the fuse first.
        var folding = new Bench(Shipped.Model("build-handheld-folding-lithium")).Fails("charging", "nothing").Fails("power-light", "nothing");
        folding.Reads("tp4", "3.8 V").Reads("fuse1-beep", "beep").Reads("fuse2-beep", "OL");
        folding.Advise(AccessState.Open).Moves[0].Id.ShouldBe("fix:fuse2:replace-fuse");
    }

    [Fact]
    public void What_gets_less_far_after_work_is_looked_for_in_that_work()
    {
        var cartridge = new Bench("pellin-atrium-cartridge").Fails("cartridge", "garbled-logo").Repairs("legs1", "resolder-legs");
        cartridge.Fails("cartridge", "black-box");
        cartridge.Advise(AccessState.BoardOut).Moves[0].Id.ShouldBe("fix:legs1:rework-step");
        var better = new Bench("pellin-atrium-cartridge").Fails("cartridge", "black-box").Repairs("legs1", "resolder-legs");
        better.Fails("cartridge", "garbled-logo");
        better.Advise(AccessState.BoardOut).Moves[0].Id.ShouldNotBe("fix:legs1:rework-step");
    }

    [Fact]
    public void A_cracked_board_is_looked_at_before_anything_and_what_is_cracked_through_is_the_end()
    {
        var cracked = new Bench("pellin-atrium-cartridge").Marked("board-cracked").Fails("cartridge", "black-box");
        cracked.Advise().Moves[0].Id.ShouldBe("probe:trace-eye");
        cracked.Reads("trace-eye", "bad, cracked through").Advise().Moves[0].Id.ShouldBe(Move.StopId);
    }
}
