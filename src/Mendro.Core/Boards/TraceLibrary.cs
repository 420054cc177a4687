using System.Text.Json;
using Mendro.Core.Electrical;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>How likely a stretch of copper is the broken one, in proportion.</summary>
/// <param name="PerMm">For each millimetre.</param>
/// <param name="Via">For each end in a via.</param>
/// <param name="Bend">For each end where it turns.</param>
/// <param name="Joint">For a cable or connector between boards.</param>
/// <param name="Corroded">For each end that is corroded.</param>
/// <param name="Lifted">For each end that is lost or lifted.</param>
/// <param name="Crack">Where it crosses a crack of the board.</param>
/// <param name="Source">Where this comes from.</param>
public sealed record BreakWeights(
    double PerMm,
    double Via,
    double Bend,
    double Joint,
    double Corroded,
    double Lifted,
    double Crack,
    string Source
);

/// <summary>Usual minutes.</summary>
/// <param name="Tip">To set a tip on a point, or on both points of a test one half each.</param>
/// <param name="Scraped">More when it has to be scraped first.</param>
/// <param name="Wire">For a wire with both its joints.</param>
/// <param name="Source">Where this comes from.</param>
public sealed record TraceMinutes(double Tip, double Scraped, double Wire, string Source);

/// <summary>How wires are laid.</summary>
/// <param name="ClearanceMm">Distance to what they stay away from, mm.</param>
/// <param name="ReheatMm">Distance within which a new joint warms an old one, mm.</param>
/// <param name="Slack">Length to cut over length of the way.</param>
/// <param name="StripMm">Stripped at each end, mm.</param>
/// <param name="MostDropVolts">Most drop along a wire, volts.</param>
/// <param name="SignalAmps">Current of a net that tells none, amperes.</param>
/// <param name="Source">Where this comes from.</param>
public sealed record JumperHabits(
    double ClearanceMm,
    double ReheatMm,
    double Slack,
    double StripMm,
    double MostDropVolts,
    double SignalAmps,
    string Source
);

/// <summary>A wire that jumpers are made of.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name.</param>
/// <param name="Awg">Gauge (ASTM B258).</param>
/// <param name="OverMm">Diameter over its coat, mm.</param>
/// <param name="MostAmps">Most current in open air, amperes.</param>
/// <param name="Source">Where this comes from.</param>
public sealed record WireSort(string Id, string Name, int Awg, double OverMm, double MostAmps, string Source)
{
    /// <summary>Drop along a wire, volts.</summary>
    public double DropVolts(double amps, double lengthMm) => amps * CopperWire.OfGauge(Awg, lengthMm).Ohms;
}

/// <summary>What is known of traces and jumpers: format <c>mendro.traces/1</c>.</summary>
/// <param name="Format">Always <c>mendro.traces/1</c>.</param>
/// <param name="Weights">Chances of a break.</param>
/// <param name="Minutes">Usual minutes.</param>
/// <param name="Jumper">How wires are laid.</param>
/// <param name="Wires">Wires, the usual one first.</param>
public sealed record TraceLibrary(
    string Format,
    BreakWeights Weights,
    TraceMinutes Minutes,
    JumperHabits Jumper,
    IReadOnlyList<WireSort> Wires
)
{
    private static readonly Lazy<TraceLibrary> LazyShipped = new(() =>
        JsonSerializer.Deserialize<TraceLibrary>(TradeLibrary.ReadText("traces.json"), ProfileJson.Options)!
    );

    /// <summary>The library embedded in this assembly.</summary>
    public static TraceLibrary Shipped => LazyShipped.Value;

    /// <summary>A wire by its id, or null.</summary>
    public WireSort? FindWire(string? id) => Wires.FirstOrDefault(w => w.Id == id);

    /// <summary>The first wire that carries a current over a length without too much drop and finds room; null when none does.</summary>
    /// <param name="amps">Current, amperes; null for a signal.</param>
    /// <param name="lengthMm">Length, mm.</param>
    /// <param name="roomMm">Room above the board along its way, mm; infinite where nothing limits it.</param>
    public WireSort? Choose(double? amps, double lengthMm, double roomMm) =>
        Wires.FirstOrDefault(w => Carries(w, amps, lengthMm) && w.OverMm <= roomMm);

    /// <summary>True when a wire carries a current over a length without too much drop.</summary>
    public bool Carries(WireSort wire, double? amps, double lengthMm) =>
        (amps ?? Jumper.SignalAmps) is var flow && flow <= wire.MostAmps && wire.DropVolts(flow, lengthMm) <= Jumper.MostDropVolts;
}
