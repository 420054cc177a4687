using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>
/// The goal is the unit: what was worked on is tried again first, what was seen before a repair is no evidence after it, and where one
/// complaint has nothing left another goes on. The order of a bench: common practice, no source.
/// </summary>
public class UnitAsGoalTests
{
    private const string Loader = "build-console-front-loading";

    private static Bench Cleaned() =>
        new Bench(Loader)
            .Works("power-light")
            .Fails("start-up", "blinks")
            .Fails("video", "nothing")
            .Repairs("connector", "clean-connector");

    private static ComplaintState StateOf(Bench bench, string function) =>
        bench.Diagnose().Complaints.Single(c => c.Function.Id == function).State;

    [Fact]
    public void What_was_worked_on_is_tried_again_before_anything_else()
    {
        var loader = Cleaned();
        StateOf(loader, "start-up").ShouldBe(ComplaintState.NotTriedSince);
        StateOf(loader, "video").ShouldBe(ComplaintState.NotTriedSince);
        // Without a start there is no picture to try.
        loader.Advise().Moves.TakeWhile(m => m.Title.StartsWith("Try again", StringComparison.Ordinal)).Select(m => m.Id).ShouldBe(["fn:start-up"]);
        loader.Works("start-up");
        loader.Advise().Moves[0].Id.ShouldBe("fn:video");
    }

    [Fact]
    public void Two_complaints_and_one_cure_end_with_nothing_left_to_do()
    {
        var loader = Cleaned().Works("start-up", "video");
        loader.Diagnose().Target.ShouldBeNull();
        loader.Advise().Moves.ShouldAllBe(m => !m.Ends);
    }

    [Fact]
    public void Two_complaints_and_two_cures_go_on_with_the_second()
    {
        var loader = Cleaned().Works("start-up").Fails("video", "nothing");
        var diagnosis = loader.Diagnose();
        diagnosis.Target!.Id.Value.ShouldBe("video");
        // A start that works clears the connector: the picture has a cause of its own.
        diagnosis.Parts["connector"].Share.ShouldBeLessThan(0.05);
        diagnosis.Suspects[0].Fault.Part.Id.Value.ShouldBeOneOf("av", "screen", "cable");
        loader.Advise().Moves[0].Ends.ShouldBeFalse();
    }

    [Fact]
    public void Work_elsewhere_leaves_a_complaint_as_it_is()
    {
        var quartet = new Bench("harrow-quartet").Works("power-light", "start-up", "picture").Fails("speaker", "nothing").Fails("buttons", "one-dead");
        quartet.Repairs("pads", "clean-pads");
        StateOf(quartet, "buttons").ShouldBe(ComplaintState.NotTriedSince);
        StateOf(quartet, "speaker").ShouldBe(ComplaintState.Fails);
        quartet.Advise().Moves[0].Id.ShouldBe("fn:buttons");
    }

    [Fact]
    public void What_another_says_he_did_is_no_reason_to_try_again()
    {
        var loader = new Bench(Loader).Works("power-light").Fails("start-up", "blinks");
        loader.Add(new RepairDone(loader.Events.Count, "connector", "clean-connector", Claimed: true));
        StateOf(loader, "start-up").ShouldBe(ComplaintState.Fails);
    }

    [Fact]
    public void What_came_and_went_with_nothing_done_stays_open_until_a_run_of_starts_holds()
    {
        var disc = new Bench("build-disc-console-lid").Works("power-light").Fails("start-up", "warm").Works("start-up");
        StateOf(disc, "start-up").ShouldBe(ComplaintState.NowAndThen);
        disc.Diagnose().Target!.Id.Value.ShouldBe("start-up");
        disc.Add(new FunctionTried(disc.Events.Count, "start-up", true, Starts: Complaints.StartsThatHold - 1));
        StateOf(disc, "start-up").ShouldBe(ComplaintState.Works);
        disc.Diagnose().Target.ShouldBeNull();
    }

    [Fact]
    public void To_work_cold_clears_nothing_that_fails_when_warm()
    {
        double Dried(params bool[] passes)
        {
            var disc = new Bench("build-disc-console-lid").Works("power-light").Fails("start-up", "warm");
            foreach (var pass in passes)
                disc.Add(new FunctionTried(disc.Events.Count, "start-up", pass));
            return disc.Diagnose().Parts["psucaps"].Posterior;
        }

        Dried(true).ShouldBeGreaterThan(Dried() * 0.8);
    }

    [Fact]
    public void A_chance_is_never_nought_because_of_money()
    {
        var costs = new BenchCosts(UncuredMinutes: 2, StakeKnown: true);
        var quartet = new Bench("harrow-quartet").Works("power-light").Fails("start-up", "garbled-logo");
        var advice = new MoveAdvisor(costs).Advise(quartet.Diagnose(), AccessState.Closed);
        advice.EndsWith.ShouldBe(Move.StopId);
        advice.Outlook!.ChanceToCure.ShouldBeGreaterThan(0.3);
    }

    /// <summary>Every look counts, and the order in which they were told changes nothing.</summary>
    [Fact]
    public void Three_faces_weigh_alike_in_any_order()
    {
        string[] faces = ["garbled-logo", "logo-then-blank", "black-box"];
        double[] Shares(IEnumerable<string> order)
        {
            var quartet = new Bench("harrow-quartet").Works("power-light");
            foreach (var face in order)
                quartet.Fails("start-up", face);
            return quartet.Diagnose().Suspects.OrderBy(s => s.FaultIndex).Select(s => s.Share).ToArray();
        }

        var told = Shares(faces);
        foreach (var order in new[] { new[] { 1, 0, 2 }, [2, 1, 0], [1, 2, 0], [0, 2, 1], [2, 0, 1] })
            Shares(order.Select(n => faces[n])).Zip(told).ShouldAllBe(x => Math.Abs(x.First - x.Second) < 1e-6);
        // One face alone says less than all three.
        told.Max().ShouldBeGreaterThanOrEqualTo(Shares(faces[..1]).Max() - 1e-9);
    }
}
