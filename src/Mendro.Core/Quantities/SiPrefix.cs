namespace Mendro.Core.Quantities;

/// <summary>SI prefixes as typed at a bench: K is kilo, u is micro, and U, N and P are the small ones: only M and m differ.</summary>
public static class SiPrefix
{
    /// <summary>The prefixes as one regular-expression class.</summary>
    public const string Class = "[TGMkKmuUµμnNpP]";

    /// <summary>Power of ten of a prefix; 0 for none.</summary>
    public static int Exponent(string prefix) =>
        prefix switch
        {
            "T" => 12,
            "G" => 9,
            "M" => 6,
            "k" or "K" => 3,
            "m" => -3,
            "u" or "U" or "µ" or "μ" => -6,
            "n" or "N" => -9,
            "p" or "P" => -12,
            _ => 0,
        };
}
