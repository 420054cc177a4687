using CsCheck;
using Mendro.Core.Dismantling;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Dismantling;

/// <summary>Screws and steps as text, and how a unit lies on the bench after its records.</summary>
public class TeardownTextTests
{
    private static readonly Gen<string> Word = Gen.String[Gen.Char['a', 'z'], 1, 8];

    private static readonly string[] Heads = ["cross", "tri-wing", "clip"];

    private static readonly Gen<Fastener> AnyFastener =
        from id in Word
        from head in Gen.Int[0, 2]
        from size in Word.Null()
        from mm in Gen.Int[0, 200]
        from x in Gen.Int[-100, 400]
        from face in Word.Null()
        from under in Word.Null()
        from tray in Word.Null()
        // Now and then without a length or a place.
        select new Fastener(
            id,
            Heads[head],
            size,
            mm == 0 ? null : mm,
            x < 0 ? null : x / 4.0,
            x < 0 ? null : 100 - x / 4.0,
            face,
            under,
            tray
        );

    [Fact]
    public void Fasteners_written_and_read_are_the_same() =>
        AnyFastener
            .Array[0, 6]
            .Sample(fasteners =>
            {
                TeardownText.ReadFasteners(TeardownText.Write(fasteners), out var problems).ShouldBe(fasteners);
                problems.ShouldBeEmpty();
            });

    [Theory]
    [MemberData(nameof(Models))]
    public void Steps_of_every_model_written_and_read_are_the_same_and_reach_what_they_free(string id)
    {
        var profile = TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes).Single(p => p.Id == id);
        var steps = profile.Steps.ShouldNotBeNull();
        var read = TeardownText.ReadSteps(TeardownText.Write(steps), out var problems);
        problems.ShouldBeEmpty();
        read.Select(s => ProfileJson.Write(profile with { Steps = [s] }))
            .ShouldBe(steps.Select(s => ProfileJson.Write(profile with { Steps = [s] })));
        TeardownText.ReadFasteners(TeardownText.Write(profile.Fasteners!), out _).Count.ShouldBe(profile.Fasteners!.Count);
        var graph = TeardownGraph.Of(profile.Steps, profile.Fasteners).Value.ShouldNotBeNull();
        foreach (var freed in steps.SelectMany(s => s.Frees ?? []))
            TeardownPlanner.Plan(graph, [freed], []).Value!.Steps.ShouldNotBeEmpty(freed);
        // As long as the three states of taking apart say, so that a move costs the same by either.
        foreach (var probe in profile.Probes.Where(p => p.State is AccessState.Open or AccessState.BoardOut))
            TeardownPlanner
                .Plan(graph, [probe.Id.Value], [])
                .Value!.Minutes.ShouldBe(profile.Preparation.Minutes(AccessState.Closed, probe.State), 0.15, probe.Id.Value);
    }

    /// <summary>Models with steps.</summary>
    public static TheoryData<string> Models() =>
        [.. TradeLibrary.Shipped.Profiles.Where(p => !p.Generic).Concat(TradeLibrary.Shipped.Archetypes).Select(p => p.Id)];

    [Theory]
    [InlineData("s1: cross 00, 8 inches", "fasteners, line 1")]
    [InlineData("S1 cross", "fasteners, line 1")]
    public void A_screw_that_cannot_be_read_says_where(string text, string place)
    {
        TeardownText.ReadFasteners(text, out var problems);
        problems.Select(p => p.Place).ShouldContain(place);
    }

    [Fact]
    public void A_step_that_cannot_be_read_says_where()
    {
        TeardownText.ReadSteps("back: Back off; frees a\n\nboard: Board; with force; 3 min", out var problems);
        problems.Single().Place.ShouldBe("steps, line 3");
        TeardownText.ReadSteps("back: Back off; 3 min", out _).Single().BackMinutes.ShouldBe(3);
    }

    /// <summary>Whatever is done and put back in whatever order, as many screws go in as came out.</summary>
    [Fact]
    public void Screws_out_are_screws_in() =>
        Gen
            .Bool.Array[0, 30]
            .Sample(ways =>
            {
                var profile = Shipped.Profile("harrow-quartet");
                var graph = TeardownGraph.Of(profile.Steps, profile.Fasteners).Value!;
                var records = new List<RecordBody>();
                var (counted, taken, back) = (0, 0, 0);
                foreach (var on in ways)
                {
                    var apart = UnitApart.Of(profile, records);
                    var done = apart.Done.Select(s => s.Id).ToHashSet();
                    var next = on
                        ? profile.Steps!.FirstOrDefault(s => !done.Contains(s.Id) && (s.Needs ?? []).All(done.Contains))
                        : apart.Done.FirstOrDefault(apart.MayGoBack);
                    if (next is null)
                        continue;
                    var screws = profile.Fasteners!.Count(f => !f.NoScrew && next.Fasteners?.Contains(f.Id) == true);
                    (taken, back) = on ? (taken + screws, back) : (taken, back + screws);
                    records.Add(new StepTaken(next.Id, !on));
                    counted = UnitApart.Of(profile, records).Out.Count;
                    counted.ShouldBe(taken - back);
                    UnitApart.Of(profile, records).Tray.Sum(t => t.Screws.Count).ShouldBe(counted);
                }

                // Closed outright, nothing is out.
                UnitApart.Of(profile, [.. records, new AccessNoted(AccessState.Closed)]).Out.ShouldBeEmpty();
                graph.Steps.Count.ShouldBe(profile.Steps!.Count);
            });

    [Fact]
    public void Steps_tell_how_far_a_unit_is_apart()
    {
        var model = Shipped.Model("harrow-quartet");
        AccessState After(params RecordBody[] bodies) => bodies.Aggregate(AccessState.Closed, (state, body) => body.After(model, state));
        After(new StepTaken("bay", false)).ShouldBe(AccessState.Closed);
        After(new StepTaken("bay", false), new StepTaken("back", false)).ShouldBe(AccessState.Open);
        After(new StepTaken("bay", false), new StepTaken("back", false), new StepTaken("board", false)).ShouldBe(AccessState.BoardOut);
        After(new StepTaken("board", false), new StepTaken("board", true)).ShouldBe(AccessState.Open);
        After(new StepTaken("back", false), new StepTaken("back", true)).ShouldBe(AccessState.Closed);
        After(new StepTaken("no such", false)).ShouldBe(AccessState.Closed);
    }

    [Fact]
    public void A_missing_screw_is_out_and_not_in_the_tray_and_the_test_comes_before_the_screws()
    {
        var profile = Shipped.Profile("harrow-quartet");
        var apart = UnitApart.Of(
            profile,
            [
                new StepTaken("bay", false),
                new StepTaken("back", false, [new OddFastener("s3", FastenerState.Missing)]),
                new StepTaken("board", false),
            ]
        );
        (apart.Out.Count, apart.InTray).ShouldBe((11, 10));
        apart.WayBack.Select(s => s.Id).ShouldBe(["board", "back", "bay"]);
        apart.TestAfter!.Id.ShouldBe("back");
        apart.Unplugged.ShouldNotBeEmpty();
        apart.MayGoBack(apart.Done[1]).ShouldBeFalse();
        apart.MayGoBack(apart.Done[2]).ShouldBeTrue();
        apart.Tray.Select(t => t.Place).ShouldContain("back long");
    }
}
