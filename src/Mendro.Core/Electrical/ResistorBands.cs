namespace Mendro.Core.Electrical;

/// <summary>A resistor read from its coloured bands.</summary>
/// <param name="Ohms">Resistance, ohms.</param>
/// <param name="Tolerance">Tolerance, fraction.</param>
/// <param name="PartsPerMillionPerKelvin">Temperature coefficient, 10⁻⁶/K, of six bands.</param>
/// <param name="Colours">The bands by their standard names.</param>
public sealed record ResistorBands(double Ohms, double Tolerance, double? PartsPerMillionPerKelvin, IReadOnlyList<string> Colours)
{
    private static readonly string[] Digits = ["black", "brown", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white"];

    private static readonly Dictionary<string, int> OtherExponents = new()
    {
        ["gold"] = -1,
        ["silver"] = -2,
        ["pink"] = -3,
    };

    private static readonly Dictionary<string, double> Tolerances = new()
    {
        ["brown"] = 0.01,
        ["red"] = 0.02,
        ["orange"] = 0.0005,
        ["yellow"] = 0.0002,
        ["green"] = 0.005,
        ["blue"] = 0.0025,
        ["violet"] = 0.001,
        ["grey"] = 0.0001,
        ["gold"] = 0.05,
        ["silver"] = 0.1,
        ["none"] = 0.2,
    };

    private static readonly Dictionary<string, double> Coefficients = new()
    {
        ["black"] = 250,
        ["brown"] = 100,
        ["red"] = 50,
        ["orange"] = 15,
        ["yellow"] = 25,
        ["green"] = 20,
        ["blue"] = 10,
        ["violet"] = 5,
        ["grey"] = 1,
    };

    // Two letters for a colour, as IEC 60757 has them.
    private static readonly Dictionary<string, string> Codes = new()
    {
        ["bk"] = "black",
        ["bn"] = "brown",
        ["rd"] = "red",
        ["og"] = "orange",
        ["ye"] = "yellow",
        ["gn"] = "green",
        ["bu"] = "blue",
        ["vt"] = "violet",
        ["gy"] = "grey",
        ["wh"] = "white",
        ["gd"] = "gold",
        ["sr"] = "silver",
        ["pk"] = "pink",
    };

    /// <summary>Every colour a band may have.</summary>
    public static IReadOnlyList<string> AllColours { get; } = [.. Digits, "gold", "silver", "pink", "none"];

    /// <summary>Reads three to six bands, by IEC 60062. Three bands are ±20 %.</summary>
    /// <param name="bands">Colours from the end where the bands begin; English or American spelling, or the two letters of IEC
    /// 60757.</param>
    public static Outcome<ResistorBands> Read(IReadOnlyList<string> bands)
    {
        var colours = bands
            .Select(b =>
                b.Trim().ToLowerInvariant() switch
                {
                    "gray" => "grey",
                    "purple" => "violet",
                    var c => Codes.GetValueOrDefault(c, c),
                }
            )
            .ToList();
        if (colours.Count is < 3 or > 6)
            return Outcome<ResistorBands>.Fail($"three to six colours are wanted, not {colours.Count}.");
        if (colours.FirstOrDefault(c => !AllColours.Contains(c)) is { } unknown)
            return Outcome<ResistorBands>.Fail($"“{unknown}” is no band colour. Known: {string.Join(", ", AllColours)}.");
        var digits = colours.Count >= 5 ? 3 : 2;
        double significant = 0;
        foreach (var colour in colours.Take(digits))
        {
            var digit = Array.IndexOf(Digits, colour);
            if (digit < 0)
                return Outcome<ResistorBands>.Fail($"{colour} cannot be a figure. Is the resistor read from the other end?");
            significant = significant * 10 + digit;
        }

        var multiplier = colours[digits];
        var exponent = OtherExponents.TryGetValue(multiplier, out var low) ? low : Array.IndexOf(Digits, multiplier);
        if (multiplier == "none")
            return Outcome<ResistorBands>.Fail("the multiplier cannot be missing.");
        var tolerance = 0.2;
        if (colours.Count > digits + 1 && !Tolerances.TryGetValue(colours[digits + 1], out tolerance))
            return Outcome<ResistorBands>.Fail($"{colours[digits + 1]} is no tolerance. Is the resistor read from the other end?");
        double coefficient = 0;
        if (colours.Count == 6 && !Coefficients.TryGetValue(colours[5], out coefficient))
            return Outcome<ResistorBands>.Fail($"{colours[5]} is no temperature coefficient.");
        return Outcome<ResistorBands>.Ok(
            new ResistorBands(PowerOfTen.Scale(significant, exponent), tolerance, colours.Count == 6 ? coefficient : null, colours)
        );
    }
}
