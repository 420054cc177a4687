using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Profiles;

/// <summary>Problems of a profile are told with their place.</summary>
public class ProfileValidatorTests
{
    private static DeviceProfile Good() => Shipped.Profile("harrow-quartet");

    private static string Problems(DeviceProfile profile) => string.Join("\n", ProfileValidator.Check(profile, TradeLibrary.Shipped));

    [Fact]
    public void A_circle_in_the_flow_is_named() =>
        Problems(Good() with { Feeds = [.. Good().Feeds, new Feed("main", "cells", Carries.Power)] })
            .ShouldContain("in a circle through cells, contacts");

    [Fact]
    public void An_unknown_part_in_a_feed_is_named() =>
        Problems(Good() with { Feeds = [.. Good().Feeds, new Feed("main", "moon", Carries.Data)] }).ShouldContain("“moon”");

    [Fact]
    public void A_probe_that_spans_nothing_is_named()
    {
        var probe = Good().Probes[0] with { Id = "lost", Name = "Lost", At = null };
        Problems(Good() with { Probes = [.. Good().Probes, probe] }).ShouldContain("“Lost” spans nothing");
    }

    [Fact]
    public void A_part_no_function_needs_is_named() =>
        Problems(Good() with { Parts = [.. Good().Parts, new Part("clock", "Clock", "logic")] }).ShouldContain("no function needs “Clock”");

    [Fact]
    public void Unknown_kinds_and_double_ids_are_named()
    {
        Problems(Good() with { Parts = [.. Good().Parts, new Part("cells", "Cells", "wizardry")] })
            .ShouldSatisfyAllConditions(p => p.ShouldContain("wizardry"), p => p.ShouldContain("used 2 times"));
        Problems(Good() with { Functions = [new DeviceFunction("fly", "Fly", "flying", [])] })
            .ShouldSatisfyAllConditions(p => p.ShouldContain("flying"), p => p.ShouldContain("needs no part"));
    }

    [Theory]
    [InlineData("{", "not valid JSON")]
    [InlineData("""{"format":"other/1","id":"x","name":"X"}""", "mendro.profile/1")]
    [InlineData("""{"format":"mendro.profile/1","id":"x","name":"X","maker":"","kind":"submarine"}""", "$.kind")]
    public void A_broken_file_is_told_with_its_place(string json, string named) => ProfileJson.Read(json).Problem!.ShouldContain(named);

    [Fact]
    public void A_short_takes_its_own_rail_down_and_not_what_is_before_it()
    {
        var rail = new ProfileGraph(Good(), TradeLibrary.Shipped).RailOf("main");
        rail.Heads.ShouldBe(["psu"]);
        rail.Members.ShouldBe(["psu", "joint", "main", "light"], ignoreOrder: true);
    }

    [Fact]
    public void A_board_does_not_need_the_buttons_that_report_to_it()
    {
        var graph = new ProfileGraph(Good(), TradeLibrary.Shipped);
        graph.Closure(Good().FindFunction("picture")!).ShouldNotContain("pads");
        graph.Closure(Good().FindFunction("buttons")!).ShouldContain("pads");
    }
}
