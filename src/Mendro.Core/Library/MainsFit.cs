using System.Globalization;
using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>Mains volts that a plate names.</summary>
/// <param name="Low">Lowest, V.</param>
/// <param name="High">Highest, V.</param>
public sealed record MainsRange(double Low, double High);

/// <summary>Whether a unit may be plugged into the wall of this shop.</summary>
public static class MainsFit
{
    /// <summary>Volts at most walls.</summary>
    public const double UsualWall = 230;

    /// <summary>Volts that a wall may give: IEC 60038 names 230 and 120 V, 100 V is given in one country more.</summary>
    public static IReadOnlyList<double> Walls { get; } = [UsualWall, 120, 100];

    // A transformer is chosen a quarter larger than what hangs on it, in the sizes that are sold (common practice, no source).
    private const double Reserve = 1.25;
    private const double Sizes = 25;

    private const double Narrow = 25;

    /// <summary>Usual volts at the wall where a currency is spent (value from memory); 230 where nothing is known.</summary>
    public static double WallOf(string currency) =>
        currency switch
        {
            "USD" or "CAD" or "MXN" => 120,
            "JPY" => 100,
            _ => UsualWall,
        };

    /// <summary>Why a unit must not be plugged in as it is, and what helps; null when it fits.</summary>
    /// <param name="plate">What its plate names.</param>
    /// <param name="wallVolts">Volts at the wall.</param>
    /// <param name="supply">Supply of its model, for the size of a transformer; null when it is not known.</param>
    public static string? Against(MainsRange plate, double wallVolts, Supply? supply)
    {
        if (wallVolts >= plate.Low && wallVolts <= plate.High)
            return null;
        var narrow = plate.High - plate.Low < Narrow;
        var volts = narrow ? Inv($"about {(plate.Low + plate.High) / 2:0}") : Inv($"{plate.Low:0} to {plate.High:0}");
        var made = $"Made for {volts} V";
        var meant = Math.Round((plate.Low + plate.High) / 2 / 5) * 5;
        var size =
            supply is { AdapterVolts: > 50 and var fed, AdapterAmps: { } amps }
                ? Inv($"at least {Math.Ceiling(fed * amps * Reserve / Sizes) * Sizes:0} VA")
                : "at least a quarter over the watts on its plate";
        return wallVolts > plate.High
            ? Inv($"{made}, the wall gives {wallVolts:0} V: not without a step-down transformer {wallVolts:0} to {meant:0} V, {size}.")
            : Inv($"{made}, the wall gives {wallVolts:0} V: it wants a step-up transformer {wallVolts:0} to {meant:0} V, {size}.");
    }

    private static string Inv(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
