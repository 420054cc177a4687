using System.Globalization;
using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>Where a part comes from; the first is taken first.</summary>
public enum CapacitorSource
{
    /// <summary>The shop's drawer.</summary>
    Stock,

    /// <summary>A kit that was ordered.</summary>
    Kit,

    /// <summary>To be bought.</summary>
    Catalogue,
}

/// <summary>A capacitor that may go in.</summary>
/// <param name="Id">Id.</param>
/// <param name="Farads">Value, farads.</param>
/// <param name="Volts">Rated voltage, volts.</param>
/// <param name="DiameterMm">Diameter, mm.</param>
/// <param name="HeightMm">Height of the can, mm.</param>
/// <param name="LeadMm">Legs that can be bent, mm.</param>
/// <param name="Mount">through-hole or surface.</param>
/// <param name="Polar">False for a bipolar one.</param>
/// <param name="Celsius">Highest temperature, °C.</param>
/// <param name="EsrOhms">ESR, ohms; null when not told.</param>
/// <param name="Count">How many there are; null for as many as one buys.</param>
/// <param name="Price">Price of one, or null.</param>
/// <param name="Source">Where it comes from.</param>
/// <param name="Name">What the label says; null to name it by its figures.</param>
public sealed record CapacitorPart(
    string Id,
    double Farads,
    double Volts,
    double DiameterMm,
    double HeightMm,
    double LeadMm = 10,
    string Mount = "through-hole",
    bool Polar = true,
    double Celsius = 105,
    double? EsrOhms = null,
    int? Count = null,
    decimal? Price = null,
    CapacitorSource Source = CapacitorSource.Catalogue,
    string? Name = null
)
{
    /// <summary>Value, volts, size and sort, such as <c>10 µF 16 V, 4 × 7 mm</c>.</summary>
    public string Words =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{Value(Farads)} {Volts:0.##} V, {DiameterMm:0.##} × {HeightMm:0.##} mm"
                + $"{(Mount == "surface" ? ", surface" : "")}{(Polar ? "" : ", bipolar")}"
        );

    /// <summary>A capacitance as one says it: 4.7 µF, 220 nF.</summary>
    public static string Value(double farads)
    {
        var (figure, unit) =
            farads >= 0.99e-6 ? (farads * 1e6, "µF")
            : farads >= 0.99e-9 ? (farads * 1e9, "nF")
            : (farads * 1e12, "pF");
        return string.Create(CultureInfo.InvariantCulture, $"{figure:0.##} {unit}");
    }
}

/// <summary>How well a part goes with a position, size left aside.</summary>
/// <param name="Part">Part.</param>
/// <param name="Problem">Why it may not go in; null when it may.</param>
/// <param name="Remarks">What speaks against it without forbidding it.</param>
public sealed record CapacitorMatch(CapacitorPart Part, string? Problem, IReadOnlyList<string> Remarks)
{
    /// <summary>Furthest that a value may lie off, fraction: the tolerance of the old ones themselves.</summary>
    public const double ValueTolerance = 0.2;

    /// <summary>Voltage that small values come in whatever is asked for, volts.</summary>
    public const double UsualVolts = 50;

    /// <summary>Judges a part: same value within its tolerance, volts the same or higher and not wildly, bipolar kept bipolar,
    /// ESR not above the old one's table figure on supply positions, 105 °C preferred (common practice, no source).</summary>
    /// <param name="position">Position.</param>
    /// <param name="part">Part.</param>
    /// <param name="largestEsrOhms">Largest good ESR of its value, ohms, or null.</param>
    public static CapacitorMatch Judge(BoardCapacitor position, CapacitorPart part, double? largestEsrOhms = null)
    {
        CapacitorMatch No(string why) => new(part, why, []);
        if (position.Farads is { } farads && !HasValue(part, farads))
            return No($"{CapacitorPart.Value(part.Farads)} for {CapacitorPart.Value(farads)}");
        if (position.Volts is { } volts)
        {
            if (!Bears(part, volts))
                return No(FormattableString.Invariant($"{part.Volts:0.##} V for {volts:0.##} V"));
            if (part.Volts > Math.Max(4 * volts, UsualVolts))
                return No(FormattableString.Invariant($"{part.Volts:0.##} V is far above {volts:0.##} V"));
        }

        if (!HasPolarity(position, part))
            return No("the position wants a bipolar one");
        if (!HasLegs(position, part))
            return No("a surface can has no legs");
        if (part.EsrOhms > largestEsrOhms && position.Section?.Contains("supply", StringComparison.OrdinalIgnoreCase) == true)
            return No(FormattableString.Invariant($"ESR {part.EsrOhms:0.###} Ω, at most {largestEsrOhms:0.###} Ω in a supply"));
        var remarks = new List<string>();
        if (part.Celsius < 105)
            remarks.Add(FormattableString.Invariant($"{part.Celsius:0} °C only"));
        if (position.Farads is { } wanted && Math.Abs(part.Farads / wanted - 1) > 0.01)
            remarks.Add($"{CapacitorPart.Value(part.Farads)} instead of {CapacitorPart.Value(wanted)}");
        if (position.Polar && !part.Polar)
            remarks.Add("bipolar, goes in either way");
        return new CapacitorMatch(part, null, remarks);
    }

    /// <summary>True for a value within the tolerance of the old ones.</summary>
    internal static bool HasValue(CapacitorPart part, double farads) => Math.Abs(part.Farads / farads - 1) <= ValueTolerance + 1e-9;

    /// <summary>True for a part that bears as many volts.</summary>
    internal static bool Bears(CapacitorPart part, double volts) => part.Volts >= volts - 1e-9;

    /// <summary>True unless the position wants a bipolar one and the part is none.</summary>
    internal static bool HasPolarity(BoardCapacitor position, CapacitorPart part) => position.Polar || !part.Polar;

    /// <summary>True unless a part without legs is to go into holes: the feet of a surface can reach none, while legs of a radial one can be
    /// bent onto pads.</summary>
    internal static bool HasLegs(BoardCapacitor position, CapacitorPart part) => part.Mount != "surface" || position.Mount != "through-hole";

    /// <summary>The fitting parts of a position, the best first: of one's own before bought ones, fewest remarks, same mount, nearest
    /// value, lowest voltage; of those alike the smallest and the others by size.</summary>
    public static IReadOnlyList<CapacitorMatch> Rank(BoardCapacitor position, IEnumerable<CapacitorPart> parts, Func<double, double>? esr = null) =>
        parts
            .Where(p => p.Count is null or > 0)
            .Select(p => Judge(position, p, position.Farads is { } farads ? esr?.Invoke(farads) : null))
            .Where(m => m.Problem is null)
            .OrderBy(m => m.Part.Source)
            .ThenBy(m => m.Remarks.Count)
            .ThenBy(m => position.Mount is null || m.Part.Mount == position.Mount ? 0 : 1)
            .ThenBy(m => position.Farads is { } farads ? Math.Abs(Math.Log(m.Part.Farads / farads)) : 0)
            .ThenBy(m => m.Part.Volts)
            .ThenBy(m => m.Part.HeightMm * m.Part.DiameterMm)
            .ThenBy(m => m.Part.Id, StringComparer.Ordinal)
            .ToList();
}
