using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.StandIns;

namespace Mendro.Core.Tests.Planning;

/// <summary>The check of a model: what nothing tells apart, what nothing leads to, what one more check would tell and save.</summary>
public class ModelCheckTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    /// <summary>Source, two joints in a row, lamp: nothing between the joints is measured.</summary>
    private static DeviceProfile InARow(params Probe[] probes) =>
        Shipped.Profile("harrow-quartet") with
        {
            Boards = null,
            Id = "in-a-row",
            Parts =
            [
                new Part("cells", "Cells", "cells", "case"),
                new Part("first", "First joint", "joint", "main"),
                new Part("second", "Second joint", "joint", "main"),
                new Part("lamp", "Lamp", "light", "main"),
            ],
            Feeds =
            [
                new Feed("cells", "first", Carries.Power),
                new Feed("first", "second", Carries.Power),
                new Feed("second", "lamp", Carries.Power),
            ],
            Functions = [new DeviceFunction("light", "Light", "power-light", ["lamp"])],
            Probes = probes,
            Connectors = null,
            Steps = null,
            Fasteners = null,
            Checks = null,
            Revisions = [],
        };

    private static DeviceProfile Taught(DeviceProfile profile, string line)
    {
        var read = Teaching.Read(profile, Library, line);
        read.IsOk.ShouldBeTrue($"{line}: {read.Problem}");
        return read.Value!.Profile.ShouldNotBeNull(line);
    }

    private static ModelReport Check(DeviceProfile profile) => ModelCheck.Of(new DeviceModel(profile, Library));

    [Fact]
    public void Two_joints_in_a_row_are_not_told_apart_until_something_between_them_is_measured()
    {
        var report = Check(InARow());
        var joints = report.Alike.Single(g => g.Faults.Any(f => f.Id == "first.cracked"));
        joints.Faults.Select(f => f.Id).ShouldContain("second.cracked");
        // The chance that either is there: 1 − (1 − p)².
        joints.Share.ShouldBe(1 - joints.Faults.Aggregate(1.0, (none, f) => none * (1 - f.Prior)), 1e-12);
        joints.Telling.ShouldNotBeEmpty();
        // Each of the checks that Mendro offers for it, taught, parts them.
        foreach (var idea in joints.Telling)
        {
            var taught = Taught(InARow(), idea.Line);
            Check(taught)
                .Alike.ShouldNotContain(
                    g => g.Faults.Any(f => f.Id == "first.cracked") && g.Faults.Any(f => f.Id == "second.cracked"),
                    idea.Line
                );
        }
    }

    [Fact]
    public void A_function_with_nothing_on_its_own_way_to_look_at_is_told()
    {
        var bare = Check(InARow()).Unled.Single();
        bare.Function.Id.ShouldBe(new FunctionId("light"));
        bare.Own.Select(p => p.Id.Value).ShouldBe(["cells", "first", "second", "lamp"], ignoreOrder: true);
        bare.Telling.ShouldAllBe(i => bare.Own.Any(p => p.Id == i.Part.Id));
        // A look at the lamp leads there.
        Check(Taught(InARow(), "look at lamp")).Unled.ShouldBeEmpty();
    }

    [Theory]
    [MemberData(nameof(Models))]
    public void Every_check_that_is_offered_can_be_taught_as_its_line_says(string id)
    {
        var profile = TradeLibrary.Shipped.ForAnyShop.Single(p => p.Id == id);
        foreach (var idea in Check(profile).Ideas)
        {
            var taught = Taught(profile, idea.Line);
            taught.Probes.Count.ShouldBe(profile.Probes.Count + 1);
            taught
                .Probes[^1]
                .ShouldSatisfyAllConditions(p => p.Kind.ShouldBe(idea.Probe.Kind), p => p.NamedParts().ShouldContain(idea.Part.Id));
            idea.Bits.ShouldBeGreaterThan(0);
        }
    }

    /// <summary>Builds and generic models.</summary>
    public static TheoryData<string> Models() => [.. TradeLibrary.Shipped.ForAnyShop.Select(p => p.Id)];

    [Fact]
    public void What_a_check_saves_is_the_mean_over_the_pairs_with_its_standard_error()
    {
        // By hand: saved 4, 0, 8, 0: mean 3, variance (1 + 9 + 25 + 9) / 3, error √(14.667 / 4).
        var gain = ProbeGain.Of([10, 20, 30, 40], [6, 20, 22, 40]);
        gain.MinutesSaved.ShouldBe(3);
        gain.StandardError.ShouldBe(Math.Sqrt(44.0 / 3 / 4), 1e-12);
        gain.IsSure.ShouldBeFalse();
        ProbeGain.Of([10, 20], [5, 15]).IsSure.ShouldBeTrue();
    }

    [Fact]
    public void The_same_units_are_worked_on_with_and_without_a_check()
    {
        var bare = new DeviceModel(InARow(), Library);
        var taught = Taught(InARow(), "probe Between at first 5 to 6.6 V");
        var steps = 0;
        var without = ProbeGain.Work(bare, 12, 3, () => Interlocked.Increment(ref steps), TestContext.Current.CancellationToken);
        var again = ProbeGain.Work(bare, 12, 3, () => { }, TestContext.Current.CancellationToken);
        again.ShouldBe(without);
        steps.ShouldBe(12);
        var with = ProbeGain.Work(new DeviceModel(taught, Library), 12, 3, () => { }, TestContext.Current.CancellationToken);
        ProbeGain.Of(without, with).Units.ShouldBe(12);
        using var stopped = new CancellationTokenSource();
        stopped.Cancel();
        Should.Throw<OperationCanceledException>(() => ProbeGain.Work(bare, 2, 3, () => { }, stopped.Token));
    }

    [Fact]
    public void Three_good_units_that_agree_offer_limits_and_limits_that_good_units_break_are_flagged()
    {
        var profile = Shipped.Profile("harrow-quartet");
        var probe = profile.FindProbe("tp5")!;
        var (low, high) = (probe.Expect.Low!.Value, probe.Expect.High!.Value);
        GoodReading Good(string unit, double? value) => new(profile.Id, "", probe.Id.Value, "V", value, unit);
        var mid = (low + high) / 2;
        // Two are no rule.
        LimitOffers.For(profile, [Good("a", high * 1.1), Good("b", high * 1.1)]).Single().Agree.ShouldBeFalse();
        var broken = LimitOffers.For(profile, [Good("a", high * 1.1), Good("b", high * 1.1), Good("c", high * 1.1)]).Single();
        broken.Agree.ShouldBeTrue();
        broken.Breaking.Select(b => b.Unit).ShouldBe(["a", "b", "c"]);
        // Median ± 3 spreads, a spread being 2 % of it at least; told in three digits.
        broken.Low.ShouldBe(high * 1.1 * 0.94, high * 0.01);
        broken.High.ShouldBe(high * 1.1 * 1.06, high * 0.01);
        // What agrees with the limits and needs no less room than half of it offers nothing.
        if (0.12 * mid >= 0.5 * (high - low))
            LimitOffers.For(profile, [Good("a", mid), Good("b", mid), Good("c", mid)]).ShouldBeEmpty();
        // Units that do not agree offer nothing either, but those outside are told.
        var apart = LimitOffers.For(profile, [Good("a", mid), Good("b", mid), Good("c", high * 1.3)]).Single();
        apart.Agree.ShouldBeFalse();
        apart.Breaking.Select(b => b.Unit).ShouldBe(["c"]);
    }

    [Fact]
    public void A_connector_and_a_beep_are_taught_in_one_line()
    {
        var profile = Shipped.Profile("harrow-quartet");
        var taught = Taught(profile, "connector Phones plug at speaker: row 1 +1: ground, audio left, audio right");
        var connector = taught.Connectors![^1];
        (connector.Id, connector.Part.Value).ShouldBe(("phones-plug", "speaker"));
        connector.Contacts.Select(c => c.Number).ShouldBe([1, 2, 3]);
        var beep = Taught(profile, "beep speaker").Probes[^1];
        (beep.Kind, beep.Expect.Unit, beep.Expect.Low).ShouldBe((ProbeKind.Continuity, "beep", 1));
        Teaching.Read(profile, Library, "connector Phones plug at speaker: nonsense").IsOk.ShouldBeFalse();
        Teaching.Read(profile, Library, "connector at speaker").Problem!.ShouldContain("rows");
    }

    [Theory]
    [InlineData("\"Duet\"", "\"Quartet\"", "Duet", "Quartet")]
    [InlineData("{\"open\":4,\"boardOut\":3}", "{\"open\":5,\"boardOut\":3}", "open 4", "open 5")]
    [InlineData("{\"kind\":\"fuse\",\"comesOff\":true}", "{\"kind\":\"fuse\"}", "comes off yes", "no comes off")]
    [InlineData("{\"rails\":[{\"volts\":5}]}", "{\"rails\":[{\"volts\":3.3}]}", "rails 1 volts 5", "rails 1 volts 3.3")]
    [InlineData(null, "{\"id\":\"coil\",\"needs\":[\"a\",\"b\"]}", null, "id coil; needs a, b")]
    public void A_difference_is_told_by_what_differs(string? mine, string? theirs, string? first, string? second) =>
        DifferenceText.Of(new ProfileDifference("x", mine, theirs)).ShouldBe((first, second));
}
