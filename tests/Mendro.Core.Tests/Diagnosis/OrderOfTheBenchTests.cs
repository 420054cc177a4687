using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What a good technician does first, where the figures are near one another. Common practice, no source.</summary>
public class OrderOfTheBenchTests
{
    private static Move First(Bench bench, AccessState state = AccessState.Closed) => bench.Advise(state).Moves[0];

    private static DeviceModel Build(string id) =>
        new(TradeLibrary.Shipped.Archetypes.Single(p => p.Id == id), TradeLibrary.Shipped);

    [Fact]
    public void What_a_finger_has_found_is_seen_to_before_a_side_issue()
    {
        var pad = new Bench("pellin-atrium-pad").Fails("cross", "nothing").Fails("action", "nothing").Fails("startsel", "nothing");
        pad.Add(new Provoked(pad.Events.Count, "cross", Provocation.Pressed, true)).Reads("cord-press", "bad, comes alive at the sleeve");
        var first = First(pad);
        // Cord and its joint were bent together: which of the two, then the work; the plug was not felt.
        (first.Repair?.Part.Id.Value ?? first.Probe!.Spans!.Single().Value).ShouldBeOneOf("cord", "joint");
        First(pad.Reads("joint-press", "ok")).Id.ShouldBe("fix:cord:shorten-cord");
    }

    [Fact]
    public void The_legs_of_a_chip_are_pushed_before_the_chip_goes()
    {
        var card = new Bench(Build("build-memory-card"));
        card.Fails("seen", "black-box");
        foreach (var method in new[] { "swab-edge", "eraser-edge", "polish-edge" })
            card.Repairs("edge", method).Fails("seen", "black-box");
        card.Add(new SwapTried(card.Events.Count, "seen", ["edge", "legs", "memory"], false));
        var diagnosis = card.Diagnose();
        diagnosis.Parts["memory"].Share.ShouldBeGreaterThan(diagnosis.Parts["legs"].Share);
        First(card, AccessState.Open).Id.ShouldBe("probe:legs-push");
        // Once they were pushed and are solid, they are asked no more.
        First(card.Reads("legs-push", "ok"), AccessState.Open).Id.ShouldNotStartWith("probe:legs");
    }

    [Fact]
    public void A_cleaning_that_lifts_the_part_is_no_gentler_than_a_new_one()
    {
        var polish = TradeLibrary.Shipped.FindMethod("polish-switch")!;
        (polish.Type, polish.WantsIron, polish.Harshness).ShouldBe((MethodType.Clean, true, MethodType.Replace.Harshness()));
        TradeLibrary.Shipped.FindMethod("flush-switch")!.Harshness.ShouldBe(0);
        var duet = new Bench("harrow-duet").Fails("power-light", "dim").Reads("switch-beep", "40 ohm");
        duet.Repairs("switch", "flush-switch").Fails("power-light", "dim").Reads("switch-beep", "40 ohm");
        // Flushed twice before it comes out or is replaced (common practice, no source).
        First(duet, AccessState.Open).Id.ShouldBe("fix:switch:flush-switch");
        duet.Repairs("switch", "flush-switch").Fails("power-light", "dim").Reads("switch-beep", "40 ohm");
        First(duet, AccessState.Open).Id.ShouldBe("fix:switch:replace-switch");
    }

    [Fact]
    public void A_pack_is_measured_before_it_is_replaced()
    {
        var minnow = new Bench("quillon-minnow").Fails("power-light", "nothing").Reads("tp3", "0 V").Reads("switch-beep", "beep");
        minnow.Reads("packwires-press", "ok").Reads("pack-eye", "ok");
        minnow.Diagnose().Parts.Values.MaxBy(p => p.Share)!.Part.Id.Value.ShouldBe("pack");
        // Whether it charges is half a minute; then the meter, and no new pack.
        minnow.Works("charging");
        First(minnow, AccessState.Open).Id.ShouldBe("probe:tp2");
    }

    [Fact]
    public void Once_volts_are_off_the_supply_is_followed_with_the_meter()
    {
        var hot = new Bench("pellin-atrium").Works("power-light").Fails("start-up", "warm");
        hot.Add(new Provoked(hot.Events.Count, "start-up", Provocation.Pressed, false)).Reads("tp3", "3.1 V");
        // From the source: another adapter's volts would heat the regulator.
        First(hot, AccessState.Open).Id.ShouldBe("probe:tp1");
        hot.Reads("tp1", "10 V");
        First(hot, AccessState.Open).Id.ShouldBe("probe:tp2");
        // Capacitors that are tired when warm cost a look of half a minute, the regulator twenty minutes.
        hot.Reads("tp2", "13 V").Reads("filter-eye", "ok");
        First(hot, AccessState.Open).Id.ShouldBe("fix:regulator:replace-regulator");
    }

    [Fact]
    public void What_is_told_to_fail_when_warm_is_not_warmed_to_see_it()
    {
        IEnumerable<string> Moves(string look) => new Bench("pellin-atrium").Works("power-light").Fails("start-up", look).Advise().Moves.Select(m => m.Id);
        Moves("warm").ShouldNotContain("provoke:start-up:warmed");
        var often = new Bench("pellin-atrium").Works("power-light");
        for (var n = 0; n < 4; n++)
            often.Fails("start-up", "warm");
        var (once, again) = (
            new Bench("pellin-atrium").Works("power-light").Fails("start-up", "warm").Diagnose().Parts["regulator"].Posterior,
            often.Diagnose().Parts["regulator"].Posterior
        );
        // It comes back each time, as warmth does: that speaks not against it.
        again.ShouldBeGreaterThanOrEqualTo(once - 1e-9);
    }

    [Fact]
    public void A_part_whose_own_check_was_good_is_not_replaced_for_what_others_beside_it_show()
    {
        var cable = new Bench(Build("build-picture-cable")).Fails("video", "nothing").Reads("cord-beep", "open").Reads("near-pins", "beep");
        var moves = cable.Advise(AccessState.Open).Moves.Select(m => m.Id).ToList();
        moves[0].ShouldNotStartWith("fix:near");
    }

    [Fact]
    public void What_fails_without_a_part_is_not_that_part()
    {
        var pad = new Bench("pellin-atrium-pad").Fails("cross", "nothing").Fails("action", "nothing").Fails("startsel", "nothing");
        pad.Repairs("plug", "clean-port").Fails("cross", "nothing");
        var before = pad.Diagnose().Parts["console"].Share;
        before.ShouldBeGreaterThan(0.2);
        pad.Add(new SwapTried(pad.Events.Count, "cross", ["plug", "cord", "joint", "encoder", "cross"], false));
        pad.Diagnose().Parts["console"].Share.ShouldBeLessThan(before / 5);
        // Work that changed nothing has cured nothing that it might hide behind.
        pad.Repairs("cord", "shorten-cord").Fails("cross", "nothing");
        var still = pad.Diagnose().Parts["console"].Share;
        still.ShouldBeLessThan(before / 5);
        // Where it helped for a while, a second cause may have been behind the first.
        var helped = new Bench(pad.Model);
        foreach (var happened in pad.Events.SkipLast(1))
            helped.Add(happened);
        helped.Works("cross").Fails("cross", "nothing").Diagnose().Parts["console"].Share.ShouldBeGreaterThan(still);
    }

    [Fact]
    public void Another_console_comes_before_the_cleaning_of_this_one()
    {
        var pad = new Bench("pellin-atrium-pad").Fails("cross", "nothing").Fails("action", "nothing").Fails("startsel", "nothing");
        pad.Repairs("plug", "clean-port").Fails("cross", "nothing").Fails("action", "nothing").Fails("startsel", "nothing");
        // To bend the cord takes half a minute, and most dead pads have a dead cord.
        First(pad.Reads("cord-press", "ok")).Id.ShouldBe("swap:console");
    }

    [Fact]
    public void Before_the_same_cleaning_again_one_looks_unless_its_check_was_told()
    {
        Bench Wiped(bool? held)
        {
            var duet = new Bench("harrow-duet").Marked("corrosion-contacts", SeenGrade.Slight).Fails("power-light", "nothing");
            duet.Add(new RepairDone(duet.Events.Count, "contacts", "wipe-contacts", Held: held)).Fails("power-light", "nothing");
            duet.Repairs("cells", "fresh-cells").Fails("power-light", "nothing");
            return duet.Repairs("contacts", "wipe-contacts").Fails("power-light", "nothing").Reads("switch-press", "ok");
        }

        First(Wiped(null)).Id.ShouldBe("probe:contacts-eye");
        First(Wiped(null).Reads("contacts-eye", "ok")).Repair?.Part.Id.Value.ShouldNotBe("contacts");
    }

    [Fact]
    public void A_picture_on_the_screen_needs_no_supply_checks()
    {
        IEnumerable<string> Moves(string look) =>
            new Bench("harrow-duet").Works("power-light", "start-up").Fails("picture", look).Advise(AccessState.Open).Moves.Select(m => m.Id);
        Moves("horizontal-lines").ShouldNotContain(id => id.StartsWith("probe:tp"));
        Moves("dim").ShouldContain("probe:tp5");
        var duet = Shipped.Model("harrow-duet");
        duet.Shown(duet.Profile.FindFunction("picture")!, "horizontal-lines").ShouldContain(new PartId("bias"));
        duet.Shown(duet.Profile.FindFunction("picture")!, "dim").ShouldBeEmpty();
    }

    [Fact]
    public void What_was_replaced_is_not_replaced_again_with_nothing_found_since()
    {
        var lines = new Bench("harrow-duet").Works("power-light", "start-up").Fails("picture", "horizontal-lines");
        lines.Reads("panel-eye", "ok").Reads("ribbon-press", "ok").Repairs("ribbon", "replace-ribbon").Fails("picture", "horizontal-lines");
        var order = lines.Advise(AccessState.BoardOut).Moves.Select(m => m.Id).ToList();
        order.ShouldContain("fix:panel:replace-panel");
        order.ShouldNotContain("fix:ribbon:replace-ribbon");
    }

    [Fact]
    public void A_drive_that_turns_heavily_is_greased()
    {
        var disc = new Bench("tarn-halyard").Works("power-light", "start-up", "video", "tray").Fails("disc", "not-read");
        disc.Reads("drive-press", "bad, turns heavily").Reads("lens-eye", "ok");
        // Heavily is how it turns, and not how dirty it is.
        disc.Diagnose().Case.GradeOf("drive").ShouldBe(SeenGrade.Untold);
        // Dust and lens, then grease, and only then another drive.
        First(disc, AccessState.Open).Id.ShouldBeOneOf("fix:drive:clean-lens", "fix:drive:lubricate-drive");
        disc.Repairs("drive", "clean-lens").Fails("disc", "not-read").Reads("drive-press", "bad, turns heavily");
        First(disc, AccessState.Open).Id.ShouldBe("fix:drive:lubricate-drive");
    }

    [Fact]
    public void A_torn_cone_is_replaced_and_its_wire_not_soldered_first()
    {
        var torn = new Bench("dovrel-sextant")
            .Works("power-light", "start-up", "picture", "backlight", "phones")
            .Fails("speaker", "nothing")
            .Reads("speaker-eye", "bad, cone torn");
        First(torn, AccessState.Open).Id.ShouldBe("fix:speaker:replace-speaker");
        var off = new Bench("dovrel-sextant")
            .Works("power-light", "start-up", "picture", "backlight", "phones")
            .Fails("speaker", "nothing")
            .Reads("speaker-eye", "bad, wire off");
        First(off, AccessState.Open).Id.ShouldBe("fix:speaker:resolder-speaker");
    }

    [Fact]
    public void Quiet_in_both_is_the_wheel_or_the_sound_capacitors()
    {
        var shares = new Bench("dovrel-sextant")
            .Works("power-light", "start-up", "picture", "backlight")
            .Fails("speaker", "quiet")
            .Fails("phones", "quiet")
            .Diagnose()
            .Parts;
        shares["soundcaps"].Share.ShouldBeGreaterThan(0.3);
        shares["volume"].Share.ShouldBeGreaterThan(shares["speaker"].Share);
        shares["volume"].Share.ShouldBeGreaterThan(shares["phones"].Share);
    }

    [Fact]
    public void A_residue_somewhere_on_the_board_is_at_no_line_for_sure()
    {
        var eject = new Bench("dovrel-bastion").Works("power-light", "power-button", "start-up", "disk", "video").Fails("eject", "nothing");
        // Unplaced, it can be at any of four lines: the line is beeped before it is bridged.
        First(eject.Marked("residue", SeenGrade.Untold)).Id.ShouldBe("probe:line2-beep");
        // What may have left it is looked at as the board lies open, and is clean.
        eject.Reads("line2-beep", "no beep").Reads("railcaps-eye", "ok").Reads("clockcap-eye", "dry and clean");
        First(eject, AccessState.BoardOut).Id.ShouldBe("fix:line2:jumper");
    }

    [Fact]
    public void A_slot_dark_deep_inside_is_brushed_before_it_is_replaced()
    {
        var slot = new Bench("harrow-quartet").Works("power-light").Fails("start-up", "garbled-logo");
        slot.Repairs("slot", "clean-connector").Fails("start-up", "pressed").Reads("slot-eye", "dark deep inside");
        First(slot).Repair!.Method.Id.Value.ShouldBeOneOf("clean-connector", "brush-connector");
    }

    [Fact]
    public void What_was_renewed_is_not_looked_at_again()
    {
        var recapped = new Bench("dovrel-sextant").Works("power-light", "start-up").Fails("speaker", "quiet").Fails("phones", "quiet");
        recapped.Reads("soundcaps-eye", "leaked").Repairs("soundcaps", "recap-all").Fails("speaker", "quiet");
        recapped.Advise(AccessState.BoardOut).Moves.Select(m => m.Id).ShouldNotContain("probe:soundcaps-eye");
    }

    [Fact]
    public void The_one_part_between_good_and_dead_is_pushed_whatever_else_fails()
    {
        var minnow = new Bench("quillon-minnow").Works("charging").Fails("power-light", "nothing").Reads("tp3", "7.9 V").Reads("tp4", "5.0 V");
        minnow.Repairs("light", "replace-light").Fails("power-light", "nothing").Reads("tp5", "0 V");
        First(minnow, AccessState.Open).Id.ShouldBe("probe:pins-press");
        // Good volts at its output speak against a dead regulator, whatever they leave unexplained.
        minnow.Diagnose().Parts["reg"].Posterior.ShouldBeLessThan(0.5);
    }

    [Fact]
    public void A_flush_that_did_not_hold_leaves_the_switch_in_question()
    {
        Bench Flushed() => new Bench("harrow-quartet").Fails("power-light", "nothing").Repairs("switch", "flush-switch");
        var never = Flushed().Fails("power-light", "nothing").Diagnose().Parts["switch"].Share;
        var awhile = Flushed().Works("power-light").Fails("power-light", "nothing").Diagnose().Parts["switch"].Share;
        awhile.ShouldBe(never, 1e-9);
        // Other work between, and what works then is proved to work.
        var since = Flushed().Works("power-light").Repairs("slot", "clean-connector").Fails("power-light", "nothing").Diagnose().Parts["switch"].Share;
        since.ShouldBeLessThan(never);
    }
}
