using Mendro.Core.Electrical;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>What a probe should show, and who says so.</summary>
/// <param name="Probe">The probe with its limits filled in.</param>
/// <param name="Place">Where it is taken.</param>
/// <param name="ByRule">True when a rule of the trade gave the limits, false when the profile did.</param>
/// <param name="From">Who says so: the profile, or the rule in words.</param>
public sealed record Expected(Probe Probe, ProbePlace Place, bool ByRule, string From);

/// <summary>Expectations: the profile's own where it has any, else the rules of the trade (common practice, no source).</summary>
public static class ExpectationRules
{
    /// <summary>Completes a probe.</summary>
    public static Expected For(DeviceProfile profile, Probe probe) => For(profile, probe, BenchLimits.Shipped);

    /// <summary>Completes a probe by given limits.</summary>
    public static Expected For(DeviceProfile profile, Probe probe, BenchLimits limits)
    {
        var place = ProbePlace.Of(profile, probe, limits);
        if (probe.Expect is not { Low: null, High: null } || TradeLibrary.Of(probe.Kind).ByEye)
            return new(probe, place, false, "the profile");
        var supply = profile.Supply;
        (double? Low, double? High, string From)? rule = place.Kind switch
        {
            PlaceKind.Pack when place.Pack is { } pack => (
                Weak(pack, limits),
                pack.Cells * pack.Cell.Highest,
                $"{pack.Cells} × {pack.Cell.Name}, weak to fresh"
            ),
            PlaceKind.Adapter when supply is { AdapterVolts: { } volts, AdapterKind: "dc" } => (
                volts * (1 - limits.AdapterTolerance),
                volts * (1 + limits.AdapterTolerance),
                FormattableString.Invariant($"{volts:0.##} V adapter ±{limits.AdapterTolerance * 100:0} %")
            ),
            PlaceKind.Rail when place.Rail is { } rail && Expectation.Around(rail.Volts, rail.Tolerance, "V") is var around => (
                around.Low,
                around.High,
                FormattableString.Invariant($"rail {Reading.Format(rail.Volts, "V")} ±{rail.Tolerance * 100:0} %")
            ),
            PlaceKind.SaveCell => (limits.SaveCell.Doubtful, limits.SaveCell.Fresh + 0.1, "save cell of 3 V"),
            PlaceKind.Contact or PlaceKind.Switch => (
                probe.Kind == ProbeKind.Continuity ? 1 : null,
                probe.Kind == ProbeKind.Continuity ? null : limits.Contact.DirtyOhms,
                "a closed contact"
            ),
            PlaceKind.RailToGround => (limits.ShortOhms, null, "a supply that is not shorted"),
            PlaceKind.Junction => (limits.Diode.Low, limits.Diode.High, "a good junction"),
            PlaceKind.Draw when supply?.AdapterAmps is { } amps => (0.005, amps, FormattableString.Invariant($"adapter of {amps:0.###} A")),
            _ => null,
        };
        return rule is { } r
            ? new(
                probe with
                {
                    Expect = probe.Expect.Between(
                        r.Low is { } low ? Round(low) : null,
                        r.High is { } high ? Round(high) : null
                    ),
                },
                place,
                true,
                r.From
            )
            : new(probe, place, false, "");
    }

    /// <summary>A bay that takes dry cells takes rechargeable ones too: weak begins where the weaker of them is weak.</summary>
    private static double Weak(BatteryPack pack, BenchLimits limits) =>
        pack.Cell.Chemistry is "alkaline" or "nimh"
            ? pack.Cells * limits.Cells.Where(c => c.Chemistry is "alkaline" or "nimh").Min(c => c.Low)
            : pack.Low;

    private static double Round(double value) => Math.Round(value, 6);
}
