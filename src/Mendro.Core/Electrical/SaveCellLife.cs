namespace Mendro.Core.Electrical;

/// <summary>How long a save cell keeps a save.</summary>
public static class SaveCellLife
{
    /// <summary>Hours of a mean Gregorian year.</summary>
    public const double HoursPerYear = 365.2425 * 24;

    /// <summary>Years from a full cell; self-discharge is left out.</summary>
    /// <param name="capacityMah">Capacity, mAh.</param>
    /// <param name="microamps">Current of the save chip at rest, µA, above 0.</param>
    public static double Years(double capacityMah, double microamps) => capacityMah * 1000 / microamps / HoursPerYear;
}
