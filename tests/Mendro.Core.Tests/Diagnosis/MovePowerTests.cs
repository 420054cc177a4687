using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Which moves want the unit fed: with a short they are not done without thinking.</summary>
public class MovePowerTests
{
    private static readonly DeviceProfile Minnow = Shipped.Profile("quillon-minnow");

    // Continuity, ohms, diode drop and capacitance are measured with the unit off (common practice, no source).
    [Theory]
    [InlineData("tp2", true)]
    [InlineData("tp1", false)]
    [InlineData("switch-beep", false)]
    [InlineData("rail-ohms", false)]
    [InlineData("pack-eye", false)]
    [InlineData("pins-press", true)]
    public void Volts_and_pressing_need_power_and_the_rest_does_not(string probe, bool needsPower) =>
        new Move("x", "", "", 1, 0, 0, 1, [], null, Probe: Minnow.FindProbe(probe)!).NeedsPower.ShouldBe(needsPower);

    [Fact]
    public void A_trial_needs_power_and_a_repair_does_not()
    {
        new Move("x", "", "", 1, 0, 0, 1, [], null, Function: Minnow.Functions[0]).NeedsPower.ShouldBeTrue();
        var flush = Shipped.Model("quillon-minnow").Library.FindMethod("flush-switch")!;
        var part = Minnow.Parts.First(p => p.Kind == "power-switch");
        // A repair is tried afterwards and not during it: the unit may be off.
        new Move("x", "", "", 1, 0, 0, 1, [], null, Repair: new RepairOption(part, flush, 0.5, 5, [])).NeedsPower.ShouldBeFalse();
    }
}
