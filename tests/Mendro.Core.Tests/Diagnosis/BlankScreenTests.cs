using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What a screen that stays blank comes of, and what it cannot come of (common practice, no source).</summary>
public class BlankScreenTests
{
    private static Bench Blank(string build) => new Bench(build).Works("power-light").Fails("video", "nothing").Fails("sound", "nothing");

    [Theory]
    [InlineData("build-console-top-loading")]
    [InlineData("build-console-internal-supply")]
    public void A_light_but_nothing_seen_and_nothing_heard_is_first_of_all_a_game_that_is_not_read(string build)
    {
        var bench = Blank(build);
        (bench.ShareOf("connector") + bench.ShareOf("testcart")).ShouldBeGreaterThan(0.5);
    }

    // A game that is not read starts nothing; what starts has been read.
    [Theory]
    [InlineData("build-console-top-loading")]
    [InlineData("build-console-front-loading")]
    [InlineData("pellin-atrium")]
    public void What_starts_lost_its_picture_behind_the_board(string build)
    {
        var started = new Bench(build).Works("power-light", "start-up", "sound").Fails("video", "nothing");
        started.ShareOf("connector").ShouldBeLessThan(0.05);
        // In whatever order it is told.
        new Bench(build)
            .Works("power-light")
            .Fails("video", "nothing")
            .Works("sound", "start-up")
            .ShareOf("connector")
            .ShouldBe(started.ShareOf("connector"), 1e-9);
    }

    [Fact]
    public void What_starts_and_shows_lost_its_sound_behind_the_board()
    {
        var bench = new Bench("build-console-top-loading").Works("power-light", "start-up", "video").Fails("sound", "nothing");
        (bench.ShareOf("av") + bench.ShareOf("cable")).ShouldBeGreaterThan(0.7);
    }

    [Theory]
    [InlineData("build-console-front-loading", true)]
    [InlineData("pellin-atrium", true)]
    [InlineData("build-console-top-loading", false)]
    [InlineData("build-console-internal-supply", false)]
    public void Only_with_an_authentication_chip_does_a_console_blink_for_want_of_a_game(string build, bool blinks)
    {
        var model = new Bench(build).Model;
        foreach (var function in model.Profile.Functions.Where(f => f.Kind is "start-up" or "video-out"))
            model.LooksOf(function).Any(l => l.Id == "blinks").ShouldBe(blinks, function.Name);
    }

    // What shows a picture and makes a noise is on: nobody asks whether its light works.
    [Fact]
    public void What_fails_in_a_way_that_shows_it_at_work_is_not_asked_whether_it_is_on()
    {
        var bench = new Bench("build-handheld-two-cell-colour").Fails("picture", "horizontal-lines").Fails("speaker", "crackle");
        bench.Advise().Moves.Select(m => m.Id).ShouldNotContain(id => id == "fn:power-light" || id == "fn:start-up");
        // A picture that is not told of might not be there at all.
        new Bench("build-handheld-two-cell-colour").Fails("picture").Advise().Moves.Select(m => m.Id).ShouldContain("fn:power-light");
    }

    [Fact]
    public void Of_a_blank_screen_another_game_is_tried_before_another_cable_and_neither_is_a_chip_replaced()
    {
        var moves = Blank("build-console-top-loading").Advise().Moves.Select(m => m.Id).ToList();
        moves[0].ShouldBe("swap:testcart");
        moves.Take(5).ShouldAllBe(m => !m.StartsWith("fix:main", StringComparison.Ordinal));
    }

    public static TheoryData<string> Shown =>
        [.. TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes).Where(p => p.Functions.Any(IsPicture)).Select(p => p.Id)];

    private static bool IsPicture(DeviceFunction function) => function.Kind is "picture" or "video-out";

    /// <summary>What is seen to work on the picture is not to be tried while there is none. Common practice, no source.</summary>
    [Theory]
    [MemberData(nameof(Shown))]
    public void Nothing_is_tried_that_would_be_seen_on_a_blank_screen(string id)
    {
        var profile = TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes).Single(p => p.Id == id);
        var picture = profile.Functions.First(IsPicture);
        var diagnosis = UnitDiagnosis
            .Make(new DeviceModel(profile, TradeLibrary.Shipped), [new FunctionTried(0, picture.Id, false, "nothing")])
            .Value!;
        var moves = new MoveAdvisor(new BenchCosts()).Advise(diagnosis, AccessState.Closed).Moves;
        moves.ShouldNotBeEmpty();
        var unseen = profile.Functions.Where(f => TradeLibrary.Shipped.FindFunctionKind(f.Kind)!.OnScreen).Select(f => $"fn:{f.Id}");
        moves.Select(m => m.Id).Intersect(unseen).ShouldBeEmpty();
    }
}
