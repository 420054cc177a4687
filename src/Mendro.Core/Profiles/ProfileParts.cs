using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>A board revision and how to tell it apart.</summary>
/// <param name="Id">Short id, such as <c>A</c>.</param>
/// <param name="Tell">What to look at to know it.</param>
public sealed record Revision(string Id, string Tell);

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

/// <summary>A part in the sense of the bench: something that can be tested, cured or replaced as one.</summary>
/// <param name="Id">Id, unique in the profile.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Kind">Library kind; chooses failure modes and methods.</param>
/// <param name="Board">Board it sits on, if any.</param>
/// <param name="Refdes">Reference designator, if any.</param>
/// <param name="X">Board position, mm from the left edge.</param>
/// <param name="Y">Board position, mm from the top edge.</param>
/// <param name="Modes">Weights that replace the library's for this model.</param>
public sealed record Part(
    PartId Id,
    string Name,
    string Kind,
    string? Board = null,
    string? Refdes = null,
    double? X = null,
    double? Y = null,
    IReadOnlyList<ModeOverride>? Modes = null
);

/// <summary>A starting weight of this model's own.</summary>
/// <param name="Mode">Failure-mode id of the part's kind.</param>
/// <param name="Prior">Chance that a unit brought in as faulty has it, 0 to 1.</param>
/// <param name="Source">Where the weight comes from.</param>
public sealed record ModeOverride(string Mode, [property: Range(0.0, 1.0)] double Prior, string? Source = null);

/// <summary>One part feeding another.</summary>
/// <param name="From">Part id the flow comes from.</param>
/// <param name="To">Part id it goes to.</param>
/// <param name="Carries">What flows.</param>
public sealed record Feed(PartId From, PartId To, Carries Carries);

/// <summary>Something the user of the unit can see, hear or feel work.</summary>
/// <param name="Id">Id, unique in the profile.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Kind">Library function kind; chooses the looks of failure.</param>
/// <param name="Needs">Parts it needs; everything upstream of them is needed too.</param>
/// <param name="Minutes">Time to try it once, minutes.</param>
public sealed record DeviceFunction(
    FunctionId Id,
    string Name,
    string Kind,
    [property: MinLength(1)] IReadOnlyList<PartId> Needs,
    [property: Range(0, ProfileFormat.MostMinutes, MinimumIsExclusive = true)] double Minutes = 0.5
);

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

/// <summary>Minutes to take the unit apart to each state from the one before; paid once while it stays open.</summary>
/// <param name="Open">Closed to open.</param>
/// <param name="BoardOut">Open to board out.</param>
/// <param name="Lifted">Board out to a part lifted.</param>
public sealed record Preparation(
    [property: Range(0, ProfileFormat.MostMinutes)] double Open,
    [property: Range(0, ProfileFormat.MostMinutes)] double BoardOut,
    [property: Range(0, ProfileFormat.MostMinutes)] double Lifted
)
{
    /// <summary>Minutes from one state to another; nothing for going back.</summary>
    public double Minutes(AccessState from, AccessState to)
    {
        double total = 0;
        if (from < AccessState.Open && to >= AccessState.Open)
            total += Open;
        if (from < AccessState.BoardOut && to >= AccessState.BoardOut)
            total += BoardOut;
        if (from < AccessState.Lifted && to >= AccessState.Lifted)
            total += Lifted;
        return total;
    }
}
