using CsCheck;
using Mendro.Core.Quantities;

namespace Mendro.Core.Tests.Quantities;

/// <summary>What a technician types becomes a value with a unit, or a plain word why not.</summary>
public class ReadingParserTests
{
    [Theory]
    [InlineData("5.02", ReadingUnit.Volts, ReadingUnit.Volts, 5.02)]
    [InlineData("5,02 V", ReadingUnit.Volts, ReadingUnit.Volts, 5.02)]
    [InlineData("-4.86", ReadingUnit.Volts, ReadingUnit.Volts, -4.86)]
    [InlineData("−4,86 V", ReadingUnit.Volts, ReadingUnit.Volts, -4.86)]
    [InlineData("350mV", ReadingUnit.Volts, ReadingUnit.Volts, 0.35)]
    [InlineData("4k7", ReadingUnit.Ohms, ReadingUnit.Ohms, 4700)]
    [InlineData("4R7", ReadingUnit.Ohms, ReadingUnit.Ohms, 4.7)]
    [InlineData("3V3", ReadingUnit.Volts, ReadingUnit.Volts, 3.3)]
    [InlineData("1.2 MΩ", ReadingUnit.Ohms, ReadingUnit.Ohms, 1.2e6)]
    [InlineData("22u", ReadingUnit.Farads, ReadingUnit.Farads, 22e-6)]
    [InlineData("22UF", ReadingUnit.Farads, ReadingUnit.Farads, 22e-6)]
    [InlineData("6.2 volts", ReadingUnit.Volts, ReadingUnit.Volts, 6.2)]
    [InlineData("12 ohms", ReadingUnit.Beep, ReadingUnit.Ohms, 12)]
    [InlineData("1.5e3 ohm", ReadingUnit.Volts, ReadingUnit.Ohms, 1500)]
    [InlineData("-4.86E+0", ReadingUnit.Volts, ReadingUnit.Volts, -4.86)]
    [InlineData("350m", ReadingUnit.Volts, ReadingUnit.Volts, 0.35)]
    [InlineData("350u", ReadingUnit.Amps, ReadingUnit.Amps, 350e-6)]
    [InlineData("4n7 F", ReadingUnit.Farads, ReadingUnit.Farads, 4.7e-9)]
    [InlineData("100 nF", ReadingUnit.Volts, ReadingUnit.Farads, 100e-9)]
    [InlineData("0.43 diode", ReadingUnit.Volts, ReadingUnit.DiodeVolts, 0.43)]
    [InlineData("0.43", ReadingUnit.DiodeVolts, ReadingUnit.DiodeVolts, 0.43)]
    [InlineData("0 V both ways", ReadingUnit.DiodeVolts, ReadingUnit.DiodeVolts, 0)]
    [InlineData("0.02, in both directions", ReadingUnit.DiodeVolts, ReadingUnit.DiodeVolts, 0.02)]
    [InlineData("beeps either way", ReadingUnit.DiodeVolts, ReadingUnit.DiodeVolts, 0)]
    [InlineData("beep", ReadingUnit.Beep, ReadingUnit.Beep, 1)]
    [InlineData("no beep", ReadingUnit.Beep, ReadingUnit.Beep, 0)]
    [InlineData("0.6", ReadingUnit.Beep, ReadingUnit.Ohms, 0.6)]
    [InlineData("buzzes", ReadingUnit.Beep, ReadingUnit.Beep, 1)]
    [InlineData("no continuity", ReadingUnit.Beep, ReadingUnit.Beep, 0)]
    [InlineData("dead", ReadingUnit.Beep, ReadingUnit.Beep, 0)]
    [InlineData("no sound", ReadingUnit.Beep, ReadingUnit.Beep, 0)]
    [InlineData("open circuit", ReadingUnit.Beep, ReadingUnit.Beep, 0)]
    [InlineData("dead short", ReadingUnit.Ohms, ReadingUnit.Ohms, 0)]
    [InlineData("shorted to ground", ReadingUnit.Ohms, ReadingUnit.Ohms, 0)]
    [InlineData("short", ReadingUnit.DiodeVolts, ReadingUnit.DiodeVolts, 0)]
    [InlineData("nothing", ReadingUnit.Volts, ReadingUnit.Volts, 0)]
    [InlineData("zero", ReadingUnit.Volts, ReadingUnit.Volts, 0)]
    [InlineData("about 4.6 V", ReadingUnit.Volts, ReadingUnit.Volts, 4.6)]
    [InlineData("~2.1", ReadingUnit.Volts, ReadingUnit.Volts, 2.1)]
    [InlineData("only 0.4 V", ReadingUnit.Volts, ReadingUnit.Volts, 0.4)]
    [InlineData("less than 1 ohm", ReadingUnit.Beep, ReadingUnit.Ohms, 1)]
    [InlineData("5.1 V, good", ReadingUnit.Volts, ReadingUnit.Volts, 5.1)]
    [InlineData("12 VDC", ReadingUnit.Volts, ReadingUnit.Volts, 12)]
    [InlineData("-4.9 V dc", ReadingUnit.Volts, ReadingUnit.Volts, -4.9)]
    public void Readings_are_understood(string text, ReadingUnit assumed, ReadingUnit unit, double value)
    {
        var reading = ReadingParser.Parse(text, assumed).Value!;
        reading.Unit.ShouldBe(unit);
        reading.Value!.Value.ShouldBe(value, Math.Abs(value) * 1e-12);
    }

    [Theory]
    [InlineData("jumps", null)]
    [InlineData("5.0 V jumps", 5.0)]
    [InlineData("5 V, jumps when I push J2", 5.0)]
    [InlineData("4.8 and fluctuating", 4.8)]
    [InlineData("comes and goes", null)]
    public void A_reading_that_does_not_hold_still_is_one(string text, double? value)
    {
        var reading = ReadingParser.Parse(text, ReadingUnit.Volts).Value!;
        reading.Jumps.ShouldBeTrue();
        reading.Value.ShouldBe(value);
    }

    [Theory]
    [InlineData("infinite")]
    [InlineData("OL")]
    [InlineData("open")]
    [InlineData("no reading")]
    [InlineData("no reading at all")]
    [InlineData("nothing")]
    [InlineData("no connection")]
    [InlineData("off the scale")]
    [InlineData("open circuit")]
    public void Over_range_is_told_in_many_ways(string text) =>
        ReadingParser.Parse(text, ReadingUnit.Ohms).Value!.Unit.ShouldBe(ReadingUnit.OverRange);

    // A number with a prefix and no unit is what it would be on a part (IEC 60062), not kilovolts (common practice, no source).
    [Theory]
    [InlineData("4k7", ReadingUnit.Volts, ReadingUnit.Ohms)]
    [InlineData("4r7", ReadingUnit.Volts, ReadingUnit.Ohms)]
    [InlineData("1M", ReadingUnit.DiodeVolts, ReadingUnit.Ohms)]
    [InlineData("4k7", ReadingUnit.Farads, ReadingUnit.Ohms)]
    [InlineData("22u", ReadingUnit.Volts, ReadingUnit.Farads)]
    [InlineData("22u", ReadingUnit.Ohms, ReadingUnit.Farads)]
    [InlineData("100n", ReadingUnit.Amps, ReadingUnit.Farads)]
    [InlineData("4.7 kV", ReadingUnit.Ohms, ReadingUnit.Volts)]
    public void A_prefix_alone_tells_the_part(string text, ReadingUnit assumed, ReadingUnit unit) =>
        ReadingParser.Parse(text, assumed).Value!.Unit.ShouldBe(unit);

    [Theory]
    [InlineData(-4.86, "−4.86 V")]
    [InlineData(-0.00001, "0 V")]
    [InlineData(0, "0 V")]
    [InlineData(-4700, "−4.7 kV")]
    public void Minus_is_a_true_minus_and_nothing_has_no_sign(double volts, string text) => Reading.Format(volts, "V").ShouldBe(text);

    [Theory]
    [InlineData("OL")]
    [InlineData("open")]
    [InlineData("0L")]
    public void Over_range_is_a_reading(string text) =>
        ReadingParser.Parse(text, ReadingUnit.Ohms).Value!.Unit.ShouldBe(ReadingUnit.OverRange);

    [Fact]
    public void Jumps_is_kept_beside_the_value()
    {
        var reading = ReadingParser.Parse("6.2 V, jumps", ReadingUnit.Volts).Value!;
        reading.Jumps.ShouldBeTrue();
        reading.Value.ShouldBe(6.2);
        ReadingParser.Parse("jumps", ReadingUnit.Volts).Value!.Jumps.ShouldBeTrue();
    }

    [Theory]
    [InlineData("")]
    [InlineData("five")]
    [InlineData("5..2")]
    [InlineData("4k7k")]
    [InlineData("1.2k3")]
    [InlineData("<script>alert(1)</script>")]
    public void Nonsense_is_refused_with_a_reason(string text) =>
        ReadingParser.Parse(text, ReadingUnit.Volts).Problem.ShouldNotBeNullOrEmpty();

    // Figures of other scripts count as digits to some libraries and as nothing to others.
    [Fact]
    public void Any_mixture_of_figures_marks_and_signs_is_answered_without_throwing() =>
        Gen.Int[0, 29]
            .Select(n =>
                new[]
                {
                    "0",
                    "5",
                    "12",
                    ".",
                    ",",
                    "-",
                    "−",
                    "+",
                    "k",
                    "M",
                    "u",
                    "µ",
                    "R",
                    "V",
                    "Ω",
                    "F",
                    "A",
                    " ",
                    "e",
                    "٥",
                    "５",
                    "²",
                    "Ⅳ",
                    "\u200f",
                    "jumps",
                    "diode",
                    "beep",
                    "OL",
                    "open",
                    "😀",
                }[n]
            )
            .Array[0, 8]
            .Select(Gen.Enum<ReadingUnit>())
            .Sample(
                (pieces, assumed) =>
                {
                    var outcome = ReadingParser.Parse(string.Concat(pieces), assumed);
                    (outcome.Value is null).ShouldBe(outcome.Problem is not null);
                    if (outcome.Value?.Value is { } value)
                        double.IsFinite(value).ShouldBeTrue();
                },
                iter: 20000
            );

    [Fact]
    public void Any_text_is_answered_without_throwing() =>
        Gen.String[0, 60]
            .Select(Gen.Enum<ReadingUnit>())
            .Sample(
                (text, assumed) =>
                {
                    var outcome = ReadingParser.Parse(text, assumed);
                    (outcome.Value is null).ShouldBe(outcome.Problem is not null);
                },
                iter: 20000
            );

    [Fact]
    public void What_is_printed_reads_back_to_the_same_value()
    {
        var units = Gen.Int[0, 3].Select(i => (ReadingUnit)i);
        Gen.Select(units, Gen.Double[1, 9999], Gen.Int[-9, 6], Gen.Bool)
            .Sample(
                (unit, mantissa, exponent, comma) =>
                {
                    var value = mantissa * Math.Pow(10, exponent);
                    if (unit == ReadingUnit.Volts && Math.Abs(value) < 0.1)
                        return;
                    var text = new Reading(unit, value).ToString();
                    if (comma)
                        text = text.Replace('.', ',');
                    var back = ReadingParser.Parse(text, ReadingUnit.Volts).Value!;
                    back.Unit.ShouldBe(unit);
                    // Four digits are printed.
                    (back.Value!.Value / value).ShouldBe(1, 1.0e-3);
                    // And from then on nothing changes any more.
                    new Reading(unit, back.Value)
                        .ToString()
                        .Replace('.', comma ? ',' : '.')
                        .ShouldBe(text);
                },
                iter: 5000
            );
    }
}
