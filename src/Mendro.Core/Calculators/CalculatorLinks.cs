using System.Globalization;
using Mendro.Core.Electrical;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Calculators;

/// <summary>A calculator that applies somewhere, with what is known filled in.</summary>
/// <param name="Calculator">Calculator.</param>
/// <param name="Known">Values by key.</param>
public sealed record CalculatorLink(Calculator Calculator, IReadOnlyDictionary<string, string> Known);

/// <summary>Which calculators apply to a part, a probe or a method of a unit.</summary>
public static class CalculatorLinks
{
    /// <summary>Calculators for a part.</summary>
    public static IReadOnlyList<CalculatorLink> ForPart(DeviceProfile profile, Part part) =>
        (TradeLibrary.Shipped.FindPartKind(part.Kind)?.Calculators ?? []).Select(name => Filled(profile, name, null)).ToList();

    /// <summary>Calculators for a probe: those of the part it is taken at, or of what it measures.</summary>
    /// <param name="profile">Profile.</param>
    /// <param name="probe">Probe.</param>
    /// <param name="measured">Value just read in the SI base unit, or null.</param>
    public static IReadOnlyList<CalculatorLink> ForProbe(DeviceProfile profile, Probe probe, double? measured)
    {
        if (probe.Kind == ProbeKind.Capacitance)
            return [Filled(profile, "capacitor-check", measured)];
        var part = profile.FindPart(probe.At ?? probe.Spans?.FirstOrDefault() ?? "");
        if (part is null)
            return [];
        // Behind contacts, fuse and switch it is still the pack that is measured.
        var fromPack =
            probe.Kind == ProbeKind.Volts && TradeLibrary.Shipped.Has(part.Kind, PartRole.PackPath) && profile.Supply?.Cells is not null;
        var names = fromPack ? ["battery-pack"] : (TradeLibrary.Shipped.FindPartKind(part.Kind)?.Calculators ?? []);
        return names.Select(name => Filled(profile, name, probe.Kind == ProbeKind.Volts ? measured : null)).ToList();
    }

    private static CalculatorLink Filled(DeviceProfile profile, string name, double? measured)
    {
        var known = new Dictionary<string, string>();
        void Know(string key, object? value)
        {
            if (value is double number)
                known[key] = number.ToString("0.#########", CultureInfo.InvariantCulture);
            else if (value?.ToString() is { Length: > 0 } text)
                known[key] = text;
        }

        var supply = profile.Supply;
        var logic = supply?.Rails?.OrderBy(r => Math.Abs(r.Volts - 5)).FirstOrDefault()?.Volts;
        switch (name)
        {
            case "battery-pack":
                if (BenchLimits.Shipped.Cell(supply?.Chemistry) is { } cell)
                    Know("chemistry", cell.Chemistry);
                Know("cells", supply?.Cells);
                Know("measured", measured);
                break;
            case "regulator":
                Know("vin", supply?.AdapterVolts);
                Know("vout", logic);
                Know("current", supply?.AdapterAmps);
                break;
            case "adapter":
                Know("needKind", supply?.AdapterKind);
                Know("needVolts", supply?.AdapterVolts);
                Know("needAmps", supply?.AdapterAmps);
                Know("needPolarity", supply?.Polarity);
                break;
            case "rectified":
                if (supply?.AdapterKind == "ac")
                    Know("acVolts", supply.AdapterVolts);
                break;
            case "capacitor-check":
                Know("measured", measured);
                break;
        }

        return new CalculatorLink(CalculatorShelf.Find(name)!, known);
    }
}
