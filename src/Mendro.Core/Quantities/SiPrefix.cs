namespace Mendro.Core.Quantities;

/// <summary>SI prefixes as typed at a bench: the kelvin sign aside, K is kilo and u is micro.</summary>
public static class SiPrefix
{
    /// <summary>The prefixes as one regular-expression class.</summary>
    public const string Class = "[TGMkKmuµμnp]";

    /// <summary>Power of ten of a prefix; 0 for none.</summary>
    public static int Exponent(string prefix) => prefix switch
    {
        "T" => 12,
        "G" => 9,
        "M" => 6,
        "k" or "K" => 3,
        "m" => -3,
        "u" or "µ" or "μ" => -6,
        "n" => -9,
        "p" => -12,
        _ => 0,
    };
}
