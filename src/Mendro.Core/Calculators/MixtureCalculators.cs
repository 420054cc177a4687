using Mendro.Core.Library;
using Mendro.Core.Methods;

namespace Mendro.Core.Calculators;

/// <summary>Mixing liquids, and degrees.</summary>
internal static class MixtureCalculators
{
    private const string Group = "Liquids and heat";

    public static IReadOnlyList<Calculator> All { get; } =
    [
        new(
            "dilute",
            "Dilute alcohol",
            Group,
            "C₁ V₁ = C₂ V₂, volumes taken as additive",
            "textbook",
            [
                new("fromPercent", "Strength of the stock", "%", "99")
                {
                    Low = 0,
                    High = 100,
                    Above = true,
                    Standard = "99",
                },
                new("toPercent", "Strength wanted", "%", "70")
                {
                    Low = 0,
                    High = 100,
                    Above = true,
                    Standard = "70",
                },
                new("volumeMl", "Volume wanted", "ml", "100")
                {
                    Low = 0,
                    High = 1e6,
                    Above = true,
                },
            ],
            Dilute
        ),
        new(
            "ratio",
            "Mix in parts",
            Group,
            "part = total × parts / (parts + to)",
            "arithmetic",
            [
                new("parts", "Parts", "", "1")
                {
                    Low = 0,
                    High = 1e6,
                    Above = true,
                    Standard = "1",
                },
                new("to", "to", "", "10")
                {
                    Low = 0,
                    High = 1e6,
                    Above = true,
                    Standard = "10",
                },
                new("totalMl", "Total", "ml", "1100")
                {
                    Low = 0,
                    High = 1e9,
                    Above = true,
                },
            ],
            given =>
                Ok(
                    "no-mixing",
                    new("partMl", "Of the agent", given["totalMl"] * given["parts"] / (given["parts"] + given["to"]), "ml"),
                    new("restMl", "Of the rest", given["totalMl"] * given["to"] / (given["parts"] + given["to"]), "ml")
                )
        ),
        new(
            "neutralise",
            "Neutralise vinegar",
            Group,
            "moles of acetic acid = grams / 60.052; bicarbonate = moles × 84.007 g",
            "IUPAC standard atomic weights; CH₃COOH + NaHCO₃ → CH₃COONa + H₂O + CO₂",
            [
                new("acidPercent", "Acetic acid", "%", "5")
                {
                    Low = 0,
                    High = 100,
                    Above = true,
                    Standard = "5",
                    Help = "grams in 100 ml",
                },
                new("volumeMl", "Vinegar", "ml", "250")
                {
                    Low = 0,
                    High = 1e6,
                    Above = true,
                },
            ],
            given =>
                Ok(
                    "no-mixing",
                    new CalculatorOutput(
                        "bicarbonateGrams",
                        "Sodium bicarbonate",
                        Mixtures.BicarbonateGrams(given["acidPercent"], given["volumeMl"]),
                        "g"
                    )
                )
        ),
        new(
            "temperature",
            "Temperature",
            Group,
            "°F = °C × 9 / 5 + 32",
            "definition",
            [new("celsius", "Celsius", "°C", "280") { Low = -273.15, High = 1e6 }],
            given => Ok(null, new CalculatorOutput("fahrenheit", "Fahrenheit", given["celsius"] * 9 / 5 + 32, "°F"))
        ),
    ];

    private static Outcome<CalculatorAnswer> Dilute(CalculatorInputs given)
    {
        if (given["toPercent"] > given["fromPercent"])
            return Outcome<CalculatorAnswer>.Fail("toPercent: water makes it weaker, never stronger; it must be at most fromPercent.");
        var stock = Mixtures.StockMl(given["fromPercent"], given["toPercent"], given["volumeMl"]);
        return Ok("alcohol-fire", new("stockMl", "Stock", stock, "ml"), new("waterMl", "Water", given["volumeMl"] - stock, "ml"));
    }

    private static Outcome<CalculatorAnswer> Ok(string? caution, params CalculatorOutput[] outputs) =>
        Outcome<CalculatorAnswer>.Ok(new CalculatorAnswer(outputs, Caution: caution));
}
