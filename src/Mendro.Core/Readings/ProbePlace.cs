using Mendro.Core.Electrical;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Readings;

/// <summary>What a probe really measures, whatever it is called.</summary>
public enum PlaceKind
{
    /// <summary>The pack, or the pack behind contacts, fuse and switch.</summary>
    Pack,

    /// <summary>An adapter, or its feed before anything regulates it.</summary>
    Adapter,

    /// <summary>A regulated rail.</summary>
    Rail,

    /// <summary>A save cell.</summary>
    SaveCell,

    /// <summary>A contact that should conduct: fuse, trace, joint, cord.</summary>
    Contact,

    /// <summary>A switch that conducts in one position and not in the other.</summary>
    Switch,

    /// <summary>A supply to ground, unpowered.</summary>
    RailToGround,

    /// <summary>A junction in diode mode.</summary>
    Junction,

    /// <summary>Current drawn.</summary>
    Draw,

    /// <summary>Anything else.</summary>
    Other,
}

/// <summary>Where a probe is taken, in terms of the supply.</summary>
/// <param name="Kind">What is measured.</param>
/// <param name="Part">Part it is taken at, or the first it spans.</param>
/// <param name="Pack">The pack, when it is one and the profile says what cells.</param>
/// <param name="Rail">The rail, when the profile tells which.</param>
/// <param name="RegulatedRail">At an adapter: the rail a linear regulator behind it makes, or null.</param>
public sealed record ProbePlace(PlaceKind Kind, Part? Part, BatteryPack? Pack = null, Rail? Rail = null, Rail? RegulatedRail = null)
{
    /// <summary>Finds out where a probe is taken.</summary>
    public static ProbePlace Of(DeviceProfile profile, Probe probe, BenchLimits limits)
    {
        var part = profile.FindPart(probe.At ?? probe.Spans?.FirstOrDefault() ?? probe.Rail ?? "");
        switch (probe.Kind)
        {
            case ProbeKind.Ohms when probe.Rail is not null:
                return new(PlaceKind.RailToGround, part);
            case ProbeKind.Diode:
                return new(PlaceKind.Junction, part);
            case ProbeKind.Current:
                return new(PlaceKind.Draw, part);
            case ProbeKind.Continuity or ProbeKind.Ohms when Is(part, PartRole.Switch) && probe.Spans?.Count == 1:
                return new(PlaceKind.Switch, part);
            case ProbeKind.Continuity:
                return new(PlaceKind.Contact, part);
            case ProbeKind.Ohms when Is(part, PartRole.Contact):
                return new(PlaceKind.Contact, part);
            case ProbeKind.Volts when part is not null:
                return OfVolts(profile, probe, part, limits);
            default:
                return new(PlaceKind.Other, part);
        }
    }

    private static ProbePlace OfVolts(DeviceProfile profile, Probe probe, Part part, BenchLimits limits)
    {
        var graph = ProfileGraph.Of(profile, TradeLibrary.Shipped);
        var source = Source(graph, part);
        var supply = profile.Supply;
        switch (source)
        {
            case not null when Is(source, PartRole.SaveCell):
                return new(PlaceKind.SaveCell, part);
            case not null when Is(source, PartRole.Pack):
                return new(
                    PlaceKind.Pack,
                    part,
                    supply?.Cells is { } cells && limits.Cell(supply.Chemistry) is { } cell ? new BatteryPack(cells, cell) : null
                );
            case not null when Is(source, PartRole.Adapter):
                var regulator = graph
                    .Downstream(part.Id, powerOnly: true)
                    .Select(profile.FindPart)
                    .FirstOrDefault(p => Is(p, PartRole.Linear));
                return new(
                    PlaceKind.Adapter,
                    part,
                    RegulatedRail: regulator is null ? null : supply?.Rails?.OrderBy(r => Math.Abs(r.Volts - 5)).FirstOrDefault()
                );
            case not null:
                return new(PlaceKind.Rail, part, Rail: RailNamed(supply?.Rails ?? [], probe));
            default:
                return new(PlaceKind.Other, part);
        }
    }

    private static bool Is(Part? part, PartRole role) => part is not null && TradeLibrary.Shipped.Has(part.Kind, role);

    /// <summary>Walks against the flow of the supply to what makes it: a regulator, or a source.</summary>
    private static Part? Source(ProfileGraph graph, Part part)
    {
        var seen = new HashSet<string>();
        for (var at = part; seen.Add(at.Id); )
        {
            if (Is(at, PartRole.Regulates) || Is(at, PartRole.Source))
                return at;
            var before = graph.Into(at.Id).FirstOrDefault(f => f.Carries == Carries.Power);
            if (before is null || graph.Profile.FindPart(before.From) is not { } next)
                return null;
            at = next;
        }

        return null;
    }

    /// <summary>The rail whose volts the probe expects, else the one its name gives, else the only one.</summary>
    private static Rail? RailNamed(IReadOnlyList<Rail> rails, Probe probe)
    {
        if (probe.Expect is { Low: { } low, High: { } high })
            return rails.FirstOrDefault(r => r.Volts >= Math.Min(low, high) && r.Volts <= Math.Max(low, high));
        var words = (probe.Name + " " + probe.Where).ToLowerInvariant();
        return rails.FirstOrDefault(r => words.Contains(r.Name.ToLowerInvariant(), StringComparison.Ordinal))
            ?? rails.FirstOrDefault(r => Says(words, FormattableString.Invariant($"{Math.Abs(r.Volts):0.##} v"), r.Volts < 0))
            ?? (rails.Count == 1 ? rails[0] : null);
    }

    /// <summary>True when the words give these volts with this sign: “5 v” stands neither in “2.5 v” nor, as plus, in “−5 v”.</summary>
    private static bool Says(string words, string volts, bool negative)
    {
        var at = words.IndexOf(volts, StringComparison.Ordinal);
        var before = at > 0 ? words[at - 1] : ' ';
        return at >= 0 && (negative ? before is '-' or '−' : before is not ('-' or '−' or '.') && !char.IsDigit(before));
    }
}
