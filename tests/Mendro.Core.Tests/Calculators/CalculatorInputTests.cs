using CsCheck;
using Mendro.Core.Calculators;
using Mendro.Core.Library;
using Mendro.Core.Quantities;

namespace Mendro.Core.Tests.Calculators;

/// <summary>Every calculator runs on its own example, names the key of bad input and never throws.</summary>
public class CalculatorInputTests
{
    public static TheoryData<string> Names => new(CalculatorShelf.All.Select(c => c.Name));

    [Theory]
    [MemberData(nameof(Names))]
    public void The_example_of_every_key_computes(string name)
    {
        var calculator = CalculatorShelf.Find(name)!;
        var run = calculator.Run(calculator.Keys.ToDictionary(k => k.Name, k => k.Example));
        run.Problem.ShouldBeNull();
        run.Value!.Answer.Outputs.ShouldNotBeEmpty();
        CalculatorWords.InAndOut(run.Value).ShouldContain(" → ");
        if (run.Value.Answer.Caution is { } caution)
            TradeLibrary.Shipped.FindCaution(caution).ShouldNotBeNull();
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void A_missing_key_is_named(string name)
    {
        var calculator = CalculatorShelf.Find(name)!;
        foreach (var key in calculator.Keys.Where(k => !k.Optional && k.Standard is null))
            calculator
                .Run(calculator.Keys.Where(k => k != key).ToDictionary(k => k.Name, k => k.Example))
                .Problem!.ShouldStartWith($"{key.Name}: ");
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void A_bad_number_is_refused_by_its_key(string name)
    {
        var calculator = CalculatorShelf.Find(name)!;
        foreach (var key in calculator.Keys.Where(k => !k.IsText))
        {
            string[] bad = key.Choices is null ? ["much", "1e999", "NaN", "1..2", "-1e15"] : ["", "much"];
            foreach (var text in bad.Where(t => t.Length > 0))
                calculator
                    .Run(calculator.Keys.ToDictionary(k => k.Name, k => k == key ? text : k.Example))
                    .Problem.ShouldNotBeNull($"{key.Name}={text}")
                    .ShouldStartWith($"{key.Name}: ");
        }
    }

    [Fact]
    public void An_unknown_key_is_named_with_those_known()
    {
        var problem = Calc.Problem("divider", "vin=9", "r1=1", "r2=2", "r3=3");
        problem.ShouldStartWith("r3: ");
        problem.ShouldContain("vin, r1, r2");
    }

    [Fact]
    public void Any_text_is_answered_without_throwing() =>
        Gen.Select(Gen.Int[0, CalculatorShelf.All.Count - 1], Gen.String[0, 30].Array[9])
            .Sample(
                (which, texts) =>
                {
                    var calculator = CalculatorShelf.All[which];
                    var outcome = calculator.Run(
                        calculator.Keys.Select((k, n) => (k.Name, texts[n % texts.Length])).ToDictionary(p => p.Name, p => p.Item2)
                    );
                    (outcome.Value is null).ShouldBe(outcome.Problem is not null);
                },
                iter: 5000
            );

    [Fact]
    public void Any_numbers_give_a_finite_answer_or_a_reason() =>
        Gen.Select(Gen.Int[0, CalculatorShelf.All.Count - 1], Gen.Double[-300, 300].Array[9], Gen.Bool)
            .Sample(
                (which, logs, small) =>
                {
                    var calculator = CalculatorShelf.All[which];
                    var outcome = calculator.Run(
                        calculator
                            .Keys.Select(
                                (k, n) =>
                                    (
                                        k,
                                        Text: k.IsText || k.Choices is not null ? k.Example
                                        : k.Whole ? ((int)Math.Abs(logs[n])).ToString(System.Globalization.CultureInfo.InvariantCulture)
                                        : Math.Pow(10, small ? logs[n] / 100 : logs[n] / 20)
                                            .ToString("0.###############", System.Globalization.CultureInfo.InvariantCulture)
                                    )
                            )
                            .ToDictionary(p => p.k.Name, p => p.Text)
                    );
                    if (outcome.Value is { } value)
                        foreach (var output in value.Answer.Outputs)
                            if (output.Value is double number)
                                double.IsFinite(number).ShouldBeTrue($"{calculator.Name}.{output.Name}");
                },
                iter: 5000
            );

    [Theory]
    [InlineData("5.02", "V", 5.02)]
    [InlineData("5,02 V", "V", 5.02)]
    [InlineData("4k7", "Ω", 4700)]
    [InlineData("4R7", "Ω", 4.7)]
    [InlineData("3V3", "V", 3.3)]
    [InlineData("22u", "F", 22e-6)]
    [InlineData("22 µF", "F", 22e-6)]
    [InlineData("1e-6", "F", 1e-6)]
    [InlineData("20 %", "", 0.2)]
    [InlineData("0.2", "", 0.2)]
    [InlineData(".5", "A", 0.5)]
    [InlineData("−3", "V", -3)]
    [InlineData("60 mm", "mm", 60)]
    [InlineData("2 uA", "µA", 2)]
    public void Quantities_are_read(string text, string unit, double expected) => QuantityText.Parse(text, unit).ShouldBe(expected);

    [Theory]
    [InlineData("5 A", "V")]
    [InlineData("5 kmm", "mm")]
    [InlineData("5k", "mm")]
    [InlineData("1.2.3", "V")]
    [InlineData("5R1", "V")]
    [InlineData("", "V")]
    [InlineData("٥", "V")]
    public void Other_texts_are_not_quantities(string text, string unit) => QuantityText.Parse(text, unit).ShouldBeNull();

    [Fact]
    public void What_is_printed_reads_back() =>
        Gen.Select(Gen.Int[0, 4], Gen.Int[1000, 9999], Gen.Int[-12, 8], Gen.Bool)
            .Sample(
                (which, figures, exponent, comma) =>
                {
                    var unit = new[] { "V", "A", "Ω", "F", "Hz" }[which];
                    var value = double.Parse($"{figures}e{exponent}", System.Globalization.CultureInfo.InvariantCulture);
                    // Small volts are printed as volts, and below a picounit no prefix is left.
                    if (value < (unit == "V" ? 1 : 1e-12) || value >= 1e12)
                        return;
                    var text = Reading.Format(value, unit);
                    QuantityText.Parse(comma ? text.Replace('.', ',') : text, unit)!.Value.ShouldBe(value, value * 1e-12);
                },
                iter: 5000
            );
}
