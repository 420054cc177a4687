using CsCheck;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Tests.Planning;

/// <summary>One line teaches a model; two histories of a model are merged; anything taught can be taken back.</summary>
public class TeachingTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    private static readonly DeviceProfile Quartet = Shipped.Profile("harrow-quartet");

    private static DeviceProfile Taught(DeviceProfile profile, string line)
    {
        var read = Teaching.Read(profile, Library, line);
        read.IsOk.ShouldBeTrue(read.Problem);
        return read.Value.Profile.ShouldNotBeNull();
    }

    [Fact]
    public void A_part_taught_lies_in_the_line_behind_its_feeder()
    {
        var made = Taught(Quartet, "part Choke behind power switch on main as trace");
        var choke = made.FindPart("choke")!;
        (choke.Kind, choke.Board, choke.Name).ShouldBe(("trace", "main", "Choke"));
        made.Feeds.ShouldContain(new Feed("switch", "choke", Carries.Power));
        made.Feeds.ShouldContain(new Feed("choke", "psu", Carries.Power));
        made.Feeds.ShouldNotContain(new Feed("switch", "psu", Carries.Power));
        // It is suspected with the others at once: what feeds the light fails it when it is open.
        new DeviceModel(made, Library)
            .Closure("power-light")
            .ShouldContain(new PartId("choke"));
    }

    [Fact]
    public void A_probe_taught_is_judged_by_its_range()
    {
        var made = Taught(Quartet, "probe Bias at psu 4,75 to 5.25 V");
        var probe = made.FindProbe("bias")!;
        (probe.At, probe.Toward, probe.Expect.Low, probe.Expect.High).ShouldBe((new PartId("psu"), new PartId("joint"), 4.75, 5.25));
        ReadingJudge.Judge(made, probe, "3.1 V").Value!.Outcome.ShouldBe(ProbeOutcome.Abnormal);
    }

    [Theory]
    [InlineData("limit tp3 6.1 to 6.4 V", "tp3", 6.1, 6.4)]
    [InlineData("limit fuse, far side 6.4-6.1", "tp3", 6.1, 6.4)]
    [InlineData("limit tp6 −5,2 – −4,8", "tp6", -5.2, -4.8)]
    public void A_limit_from_a_good_unit_becomes_the_probes(string line, string probe, double low, double high)
    {
        var expect = Taught(Quartet, line).FindProbe(probe)!.Expect;
        (expect.Low, expect.High, expect.Unit).ShouldBe((low, high, "V"));
    }

    [Fact]
    public void Looks_presses_feeds_and_revisions_are_taught_too()
    {
        Taught(Quartet, "look at fuse: whole").FindProbe("fuse-eye")!.Expect.Text.ShouldBe("whole");
        Taught(Quartet, "press F1").FindProbe("fuse-press")!.Spans!.Single().Value.ShouldBe("fuse");
        Taught(Quartet, "feed switch to light carries power").Feeds.ShouldContain(new Feed("switch", "light", Carries.Power));
        Taught(Quartet, "revision C: coil stands free").Revisions.ShouldContain(new Revision("C", "coil stands free"));
    }

    [Theory]
    [InlineData("")]
    [InlineData("part Coil")]
    [InlineData("part Coil behind nowhere")]
    [InlineData("part Coil behind switch as steam engine")]
    [InlineData("feed switch to")]
    [InlineData("feed cells to contacts")]
    [InlineData("feed switch to light carries steam")]
    [InlineData("probe X at switch")]
    [InlineData("probe X at nowhere 1 to 2 V")]
    [InlineData("limit tp99 1 to 2")]
    [InlineData("limit contacts-eye 1 to 2")]
    [InlineData("revision B: again")]
    public void What_cannot_be_taught_says_why_and_changes_nothing(string line) =>
        Teaching.Read(Quartet, Library, line).Problem.ShouldNotBeNullOrWhiteSpace();

    [Fact]
    public void Words_that_fit_nothing_are_a_suggestion()
    {
        var read = Teaching.Read(Quartet, Library, "the shield wants a new screw");
        (read.Value!.Profile, read.Value.Words).ShouldBe((null, "the shield wants a new screw"));
    }

    private static Gen<string> OneOf(params string[] words) => Gen.Int[0, words.Length - 1].Select(n => words[n]);

    private static readonly Gen<string> Line = Gen.OneOf(
        Gen.Select(
            OneOf("Coil", "Choke", "Bridge", "Pin row"),
            OneOf("switch", "fuse", "psu", "joint", "volume"),
            (n, p) => $"part {n} behind {p}"
        ),
        Gen.Select(OneOf("A", "B2", "Out"), OneOf("switch", "psu"), Gen.Int[1, 5], (n, p, v) => $"probe {n} at {p} {v} to {v + 1} V"),
        Gen.Select(OneOf("tp1", "tp3", "tp5"), Gen.Int[1, 5], (p, v) => $"limit {p} {v} to {v + 1} V"),
        Gen.Select(OneOf("C", "D"), OneOf("red", "blue"), (id, tell) => $"revision {id}: {tell} label"),
        Gen.Select(OneOf("fuse", "psu", "main"), p => $"look at {p}")
    );

    private static DeviceProfile After(DeviceProfile profile, IEnumerable<string> lines) =>
        lines.Aggregate(profile, (p, line) => Teaching.Read(p, Library, line).Value?.Profile ?? p);

    [Fact]
    public void Whatever_is_taught_in_whatever_order_the_model_stays_sound() =>
        Line.Array[0, 8].Sample(lines => ProfileValidator.Check(After(Quartet, lines), Library).Count == 0, iter: 200);

    [Fact]
    public void Merging_with_no_change_of_one_side_gives_the_other() =>
        Line.Array[0, 6]
            .Sample(
                lines =>
                {
                    var mine = After(Quartet, lines);
                    return Json(ProfileMerge.ThreeWay(Quartet, mine, Quartet).Profile) == Json(mine)
                        && Sorted(ProfileMerge.ThreeWay(Quartet, Quartet, mine).Profile) == Sorted(mine);
                },
                iter: 100
            );

    [Fact]
    public void What_two_taught_is_there_from_both_whoever_came_first() =>
        Gen.Select(Line, Line)
            .Sample(
                (a, b) =>
                {
                    var (mine, theirs) = (After(Quartet, [a]), After(Quartet, [b]));
                    var (one, other) = (ProfileMerge.ThreeWay(Quartet, mine, theirs), ProfileMerge.ThreeWay(Quartet, theirs, mine));
                    // Where both changed the same thing otherwise each keeps his own; elsewhere the order does not matter.
                    return one.Contested.Count > 0 || Sorted(one.Profile) == Sorted(other.Profile);
                },
                iter: 300
            );

    [Fact]
    public void Taken_back_it_is_as_if_it_had_not_been_taught() =>
        Line.Sample(
            line =>
            {
                var made = After(Quartet, [line]);
                return Sorted(ProfileMerge.ThreeWay(made, made, Quartet).Profile) == Sorted(Quartet);
            },
            iter: 100
        );

    [Fact]
    public void Differences_name_the_item_and_both_sides()
    {
        var theirs = Taught(Taught(Quartet, "limit tp3 6.1 to 6.4 V"), "revision C: coil stands free");
        var found = ProfileMerge.Between(Quartet, theirs);
        found.Select(d => d.Place).ShouldBe(["revision C", "probe tp3"]);
        found[0].Mine.ShouldBeNull();
        found[1].Theirs!.ShouldContain("6.4");
        ProfileMerge.Between(Quartet, Quartet).ShouldBeEmpty();
    }

    private static string Json(DeviceProfile profile) => ProfileJson.Write(profile);

    private static string Sorted(DeviceProfile p) =>
        Json(
            p with
            {
                Parts = p.Parts.OrderBy(x => x.Id.Value, StringComparer.Ordinal).ToList(),
                Feeds = p.Feeds.OrderBy(f => f.ToString(), StringComparer.Ordinal).ToList(),
                Probes = p.Probes.OrderBy(x => x.Id.Value, StringComparer.Ordinal).ToList(),
                Revisions = p.Revisions.OrderBy(x => x.Id, StringComparer.Ordinal).ToList(),
            }
        );
}
