using System.Globalization;
using Mendro.Core.Colours;
using Mendro.Core.Proving;

namespace Mendro.Core.Calculators;

/// <summary>What a run of starts proves.</summary>
internal static class ProofCalculators
{
    private const string Group = "Proof";
    private const string Source = "Clopper and Pearson, Biometrika 1934";

    public static IReadOnlyList<Calculator> All { get; } =
    [
        new(
            "starts",
            "Run of starts",
            Group,
            "one-sided upper bound: quantile of Beta(failures + 1, successes) at the confidence",
            Source,
            [
                new("successes", "Good starts", "", "20")
                {
                    Low = 0,
                    High = 1e6,
                    Whole = true,
                },
                new("failures", "Failed starts", "", "0")
                {
                    Low = 0,
                    High = 1e6,
                    Whole = true,
                    Standard = "0",
                },
                new("confidence", "Confidence", "", "0.95")
                {
                    Low = 0,
                    High = 1,
                    Above = true,
                    Below = true,
                    Standard = "0.95",
                    Help = "a fraction, or 95 %",
                },
            ],
            Starts
        ),
        new(
            "starts-needed",
            "Starts needed",
            Group,
            "ln(1 − confidence) / ln(1 − rate), rounded up",
            Source,
            [
                new("maxFailureRate", "Failure rate to rule out", "", "0.05")
                {
                    Low = 0,
                    High = 1,
                    Above = true,
                    Below = true,
                    Standard = "0.05",
                    Help = "a fraction, or 5 %",
                },
                new("confidence", "Confidence", "", "0.95")
                {
                    Low = 0,
                    High = 1,
                    Above = true,
                    Below = true,
                    Standard = "0.95",
                },
            ],
            given =>
                Outcome<CalculatorAnswer>.Ok(
                    new CalculatorAnswer([
                        new("starts", "Good starts in a row", StartRun.StartsNeeded(given["maxFailureRate"], given["confidence"])),
                    ])
                )
        ),
        new(
            "sequential-test",
            "Run until decided",
            Group,
            "failures × ln(r/a) + good starts × ln((1 − r)/(1 − a)) against ln(β/(1 − α)) and ln((1 − β)/α)",
            "Wald, Annals of Mathematical Statistics 16, 1945",
            [
                Rate("accept", "Failure rate to accept", "0.02"),
                Rate("refuse", "Failure rate to refuse", "0.2"),
                Rate("alpha", "Risk to refuse a good one", "0.05"),
                Rate("beta", "Risk to accept a bad one", "0.05"),
                new("starts", "Starts so far", "", "12")
                {
                    Low = 0,
                    High = 1e6,
                    Whole = true,
                    Help = "failed ones among them",
                },
                new("failures", "Failed ones", "", "0")
                {
                    Low = 0,
                    High = 1e6,
                    Whole = true,
                    Standard = "0",
                },
            ],
            Sequential
        ),
        new(
            "colour-difference",
            "Colour difference",
            Group,
            "CIEDE2000 of two colours in CIELAB",
            "CIE 142-2001; Sharma, Wu and Dalal, Color Research and Application 30, 2005",
            [Lightness("l1", "52"), Hue("a1"), Hue("b1"), Lightness("l2", "54"), Hue("a2"), Hue("b2")],
            given =>
            {
                var (one, two) = (new LabColour(given["l1"], given["a1"], given["b1"]), new LabColour(given["l2"], given["a2"], given["b2"]));
                var difference = one.DeltaE(two);
                return Outcome<CalculatorAnswer>.Ok(
                    new CalculatorAnswer([new("deltaE", "Difference", difference)], LabColour.Words(difference))
                );
            }
        ),
    ];

    private static CalculatorKey Rate(string name, string label, string standard) =>
        new(name, label, "", standard)
        {
            Low = 0,
            High = 1,
            Above = true,
            Below = true,
            Standard = standard,
            Help = $"a fraction, or {double.Parse(standard, CultureInfo.InvariantCulture) * 100:0} %",
        };

    private static CalculatorKey Lightness(string name, string example) => new(name, name.ToUpperInvariant(), "", example) { Low = 0, High = 100 };

    private static CalculatorKey Hue(string name) => new(name, name, "", "0") { Low = -200, High = 200 };

    private static Outcome<CalculatorAnswer> Sequential(CalculatorInputs given)
    {
        var test = new SequentialTest(given["accept"], given["refuse"], given["alpha"], given["beta"]);
        var (starts, failures) = ((int)given["starts"], (int)given["failures"]);
        if (test.Problem is { } wrong)
            return Outcome<CalculatorAnswer>.Fail(wrong);
        if (failures > starts)
            return Outcome<CalculatorAnswer>.Fail("failures: no more than starts, among which they count.");
        var decision = test.Decide(starts, failures);
        var words = decision == SequentialDecision.GoOn ? "go on" : decision.ToString().ToLowerInvariant();
        return Outcome<CalculatorAnswer>.Ok(
            new CalculatorAnswer(
                [
                    new("logRatio", "Logarithm of the ratio", test.LogRatio(starts, failures)),
                    new("acceptBelow", "Accepted at or below", test.AcceptBelow),
                    new("refuseAbove", "Refused at or above", test.RefuseAbove),
                    new("decision", "Decision", words),
                    new("startsToAccept", "Further starts without a failure", (double)test.StartsToAccept(starts, failures)),
                ],
                words,
                decision switch
                {
                    SequentialDecision.Accept => true,
                    SequentialDecision.Refuse => false,
                    _ => null,
                }
            )
        );
    }

    private static Outcome<CalculatorAnswer> Starts(CalculatorInputs given)
    {
        var (successes, failures) = ((int)given["successes"], (int)given["failures"]);
        if (successes + failures == 0)
            return Outcome<CalculatorAnswer>.Fail("successes: at least one start is needed.");
        return Outcome<CalculatorAnswer>.Ok(
            new CalculatorAnswer([
                new("upperFailureRate", "Failure rate at most", StartRun.UpperFailureRate(successes, failures, given["confidence"])),
            ])
        );
    }
}
