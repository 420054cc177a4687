namespace Mendro.Core.Electrical;

/// <summary>Decimal scaling that keeps printed values exact: 47 × 10⁻⁹ is 4.7e-8, not one unit in the last place beside it.</summary>
internal static class PowerOfTen
{
    public static double Scale(double figures, int exponent) =>
        exponent >= 0 ? figures * Math.Pow(10, exponent) : figures / Math.Pow(10, -exponent);
}
