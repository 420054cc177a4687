namespace Mendro.Core.Electrical;

/// <summary>A value and its neighbours in a series of preferred values.</summary>
/// <param name="Nearest">Nearest by ratio; the lower of two equally near.</param>
/// <param name="Below">Largest that is not above the value.</param>
/// <param name="Above">Smallest that is not below the value.</param>
public sealed record PreferredValue(double Nearest, double Below, double Above);

/// <summary>A series of preferred values of IEC 60063.</summary>
/// <param name="Name">E6, E12, E24, E48 or E96.</param>
/// <param name="Steps">Values of one decade as whole numbers.</param>
public sealed record PreferredSeries(string Name, IReadOnlyList<int> Steps)
{
    private const double Slack = 1e-9;

    // E24 and its halves are tables in the standard; they are not the rounded roots.
    private static readonly int[] TwentyFour =
    [
        10,
        11,
        12,
        13,
        15,
        16,
        18,
        20,
        22,
        24,
        27,
        30,
        33,
        36,
        39,
        43,
        47,
        51,
        56,
        62,
        68,
        75,
        82,
        91,
    ];

    /// <summary>E6, 20 %.</summary>
    public static PreferredSeries E6 { get; } = new("E6", TwentyFour.Where((_, n) => n % 4 == 0).ToList());

    /// <summary>E12, 10 %.</summary>
    public static PreferredSeries E12 { get; } = new("E12", TwentyFour.Where((_, n) => n % 2 == 0).ToList());

    /// <summary>E24, 5 %.</summary>
    public static PreferredSeries E24 { get; } = new("E24", TwentyFour);

    /// <summary>E48, 2 %.</summary>
    public static PreferredSeries E48 { get; } = Roots("E48", 48);

    /// <summary>E96, 1 %.</summary>
    public static PreferredSeries E96 { get; } = Roots("E96", 96);

    /// <summary>All series.</summary>
    public static IReadOnlyList<PreferredSeries> All { get; } = [E6, E12, E24, E48, E96];

    /// <summary>Finds a series by name.</summary>
    public static PreferredSeries? Find(string name) =>
        All.FirstOrDefault(s => s.Name.Equals(name.Trim(), StringComparison.OrdinalIgnoreCase));

    /// <summary>The preferred values around a value above 0.</summary>
    public PreferredValue Around(double value)
    {
        var decade = (int)Math.Floor(Math.Log10(value)) - (Steps[0] == 10 ? 1 : 2);
        // One decade to each side: a value just under a decade has its upper neighbour in the next one.
        var all = Enumerable.Range(decade - 1, 3).SelectMany(d => Steps.Select(s => PowerOfTen.Scale(s, d))).ToList();
        var below = all.Last(v => v <= value * (1 + Slack));
        var above = all.First(v => v >= value * (1 - Slack));
        return new PreferredValue(value / below <= above / value * (1 + Slack) ? below : above, below, above);
    }

    private static PreferredSeries Roots(string name, int count) =>
        new(name, Enumerable.Range(0, count).Select(n => (int)Math.Round(100 * Math.Pow(10, (double)n / count))).ToList());
}
