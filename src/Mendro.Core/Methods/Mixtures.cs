namespace Mendro.Core.Methods;

/// <summary>Mixing at the bench. Volumes are taken as additive.</summary>
public static class Mixtures
{
    /// <summary>Molar mass of acetic acid, C₂H₄O₂, g/mol (IUPAC standard atomic weights).</summary>
    public const double AceticAcidGramsPerMole = 60.052;

    /// <summary>Molar mass of sodium bicarbonate, NaHCO₃, g/mol (IUPAC standard atomic weights).</summary>
    public const double BicarbonateGramsPerMole = 84.007;

    /// <summary>Stock needed for a weaker mixture, ml: C₁ V₁ = C₂ V₂.</summary>
    /// <param name="fromPercent">Strength of the stock, per cent.</param>
    /// <param name="toPercent">Strength wanted, per cent, not above the stock's.</param>
    /// <param name="totalMl">Volume wanted, ml.</param>
    public static double StockMl(double fromPercent, double toPercent, double totalMl) => totalMl * toPercent / fromPercent;

    /// <summary>Sodium bicarbonate that neutralises acetic acid mole for mole, grams.</summary>
    /// <param name="acidPercent">Grams of acetic acid in 100 ml.</param>
    /// <param name="volumeMl">Volume, ml.</param>
    public static double BicarbonateGrams(double acidPercent, double volumeMl) =>
        acidPercent / 100 * volumeMl / AceticAcidGramsPerMole * BicarbonateGramsPerMole;
}
