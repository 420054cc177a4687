using System.Globalization;
using System.Text.RegularExpressions;
using Mendro.Core.Capacitors;

namespace Mendro.Core.Stock;

/// <summary>A bin of capacitors seen as parts of a capacitor job, and such a part seen as a bin.</summary>
public static partial class StockCapacitor
{
    [GeneratedRegex(@"^(?<value>[0-9.]+ [pnµ]F) (?<volts>[0-9.]+) V, (?<size>[0-9.]+ × [0-9.]+ mm)(?<surface>, surface)?(?<bipolar>, bipolar)?$")]
    private static partial Regex Pattern();

    /// <summary>What a part of this name is: a capacitor named by its figures gets them, any other only its name.</summary>
    public static StockSpec Named(string name) =>
        Pattern().Match(name) is { Success: true } told && CapacitorFile.Farads(told.Groups["value"].Value) is { } farads
            ? new StockSpec(
                name,
                StockSpec.Capacitor,
                farads,
                double.Parse(told.Groups["volts"].Value, CultureInfo.InvariantCulture),
                Size: told.Groups["size"].Value,
                Mount: told.Groups["surface"].Success ? "surface" : "through-hole"
            )
            : new StockSpec(name);

    /// <summary>The part that lies in a bin; null unless value, volts and size are known.</summary>
    /// <param name="spec">What is in the bin.</param>
    /// <param name="id">Id that the part gets.</param>
    /// <param name="count">How many there are to take.</param>
    /// <param name="cost">Own cost of one, or null.</param>
    public static CapacitorPart? Part(StockSpec spec, string id, int count, decimal? cost) =>
        spec is { Sort: StockSpec.Capacitor, Value: { } farads, Volts: { } volts }
        && CapacitorFile.Size(spec.Size) is { DiameterMm: > 0 and <= 100 and { } diameter, HeightMm: > 0 and <= 200 and { } height }
            ? new CapacitorPart(
                id,
                farads,
                volts,
                diameter,
                height,
                spec.Mount == "surface" ? 0 : 10,
                spec.Mount == "surface" ? "surface" : "through-hole",
                !spec.Name.Contains("bipolar", StringComparison.OrdinalIgnoreCase),
                Count: count,
                Price: cost,
                Source: CapacitorSource.Stock,
                Name: spec.Name
            )
            : null;
}
