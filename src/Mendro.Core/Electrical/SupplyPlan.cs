using Mendro.Core.Profiles;

namespace Mendro.Core.Electrical;

/// <summary>How to feed a unit from a bench supply (common practice, no source).</summary>
/// <param name="Volts">Volts, or null when the profile does not say.</param>
/// <param name="LimitAmps">Current limit to work with: a fifth above what the unit was made for.</param>
/// <param name="FirstLimitAmps">Limit for the first switch-on: enough to see life, too little to burn anything.</param>
/// <param name="Where">Where to feed it, or why not to.</param>
public sealed record SupplyPlan(double? Volts, double LimitAmps, double FirstLimitAmps, string Where)
{
    // Where the profile names no current: a cartridge console or handheld of the time draws less.
    private const double UsualAmps = 0.3;

    private const double LimitOverRated = 1.2;

    // Fresh cells and an unloaded adapter stand a little over the label; a slip of the decimal point stands far over it.
    private const double MostOver = 1.25;

    /// <summary>Current the unit was made for, amperes.</summary>
    public double RatedAmps => LimitAmps / LimitOverRated;

    /// <summary>Whether these volts would be far over what the unit was made for; never when the profile does not say.</summary>
    public bool IsTooMuch(double volts) => Volts is { } planned && volts > MostOver * planned;

    /// <summary>Plans the feed of a unit.</summary>
    public static SupplyPlan For(DeviceProfile profile, BenchLimits limits)
    {
        var supply = profile.Supply;
        var amps = supply is { AdapterAmps: { } rated, AdapterVolts: < 50 } ? rated : UsualAmps;
        var (limit, first) = (Math.Round(LimitOverRated * amps, 3), Math.Round(Math.Max(0.05, 0.25 * amps), 3));
        if (supply is { Cells: { } cells, Chemistry: { } chemistry } && limits.Cell(chemistry) is { } cell)
        {
            return new(
                cells * cell.Nominal,
                limit,
                first,
                chemistry == "liion"
                    ? "At the pack's terminals, with the pack taken out: never feed a lithium pack from a bench supply."
                    : "At the battery contacts, cells out; mind the polarity."
            );
        }

        return supply switch
        {
            { AdapterKind: "dc", AdapterVolts: { } volts and < 50 } => new(
                volts,
                limit,
                first,
                supply.Polarity is "centre-negative" or "centre-positive"
                    ? $"At the adapter socket, {supply.Polarity}."
                    : "At the adapter socket; mind the polarity."
            ),
            { AdapterKind: "ac", AdapterVolts: < 50 and { } ac } => new(
                Math.Round(Rectifier.At(ac, 0.7, null).PeakVolts, 1),
                limit,
                first,
                "Behind the rectifier only: the socket wants AC."
            ),
            { AdapterVolts: >= 50 } => new(
                null,
                limit,
                first,
                "Mains inside: feed single rails at the board with the supply board unplugged, or leave it."
            ),
            _ => new(null, limit, first, "The profile does not say what it wants: look at the label."),
        };
    }
}
