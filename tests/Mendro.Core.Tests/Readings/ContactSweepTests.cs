using CsCheck;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Tests.Readings;

/// <summary>Sweeping a connector contact by contact. What a break looks like: common practice, no source.</summary>
public class ContactSweepTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;
    private static readonly DeviceProfile Profile = Library.Profiles.Single(p => p.Id == "pellin-atrium-cartridge");
    private static readonly Connector Edge = Profile.Connectors!.Single();

    [Fact]
    public void Numbering_is_that_of_the_profile()
    {
        Edge.Rows[0].Contacts.Select(c => c.Number).ShouldBe(Enumerable.Range(0, 16).Select(n => 1 + 2 * n));
        Edge.Rows[1].Contacts.Select(c => c.Number).ShouldBe(Enumerable.Range(0, 16).Select(n => 2 + 2 * n));
        Edge.Contacts.Single(c => c.Number == 3).ShouldBe(new Contact(3, "front", 1, "address", "A0"));
        Edge.Contacts.Single(c => c.Number == 30).Line.ShouldBe("unused");
    }

    [Fact]
    public void Nothing_is_proved_until_every_used_contact_was_tried()
    {
        var used = Edge.Contacts.Where(c => c.Group != "unused").ToList();
        Judge(used.Skip(1).Select(c => Mark(c.Number, ContactState.Beep))).Outcome.ShouldBeNull();
        Judge(used.Select(c => Mark(c.Number, ContactState.Beep))).Outcome.ShouldBe(ProbeOutcome.Normal);
    }

    [Fact]
    public void One_silent_contact_tells_its_lines_and_what_that_looks_like()
    {
        var sweep = Judge([Mark(5, ContactState.Silent), Mark(3, ContactState.Beep)], "garbled-logo");
        sweep.Outcome.ShouldBe(ProbeOutcome.Abnormal);
        sweep.Words.ShouldBe("1 of 2 beep; silent 5");
        var hurt = sweep.Affected.ShouldHaveSingleItem();
        (hurt.Group.Id, hurt.Seen).ShouldBe(("address", "garbled-logo"));
        Judge([Mark(27, ContactState.Silent)], "garbled-logo").Affected.Single().Seen.ShouldBeNull();
        Judge([Mark(27, ContactState.Silent)], "black-box").Affected.Single().Seen.ShouldBe("black-box");
    }

    [Fact]
    public void Neighbours_that_are_joined_hurt_both_lines_and_supply_to_anything_is_a_short()
    {
        var sweep = Judge([Mark(1, ContactState.Short)]);
        sweep.Shorts.Single().B.Number.ShouldBe(3);
        sweep.Affected.Select(a => a.Group.Id).ShouldBe(["address", "supply"], ignoreOrder: true);
        sweep.Stop.ShouldBe("short");
        Judge([Mark(3, ContactState.Short)]).Stop.ShouldBeNull();
        // The last of a row has no next neighbour.
        Judge([Mark(31, ContactState.Short)]).Shorts.ShouldBeEmpty();
    }

    [Fact]
    public void A_contact_that_is_not_used_may_be_silent() => Judge([Mark(30, ContactState.Silent)]).Affected.ShouldBeEmpty();

    [Theory]
    [InlineData(0.3, ContactState.Beep)]
    [InlineData(2.0, ContactState.Beep)]
    [InlineData(7.0, ContactState.Silent)]
    [InlineData(null, ContactState.Silent)]
    public void Ohms_decide_as_on_any_contact(double? ohms, ContactState state) => ContactSweep.StateOf(ohms).ShouldBe(state);

    [Fact]
    public void Counts_add_up_whatever_was_marked() =>
        Gen.Select(Gen.Int[1, 34], Gen.Int[0, 2])
            .Array[0, 60]
            .Sample(
                marks =>
                {
                    var sweep = Judge(marks.Select(m => Mark(m.Item1, (ContactState)m.Item2)));
                    var last = marks.Where(m => m.Item1 <= 32).GroupBy(m => m.Item1).Select(g => g.Last()).ToList();
                    sweep.Tried.ShouldBe(last.Count);
                    sweep.Silent.Count.ShouldBe(last.Count(m => m.Item2 == 1 && m.Item1 != 30));
                    (sweep.Outcome == ProbeOutcome.Abnormal).ShouldBe(sweep.Silent.Count + sweep.Shorts.Count > 0);
                    sweep.Affected.SelectMany(a => a.Contacts).Select(c => c.Number).ShouldBeUnique();
                },
                iter: 1000
            );

    [Fact]
    public void A_profile_with_a_bad_connector_is_refused_by_place()
    {
        var bad = Profile with
        {
            Connectors =
            [
                Edge with
                {
                    Part = "nowhere",
                    Probe = "edge-eye",
                    Rows = [new ContactRow("front", 1, 0, ["address A0", "magic"])],
                },
            ],
        };
        var problems = ProfileValidator.Check(bad, Library);
        problems.Select(p => p.Place).ShouldBe(["connectors[0].part", "connectors[0].probe", "connectors[0].rows", "connectors[0].rows"]);
        problems.ShouldContain(p => p.Message.Contains("2 contacts number 1", StringComparison.Ordinal));
        problems.ShouldContain(p => p.Message.Contains("“magic”", StringComparison.Ordinal));
    }

    [Fact]
    public void Every_look_of_every_group_is_a_look_of_the_library()
    {
        var looks = Library.FunctionKinds.SelectMany(k => k.Looks).Select(l => l.Id).ToHashSet();
        Library.ContactGroups.SelectMany(g => g.Looks).Where(l => !looks.Contains(l)).ShouldBeEmpty();
        Library.ContactGroups.ShouldAllBe(g => g.Source.Length > 0 && g.Broken.Length > 0);
    }

    [Fact]
    public void What_beeps_only_when_pressed_hard_is_a_finding_and_no_silence()
    {
        ContactSweep.Read(3, "only when pressed", "A contact").Value.ShouldBe(new ContactMark(3, ContactState.Pressed, null));
        var used = Edge.Contacts.Where(c => c.Group != "unused").ToList();
        var sweep = Judge(used.Select((c, n) => Mark(c.Number, n == 0 ? ContactState.Pressed : ContactState.Beep)));
        sweep.Outcome.ShouldBe(ProbeOutcome.Abnormal);
        sweep.Silent.ShouldBeEmpty();
        sweep.Pressed.ShouldBe([used[0]]);
        sweep.Affected.Single().Contacts.ShouldBe([used[0]]);
        sweep.Words.ShouldContain($"only when pressed {used[0].Number}");
    }

    private static ContactMark Mark(int number, ContactState state) => new(number, state, null);

    private static ContactSweep Judge(IEnumerable<ContactMark> marks, params string[] looks) =>
        ContactSweep.Judge(Edge, marks.ToList(), Library.ContactGroups, looks.ToHashSet());
}
