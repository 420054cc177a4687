using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.StandIns.Tests;

/// <summary>Practice units answer like real ones: the same unit for the same seed, lasting faults that last.</summary>
public class PracticeUnitTests
{
    private static readonly DeviceModel Quartet = Shipped.Model("harrow-quartet");

    [Fact]
    public void The_same_seed_is_the_same_unit_whatever_is_asked_first()
    {
        for (var n = 0; n < 10; n++)
        {
            var (a, b) = (PracticeUnit.Draw(Quartet, 7, n), PracticeUnit.Draw(Quartet, 7, n));
            a.Present.ShouldBe(b.Present, ignoreOrder: true);
            foreach (var probe in Quartet.Profile.Probes)
                b.Probe(probe);
            foreach (var function in Quartet.Profile.Functions)
                a.Try(function).ShouldBe(b.Try(function), $"{n} {function.Id}");
        }

        Enumerable
            .Range(0, 10)
            .Select(n => string.Join(',', PracticeUnit.Draw(Quartet, 7, n).Present.Order()))
            .Distinct()
            .Count()
            .ShouldBeGreaterThan(4);
    }

    [Fact]
    public void What_an_eye_finds_is_named_as_the_advice_understands_it()
    {
        var named = 0;
        for (var fault = 0; fault < Quartet.Faults.Count; fault++)
        {
            var unit = PracticeUnit.With(Quartet, $"named/{fault}", [fault]);
            foreach (var probe in Quartet.Profile.Probes.Where(p => TradeLibrary.Of(p.Kind).ByEye && p.PartIds().Contains(Quartet.Faults[fault].Part.Id)))
            {
                if (unit.Measure(probe).Reading?.Word is not { } words)
                    continue;
                named++;
                Quartet.Named(probe, words).ShouldContain(fault, $"{Quartet.Faults[fault].Id}: {words}");
            }
        }

        named.ShouldBeGreaterThan(5);
    }

    // The library's chance that a swab shows what is left, within four standard errors of 1,000 units.
    [Theory]
    [InlineData("edge.dirty", 0.25)]
    [InlineData("edge.corroded", 0.1)]
    [InlineData(null, 0.95)]
    public void The_check_at_a_methods_end_misses_as_often_as_the_library_says(string? fault, double good)
    {
        var cartridge = Shipped.Model("pellin-atrium-cartridge");
        var present = Enumerable.Range(0, cartridge.Faults.Count).Where(f => cartridge.Faults[f].Id == fault).ToList();
        var polish = TradeLibrary.Shipped.FindMethod("polish-edge")!;
        const int units = 1000;
        var held = Enumerable
            .Range(0, units)
            .Count(n => PracticeUnit.With(cartridge, $"end/{n}", present).Held("edge", polish) == true);
        var expected = good * (fault is null ? 1 : 0.95);
        ((double)held / units).ShouldBe(expected, 4 * Math.Sqrt(expected * (1 - expected) / units));
    }

    [Fact]
    public void Where_only_a_trial_of_the_unit_tells_the_check_says_nothing() =>
        PracticeUnit
            .With(Shipped.Model("pellin-atrium"), "board", [])
            .Held("main", TradeLibrary.Shipped.FindMethod("swap-board")!)
            .ShouldBeNull();

    [Fact]
    public void Lasting_faults_answer_the_same_every_time()
    {
        for (var n = 0; n < 30; n++)
        {
            var unit = PracticeUnit.Draw(Quartet, 3, n);
            if (unit.Present.Any(i => Quartet.Faults[i].Mode.Effect == ModeEffect.Intermittent))
                continue;
            var function = Quartet.Profile.FindFunction("power-light")!;
            // Only a bench error, one in a hundred trials, may differ.
            var answers = Enumerable.Range(0, 100).Select(_ => unit.Try(function).Works).ToList();
            Math.Min(answers.Count(w => w), answers.Count(w => !w)).ShouldBeLessThan(8, $"unit {n}");
        }
    }

    [Fact]
    public void Faults_turn_up_as_often_as_the_network_says_they_do_in_failing_units()
    {
        // Drawn given that some function fails, so every part's chance is at least its prior (up to chance of the draw).
        var counts = new int[Quartet.Faults.Count];
        const int units = 400;
        for (var n = 0; n < units; n++)
            foreach (var fault in PracticeUnit.Draw(Quartet, 11, n).Present)
                counts[fault]++;
        for (var i = 0; i < counts.Length; i++)
        {
            var prior = Quartet.Faults[i].Prior;
            // Four standard deviations below the prior would be a broken draw.
            (counts[i] / (double)units).ShouldBeGreaterThan(
                prior - 4 * Math.Sqrt(prior * (1 - prior) / units) - 0.001,
                Quartet.Faults[i].Id
            );
        }
    }

    [Fact]
    public void A_sure_repair_takes_the_fault_away_and_a_useless_one_leaves_it()
    {
        var library = TradeLibrary.Shipped;
        var unit = Enumerable
            .Range(0, 200)
            .Select(n => PracticeUnit.Draw(Quartet, 5, n))
            .First(u => u.Present.Any(i => Quartet.Faults[i].Id == "switch.dirty"));
        unit.Repair("switch", library.FindMethod("recap-all")!);
        unit.Repair("fuse", library.FindMethod("replace-switch")!);
        unit.Present.ShouldContain(i => Quartet.Faults[i].Id == "switch.dirty");
        // 0.96 at the first try, less at each repetition: after three it is gone but for one in a thousand.
        for (var n = 0; n < 3; n++)
            unit.Repair("switch", library.FindMethod("replace-switch")!);
        unit.Present.ShouldNotContain(i => Quartet.Faults[i].Id == "switch.dirty");
    }

    [Fact]
    public void Runs_repeat_exactly_and_stand_in_the_right_order()
    {
        var oracle = Simulation.Run(Quartet, 30, 1, SimulatedPolicy.Oracle);
        var advisor = Simulation.Run(Quartet, 30, 1, SimulatedPolicy.Advisor);
        var checklist = Simulation.Run(Quartet, 30, 1, SimulatedPolicy.Checklist);
        var few = Simulation.Run(Quartet, 6, 1, SimulatedPolicy.Advisor);
        Simulation.Run(Quartet, 6, 1, SimulatedPolicy.Advisor).ShouldBe(few);
        oracle.MeanMinutes.ShouldBeLessThan(advisor.MeanMinutes);
        advisor.MeanMinutes.ShouldBeLessThan(checklist.MeanMinutes);
        advisor.ShareCured.ShouldBeGreaterThanOrEqualTo(checklist.ShareCured);
        oracle.P90Minutes.ShouldBeGreaterThanOrEqualTo(oracle.MeanMinutes * 0.8);
    }
}
