using Mendro.Core.Library;

namespace Mendro.Core.Tests.Calculators;

/// <summary>Packs, regulators, adapters and dividers.</summary>
public class SupplyTests
{
    // IEC 60086-2 (1.5 V, end point 0.9 V), IEC 61951-2 (1.2 V, 1.0 V); fresh and weak: common practice, no source.
    [Theory]
    [InlineData(4, "alkaline", 6, 6.4, 4.8, 3.6)]
    [InlineData(2, "nimh", 2.4, 2.8, 2.3, 2.0)]
    [InlineData(2, "liion", 7.4, 8.4, 6.6, 6.0)]
    [InlineData(6, "alkaline", 9, 9.6, 7.2, 5.4)]
    public void A_pack_is_its_cells(int cells, string chemistry, double nominal, double fresh, double low, double empty)
    {
        var answer = Calc.Run("battery-pack", $"cells={cells}", $"chemistry={chemistry}");
        answer.Number("nominal").ShouldBe(nominal, 1e-12);
        answer.Number("fresh").ShouldBe(fresh, 1e-12);
        answer.Number("low").ShouldBe(low, 1e-12);
        answer.Number("empty").ShouldBe(empty, 1e-12);
    }

    [Fact]
    public void A_pack_names_the_source_of_its_own_chemistry()
    {
        Calc.Run("battery-pack", "cells=4", "chemistry=nimh").Source.ShouldNotBeNull().ShouldStartWith("IEC 61951-2");
        Calc.Run("battery-pack", "cells=4", "chemistry=alkaline", "measured=6").Source.ShouldNotBeNull().ShouldStartWith("IEC 60086-2");
    }

    // Four fresh alkaline cells read a little over 6 V (common practice, no source).
    [Theory]
    [InlineData("alkaline", 4, "6.24", "full")]
    [InlineData("alkaline", 4, "5.6", "good")]
    [InlineData("alkaline", 4, "4.8", "good")]
    [InlineData("alkaline", 4, "4.79", "low")]
    [InlineData("alkaline", 4, "3.5", "empty")]
    [InlineData("nimh", 2, "2.75", "full")]
    [InlineData("nimh", 2, "2.4", "good")]
    [InlineData("liion", 1, "4.18", "full")]
    [InlineData("liion", 1, "3.7", "good")]
    [InlineData("liion", 1, "3.2", "low")]
    [InlineData("liion", 1, "2.9", "empty")]
    public void A_measured_pack_has_a_state(string chemistry, int cells, string measured, string state)
    {
        var answer = Calc.Run("battery-pack", $"cells={cells}", $"chemistry={chemistry}", $"measured={measured}");
        answer.Outputs.Single(o => o.Name == "state").Value.ShouldBe(state);
        answer.Number("perCell").ShouldBe(double.Parse(measured, System.Globalization.CultureInfo.InvariantCulture) / cells, 1e-12);
    }

    [Fact]
    public void A_lithium_cell_below_two_and_a_half_volts_stops_the_work() =>
        Calc.Run("battery-pack", "cells=2", "chemistry=liion", "measured=4.8").Caution.ShouldBe("lithium-low");

    // Data sheets of the 7805 type: 2 V drop-out, 65 K/W junction to air, 125 °C, 35 V at most.
    [Theory]
    [InlineData("9", "0.3", 2, 7, 1.2, 103, "fits")]
    [InlineData("6.5", "0.3", -0.5, 7, 0.45, 54.25, "no headroom")]
    [InlineData("12", "0.5", 5, 7, 3.5, 252.5, "too hot")]
    [InlineData("36", "0.01", 29, 7, 0.31, 45.15, "over the maximum")]
    [InlineData("7", "0.1", 0, 7, 0.2, 38, "fits")]
    public void A_regulator_has_headroom_and_heat(
        string vin,
        string current,
        double headroom,
        double least,
        double watts,
        double junction,
        string verdict
    )
    {
        var answer = Calc.Run("regulator", $"vin={vin}", $"current={current}");
        answer.Number("headroom").ShouldBe(headroom, 1e-9);
        answer.Number("minimumInput").ShouldBe(least, 1e-9);
        answer.Number("watts").ShouldBe(watts, 1e-9);
        answer.Number("junctionCelsius").ShouldBe(junction, 1e-9);
        answer.Verdict.ShouldBe(verdict);
    }

    [Fact]
    public void A_cautious_drop_out_wants_eight_volts() =>
        Calc.Number("regulator", "minimumInput", "vin=9", "current=0.1", "dropout=3").ShouldBe(8);

    // An AC adapter rectified gives about 1.41 × V less two drops (trade rule); 9 V: 12.73 − 1.4.
    [Fact]
    public void A_rectified_adapter_gives_its_peak()
    {
        Calc.Number("rectified", "peakVolts", "acVolts=9").ShouldBe(11.328, 0.001);
        Calc.Number("rectified", "rippleVolts", "acVolts=9", "current=0.5", "farads=2200u").ShouldBe(2.2727, 0.0001);
        Calc.Number("rectified", "rippleVolts", "acVolts=9", "current=0.5", "farads=2200u", "hertz=60").ShouldBe(1.8939, 0.0001);
        Calc.Problem("rectified", "acVolts=9", "current=0.5").ShouldStartWith("farads:");
    }

    // Common practice, no source: AC or DC, volts, polarity, current.
    [Theory]
    [InlineData("dc", 9, 1, "centre-negative", "fits")]
    [InlineData("dc", 9.8, 1, "centre-negative", "fits")]
    [InlineData("dc", 9, 0.3, "centre-negative", "weak")]
    [InlineData("dc", 7.5, 1, "centre-negative", "weak")]
    [InlineData("dc", 5, 1, "centre-negative", "wrong")]
    [InlineData("dc", 10.5, 1, "centre-negative", "wrong")]
    [InlineData("dc", 12, 1, "centre-negative", "dangerous")]
    [InlineData("dc", 9, 1, "centre-positive", "dangerous")]
    [InlineData("ac", 9, 1, null, "dangerous")]
    public void An_adapter_is_judged_by_its_worst_point(string kind, double volts, double amps, string? polarity, string verdict)
    {
        var culture = System.Globalization.CultureInfo.InvariantCulture;
        List<string> pairs =
        [
            $"kind={kind}",
            $"volts={volts.ToString(culture)}",
            $"amps={amps.ToString(culture)}",
            "needKind=dc",
            "needVolts=9",
            "needAmps=0.85",
            "needPolarity=centre-negative",
        ];
        if (polarity is not null)
            pairs.Add($"polarity={polarity}");
        var answer = Calc.Run("adapter", [.. pairs]);
        answer.Verdict.ShouldBe(verdict);
        ((IReadOnlyList<string>)answer.Outputs[0].Value).Count.ShouldBeGreaterThanOrEqualTo(3);
        answer.Caution.ShouldBe(verdict == "dangerous" ? "adapter-wrong" : null);
    }

    [Fact]
    public void A_unit_that_takes_any_polarity_takes_either() =>
        Calc.Run(
                "adapter",
                "kind=dc",
                "volts=9",
                "amps=1",
                "polarity=centre-positive",
                "needKind=dc",
                "needVolts=9",
                "needAmps=0.85",
                "needPolarity=any"
            )
            .Verdict.ShouldBe("fits");

    [Fact]
    public void Dc_needs_its_polarity_told() =>
        Calc.Problem("adapter", "kind=dc", "volts=9", "amps=1", "needKind=dc", "needVolts=9", "needAmps=1", "needPolarity=centre-negative")
            .ShouldStartWith("polarity:");

    [Fact]
    public void A_divider_divides() => Calc.Number("divider", "volts", "vin=9", "r1=10k", "r2=4,7k").ShouldBe(9 * 4.7 / 14.7, 1e-12);

    [Theory]
    [InlineData("5", "2", "20m", 150, 0.06, 150)]
    [InlineData("12", "2", "20m", 500, 0.2, 510)]
    public void An_led_has_its_resistor(string supply, string forward, string current, double ohms, double watts, double preferred)
    {
        var answer = Calc.Run("led-resistor", $"supply={supply}", $"forward={forward}", $"current={current}");
        answer.Number("ohms").ShouldBe(ohms, 1e-9);
        answer.Number("watts").ShouldBe(watts, 1e-12);
        answer.Number("preferred").ShouldBe(preferred, 1e-9);
        Calc.Problem("led-resistor", "supply=2", "forward=2", "current=0.01").ShouldStartWith("forward:");
    }
}
