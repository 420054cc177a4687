using CsCheck;
using Mendro.Core.Electrical;

namespace Mendro.Core.Tests.Calculators;

/// <summary>Bands, codes and series against the tables of IEC 60062, IEC 60063 and EIA-96.</summary>
public class CodeTests
{
    // IEC 60757: two letters for a colour.
    [Theory]
    [InlineData("BN BK OG GD", "brown,black,orange,gold")]
    [InlineData("rd vt gn bn bn rd", "red,violet,green,brown,brown,red")]
    [InlineData("YE,WH,PK,SR", "yellow,white,pink,silver")]
    [InlineData("gy bu bk", "grey,blue,black")]
    public void Two_letters_name_a_colour(string letters, string words) =>
        Calc.Number("resistor-bands", "ohms", $"bands={letters}").ShouldBe(Calc.Number("resistor-bands", "ohms", $"bands={words}"));

    // Colour code: table 1 of IEC 60062.
    [Theory]
    [InlineData("brown,black,orange,gold", 10_000, 0.05)]
    [InlineData("yellow,violet,red", 4_700, 0.2)]
    [InlineData("red,red,gold,silver", 2.2, 0.1)]
    [InlineData("green,blue,silver,gold", 0.56, 0.05)]
    [InlineData("brown,black,black,red,brown", 10_000, 0.01)]
    [InlineData("orange,orange,white,black,green", 339, 0.005)]
    [InlineData("Grey RED black Orange violet", 820_000, 0.001)]
    [InlineData("brown,gray,purple,brown,red", 1870, 0.02)]
    [InlineData("brown,green,pink,gold", 0.015, 0.05)]
    [InlineData("brown,black,black,none", 10, 0.2)]
    public void Bands_read_as_the_standard_has_them(string bands, double ohms, double tolerance)
    {
        var answer = Calc.Run("resistor-bands", $"bands={bands}");
        answer.Number("ohms").ShouldBe(ohms, ohms * 1e-12);
        answer.Number("tolerance").ShouldBe(tolerance);
    }

    // IEC 60062: black 250, brown 100, red 50, orange 15, yellow 25, green 20, blue 10, violet 5, grey 1 (10⁻⁶/K).
    [Theory]
    [InlineData("brown", 100)]
    [InlineData("red", 50)]
    [InlineData("orange", 15)]
    [InlineData("yellow", 25)]
    [InlineData("grey", 1)]
    public void The_sixth_band_is_the_temperature_coefficient(string colour, double expected) =>
        Calc.Number("resistor-bands", "partsPerMillionPerKelvin", $"bands=red,violet,black,brown,brown,{colour}").ShouldBe(expected);

    [Theory]
    [InlineData("gold,black,red,gold", "other end")]
    [InlineData("brown,black", "three to six")]
    [InlineData("brown,teal,red,gold", "teal")]
    [InlineData("brown,black,red,white", "no tolerance")]
    [InlineData("brown,black,none", "multiplier")]
    public void Wrong_bands_are_refused_with_a_reason(string bands, string words)
    {
        var problem = Calc.Problem("resistor-bands", $"bands={bands}");
        problem.ShouldStartWith("bands:");
        problem.ShouldContain(words);
    }

    [Fact]
    public void A_measured_resistor_is_judged_against_its_tolerance()
    {
        Calc.Run("resistor-bands", "bands=brown,black,orange,gold", "measured=9k6").Good.ShouldBe(true);
        Calc.Run("resistor-bands", "bands=brown,black,orange,gold", "measured=9.4k").Good.ShouldBe(false);
        // Megohms across a part that should be a resistor usually mean a capacitor (common practice, no source).
        Calc.Run("resistor-code", "code=103", "measured=4M").Verdict!.ShouldContain("capacitor");
    }

    [Fact]
    public void Any_bands_of_figures_are_figures_times_ten_to_the_multiplier()
    {
        string[] digits = ["black", "brown", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white"];
        Gen.Select(Gen.Int[0, 9], Gen.Int[0, 9], Gen.Int[0, 9], Gen.Int[0, 9])
            .Sample(
                (a, b, c, m) =>
                {
                    ResistorBands.Read([digits[a], digits[b], digits[m]]).Value!.Ohms.ShouldBe((10 * a + b) * Math.Pow(10, m), 1e-3);
                    ResistorBands
                        .Read([digits[a], digits[b], digits[c], digits[m], "brown"])
                        .Value!.Ohms.ShouldBe((100 * a + 10 * b + c) * Math.Pow(10, m), 1e-3);
                },
                iter: 500
            );
    }

    // IEC 60062, letter and digit code; EIA-96: 01 = 100, 18 = 150, 51 = 332, 68 = 499, 96 = 976.
    [Theory]
    [InlineData("103", 10_000)]
    [InlineData("000", 0)]
    [InlineData("0", 0)]
    [InlineData("4R7", 4.7)]
    [InlineData("R47", 0.47)]
    [InlineData("47R", 47)]
    [InlineData("4k7", 4_700)]
    [InlineData("1M0", 1_000_000)]
    [InlineData("1002", 10_000)]
    [InlineData("4992", 49_900)]
    [InlineData("103J", 10_000)]
    [InlineData("01C", 10_000)]
    [InlineData("01A", 100)]
    [InlineData("18B", 1_500)]
    [InlineData("51X", 33.2)]
    [InlineData("68Y", 4.99)]
    [InlineData("96D", 976_000)]
    [InlineData("30F", 20_000_000)]
    [InlineData("01Z", 0.1)]
    [InlineData("4.7k", 4_700)]
    [InlineData("0,22", 0.22)]
    public void Resistor_codes_read_as_printed(string code, double ohms) =>
        Calc.Number("resistor-code", "ohms", $"code={code}").ShouldBe(ohms, ohms * 1e-12);

    // EIA-96: the number counts through the E96 series from 01 = 100 on, whatever the letter.
    [Fact]
    public void Every_EIA_96_number_is_its_place_in_the_series()
    {
        foreach (
            var (letter, factor) in new[]
            {
                ('Z', 0.001),
                ('Y', 0.01),
                ('X', 0.1),
                ('A', 1.0),
                ('B', 10),
                ('C', 100),
                ('D', 1e3),
                ('E', 1e4),
                ('F', 1e5),
                ('S', 0.1),
                ('H', 10),
            }
        )
            for (var number = 1; number <= 96; number++)
                ResistorCode
                    .Read($"{number:00}{letter}")
                    .Value!.Ohms.ShouldBe(PreferredSeries.E96.Steps[number - 1] * factor, 1e-6 * factor);
    }

    [Theory]
    [InlineData("97A")]
    [InlineData("00A")]
    [InlineData("abc")]
    [InlineData("12345")]
    [InlineData("R")]
    [InlineData("4R7R")]
    public void No_code_is_no_code(string code) => Calc.Problem("resistor-code", $"code={code}").ShouldStartWith("code:");

    [Theory]
    [InlineData("104", 100e-9, null)]
    [InlineData("225K", 2.2e-6, 0.1)]
    [InlineData("4n7", 4.7e-9, null)]
    [InlineData("473J", 47e-9, 0.05)]
    [InlineData("220", 22e-12, null)]
    [InlineData("229", 2.2e-12, null)]
    [InlineData("478", 0.47e-12, null)]
    [InlineData("4R7C", 4.7e-12, 0.25 / 4.7)]
    [InlineData("100D", 10e-12, 0.005)]
    [InlineData("2u2", 2.2e-6, null)]
    [InlineData("µ47", 0.47e-6, null)]
    [InlineData("100nF", 100e-9, null)]
    [InlineData("22p", 22e-12, null)]
    [InlineData("47", 47e-12, null)]
    [InlineData(".1", 0.1e-6, null)]
    [InlineData("0.022K", 0.022e-6, 0.1)]
    [InlineData("0.1uF", 0.1e-6, null)]
    [InlineData("2,2 µF", 2.2e-6, null)]
    public void Capacitor_codes_read_as_printed(string code, double farads, double? tolerance)
    {
        var run = CapacitorCode.Read(code);
        run.Value!.Farads.ShouldBe(farads, farads * 1e-12);
        if (tolerance is { } expected)
            run.Value.TolerancePlus!.Value.ShouldBe(expected, 1e-12);
        else
            run.Value.TolerancePlus.ShouldBeNull();
    }

    // IEC 60062: Z is −20 % to +80 %.
    [Fact]
    public void The_letter_Z_is_lopsided()
    {
        Calc.Number("capacitor-code", "toleranceMinus", "code=104Z").ShouldBe(0.2);
        Calc.Number("capacitor-code", "tolerancePlus", "code=104Z").ShouldBe(0.8);
    }

    // IEC 60063 tables, value from memory for E96 (its rounding has no exceptions).
    [Fact]
    public void The_series_are_those_of_the_standard()
    {
        PreferredSeries.E6.Steps.ShouldBe([10, 15, 22, 33, 47, 68]);
        PreferredSeries.E12.Steps.ShouldBe([10, 12, 15, 18, 22, 27, 33, 39, 47, 56, 68, 82]);
        PreferredSeries.E24.Steps.Count.ShouldBe(24);
        PreferredSeries.E96.Steps.ShouldBe([
            100,
            102,
            105,
            107,
            110,
            113,
            115,
            118,
            121,
            124,
            127,
            130,
            133,
            137,
            140,
            143,
            147,
            150,
            154,
            158,
            162,
            165,
            169,
            174,
            178,
            182,
            187,
            191,
            196,
            200,
            205,
            210,
            215,
            221,
            226,
            232,
            237,
            243,
            249,
            255,
            261,
            267,
            274,
            280,
            287,
            294,
            301,
            309,
            316,
            324,
            332,
            340,
            348,
            357,
            365,
            374,
            383,
            392,
            402,
            412,
            422,
            432,
            442,
            453,
            464,
            475,
            487,
            499,
            511,
            523,
            536,
            549,
            562,
            576,
            590,
            604,
            619,
            634,
            649,
            665,
            681,
            698,
            715,
            732,
            750,
            768,
            787,
            806,
            825,
            845,
            866,
            887,
            909,
            931,
            953,
            976,
        ]);
        PreferredSeries.E48.Steps.ShouldBe(PreferredSeries.E96.Steps.Where((_, n) => n % 2 == 0));
    }

    [Theory]
    [InlineData("5000", "E12", 4700, 4700, 5600)]
    [InlineData("5k2", "E12", 5600, 4700, 5600)]
    [InlineData("4700", "E24", 4700, 4700, 4700)]
    [InlineData("99k", "E24", 100_000, 91_000, 100_000)]
    [InlineData("0.00000000095", "E12", 1e-9, 0.82e-9, 1e-9)]
    [InlineData("1234", "E96", 1240, 1210, 1240)]
    [InlineData("1", "E12", 1, 1, 1)]
    public void A_value_finds_its_neighbours(string value, string series, double nearest, double below, double above)
    {
        var answer = Calc.Run("preferred-value", $"value={value}", $"series={series}");
        answer.Number("nearest").ShouldBe(nearest, nearest * 1e-12);
        answer.Number("below").ShouldBe(below, below * 1e-12);
        answer.Number("above").ShouldBe(above, above * 1e-12);
    }

    [Fact]
    public void Nearest_is_nearest_by_ratio_of_all_values_there_are() =>
        Gen.Select(Gen.Double[-11, 11], Gen.Int[0, 4])
            .Sample(
                (log, which) =>
                {
                    var (value, series) = (Math.Pow(10, log), PreferredSeries.All[which]);
                    var around = series.Around(value);
                    double Distance(double v) => Math.Abs(Math.Log(v / value));
                    var best = Enumerable.Range(-14, 28).SelectMany(d => series.Steps.Select(s => s * Math.Pow(10, d))).Min(Distance);
                    Distance(around.Nearest).ShouldBe(best, 1e-9);
                    (around.Below <= value * (1 + 1e-8)).ShouldBeTrue();
                    (around.Above >= value * (1 - 1e-8)).ShouldBeTrue();
                },
                iter: 3000
            );
}
