using Mendro.Core.Dismantling;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Planning;

/// <summary>A model that nobody has opened yet is written down while it is opened.</summary>
public class StepTeachingTests
{
    private static readonly DeviceProfile Bare = Shipped.Profile("harrow-quartet") with { Steps = null, Fasteners = null };

    private static Outcome<StepTaught> Teach(DeviceProfile profile, StepSeen seen, params string[] done) =>
        StepTeaching.Of(profile, TradeLibrary.Shipped, seen, done);

    private static StepSeen Back(string screws = "s1: cross 00, 8 mm, at 12 80, on back, tray long\ns2: cross 00, 6 mm, at 80 80, on back") =>
        new("Back off", screws, ["fuse", "psu"], ["speaker wires"], 4);

    [Fact]
    public void Two_steps_with_their_screws_make_a_way_that_the_planner_finds()
    {
        var first = Teach(Bare, Back()).Value!;
        first.Words.ShouldBe("Back off, 2 fasteners");
        // The next step's screws begin at s1 again: they get ids of their own.
        var second = Teach(first.Profile, new StepSeen("Board out", "s1: cross 00, at 50 50, on board", ["main"], [], 3), first.Step).Value!;
        var profile = second.Profile;
        profile.Fasteners!.Select(f => f.Id).ShouldBe(["s1", "s2", "s3"]);
        profile.Steps!.Select(s => (s.Id, s.Needs?.SingleOrDefault())).ShouldBe([("back-off", null), ("board-out", "back-off")]);
        var plan = TeardownPlanner.Plan(TeardownGraph.Of(profile.Steps, profile.Fasteners).Value!, ["main"], []).Value!;
        (plan.Minutes, plan.FastenerCount).ShouldBe((7, 3));
        plan.Drivers.ShouldBe(["cross 00"]);
        // What is free can be measured: Find pays for this step alone.
        var ways = Disassembly.Of(profile);
        ways.Minutes(default, ways.Goal(profile.FindProbe("fuse-beep")!)).ShouldBe(4);
    }

    [Theory]
    [InlineData("s1 cross", "begin with an id")]
    [InlineData("s1: cross 00, at the left", "none of")]
    public void A_screw_that_is_not_understood_is_said_with_its_line(string screws, string words) =>
        Teach(Bare, Back(screws)).Problem!.ShouldContain(words);

    [Fact]
    public void What_is_missing_is_asked_for()
    {
        Teach(Bare, Back() with { Name = " " }).Problem!.ShouldContain("what was done");
        Teach(Bare, Back() with { Minutes = 0 }).Problem!.ShouldContain("minutes");
        Teach(Bare, Back() with { Frees = ["teapot"] }).Problem!.ShouldContain("teapot");
    }

    [Fact]
    public void The_same_words_twice_are_two_steps()
    {
        var first = Teach(Bare, Back()).Value!;
        Teach(first.Profile, Back() with { Frees = ["main"] }, first.Step).Value!.Step.ShouldBe("back-off-2");
    }
}
