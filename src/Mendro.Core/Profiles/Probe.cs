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
/// <param name="Low">Lowest good value in the unit, or null.</param>
/// <param name="High">Highest good value in the unit, or null.</param>
/// <param name="Unit">V, ohm, F, A, beep or word.</param>
/// <param name="Text">What good looks like, for looking and pressing.</param>
public sealed record Expectation(
    double? Low,
    double? High,
    [property: AllowedValues("V", "ohm", "F", "A", "beep", "word")] string Unit,
    string? Text = null
);
