using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Laws of the bench, one by one. Common practice, no source.</summary>
public class BenchOrderLawTests
{
    private static Move First(Bench bench, AccessState state = AccessState.Closed) => bench.Advise(state).Moves[0];

    [Fact]
    public void A_cracked_board_is_asked_for_a_short_first_and_a_short_is_the_end()
    {
        var grey = new Bench("build-handheld-four-cell-grey").Fails("power-light", "nothing").Marked("board-cracked", SeenGrade.Heavy);
        First(grey).Id.ShouldBe("probe:rail-ohms");
        First(grey.Reads("rail-ohms", "1 ohm")).Id.ShouldBe(Move.StopId);
    }

    [Fact]
    public void A_flooded_cartridge_is_looked_over_before_it_is_scraped()
    {
        var cart = new Bench("build-cartridge-plain").Fails("cartridge", "blinks").Marked("liquid", SeenGrade.Heavy);
        var first = First(cart);
        first.Id.ShouldBeOneOf("probe:trace-eye", "probe:rail-ohms");
        cart.Reads("rail-ohms", "900 ohm").Reads("trace-eye", "bad, bubbling all over");
        First(cart, AccessState.Open).Id.ShouldBe(Move.StopId);
    }

    [Fact]
    public void The_piece_that_a_swap_names_is_dealt_with_and_the_unit_not_set_aside()
    {
        var loader = new Bench("build-console-top-loading").Works("power-light", "start-up", "sound").Fails("video", "nothing");
        var chain = loader.Model.Closure("video").Where(p => p != "cable").ToList();
        loader.Add(new SwapTried(loader.Events.Count, "video", chain, true));
        First(loader).Repair!.Part.Id.Value.ShouldBe("cable");
    }

    [Fact]
    public void The_same_work_is_not_done_twice_in_a_row()
    {
        var cart = new Bench("build-cartridge-plain").Fails("cartridge", "blinks").Repairs("edge", "swab-edge").Fails("cartridge", "blinks");
        cart.Advise().Moves.Select(m => m.Id).ShouldNotContain("fix:edge:swab-edge");
        // Found dirty still, it is wiped once more.
        cart.Reads("edge-eye", "bad, black swab").Advise().Moves.Select(m => m.Id).ShouldContain("fix:edge:swab-edge");
    }

    [Fact]
    public void Worse_after_work_is_what_was_touched_whatever_the_complaint()
    {
        var six = new Bench("build-handheld-six-cell-tube").Works("power-light", "start-up", "picture").Fails("phones", "quiet");
        six.Repairs("soundcaps", "recap-all").Fails("picture", "nothing").Fails("phones", "quiet");
        // What was moved for it first: the picture's ribbon.
        First(six, AccessState.BoardOut).Id.ShouldBe("probe:ribbon-press");
        First(six.Reads("ribbon-press", "ok"), AccessState.BoardOut).Id.ShouldBe("fix:soundcaps:rework-step");
    }

    [Fact]
    public void No_sign_of_life_is_measured_at_the_source_before_anything_long()
    {
        var bastion = new Bench("build-console-top-loading").Fails("power-light", "nothing");
        var closed = bastion.Model.Profile.Probes.Where(p => p is { Kind: ProbeKind.Volts, State: AccessState.Closed }).Select(p => $"probe:{p.Id}");
        var seen = new List<string>();
        for (var n = 0; n < 4; n++)
        {
            var move = First(bastion);
            seen.Add(move.Id);
            if (move.Minutes >= 5 || move.Probe is not { } probe)
                break;
            bastion.Reads(probe.Id, probe.Kind == ProbeKind.Volts ? "9.3 V" : "ok");
        }

        seen.ShouldContain(id => closed.Contains(id));
    }

    [Fact]
    public void What_cannot_be_undone_waits_for_what_can()
    {
        var loader = new Bench("build-console-front-loading").Works("power-light").Fails("start-up", "blinks");
        var first = loader.Advise().Moves.First(m => m.Repair is not null);
        first.Repair!.Method.Type.ShouldNotBe(Mendro.Core.Library.MethodType.Modification);
    }
}
