namespace Mendro.Core.Electrical;

/// <summary>Tolerance letters of IEC 60062.</summary>
public static class ToleranceLetter
{
    /// <summary>Symmetric tolerance as a fraction, or null when the letter is none.</summary>
    public static double? Fraction(char letter) =>
        letter switch
        {
            'E' => 0.00005,
            'L' => 0.0001,
            'P' => 0.0002,
            'W' => 0.0005,
            'B' => 0.001,
            'C' => 0.0025,
            'D' => 0.005,
            'F' => 0.01,
            'G' => 0.02,
            'H' => 0.03,
            'J' => 0.05,
            'K' => 0.1,
            'M' => 0.2,
            'N' => 0.3,
            _ => null,
        };
}
