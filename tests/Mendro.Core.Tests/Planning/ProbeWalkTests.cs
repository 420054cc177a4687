using Mendro.Core.Calculators;
using Mendro.Core.Diagnosis;
using Mendro.Core.Electrical;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;
using Mendro.StandIns;

namespace Mendro.Core.Tests.Planning;

/// <summary>Where the selection walks on while both hands hold probes.</summary>
public class ProbeWalkTests
{
    private static readonly DeviceModel Quartet = Shipped.Model("harrow-quartet");

    // Follow the supply from the source: cells, contacts, fuse, switch … (trade rule).
    [Fact]
    public void Along_the_supply_the_points_come_in_the_order_of_the_flow_until_the_fault_is_enclosed()
    {
        var (taken, last) = Work("switch.worn", WalkSchool.Supply);
        taken.Take(4).ShouldBe(["tp1", "tp2", "tp3", "tp4"]);
        last.Stretch!.Parts.Select(p => p.Id).ShouldBe(["switch"]);
        last.Suspects[0].Fault.Part.Id.ShouldBe("switch");
    }

    // The best next point stops where a repair saves more minutes than another reading; the fault is then among the first.
    [Theory]
    [InlineData("switch.worn")]
    [InlineData("fuse.open")]
    [InlineData("psu.dead")]
    public void Both_ways_of_walking_lead_to_the_fault(string fault)
    {
        var part = fault.Split('.')[0];
        Work(fault, WalkSchool.Supply).Last.Suspects[0].Fault.Part.Id.ShouldBe(part);
        Work(fault, WalkSchool.Best).Last.Suspects.Take(3).Select(s => s.Fault.Part.Id).ShouldContain(part);
    }

    [Fact]
    public void Only_metered_points_are_walked_to_and_none_twice()
    {
        foreach (var school in Enum.GetValues<WalkSchool>())
        {
            var (taken, _) = Work("main.short", school);
            taken.ShouldBeUnique();
            taken.Select(id => Quartet.Profile.FindProbe(id)!.Kind).ShouldAllBe(k => ProbeWalk.IsMetered(k));
        }
    }

    // A good unit has no failing function and no advice; its points are measured all the same.
    [Fact]
    public void Every_point_in_turn_needs_no_fault_and_unsolders_nothing()
    {
        var taken = new List<ProbeId>();
        while (
            ProbeWalk.Next(
                null,
                new MoveAdvisor(new BenchCosts()).Advise(UnitDiagnosis.Make(Quartet, []).Value!, AccessState.Closed),
                Quartet.Graph,
                taken.ToHashSet(),
                WalkSchool.Every
            )
                is { } probe
        )
            taken.Add(probe.Id);
        var metered = Quartet.Profile.Probes.Where(p => ProbeWalk.IsMetered(p.Kind)).Select(p => p.Id).ToList();
        taken.ShouldBeSubsetOf(metered);
        metered.Except(taken).ShouldBe(["slot-beep"], "the slot has its contact map");
        taken.Select(id => Quartet.Profile.FindProbe(id)!.State).ShouldBeInOrder();
        var sextant = Shipped.Profile("dovrel-sextant");
        sextant.FindProbe("biascaps-c")!.State.ShouldBe(AccessState.Lifted);
        var model = Shipped.Model("dovrel-sextant");
        var known = sextant.Probes.Where(p => p.State < AccessState.Lifted).Select(p => p.Id).ToHashSet();
        ProbeWalk.Next(null, new Advice([], null), model.Graph, known, WalkSchool.Every).ShouldBeNull();
    }

    [Fact]
    public void Calculators_come_with_what_the_profile_knows()
    {
        var profile = Quartet.Profile;
        var pack = CalculatorLinks.ForProbe(profile, profile.FindProbe("tp3")!, 5.9).ShouldHaveSingleItem();
        pack.Calculator.Name.ShouldBe("battery-pack");
        pack.Calculator.Run(pack.Known).Value!.Answer.Verdict.ShouldBe("good");
        var atrium = Shipped.Profile("pellin-atrium");
        CalculatorLinks.ForPart(atrium, atrium.FindPart("regulator")!).Select(l => l.Calculator.Name).ShouldBe(["regulator", "rectified"]);
        // Every known value is one that its calculator takes.
        foreach (var p in TradeLibrary.Shipped.Profiles)
        foreach (var link in p.Parts.SelectMany(part => CalculatorLinks.ForPart(p, part)))
        foreach (var (key, value) in link.Known)
            link.Calculator.Keys.Single(k => k.Name == key)
                .Read(value)
                .Problem.ShouldBeNull($"{p.Id} {link.Calculator.Name} {key}={value}");
    }

    // A fifth above what the unit was made for, a quarter of it first (common practice, no source).
    [Theory]
    [InlineData("harrow-quartet", 6.0, 0.36, 0.075)]
    [InlineData("quillon-minnow", 7.4, 0.6, 0.125)]
    [InlineData("pellin-atrium", 11.3, 1.56, 0.325)]
    [InlineData("tarn-halyard", null, 0.36, 0.075)]
    public void A_unit_has_its_plan_for_the_bench_supply(string id, double? volts, double limit, double first)
    {
        var plan = SupplyPlan.For(Shipped.Profile(id), BenchLimits.Shipped);
        (plan.Volts, plan.LimitAmps, plan.FirstLimitAmps).ShouldBe((volts, limit, first));
    }

    // 6 V and the usual 0.3 A are 20 Ω; a quarter of the current through a sound unit leaves volts standing, through a short it does not.
    [Theory]
    [InlineData("harrow-quartet", 0.12, 0.075, "short", "as with 1.6 Ω: a short")]
    [InlineData("harrow-quartet", 0.7, 0.075, "short", "as with 9.3 Ω: a short")]
    [InlineData("harrow-quartet", 2.5, 0.075, null, "no short; the unit wants more than the limit lets through. Raise it to 360 mA.")]
    [InlineData("harrow-quartet", 5.0, 0.36, null, "more than it was made for")]
    [InlineData("tarn-halyard", 0.4, 0.075, "short", "a short")]
    [InlineData("tarn-halyard", 3.0, 0.075, null, "no short")]
    public void A_limit_that_holds_is_a_short_only_when_hardly_any_volts_are_left(
        string id,
        double volts,
        double amps,
        string? stop,
        string words
    )
    {
        var plan = SupplyPlan.For(Shipped.Profile(id), BenchLimits.Shipped);
        var meaning = ReadingMeaning.OfLimited(plan, volts, amps);
        meaning.Stop.ShouldBe(stop);
        meaning.Reason.ShouldContain(words);
    }

    [Fact]
    public void Far_more_volts_than_a_unit_was_made_for_are_too_much()
    {
        var plan = SupplyPlan.For(Shipped.Profile("harrow-quartet"), BenchLimits.Shipped);
        plan.IsTooMuch(6.6).ShouldBeFalse();
        plan.IsTooMuch(12).ShouldBeTrue();
        (plan with { Volts = null }).IsTooMuch(30).ShouldBeFalse();
    }

    /// <summary>Measures a unit with one hidden fault, point after point as the walk says, until it says stop.</summary>
    private static (List<ProbeId> Taken, UnitDiagnosis Last) Work(string fault, WalkSchool school)
    {
        var hidden = Enumerable.Range(0, Quartet.Faults.Count).Single(f => Quartet.Faults[f].Id == fault);
        var unit = PracticeUnit.With(Quartet, $"walk/{fault}", [hidden]);
        var events = new List<BenchEvent> { new FunctionTried(0, "power-light", false, "nothing") };
        var taken = new List<ProbeId>();
        while (taken.Count < 30)
        {
            var diagnosis = UnitDiagnosis.Make(Quartet, events).Value!;
            var advice = new MoveAdvisor(new BenchCosts()).Advise(diagnosis, AccessState.Open);
            if (
                ProbeWalk.Next(diagnosis.Verdict, advice, Quartet.Graph, taken.ToHashSet(), school) is not { } probe
                || (diagnosis.Stretch is { } s && s.Parts.Count == 1)
            )
                return (taken, diagnosis);
            taken.Add(probe.Id);
            events.Add(new ProbeTaken(events.Count, probe.Id, unit.Probe(probe)));
        }

        throw new InvalidOperationException("It never stops.");
    }
}
