using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>A place to measure, look or press.</summary>
/// <param name="Id">Id, unique in the profile.</param>
/// <param name="Name">Short name for lists and the map.</param>
/// <param name="Where">Where to put the tips, and in what mode.</param>
/// <param name="Kind">What is asked.</param>
/// <param name="At">For volts and current: the part at whose output it is taken.</param>
/// <param name="Toward">The part on the far side of the point, where the map should draw it.</param>
/// <param name="Spans">For the other kinds: the parts whose health the probe tells.</param>
/// <param name="Rail">For a test to ground: a part on the rail; the probe then tells shorts on that rail.</param>
/// <param name="Expect">What a good unit shows.</param>
/// <param name="State">How far the unit must be taken apart.</param>
/// <param name="Minutes">Time for the reading alone, minutes.</param>
/// <param name="Unloaded">For volts: taken with what it feeds unplugged, so that a short behind it does not show.</param>
public sealed record Probe(
    ProbeId Id,
    string Name,
    string Where,
    ProbeKind Kind,
    PartId? At,
    PartId? Toward,
    IReadOnlyList<PartId>? Spans,
    PartId? Rail,
    Expectation Expect,
    AccessState State,
    [property: Range(0, ProfileFormat.MostMinutes, MinimumIsExclusive = true)] double Minutes = 1,
    bool Unloaded = false
)
{
    /// <summary>The part beside which the map shows it, when it lies on no line.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public PartId? Shown => Spans is [var first, ..] ? first : Rail ?? At;

    /// <summary>Every part it names.</summary>
    public IEnumerable<PartId> NamedParts() => (Spans ?? []).Cast<PartId?>().Append(At).Append(Rail).Append(Toward).OfType<PartId>();

    /// <summary>Parts that it touches: those it spans and the one it is at.</summary>
    public IEnumerable<PartId> PartIds() => At is { } at ? (Spans ?? []).Append(at) : Spans ?? [];
}

/// <summary>What a probe should read; a missing bound is open.</summary>
/// <param name="Low">Lowest good value in the unit, or null. Computed where a nominal value and its tolerance are given instead.</param>
/// <param name="High">Highest good value in the unit, or null; computed likewise.</param>
/// <param name="Unit">V, ohm, F, A, beep or word.</param>
/// <param name="Text">What good looks like, for looking and pressing.</param>
/// <param name="Nominal">Value it is made for, in the unit, or null.</param>
/// <param name="Tolerance">Fraction that it may be off, 0.05 for ±5 %; null when there is no nominal value.</param>
public sealed record Expectation(
    double? Low,
    double? High,
    [property: AllowedValues("V", "ohm", "F", "A", "beep", "word")] string Unit,
    string? Text = null,
    double? Nominal = null,
    [property: Range(0.0, 1.0)] double? Tolerance = null
)
{
    /// <summary>Lowest good value in the unit, or null.</summary>
    public double? Low { get; init; } = Low ?? Bound(Nominal, Tolerance, -1);

    /// <summary>Highest good value in the unit, or null.</summary>
    public double? High { get; init; } = High ?? Bound(Nominal, Tolerance, 1);

    /// <summary>A value that may be off by a fraction of itself.</summary>
    /// <param name="nominal">Value it is made for.</param>
    /// <param name="tolerance">Fraction that it may be off, 0 to 1.</param>
    /// <param name="unit">Unit.</param>
    public static Expectation Around(double nominal, double tolerance, string unit) => new(null, null, unit, null, nominal, tolerance);

    /// <summary>The same with bounds of its own, that no nominal value gives.</summary>
    public Expectation Between(double? low, double? high) =>
        this with
        {
            Low = low,
            High = high,
            Nominal = null,
            Tolerance = null,
        };

    /// <summary>A bound to the hundredth, as a meter shows it: 3.3 V ±5 % is 3.14 to 3.47 V. Below 1 to the third figure.</summary>
    private static double? Bound(double? nominal, double? tolerance, int side)
    {
        if (nominal is not { } value || tolerance is not { } part)
            return null;
        var bound = (decimal)value + side * Math.Abs((decimal)value) * (decimal)part;
        var digits = Math.Abs(value) >= 1 || value == 0 ? 2 : Math.Min(15, 2 - (int)Math.Floor(Math.Log10(Math.Abs(value))));
        return (double)Math.Round(bound, digits, MidpointRounding.AwayFromZero);
    }
}
