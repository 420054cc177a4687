namespace Mendro.Core.Electrical;

/// <summary>A capacitor measured out of circuit.</summary>
/// <param name="Deviation">Measured over rated less one, a fraction.</param>
/// <param name="LargestEsrOhms">Highest good ESR at this capacitance, ohms.</param>
/// <param name="Verdict">good, low, high or high ESR.</param>
public sealed record CapacitorCheck(double Deviation, double LargestEsrOhms, string Verdict)
{
    /// <summary>Judges a capacitor: within its tolerance is good; far above reads leaky or mismarked; ESR by table.</summary>
    /// <param name="ratedFarads">Printed value, farads.</param>
    /// <param name="measuredFarads">Measured, farads.</param>
    /// <param name="esrOhms">Measured equivalent series resistance, ohms, or null.</param>
    /// <param name="tolerance">Tolerance, fraction.</param>
    /// <param name="limits">Limits with the ESR table.</param>
    public static CapacitorCheck Judge(double ratedFarads, double measuredFarads, double? esrOhms, double tolerance, BenchLimits limits)
    {
        var deviation = measuredFarads / ratedFarads - 1;
        var largest = limits.LargestEsrOhms(ratedFarads);
        var verdict =
            deviation < -tolerance - 1e-9 ? "low"
            : esrOhms > largest ? "high ESR"
            : deviation > tolerance + 1e-9 ? "high"
            : "good";
        return new CapacitorCheck(deviation, largest, verdict);
    }

    /// <summary>Life of an electrolytic capacitor: twice as long for every ten degrees cooler (ten-degree rule, common in makers'
    /// notes), hours.</summary>
    public static double LifeHours(double ratedHours, double ratedCelsius, double actualCelsius) =>
        ratedHours * Math.Pow(2, (ratedCelsius - actualCelsius) / 10);
}
