using CsCheck;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Profiles;

/// <summary>Feeds as text, and profiles from files of somebody else.</summary>
public class FeedTextTests
{
    public static TheoryData<string> Profiles => [.. TradeLibrary.Shipped.Profiles.Select(p => p.Id)];

    [Theory]
    [MemberData(nameof(Profiles))]
    public void The_feeds_of_every_shipped_profile_come_back_in_their_order(string id)
    {
        var feeds = Shipped.Profile(id).Feeds;
        FeedText.Read(FeedText.Write(feeds), out var problems).ShouldBe(feeds);
        problems.ShouldBeEmpty();
    }

    [Theory]
    [MemberData(nameof(Profiles))]
    public void The_connectors_of_every_shipped_profile_come_back(string id)
    {
        var connectors = Shipped.Profile(id).Connectors ?? [];
        var text = ConnectorText.Write(connectors);
        var back = ConnectorText.Read(text, out var problems);
        problems.ShouldBeEmpty();
        back.Select(c => (c.Id, c.Name, c.Part, c.Probe)).ShouldBe(connectors.Select(c => (c.Id, c.Name, c.Part, c.Probe)));
        back.SelectMany(c => c.Contacts).ShouldBe(connectors.SelectMany(c => c.Contacts));
        ConnectorText.Write(back).ShouldBe(text);
    }

    [Fact]
    public void Rows_may_count_down_or_in_steps()
    {
        var read = ConnectorText.Read("slot: Slot, part slot\nleft 31 −2: ground, data D0\n\nright 2 +2: supply 5 V", out var problems);
        problems.ShouldBeEmpty();
        read.Single().Contacts.Select(c => (c.Number, c.Line)).ShouldBe([(31, "ground"), (29, "D0"), (2, "5 V")]);
    }

    [Theory]
    [InlineData("left 1 +1: ground", "line 1", "begin with the connector")]
    [InlineData("slot: Slot, part slot\nleft 1 +1: ground\nright one +1: ground", "line 3", "neither a connector")]
    [InlineData("slot: Slot", "line 1", "neither a connector")]
    [InlineData("slot: Slot, part slot", "connectors", "no row")]
    public void What_cannot_be_read_as_a_connector_is_named_by_line(string text, string place, string words)
    {
        ConnectorText.Read(text, out var problems);
        var problem = problems.ShouldHaveSingleItem();
        problem.Place.ShouldContain(place);
        problem.Message.ShouldContain(words);
    }

    [Fact]
    public void Any_text_is_read_as_connectors_without_throwing() =>
        Gen.String[Gen.Char["slot: part,probe 1+-−2\n٣x"], 0, 60]
            .Sample(
                text =>
                {
                    ConnectorText.Read(text, out var problems);
                    problems.ShouldNotBeNull();
                },
                iter: 3000
            );

    [Fact]
    public void Any_feeds_come_back()
    {
        var feed = Gen.Select(Gen.Int[0, 5], Gen.Int[0, 5], Gen.Enum<Carries>(), (a, b, carries) => new Feed($"p{a}", $"p{b}", carries));
        feed.List[0, 12]
            .Sample(
                feeds =>
                {
                    FeedText.Read(FeedText.Write(feeds), out var problems).ShouldBe(feeds);
                    problems.ShouldBeEmpty();
                },
                iter: 300,
                seed: "0000KQvYRXc4"
            );
    }

    [Theory]
    [InlineData("cells > fuse", "line 1", "colon")]
    [InlineData("power: cells > fuse\n\nsteam: a > b", "line 3", "steam")]
    [InlineData("power: cells", "line 1", "“>”")]
    [InlineData("power: cells > > fuse", "line 1", "“>”")]
    [InlineData("0: a > b", "line 1", "does not flow")]
    public void What_cannot_be_read_is_named_with_its_line(string text, string place, string named)
    {
        FeedText.Read(text, out var problems);
        var problem = problems.ShouldHaveSingleItem();
        problem.Place.ShouldContain(place);
        problem.Message.ShouldContain(named);
    }

    [Fact]
    public void Any_text_is_read_without_throwing() =>
        Gen.String[Gen.Char["abc:> \n<power"], 0, 60].Sample(text => FeedText.Read(text, out _) is not null, iter: 500);

    [Theory]
    [InlineData("not json", "not JSON")]
    [InlineData(
        """{"format":"mendro.profile/1","id":"x y","name":"X","maker":"","kind":"handheld","parts":[{"id":"a","""
            + """ "name":"A","kind":"fuse"}],"functions":[{"id":"f","name":"F","kind":"picture","needs":["a"]}]}""",
        "lower case"
    )]
    [InlineData(
        """{"format":"mendro.profile/1","id":"x","name":"X","maker":"","kind":"toaster","parts":[{"id":"a","name":"A","""
            + """ "kind":"fuse"}],"functions":[{"id":"f","name":"F","kind":"picture","needs":["a"]}]}""",
        "one of: handheld"
    )]
    [InlineData(
        """{"format":"mendro.profile/1","id":"x","name":"X","maker":"","kind":"handheld","functions":[{"id":"f","name":"F","kind":"picture","needs":["a"]}]}""",
        "“parts” is missing"
    )]
    [InlineData(
        """{"format":"mendro.profile/1","id":"x","name":"X","maker":"","kind":"handheld","parts":[{"id":"a","name":"A","""
            + """ "kind":"fuse","colour":"red"}],"functions":[{"id":"f","name":"F","kind":"picture","needs":["a"]}]}""",
        "no “colour”"
    )]
    [InlineData(
        """{"format":"mendro.profile/1","id":"x","name":"X","maker":"","kind":"handheld","parts":[{"id":"a","name":"A","""
            + """ "kind":"flux-gate"}],"functions":[{"id":"f","name":"F","kind":"picture","needs":["b"]}]}""",
        "no part kind “flux-gate”"
    )]
    public void A_bad_file_is_refused_with_the_place(string json, string named)
    {
        var profile = ProfileSchema.Import(json, TradeLibrary.Shipped, out var problems);
        problems.ShouldNotBeEmpty();
        problems.ShouldContain(
            p => p.Message.Contains(named, StringComparison.Ordinal),
            string.Join("; ", problems.Select(p => $"{p.Place}: {p.Message}"))
        );
        problems.ShouldAllBe(p => p.Place.Length > 0);
        if (profile is not null)
            problems.ShouldContain(p => p.Place.StartsWith("functions[0]", StringComparison.Ordinal));
    }

    [Theory]
    [MemberData(nameof(Profiles))]
    public void Every_shipped_profile_can_be_imported(string id)
    {
        ProfileSchema.Import(TradeLibrary.ReadText($"Profiles/{id}.json"), TradeLibrary.Shipped, out var problems)!.Id.ShouldBe(id);
        problems.ShouldBeEmpty();
    }

    [Fact]
    public void At_least_ten_models_of_the_demo_world_ship() =>
        TradeLibrary.Shipped.Profiles.Count(p => !p.Generic).ShouldBeGreaterThanOrEqualTo(10);
}
