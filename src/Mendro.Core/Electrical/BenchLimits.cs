using System.Text.Json;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Electrical;

/// <summary>Voltages of one cell of a chemistry, volts.</summary>
/// <param name="Chemistry">alkaline, nimh or liion.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Nominal">Nominal.</param>
/// <param name="Fresh">Fresh or fully charged, at rest.</param>
/// <param name="Highest">Highest that a good one may read, of whatever kind fits in its place.</param>
/// <param name="Low">Weak below this.</param>
/// <param name="Empty">Empty below this.</param>
/// <param name="Recharge">Not to be charged again below this, or null.</param>
/// <param name="Source">Where the figures come from.</param>
public sealed record CellLimits(
    string Chemistry,
    string Name,
    double Nominal,
    double Fresh,
    double Highest,
    double Low,
    double Empty,
    double? Recharge,
    string Source
);

/// <summary>A three-volt save cell, volts.</summary>
/// <param name="Fresh">Highest to be expected of a new one.</param>
/// <param name="Good">Lowest of a good one.</param>
/// <param name="Doubtful">Doubtful below this.</param>
/// <param name="Replace">To be replaced below this.</param>
/// <param name="Source">Where the figures come from.</param>
public sealed record SaveCellLimits(double Fresh, double Good, double Doubtful, double Replace, string Source);

/// <summary>A three-leg linear regulator.</summary>
/// <param name="DropoutVolts">Least excess of the input over the output, by data sheet.</param>
/// <param name="CautiousDropoutVolts">What the trade asks for.</param>
/// <param name="ThetaJunctionAirKelvinPerWatt">Heat resistance without heat sink.</param>
/// <param name="ThetaOnSinkKelvinPerWatt">Heat resistance on the heat sink of a console.</param>
/// <param name="LargestInputVolts">Absolute maximum of the input.</param>
/// <param name="LargestJunctionCelsius">Highest operating temperature of the junction.</param>
/// <param name="Source">Where the figures come from.</param>
public sealed record RegulatorLimits(
    double DropoutVolts,
    double CautiousDropoutVolts,
    double ThetaJunctionAirKelvinPerWatt,
    double ThetaOnSinkKelvinPerWatt,
    double LargestInputVolts,
    double LargestJunctionCelsius,
    string Source
);

/// <summary>A closed contact: fuse, switch, trace, joint.</summary>
/// <param name="GoodOhms">Good up to this.</param>
/// <param name="DirtyOhms">Dirty or cracked above this.</param>
/// <param name="Source">Where the figures come from.</param>
public sealed record ContactLimits(double GoodOhms, double DirtyOhms, string Source);

/// <summary>A range with its source.</summary>
/// <param name="Low">Lowest good value.</param>
/// <param name="High">Highest good value.</param>
/// <param name="Source">Where the figures come from.</param>
public sealed record SourcedRange(double Low, double High, string Source);

/// <summary>One line of the ESR table.</summary>
/// <param name="Microfarads">Capacitance, µF.</param>
/// <param name="Ohms">Highest good equivalent series resistance, ohms.</param>
public sealed record EsrLimit(double Microfarads, double Ohms);

/// <summary>Limits of the bench, shipped as data so that none hides in code.</summary>
/// <param name="Cells">Cell chemistries.</param>
/// <param name="UnbalancedVolts">Largest difference between lithium cells in series.</param>
/// <param name="SaveCell">Save cell.</param>
/// <param name="Regulator">Linear regulator.</param>
/// <param name="Contact">Closed contact.</param>
/// <param name="ShortOhms">A supply that reads less than this to ground, unpowered, is shorted.</param>
/// <param name="Diode">Forward drop of a good junction, volts.</param>
/// <param name="RailTolerance">Tolerance of a logic rail where the profile gives none, fraction.</param>
/// <param name="RailStop">A rail that is this fraction over its volts is a reason to switch off.</param>
/// <param name="AdapterTolerance">Tolerance of an adapter, fraction.</param>
/// <param name="Esr">ESR table by capacitance.</param>
/// <param name="EsrSource">Where the ESR table comes from.</param>
public sealed record BenchLimits(
    IReadOnlyList<CellLimits> Cells,
    double UnbalancedVolts,
    SaveCellLimits SaveCell,
    RegulatorLimits Regulator,
    ContactLimits Contact,
    double ShortOhms,
    SourcedRange Diode,
    double RailTolerance,
    double RailStop,
    double AdapterTolerance,
    IReadOnlyList<EsrLimit> Esr,
    string EsrSource
)
{
    private static readonly Lazy<BenchLimits> LazyShipped = new(() =>
        JsonSerializer.Deserialize<BenchLimits>(TradeLibrary.ReadText("limits.json"), ProfileJson.Options)!
    );

    /// <summary>The limits embedded in this assembly.</summary>
    public static BenchLimits Shipped => LazyShipped.Value;

    /// <summary>Limits of a chemistry, or null when it is unknown.</summary>
    public CellLimits? Cell(string? chemistry) => Cells.FirstOrDefault(c => c.Chemistry == chemistry);

    /// <summary>Highest good ESR for a capacitance in farads, ohms; straight lines on logarithmic paper between the table's
    /// lines.</summary>
    public double LargestEsrOhms(double farads)
    {
        var microfarads = farads * 1e6;
        if (microfarads <= Esr[0].Microfarads)
            return Esr[0].Ohms;
        for (var n = 1; n < Esr.Count; n++)
        {
            if (microfarads > Esr[n].Microfarads)
                continue;
            var part = Math.Log(microfarads / Esr[n - 1].Microfarads) / Math.Log(Esr[n].Microfarads / Esr[n - 1].Microfarads);
            return Esr[n - 1].Ohms * Math.Pow(Esr[n].Ohms / Esr[n - 1].Ohms, part);
        }

        return Esr[^1].Ohms;
    }
}
