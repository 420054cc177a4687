using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>Where the unit gets its power from.</summary>
/// <param name="Cells">Number of cells, when battery powered.</param>
/// <param name="Chemistry">alkaline, nimh or liion.</param>
/// <param name="AdapterKind">AC or DC, when an adapter feeds it.</param>
/// <param name="AdapterVolts">Nominal adapter volts.</param>
/// <param name="AdapterAmps">Least adapter current, amperes.</param>
/// <param name="Polarity">centre-negative or centre-positive.</param>
/// <param name="Rails">Supply rails made inside.</param>
public sealed record Supply(
    [property: Range(1, 1000)] int? Cells,
    [property: AllowedValues("alkaline", "nimh", "liion")] string? Chemistry,
    [property: AllowedValues("ac", "dc")] string? AdapterKind,
    double? AdapterVolts,
    double? AdapterAmps,
    [property: AllowedValues("centre-negative", "centre-positive", "any")] string? Polarity,
    IReadOnlyList<Rail>? Rails
);

/// <summary>A supply rail.</summary>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Volts">Nominal volts, with sign.</param>
/// <param name="Tolerance">Fraction, 0.05 for ±5 %.</param>
public sealed record Rail(string Name, double Volts, [property: Range(0.0, 1.0)] double Tolerance);
