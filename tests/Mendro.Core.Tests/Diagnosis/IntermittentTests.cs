using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What comes and goes: each trial draws anew, so one good start proves little.</summary>
public class IntermittentTests
{
    private static (Bench Bench, int Loose, int Solid) Unit()
    {
        var bench = new Bench(MadeUp.SideBySide((0.2, ModeEffect.Intermittent, 0.8, 0), (0.2, ModeEffect.Dead, 0.8, 0)));
        return (bench, 0, 1);
    }

    private static double Chance(Bench bench, int fault) => bench.Diagnose().Suspects.Single(s => s.FaultIndex == fault).Posterior;

    [Fact]
    public void Good_starts_clear_a_loose_joint_slowly_and_by_the_binomial()
    {
        // Hand arithmetic: n good starts with a loose fault that fails at 0.9 a trial have likelihood 0.1^n; dead ones count once.
        foreach (var starts in new[] { 1, 2, 5 })
        {
            var (bench, loose, solid) = Unit();
            bench.Add(new FunctionTried(0, "work", true, null, starts));
            var missed = Math.Pow(0.1, starts);
            Chance(bench, loose).ShouldBe(0.2 * missed / (0.2 * missed + 0.8), 1e-12);
            Chance(bench, solid).ShouldBe(0.2 * 0.1 / (0.2 * 0.1 + 0.8), 1e-12);
        }
    }

    [Fact]
    public void Twenty_starts_in_one_entry_equal_twenty_entries()
    {
        var at_once = Unit().Bench.Add(new FunctionTried(0, "work", true, null, 20));
        var one_by_one = Unit().Bench;
        for (var n = 0; n < 20; n++)
            one_by_one.Works("work");
        Chance(at_once, 0).ShouldBe(Chance(one_by_one, 0), 1e-15);
    }

    [Fact]
    public void A_good_start_clears_an_intermittent_less_than_a_solid_fault()
    {
        // Common practice, no source.
        var before = new Bench("quillon-minnow").Fails("power-light").Diagnose();
        var after = new Bench("quillon-minnow").Fails("power-light").Works("power-light").Diagnose();
        double Fall(string fault) =>
            after.Suspects.Single(s => s.Fault.Id == fault).Posterior / before.Suspects.Single(s => s.Fault.Id == fault).Posterior;
        Fall("packwires.cracked").ShouldBeGreaterThan(5 * Fall("reg.dead"));
    }

    [Fact]
    public void Always_failing_speaks_for_something_solid()
    {
        var once = new Bench("quillon-minnow").Fails("power-light", "nothing");
        var ten = new Bench("quillon-minnow").Add(new FunctionTried(0, "power-light", false, "nothing", 10));
        double Loose(Bench b) => b.Diagnose().Suspects.Where(s => s.Fault.Mode.Effect == ModeEffect.Intermittent).Sum(s => s.Share);
        Loose(ten).ShouldBeLessThan(0.7 * Loose(once));
    }

    [Theory]
    [InlineData(Provocation.Pressed)]
    [InlineData(Provocation.Flexed)]
    public void What_changes_when_pressed_or_flexed_is_a_loose_contact(Provocation how)
    {
        double Loose(bool? changed)
        {
            var bench = new Bench("quillon-minnow").Works("charging").Fails("power-light", "nothing");
            if (changed is { } c)
                bench.Add(new Provoked(50, "power-light", how, c));
            return bench
                .Diagnose()
                .Suspects.Where(s => s.Fault.Mode.Effect == ModeEffect.Intermittent || s.Fault.Mode.Resistive)
                .Sum(s => s.Share);
        }

        // Dirt answers to force as well as a crack.
        Loose(true).ShouldBeGreaterThan(0.8);
        Loose(false).ShouldBeLessThan(Loose(null));
    }

    [Fact]
    public void What_fails_when_warm_is_the_regulator_that_overheats()
    {
        // Common practice, no source.
        var bench = new Bench("quillon-minnow")
            .Works("charging")
            .Fails("power-light")
            .Add(new Provoked(50, "power-light", Provocation.Warmed, true))
            .Add(new Provoked(51, "power-light", Provocation.Pressed, false));
        bench
            .Diagnose()
            .Suspects.Where(s => s.Fault.Mode.Effect == ModeEffect.Intermittent)
            .MaxBy(s => s.Share)!
            .Fault.Id.ShouldBe("reg.overheats");
    }
}
