namespace Mendro.Core.Electrical;

/// <summary>A linear regulator at work.</summary>
/// <param name="HeadroomVolts">What the input has above output and drop-out, volts.</param>
/// <param name="MinimumInputVolts">Least input, volts.</param>
/// <param name="Watts">Heat: (Vin − Vout) × I.</param>
/// <param name="JunctionCelsius">Temperature of the junction without heat sink.</param>
/// <param name="Verdict">fits, no headroom, too hot or over the maximum.</param>
public sealed record LinearRegulator(double HeadroomVolts, double MinimumInputVolts, double Watts, double JunctionCelsius, string Verdict)
{
    /// <summary>Computes a regulator; formulas of the usual data sheet.</summary>
    /// <param name="inputVolts">Input, volts.</param>
    /// <param name="outputVolts">Output, volts.</param>
    /// <param name="amps">Load, amperes.</param>
    /// <param name="dropoutVolts">Drop-out, volts.</param>
    /// <param name="thetaKelvinPerWatt">Heat resistance from junction to air, K/W.</param>
    /// <param name="ambientCelsius">Air, °C.</param>
    /// <param name="limits">Absolute limits.</param>
    public static LinearRegulator At(
        double inputVolts,
        double outputVolts,
        double amps,
        double dropoutVolts,
        double thetaKelvinPerWatt,
        double ambientCelsius,
        RegulatorLimits limits
    )
    {
        var headroom = inputVolts - outputVolts - dropoutVolts;
        // Below its output a regulator passes what there is; it makes no cold.
        var watts = Math.Max(0, (inputVolts - outputVolts) * amps);
        var junction = ambientCelsius + watts * thetaKelvinPerWatt;
        var verdict =
            inputVolts > limits.LargestInputVolts ? "over the maximum"
            : headroom < -1e-9 ? "no headroom"
            : junction > limits.LargestJunctionCelsius ? "too hot"
            : "fits";
        return new LinearRegulator(headroom, outputVolts + dropoutVolts, watts, junction, verdict);
    }
}
