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
    ];

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
