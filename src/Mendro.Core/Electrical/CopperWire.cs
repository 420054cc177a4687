namespace Mendro.Core.Electrical;

/// <summary>A copper wire at 20 °C.</summary>
/// <param name="DiameterMm">Bare diameter, mm.</param>
/// <param name="Ohms">Resistance of its length, ohms.</param>
public sealed record CopperWire(double DiameterMm, double Ohms)
{
    /// <summary>Resistivity of annealed copper at 20 °C, ohm metres (IEC 60028).</summary>
    public const double ResistivityOhmMetres = 1.7241e-8;

    /// <summary>A wire by American wire gauge: 0.127 mm × 92^((36 − n) / 39), ASTM B258.</summary>
    /// <param name="awg">Gauge number, −3 (4/0) to 50.</param>
    /// <param name="lengthMm">Length, mm.</param>
    public static CopperWire OfGauge(double awg, double lengthMm)
    {
        var diameter = 0.127 * Math.Pow(92, (36 - awg) / 39);
        var areaMm2 = Math.PI * diameter * diameter / 4;
        return new CopperWire(diameter, ResistivityOhmMetres * (lengthMm / 1000) / (areaMm2 * 1e-6));
    }
}
