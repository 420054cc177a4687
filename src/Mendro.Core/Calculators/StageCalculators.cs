using Mendro.Core.Capacitors;

namespace Mendro.Core.Calculators;

/// <summary>Work in stages.</summary>
internal static class StageCalculators
{
    public static IReadOnlyList<Calculator> All { get; } =
    [
        new(
            "stage-size",
            "Parts between two power-ups",
            "Proof",
            "minutes a part = test / n + (1 − (1 − p)ⁿ) × inspect, least over n; n = 1: test",
            "Dorfman, Annals of Mathematical Statistics 1943",
            [
                new("faultChance", "Chance of a bad joint", "", "0.01")
                {
                    Low = 0,
                    High = 1,
                    Above = true,
                    Below = true,
                    Standard = "0.01",
                    Help = "a fraction, or 1 %",
                },
                new("testMinutes", "Power up and try", "min", "1")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                    Standard = "1",
                },
                new("inspectMinutes", "Look at one part again", "min", "1")
                {
                    Low = 0,
                    High = 1000,
                    Above = true,
                    Standard = "1",
                },
            ],
            given =>
            {
                var best = StageSize.Best(given["faultChance"], given["testMinutes"], given["inspectMinutes"]);
                return Outcome<CalculatorAnswer>.Ok(
                    new CalculatorAnswer(
                        [
                            new("groupSize", "Parts in a group", (double)best.Size),
                            new("minutesPerPart", "Expected, a part", best.MinutesPerPart, "min"),
                        ]
                    )
                );
            }
        ),
    ];
}
