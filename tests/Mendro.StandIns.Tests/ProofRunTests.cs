using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.StandIns.Physics;

namespace Mendro.StandIns.Tests;

/// <summary>One good start proves little on an intermittent: a run of starts, the unit moved between, before it counts as cured (common
/// practice, no source).</summary>
public class ProofRunTests
{
    private static readonly DeviceModel Cable = new(
        Core.Library.TradeLibrary.Shipped.Archetypes.Single(p => p.Id == "build-picture-cable"),
        Core.Library.TradeLibrary.Shipped
    );

    private static int Fault(string id) => Enumerable.Range(0, Cable.Faults.Count).Single(f => Cable.Faults[f].Id == id);

    private static PracticeBench Bench(HiddenUnit unit)
    {
        var bench = new PracticeBench(Cable, unit, Simulation.Costs);
        bench.Baseline();
        return bench;
    }

    [Fact]
    public void A_sound_unit_holds_and_what_comes_and_goes_seldom_does()
    {
        var (sound, cracked) = (0, 0);
        for (var n = 0; n < 200; n++)
        {
            var dirty = Bench(PracticeUnit.With(Cable, $"sound/{n}", [Fault("near.dirty")]));
            dirty.Unit.Repair("near", Cable.Library.FindMethod("replace-port")!);
            if (dirty.Unit.Present.Count == 0)
                sound += dirty.Prove() ? 1 : 0;
            else
                sound++;
            var joint = Bench(PracticeUnit.With(Cable, $"cracked/{n}", [Fault("near.cracked")]));
            cracked += joint.AllWork || joint.Events.OfType<FunctionTried>().All(t => t.Passed) || !joint.Prove() ? 0 : 1;
        }

        // Six starts: a bench error in each of them is one in a hundred, on either of two functions.
        sound.ShouldBeGreaterThan(160);
        // A cracked joint fails 65 in a hundred: six good ones in a row are rare.
        cracked.ShouldBeLessThan(10);
    }

    [Fact]
    public void A_run_is_filed_as_starts_that_held_and_the_one_that_did_not()
    {
        var bench = Enumerable
            .Range(0, 50)
            .Select(n => Bench(PracticeUnit.With(Cable, $"run/{n}", [Fault("cord.broken")])))
            .First(b => b.Events.OfType<FunctionTried>().Any(t => !t.Passed));
        var (before, minutes) = (bench.Events.Count, bench.Minutes);
        var held = bench.Prove();
        bench.Minutes.ShouldBe(minutes + PracticeBench.ProofMinutes);
        var runs = bench.Events.Skip(before).OfType<FunctionTried>().ToList();
        runs.ShouldNotBeEmpty();
        runs.Where(t => t.Passed).ShouldAllBe(t => t.Starts >= 1 && t.Starts <= PracticeBench.ProofStarts);
        runs.Any(t => !t.Passed).ShouldBe(!held);
    }

    [Theory]
    [InlineData(WorldKind.Network)]
    [InlineData(WorldKind.Physics)]
    public void What_was_proved_is_mended_where_one_good_trial_was_luck(WorldKind world)
    {
        int Left(bool proved) =>
            Enumerable
                .Range(0, 60)
                .Count(n =>
                {
                    HiddenUnit unit = world == WorldKind.Physics ? PhysicalUnit.Draw(Cable, 5, n) : PracticeUnit.Draw(Cable, 5, n);
                    var bench = Simulation.Work(Cable, unit, SimulatedPolicy.Checklist, proved: proved);
                    return bench.AllWork && unit.Present.Any(f => Cable.Faults[f].Mode.Effect == Core.Library.ModeEffect.Intermittent);
                });
        var (luck, proof) = (Left(false), Left(true));
        luck.ShouldBeGreaterThan(10);
        proof.ShouldBeLessThan(luck / 3);
    }
}
