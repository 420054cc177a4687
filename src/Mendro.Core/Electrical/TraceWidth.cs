namespace Mendro.Core.Electrical;

/// <summary>Width of a board trace by the charts of IPC-2221: I = k ΔT^0.44 A^0.725, A in square mils.</summary>
public static class TraceWidth
{
    private const double MicrometresPerMil = 25.4;

    /// <summary>Least width, mm.</summary>
    /// <param name="amps">Current, amperes, above 0.</param>
    /// <param name="riseKelvin">Rise in temperature allowed, K, above 0.</param>
    /// <param name="copperMicrometres">Thickness of the copper, µm.</param>
    /// <param name="outer">True for an outer layer (k = 0.048), false for an inner one (k = 0.024).</param>
    public static double WidthMm(double amps, double riseKelvin, double copperMicrometres, bool outer)
    {
        var areaSquareMils = Math.Pow(amps / ((outer ? 0.048 : 0.024) * Math.Pow(riseKelvin, 0.44)), 1 / 0.725);
        return areaSquareMils / (copperMicrometres / MicrometresPerMil) * MicrometresPerMil / 1000;
    }
}
