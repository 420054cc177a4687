using Mendro.Core.Electrical;

namespace Mendro.Core.Tests.Calculators;

/// <summary>Wires, traces, capacitors and save cells.</summary>
public class CopperAndWearTests
{
    // ASTM B258 table: bare diameter in mm, resistance in ohms per kilometre of copper at 20 °C.
    [Theory]
    [InlineData(-3, 11.684, 0.1608)]
    [InlineData(10, 2.588, 3.277)]
    [InlineData(18, 1.024, 20.95)]
    [InlineData(22, 0.6438, 52.96)]
    [InlineData(24, 0.5106, 84.2)]
    [InlineData(26, 0.4049, 133.9)]
    [InlineData(28, 0.3211, 212.9)]
    [InlineData(30, 0.2546, 338.6)]
    [InlineData(36, 0.1270, 1361)]
    [InlineData(40, 0.0799, 3441)]
    public void A_wire_is_as_in_the_table(int awg, double diameterMm, double ohmsPerKm)
    {
        Calc.Number("wire", "diameterMm", $"awg={awg}", "lengthMm=1000").ShouldBe(diameterMm, diameterMm * 0.001);
        Calc.Number("wire", "ohms", $"awg={awg}", "lengthMm=1000000").ShouldBe(ohmsPerKm, ohmsPerKm * 0.002);
    }

    [Fact]
    public void A_wire_drops_volts_by_its_length() =>
        Calc.Number("wire", "dropVolts", "awg=30", "lengthMm=60", "current=0.5").ShouldBe(0.01016, 0.00002);

    // IPC-2221 charts as commonly tabulated: 1 A, 10 K, 1 oz (35 µm): 0.30 mm outer, 0.78 mm inner; the ratio is 2^(1/0.725).
    [Theory]
    [InlineData("1", "10", "outer", 0.30)]
    [InlineData("1", "10", "inner", 0.78)]
    [InlineData("3", "10", "outer", 1.37)]
    [InlineData("2", "20", "outer", 0.51)]
    public void A_trace_is_as_wide_as_the_chart_says(string current, string rise, string layer, double widthMm) =>
        Calc.Number("trace-width", "widthMm", $"current={current}", $"rise={rise}", $"layer={layer}").ShouldBe(widthMm, widthMm * 0.015);

    [Fact]
    public void The_width_carries_back_the_current_by_the_formula()
    {
        var widthMm = TraceWidth.WidthMm(2.5, 15, 70, outer: false);
        var squareMils = widthMm / 0.0254 * (70 / 25.4);
        (0.024 * Math.Pow(15, 0.44) * Math.Pow(squareMils, 0.725)).ShouldBe(2.5, 1e-9);
    }

    // −20 % usual; at or a little over the rating is good (common practice, no source).
    [Theory]
    [InlineData("100u", "82u", null, "good")]
    [InlineData("100u", "80u", null, "good")]
    [InlineData("100u", "79u", null, "low")]
    [InlineData("100u", "108u", null, "good")]
    [InlineData("100u", "150u", null, "high")]
    [InlineData("100u", "95u", "5", "high ESR")]
    [InlineData("100u", "95u", "0.3", "good")]
    public void A_capacitor_is_judged(string rated, string measured, string? esr, string verdict)
    {
        List<string> pairs = [$"rated={rated}", $"measured={measured}"];
        if (esr is not null)
            pairs.Add($"esr={esr}");
        Calc.Run("capacitor-check", [.. pairs]).Verdict.ShouldBe(verdict);
    }

    [Fact]
    public void Deviation_is_a_fraction() =>
        Calc.Number("capacitor-check", "deviation", "rated=100u", "measured=82u").ShouldBe(-0.18, 1e-12);

    [Fact]
    public void The_esr_table_falls_with_capacitance_and_meets_its_lines()
    {
        var limits = BenchLimits.Shipped;
        foreach (var line in limits.Esr)
            limits.LargestEsrOhms(line.Microfarads * 1e-6).ShouldBe(line.Ohms, 1e-9);
        double[] rising = [0.1e-6, 1e-6, 3e-6, 33e-6, 330e-6, 1e-3, 1e-2];
        rising.Select(limits.LargestEsrOhms).ShouldBe(rising.Select(limits.LargestEsrOhms).OrderDescending());
    }

    // Ten-degree rule: 2000 h at 105 °C are 128 000 h at 45 °C (six halvings).
    [Theory]
    [InlineData("2000", "105", "45", 128_000)]
    [InlineData("2000", "85", "85", 2_000)]
    [InlineData("1000", "85", "95", 500)]
    public void A_capacitor_lives_twice_as_long_ten_degrees_cooler(string hours, string rated, string actual, double expected) =>
        Calc.Number("capacitor-life", "hours", $"hours={hours}", $"ratedCelsius={rated}", $"actualCelsius={actual}")
            .ShouldBe(expected, 1e-6);

    // 225 mAh at 2 µA: 112 500 h.
    [Fact]
    public void A_save_cell_lasts_years() => Calc.Number("save-cell", "years", "capacityMah=225", "microamps=2").ShouldBe(12.83, 0.01);
}
