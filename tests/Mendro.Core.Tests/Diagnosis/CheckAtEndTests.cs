using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What the check at a method's end says is a finding like others.</summary>
public class CheckAtEndTests
{
    private static readonly DeviceModel Cartridge = Shipped.Model("pellin-atrium-cartridge");

    private static UnitDiagnosis After(bool? held) =>
        new Bench(Cartridge).Add(new RepairDone(0, "legs1", "resolder-legs", Held: held)).Diagnose();

    private static double Left(UnitDiagnosis diagnosis, string fault)
    {
        var at = Enumerable.Range(0, Cartridge.Faults.Count).Single(f => Cartridge.Faults[f].Id == fault);
        return diagnosis.Posterior.Fault(diagnosis.Case.UncuredPiece(at));
    }

    // Bayes' rule by hand on the library's figures: lifted 0.2 (this profile), cured 0.92, shown by pushing 0.95, doubted 0.05.
    [Theory]
    [InlineData(null, 0.2 * 0.08)]
    [InlineData(false, 0.016 * (1 - 0.05 * 0.95) / (0.016 * (1 - 0.05 * 0.95) + 0.984 * 0.05))]
    [InlineData(true, 0.016 * 0.05 / (0.016 * 0.05 + 0.984))]
    public void A_leg_that_still_moves_is_still_lifted(bool? held, double left) =>
        Left(After(held), "legs1.lifted").ShouldBe(left, 1e-9);

    [Fact]
    public void A_check_tells_of_its_own_part_and_of_no_other()
    {
        var (untold, bad) = (After(null), After(false));
        Left(bad, "legs1.lifted").ShouldBeGreaterThan(0.2);
        Left(bad, "legs2.lifted").ShouldBe(Left(untold, "legs2.lifted"), 1e-9);
        Left(bad, "edge.dirty").ShouldBe(Left(untold, "edge.dirty"), 1e-9);
    }

    [Fact]
    public void A_swab_that_comes_off_dark_keeps_the_edge_in_question_and_a_clean_one_clears_it()
    {
        double Edge(bool? held) =>
            new Bench(Cartridge)
                .Fails("cartridge", "black-box")
                .Add(new RepairDone(1, "edge", "swab-edge", Held: held))
                .Fails("cartridge", "black-box")
                .Diagnose()
                .Parts["edge"]
                .Share;
        Edge(false).ShouldBeGreaterThan(Edge(null) + 0.1);
        Edge(true).ShouldBeLessThan(Edge(null));
    }

    [Fact]
    public void What_a_check_has_said_is_told_among_the_reasons()
    {
        var diagnosis = new Bench(Cartridge)
            .Fails("cartridge", "black-box")
            .Add(new RepairDone(1, "edge", "swab-edge", Held: false))
            .Fails("cartridge", "black-box")
            .Diagnose();
        var edge = Why.Make(diagnosis).Suspects.First(s => s.Suspect.Fault.Part.Id == "edge");
        edge.For.Select(w => w.Event).ShouldContain(1);
    }

    // A probe of the model at that part alone is the check where there is one.
    [Theory]
    [InlineData("harrow-duet", "switch", "flush-switch", "switch-beep")]
    [InlineData("dovrel-sextant", "fuse", "replace-fuse", "fuse-beep")]
    [InlineData("dovrel-sextant", "ribbon", "reseat-ribbon", "ribbon-press")]
    public void The_check_is_filed_as_the_probe_that_asks_the_same(string model, string part, string method, string probe) =>
        Shipped.Model(model).CheckProbe(part, method)!.Id.Value.ShouldBe(probe);

    [Fact]
    public void Every_check_shows_something_or_is_a_trial_of_the_unit()
    {
        var mute = TradeLibrary
            .Shipped.Methods.Where(m => m.Check is not null && m.Place is null && m.Cures.Count > 0)
            .Where(m =>
                !m.Cures.Any(c =>
                    TradeLibrary.Shipped.FindPartKind(c.Kind)?.Modes.Any(mode => DeviceModel.ShowsAtEnd(m, mode) is not null) == true
                )
            )
            .Select(m => m.Check!.Say)
            .ToList();
        // Boards, disks and authentication chips: only starts, or what comes out, tell.
        string[] trials = ["start", "better", "output"];
        mute.ShouldAllBe(say => trials.Any(t => say.Contains(t, StringComparison.OrdinalIgnoreCase)));
    }
}
