using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.StandIns;

namespace Mendro.Core.Tests.StandIns;

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
        Simulation.Run(Quartet, 30, 1, SimulatedPolicy.Advisor).ShouldBe(advisor);
        oracle.MeanMinutes.ShouldBeLessThan(advisor.MeanMinutes);
        advisor.MeanMinutes.ShouldBeLessThan(checklist.MeanMinutes);
        advisor.ShareCured.ShouldBeGreaterThanOrEqualTo(checklist.ShareCured);
        oracle.P90Minutes.ShouldBeGreaterThanOrEqualTo(oracle.MeanMinutes * 0.8);
    }
}
