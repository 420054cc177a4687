using Mendro.Core.Methods;

namespace Mendro.Core.Calculators;

/// <summary>Soldering: what the iron, the tip and the hand should do.</summary>
internal static class SolderCalculators
{
    private static readonly SolderLibrary Library = SolderLibrary.Shipped;

    public static IReadOnlyList<Calculator> All { get; } =
    [
        new(
            "solder",
            "Solder a joint",
            "Liquids and heat",
            "iron = liquidus of the alloy + what the joint draws − what a sick board cannot bear, 400 °C at most",
            "ISO 9453 (melting points, values from memory); the rest common practice, no source",
            [
                new("alloy", "Alloy", "", "sn63pb37") { Choices = Library.Alloys.Select(a => a.Id).ToList(), Standard = "sn63pb37" },
                new("joint", "Joint", "", "through-hole") { Choices = Library.Joints.Select(j => j.Id).ToList() },
                new("board", "Board", "", "sound") { Choices = Library.Boards.Select(b => b.Id).ToList(), Standard = "sound" },
            ],
            Solder
        ),
    ];

    private static Outcome<CalculatorAnswer> Solder(CalculatorInputs given)
    {
        var alloy = Library.Alloys.Single(a => a.Id == given.Text("alloy"));
        var joint = Library.Joints.Single(j => j.Id == given.Text("joint"));
        var board = Library.Boards.Single(b => b.Id == given.Text("board"));
        var advice = Library.Advise(alloy, joint, board);
        return Outcome<CalculatorAnswer>.Ok(
            new CalculatorAnswer(
                [
                    new("solidusCelsius", "Solid below", alloy.SolidusC, "°C"),
                    new("liquidusCelsius", "Liquid above", alloy.LiquidusC, "°C"),
                    new("ironCelsius", "Iron", advice.IronC, "°C"),
                    new("leastSeconds", "Touch, at least", advice.LeastSeconds, "s"),
                    new("mostSeconds", "Touch, at most", advice.MostSeconds, "s"),
                    new("tip", "Tip", advice.Tip),
                    new("flux", "Flux", advice.Flux),
                    new("addSolder", "Fresh solder", advice.Add),
                ],
                advice.Words.Count > 0 ? string.Join("; ", advice.Words) : null,
                advice.Words.Count > 0 ? false : null,
                board.Id == "sound" ? "fumes" : "pad-lift",
                $"{alloy.Source}; {joint.Source}"
            )
        );
    }
}
