using Mendro.Core.Boards;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.Shop.Tests;

/// <summary>Breaks found by beeps and bridged by wires, from the first test to the last screw.</summary>
public sealed class TraceDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private TraceSheet Sheet(long number) => _shop.Traces.Open(_shop.View(number))!;

    private TraceNet Net(long number, string id) => Sheet(number).Find(id)!;

    private JumperSheet Plan(long number) => _shop.Jumpers.Plan(Sheet(number));

    private void Beep(long number, string a, string b, bool beeps) => _shop.Traces.Beep(number, a, b, beeps).Done.ShouldNotBeNull();

    private Deed<Done> Lay(long number, PlannedWire wire) => _shop.Jumpers.Lay(number, wire.Wire.From.Id, wire.Wire.To.Id);

    private long Corroded()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "start-up");
        foreach (var via in (string[])["V62", "V63"])
            _shop.Traces.Mark(number, "main", via, "corroded").Done.ShouldNotBeNull();
        return number;
    }

    private static string[] Ends(PlannedWire wire) => new[] { wire.Wire.From.Id, wire.Wire.To.Id }.Order(StringComparer.Ordinal).ToArray();

    [Fact]
    public void A_silent_line_told_by_its_ends_gets_its_wire_and_its_proof_on_any_model()
    {
        // A model of which nobody told how its boards are joined.
        var number = _shop.TakeIn("tarn-halyard", fails: "start-up");
        _shop.Traces.Open(_shop.View(number)).ShouldBeNull();
        _shop.Traces.ByEnds(number, "via near R3", "test point 4", 30, false).Done.ShouldNotBeNull().Words.ShouldBe("by-ends/line1");
        Net(number, "by-ends/line1").State.ShouldBe(NetState.Broken);
        var wire = Plan(number).Wires.Single();
        wire.CutMm.ShouldBeInRange(30, 60);
        Lay(number, wire).Done.ShouldNotBeNull();
        Net(number, "by-ends/line1").State.ShouldBe(NetState.Bridged);
        var proof = Net(number, "by-ends/line1").Next.ShouldNotBeNull();
        Beep(number, proof.A, proof.B, true);
        Net(number, "by-ends/line1").Next.ShouldBeNull();
        // One that beeps is sound, and nothing is planned for it.
        _shop.Traces.ByEnds(number, "R9", "U1 leg 3", 12, true).Done.ShouldNotBeNull();
        Plan(number).Wires.ShouldBeEmpty();
        _shop.Traces.ByEnds(number, "R9", "R9", 12, true).Refusal.ShouldNotBeNull();
        // Told once more, the first is still itself, and not the one told last.
        _shop.Traces.ByEnds(number, "test point 4", "via near R3", 30, true).Done.ShouldNotBeNull().Words.ShouldBe("by-ends/line1");
        _shop.View(number).All<LineBeeped>().Last().Body.Line.ShouldBe("via near R3 – test point 4");
    }

    [Fact]
    public void A_silent_line_is_told_to_find_and_enclosed_further_once_the_slot_is_off()
    {
        var number = Corroded();
        Beep(number, "main/U1-6", "main/U2-6", false);
        _shop.View(number).All<CauseSeen>().Single().Body.ShouldBe(new CauseSeen("memline", "eaten", true));
        while (Net(number, "main/A5").Next is { } test)
            Beep(number, test.A, test.B, !(test.A.EndsWith("V61", StringComparison.Ordinal) && test.B.EndsWith("V64", StringComparison.Ordinal)));
        // The three stretches between the vias outside cannot be told apart with the slot on.
        Net(number, "main/A5").Search.Broken.Count.ShouldBe(3);
        _shop.Traces.TakeOff(number, "P1").Done.ShouldNotBeNull();
        Net(number, "main/A5").State.ShouldBe(NetState.Open);
        while (Net(number, "main/A5").Next is { } test)
        {
            var passes = Net(number, "main/A5").Search.Way(test.A, test.B).Any(s => s is { A: "main/V62", B: "main/V63" });
            Beep(number, test.A, test.B, !passes);
        }

        Net(number, "main/A5").Search.Broken.Single().ShouldSatisfyAllConditions(s => s.A.ShouldBe("main/V62"), s => s.B.ShouldBe("main/V63"));
        // Told once, not after every test.
        _shop.View(number).All<CauseSeen>().Count().ShouldBe(1);
    }

    [Fact]
    public void The_schools_differ_bypass_from_leg_to_leg_patch_between_the_nearest_sound_points()
    {
        var number = Corroded();
        Beep(number, "main/U1-6", "main/U2-6", false);
        Beep(number, "main/V61", "main/V64", false);
        Ends(Plan(number).Wires.Single()).ShouldBe(["main/U1-6", "main/U2-6"]);
        _shop.Traces.Decide(number, p => p with { School = JumperSchool.Patch }).Done.ShouldNotBeNull();
        Ends(Plan(number).Wires.Single()).ShouldBe(["main/V61", "main/V64"]);
        Plan(number).Schools.Select(s => (s.School, s.Wires)).ShouldBe([(JumperSchool.Bypass, 1), (JumperSchool.Patch, 1)]);
        Plan(number).Schools[1].TotalMm.ShouldBeLessThan(Plan(number).Schools[0].TotalMm);
        var wire = Plan(number).Wires.Single();
        // Length × slack and 2 mm stripped at both ends.
        wire.CutMm.ShouldBe(wire.Wire.LengthMm * 1.1 + 4, 1e-9);
    }

    [Fact]
    public void A_wire_that_fell_off_is_planned_anew_and_the_line_is_whole_only_after_its_test()
    {
        var number = Corroded();
        Beep(number, "main/U1-6", "main/U2-6", false);
        var wire = Plan(number).Wires.Single();
        Lay(number, wire).Done.ShouldNotBeNull();
        Plan(number).Wires.ShouldBeEmpty();
        Net(number, "main/A5").ShouldSatisfyAllConditions(n => n.State.ShouldBe(NetState.Bridged), n => n.Proof.ShouldHaveSingleItem());
        _shop.View(number).All<RepairLogged>().Single().Body.ShouldSatisfyAllConditions(
            r => r.Part.ShouldBe((PartId)"memline"),
            r => r.Method.ShouldBe((MethodId)"jumper")
        );
        _shop.Jumpers.Check(number, wire.Wire.From.Id, wire.Wire.To.Id, holds: false).Done!.Words.ShouldContain("back in the plan");
        Net(number, "main/A5").IsBroken.ShouldBeTrue();
        Lay(number, Plan(number).Wires.Single()).Done.ShouldNotBeNull();
        var test = Net(number, "main/A5").Next!;
        Beep(number, test.A, test.B, true);
        Net(number, "main/A5").Proof.ShouldBeEmpty();
        // What beeps over a wire says nothing of the copper: the break is still where it was.
        Net(number, "main/A5").Search.State.ShouldBe(NetState.Open);
    }

    [Fact]
    public void Wires_under_the_slot_come_first_and_it_goes_back_only_after_their_test()
    {
        var number = Corroded();
        _shop.Traces.Decide(number, p => p with { School = JumperSchool.Patch }).Done.ShouldNotBeNull();
        _shop.Traces.TakeOff(number, "P1").Done.ShouldNotBeNull();
        foreach (var via in (string[])["V62", "V63"])
            _shop.Traces.Mark(number, "main", via, "sound").Done.ShouldNotBeNull();
        // One break under the slot, one beside it.
        Beep(number, "main/V62", "main/V63", false);
        Beep(number, "main/U1-6", "main/V62", true);
        Beep(number, "main/V63", "main/U2-6", true);
        Beep(number, "main/U1-1", "main/U2-1", false);
        Plan(number).Wires.ShouldHaveSingleItem("the second is not enclosed yet, and a gap has to be known to be patched");
        Beep(number, "main/V11", "main/V12", false);
        var plan = Plan(number);
        plan.Wires.Select(w => w.Under).ShouldBe(["P1", null]);
        plan.Wires[0].ShouldSatisfyAllConditions(
            w => w.RoomMm.ShouldBe(0.6),
            w => w.Limit.ShouldBe("cartridge slot"),
            w => w.Sort.Id.ShouldBe("wrap-30"),
            w => w.TooThickMm.ShouldBeNull()
        );
        _shop.Jumpers.PutBack(number, "P1").Refusal!.Problem.ShouldContain("not in yet");
        Lay(number, plan.Wires[0]).Done.ShouldNotBeNull();
        _shop.Jumpers.PutBack(number, "P1").Refusal!.Problem.ShouldContain("Test Address 5, processor to memory before P1");
        var test = Net(number, "main/A5").Next!;
        Beep(number, test.A, test.B, true);
        _shop.Jumpers.PutBack(number, "P1").Done.ShouldNotBeNull();
        Sheet(number).Plan.Off.ShouldBeEmpty();
    }

    [Fact]
    public void A_wire_too_thick_for_the_case_is_told_with_its_millimetres_before_it_is_cut()
    {
        var number = Corroded();
        _shop.Traces.Decide(number, p => p with { School = JumperSchool.Patch, Wire = "hook-26" }).Done.ShouldNotBeNull();
        _shop.Traces.TakeOff(number, "P1").Done.ShouldNotBeNull();
        foreach (var via in (string[])["V62", "V63"])
            _shop.Traces.Mark(number, "main", via, "sound").Done.ShouldNotBeNull();
        Beep(number, "main/V62", "main/V63", false);
        Beep(number, "main/U1-6", "main/V62", true);
        Beep(number, "main/V63", "main/U2-6", true);
        // 1.1 mm of wire, 0.6 mm under the slot.
        Plan(number).Wires.Single().TooThickMm.ShouldNotBeNull().ShouldBe(0.5, 1e-9);
    }

    [Fact]
    public void A_joint_beside_one_that_is_soldered_is_beeped_again_before_the_next()
    {
        var number = Corroded();
        foreach (var line in (string[])["1", "2"])
            Beep(number, $"main/U1-{line}", $"main/U2-{line}", false);
        var first = Plan(number).Wires[0];
        Lay(number, first).Done.ShouldNotBeNull();
        var second = Plan(number).Wires.Single();
        // Legs lie 1.8 mm apart, joints warm within 6 mm.
        second.Warms.Single().From.ShouldBe(first.Wire.From.Id);
        Lay(number, second).Done.ShouldNotBeNull();
        Sheet(number).ToBeep.Select(w => w.From).ShouldBe([first.Wire.From.Id]);
        Beep(number, "main/U1-3", "main/U2-3", false);
        Lay(number, Plan(number).Wires.Single()).Refusal!.Problem.ShouldContain("again first");
        _shop.Jumpers.Check(number, first.Wire.From.Id, first.Wire.To.Id, holds: true).Done.ShouldNotBeNull();
        Lay(number, Plan(number).Wires.Single()).Done.ShouldNotBeNull();
    }

    [Fact]
    public void A_lost_pad_is_followed_to_the_next_part_on_its_own_board()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "phones");
        _shop.Traces.Mark(number, "phones", "J4-2", "lost").Done.ShouldNotBeNull();
        var sheet = Sheet(number);
        var net = sheet.NetOf("phones/J4-2")!;
        net.State.ShouldBe(NetState.Broken);
        var wire = Plan(number).Wires.Single();
        Ends(wire).ShouldBe(["phones/C22-1", "phones/J4-2"]);
        wire.Wire.Layer.ShouldSatisfyAllConditions(l => l.Board.ShouldBe("phones"), l => l.Side.ShouldBe("bottom"));
    }

    [Fact]
    public void Lines_with_a_check_of_their_own_fill_it_in()
    {
        var number = _shop.TakeIn("dovrel-bastion", fails: "power-button");
        Beep(number, "main/CN5-1", "main/U2-11", false);
        Beep(number, "main/CN5-3", "main/U2-13", true);
        var readings = _shop.View(number).LastReadings;
        readings["line1-beep"].Body.Outcome.ShouldBe(ProbeOutcome.Abnormal);
        readings["line3-beep"].Body.Outcome.ShouldBe(ProbeOutcome.Normal);
        readings.Keys.ShouldNotContain((ProbeId)"line2-beep");
        var run = Sheet(number).Runs.Single(r => r.Id == "main/CN5~main/U2");
        run.Lines.Select(l => l.A).Take(4).ShouldBe(["main/CN5-1", "main/CN5-2", "main/CN5-3", "main/CN5-4"]);
    }

    [Fact]
    public void Two_lines_that_are_joined_and_should_not_be_are_noted_as_a_finding()
    {
        var number = _shop.TakeIn("dovrel-bastion", fails: "power-button");
        Beep(number, "main/CN5-1", "main/CN5-2", true);
        _shop.View(number).All<LineBeeped>().Single().ShouldSatisfyAllConditions(
            r => r.Body.IsShort.ShouldBeTrue(),
            r => r.Body.Sign.ShouldBe(RecordSign.Bad),
            r => r.Record.Words.ShouldContain("should not be")
        );
        Sheet(number).Nets.ShouldAllBe(n => n.State == NetState.Untested);
    }

    [Fact]
    public void Every_line_over_a_crack_is_in_one_list_and_one_plan()
    {
        var number = _shop.TakeIn("pellin-atrium-cartridge", fails: "cartridge");
        _shop.Traces.Crack(number, "cart", [[0, 1]]).Refusal!.Problem.ShouldContain("2 to");
        _shop.Traces.Crack(number, "cart", [[25, 0], [31, 6], [44, 7], [52, 12]]).Done.ShouldNotBeNull();
        var run = Sheet(number).Runs[0];
        run.Lines.Select(l => l.Net.Name).ShouldBe(Enumerable.Range(7, 6).Select(n => $"Edge {n} to U3"), ignoreOrder: true);
        foreach (var line in run.Lines.Take(3))
            Beep(number, line.A, line.B, false);
        Plan(number).Wires.Count.ShouldBe(3);
        Plan(number).Wires.ShouldAllBe(w => w.Crosses == 0);
        _shop.View(number).All<CauseSeen>().First().Body.Mode.ShouldBe("cracked");
    }

    [Fact]
    public void What_is_taken_back_goes_with_what_it_had_told_find()
    {
        var number = Corroded();
        var before = _shop.View(number).Records.Count;
        Beep(number, "main/U1-6", "main/U2-6", false);
        _shop.View(number).Records.Count.ShouldBe(before + 2);
        _shop.Traces.Undo(number).Done!.Words.ShouldContain("is silent");
        _shop.View(number).Records.Count.ShouldBe(before);
        Net(number, "main/A5").State.ShouldBe(NetState.Untested);
    }

    [Fact]
    public void Nonsense_is_refused()
    {
        var number = Corroded();
        _shop.Traces.Beep(number, "main/U1-6", "main/U1-6", true).Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        _shop.Traces.Beep(number, "main/U1-6", "main/none", true).Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        _shop.Traces.Mark(number, "main", "V62", "burnt").Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        _shop.Traces.TakeOff(number, "the lid").Refusal!.Kind.ShouldBe(RefusalKind.Missing);
        _shop.Traces.Decide(number, p => p with { Slack = 0.5 }).Refusal!.Problem.ShouldContain("Slack");
        _shop.Traces.Decide(number, p => p with { ReheatMm = double.NaN }).Refusal!.Problem.ShouldContain("0 to 100 mm");
        _shop.Jumpers.Lay(number, "main/U1-6", "main/U2-6").Refusal!.Problem.ShouldContain("no longer in the plan");
        _shop.Jumpers.PutBack(number, "P1").Refusal!.Kind.ShouldBe(RefusalKind.Missing);
    }
}
