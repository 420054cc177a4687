using CsCheck;
using Mendro.Core.Library;
using Mendro.Core.Methods;

namespace Mendro.Core.Tests.Methods;

/// <summary>The cleaning ladders: order, beginning, stop rule, wear. Common practice, no source.</summary>
public class LadderClimbTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    private static readonly ContactLadder Edge = Library.FindLadder("cartridge-edge")!;

    private static LadderState State(string? seen, params RungGone[] gone) => LadderClimb.Of(Edge, seen, gone, []);

    // The order in which the trade names them, from gentle to harsh.
    [Fact]
    public void The_edge_ladder_has_the_rungs_of_the_trade_in_its_order() =>
        Edge.Rungs.Select(r => r.Id).ShouldBe(["dry", "alcohol", "eraser", "cleaner", "polish", "fibre", "penetrant", "abrasive"]);

    [Fact]
    public void Every_rung_names_what_the_library_knows()
    {
        foreach (var ladder in Library.Ladders)
        {
            ladder.Kinds.ShouldAllBe(k => Library.FindPartKind(k) != null);
            ladder.IndexOf(ladder.GentleUpTo).ShouldBeGreaterThanOrEqualTo(0);
            ladder.Starts.ShouldAllBe(s => ladder.IndexOf(s.Rung) >= 0);
            foreach (var rung in ladder.Rungs)
            {
                if (rung.Method is { } method)
                    Library.FindMethod(method)!.Cures.ShouldContain(c => ladder.Kinds.Contains(c.Kind), $"{ladder.Id}/{rung.Id}");
                if (rung.Agent is { } agent)
                    MaterialLibrary.Shipped.FindAgent(agent)!.Surfaces[ladder.Surface].Verdict.ShouldNotBe(MaterialVerdict.Never);
                if (rung.Caution is { } caution)
                    Library.FindCaution(caution).ShouldNotBeNull();
            }
        }
    }

    [Theory]
    [InlineData(null, "dry")]
    [InlineData("dark", "alcohol")]
    [InlineData("crust", "eraser")]
    [InlineData("nonsense", "dry")]
    public void It_begins_where_the_condition_says(string? seen, string rung) => State(seen).Rung!.Id.ShouldBe(rung);

    [Fact]
    public void A_dirty_swab_asks_for_the_same_again_and_the_third_time_for_the_next()
    {
        var dirty = new RungGone("alcohol", false, null);
        State("dark", dirty).Rung!.Id.ShouldBe("alcohol");
        State("dark", dirty, dirty).Rung!.Id.ShouldBe("alcohol");
        State("dark", dirty, dirty, dirty).Rung!.Id.ShouldBe("eraser");
    }

    [Fact]
    public void It_stops_at_the_first_rung_that_is_clean_and_works()
    {
        State("dark", new RungGone("alcohol", true, true)).Advice.ShouldBe(LadderAdvice.Cured);
        State("dark", new RungGone("alcohol", true, false)).Rung!.Id.ShouldBe("eraser");
        State("dark", new RungGone("alcohol", false, true)).Rung!.Id.ShouldBe("alcohol");
    }

    [Fact]
    public void What_the_last_rung_left_comes_off_before_anything_else()
    {
        var polish = MaterialLibrary.Shipped.FindAgent("metal-polish")!;
        var state = LadderClimb.Of(Edge, "dark", [new RungGone("polish", true, true)], [polish]);
        (state.Advice, state.Residue.Single()).ShouldBe((LadderAdvice.TakeOff, polish));
    }

    [Fact]
    public void Wear_counts_over_all_jobs_and_stops_before_the_copper()
    {
        var before = Enumerable.Repeat(new RungGone("abrasive", true, true, ThisJob: false), 2).ToArray();
        // Twice 30 % of the plating, by the library's own figure; a third time would leave 10 %.
        State("stuck", before).WearSpent.ShouldBe(0.6, 1e-9);
        State("stuck", before).Rung!.Id.ShouldBe("penetrant");
        var spent = State("stuck", [.. before, new RungGone("penetrant", true, false)]);
        (spent.Advice, spent.Rung).ShouldBe((LadderAdvice.Spent, null));
        spent.Why.ShouldContain("64 %");
    }

    [Fact]
    public void A_bench_that_goes_no_further_than_the_eraser_is_not_sent_to_polish()
    {
        var state = LadderClimb.Of(Edge, "dark", [new RungGone("eraser", true, false)], [], Edge.GentleUpTo);
        state.Advice.ShouldBe(LadderAdvice.Spent);
        state.Why.ShouldContain("Drafting eraser");
    }

    // Whatever comes of each rung: it ends, never goes down, and takes no more plating than it may.
    [Fact]
    public void Any_climb_ends_and_never_goes_back_down() =>
        Gen.Select(Gen.Int[0, Library.Ladders.Count - 1], Gen.Select(Gen.Bool, Gen.Bool).List[60]).Sample(
            (which, answers) =>
            {
                var ladder = Library.Ladders[which];
                var gone = new List<RungGone>();
                var at = -1;
                foreach (var (clean, works) in answers)
                {
                    var state = LadderClimb.Of(ladder, null, gone, []);
                    if (state.Advice != LadderAdvice.Go)
                    {
                        if (state.WearSpent > 0.8)
                            return false;
                        return state.Advice == LadderAdvice.Cured == gone[^1] is { SwabClean: true, Works: true };
                    }

                    if (ladder.IndexOf(state.Rung!.Id) < at)
                        return false;
                    at = ladder.IndexOf(state.Rung.Id);
                    gone.Add(new RungGone(state.Rung.Id, clean, clean && works));
                }

                return false;
            },
            iter: 500
        );
}
