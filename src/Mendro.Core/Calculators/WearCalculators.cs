using Mendro.Core.Electrical;

namespace Mendro.Core.Calculators;

/// <summary>Capacitors and save cells, and how long they last.</summary>
internal static class WearCalculators
{
    private const string Group = "Wear";

    public static IReadOnlyList<Calculator> All { get; } =
    [
        new(
            "capacitor-check",
            "Capacitor check",
            Group,
            "deviation = measured / rated − 1; ESR against the table",
            $"common practice (−20 % usual); ESR: {BenchLimits.Shipped.EsrSource}",
            [
                new("rated", "Printed value", "F", "100u")
                {
                    Low = 0,
                    High = 100,
                    Above = true,
                },
                new("measured", "Measured out of circuit", "F", "82u") { Low = 0, High = 100 },
                new("esr", "Measured ESR", "Ω", "0.3")
                {
                    Low = 0,
                    High = 1e6,
                    Optional = true,
                },
                new("tolerance", "Tolerance", "", "0.2")
                {
                    Low = 0,
                    High = 1,
                    Above = true,
                    Standard = "0.2",
                    Help = "a fraction, or 20 %",
                },
            ],
            Check
        ),
        new(
            "capacitor-life",
            "Capacitor life",
            Group,
            "life × 2^((rated − actual) / 10)",
            "ten-degree rule, common in makers' notes",
            [
                new("hours", "Rated life", "h", "2000")
                {
                    Low = 0,
                    High = 1e7,
                    Above = true,
                },
                new("ratedCelsius", "at", "°C", "105")
                {
                    Low = -60,
                    High = 300,
                    Standard = "105",
                },
                new("actualCelsius", "It works at", "°C", "45")
                {
                    Low = -60,
                    High = 300,
                    Standard = "45",
                },
            ],
            given =>
                Outcome<CalculatorAnswer>.Ok(
                    new CalculatorAnswer([
                        new("hours", "Life", CapacitorCheck.LifeHours(given["hours"], given["ratedCelsius"], given["actualCelsius"]), "h"),
                    ])
                )
        ),
        new(
            "save-cell",
            "Save cell",
            Group,
            "capacity / current; self-discharge left out",
            "common practice; a CR2032 has about 225 mAh",
            [
                new("capacityMah", "Capacity", "mAh", "225")
                {
                    Low = 0,
                    High = 1e6,
                    Above = true,
                    Standard = "225",
                },
                new("microamps", "Current at rest", "µA", "2")
                {
                    Low = 0,
                    High = 1e6,
                    Above = true,
                    Standard = "2",
                },
            ],
            given =>
                Outcome<CalculatorAnswer>.Ok(
                    new CalculatorAnswer([new("years", "It lasts", SaveCellLife.Years(given["capacityMah"], given["microamps"]), "years")])
                )
        ),
    ];

    private static Outcome<CalculatorAnswer> Check(CalculatorInputs given)
    {
        var check = CapacitorCheck.Judge(given["rated"], given["measured"], given.Maybe("esr"), given["tolerance"], BenchLimits.Shipped);
        var outputs = new List<CalculatorOutput> { new("deviation", "Deviation", check.Deviation) };
        if (given.Maybe("esr") is not null)
            outputs.Add(new("largestEsr", "Highest good ESR", check.LargestEsrOhms, "Ω"));
        outputs.Add(new("verdict", "Verdict", check.Verdict));
        return Outcome<CalculatorAnswer>.Ok(new CalculatorAnswer(outputs, check.Verdict, check.Verdict == "good"));
    }
}
