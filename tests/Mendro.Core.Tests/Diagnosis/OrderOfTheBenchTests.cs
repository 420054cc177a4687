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
}
