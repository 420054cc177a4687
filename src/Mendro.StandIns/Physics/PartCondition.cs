using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.StandIns.Physics;

/// <summary>
/// What a part is to a current: how many ohms in series, how many to ground, and how strong it is as a source (values common
/// practice, no source). This is not the advice's network: it knows ohms and volts, not chances of findings.
/// </summary>
/// <param name="SeriesOhms">Resistance from its input to its output, ohms.</param>
/// <param name="ToGroundOhms">Resistance of a short to ground; null for none.</param>
/// <param name="Strength">Share of its volts that it makes as a source or converter, 0 to 1.</param>
/// <param name="InnerOhms">Inner resistance as a source or converter, ohms.</param>
public sealed record PartCondition(double SeriesOhms, double? ToGroundOhms, double Strength, double InnerOhms)
{
    /// <summary>What passes nothing.</summary>
    public const double OpenOhms = 2e7;

    private const double ShortOhms = 0.25;

    /// <summary>A sound part.</summary>
    public static PartCondition Sound(bool pack) => new(0.06, null, 1, pack ? 0.35 : 0.06);

    /// <summary>A part with the faults that act on it at this moment.</summary>
    /// <param name="sound">The part when sound.</param>
    /// <param name="faults">Faults with a number from 0 to 1 that says how bad each is.</param>
    public static PartCondition Of(PartCondition sound, IEnumerable<(FailureMode Mode, string Kind, double Severity)> faults)
    {
        var now = sound;
        foreach (var (mode, kind, severity) in faults)
            now = With(now, mode, kind, severity);
        return now;
    }

    private static PartCondition With(PartCondition now, FailureMode mode, string kind, double severity)
    {
        switch (mode.Effect)
        {
            case ModeEffect.Short:
                return now with { ToGroundOhms = ShortOhms + severity };
            case ModeEffect.Intermittent:
                return now with { SeriesOhms = severity < 0.25 ? 40 : OpenOhms };
            case ModeEffect.Dead when kind is "lithium-pack":
                // Empty, not dead: 2.2 to 3.2 V a cell, and no strength.
                return now with { Strength = 0.6 + 0.26 * severity, InnerOhms = 12 };
            case ModeEffect.Dead when kind is "cells":
                // Flat cells have some volts left and no strength.
                return now with { Strength = 0.25 + 0.45 * severity, InnerOhms = 12 };
            case ModeEffect.Dead:
                return now with { Strength = 0, SeriesOhms = OpenOhms };
            case ModeEffect.Open when mode.Resistive:
                // Dirt and crust are resistances of any size: tens of ohms to nothing at all.
                return now with { SeriesOhms = Math.Pow(10, 1.7 + 4.5 * severity) };
            case ModeEffect.Open:
                return now with { SeriesOhms = OpenOhms };
            default:
                return (kind, mode.Id) switch
                {
                    ("cells", _) => now with { Strength = 0.75, InnerOhms = 8 + 8 * severity },
                    ("lithium-pack", "tired") => now with { Strength = 0.86, InnerOhms = 8 + 8 * severity },
                    ("transformer", _) => now with { Strength = 0.6 + 0.2 * severity, InnerOhms = 6 },
                    ("battery-contacts" or "power-switch" or "mains-switch", _) => now with { SeriesOhms = 4 + 14 * severity },
                    ("supply-board", _) => now with { Strength = 0.62 + 0.28 * severity, InnerOhms = 4 },
                    ("capacitors", _) => now with { SeriesOhms = 1 + 5 * severity },
                    ("adapter", _) => now with { Strength = severity < 0.5 ? 0.6 : 1.5 },
                    _ => now,
                };
        }
    }
}
