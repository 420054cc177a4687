using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Library;

/// <summary>What the bench knows of a kind of probe; one entry of <c>probe-kinds.json</c>.</summary>
/// <param name="Kind">Kind.</param>
/// <param name="Assumes">Unit of a bare number typed there.</param>
/// <param name="Unit">Unit in which a profile writes its limits: V, ohm, F, A, beep or word.</param>
/// <param name="Shown">Unit symbol as the bench reads it; empty for words.</param>
/// <param name="Meter">SCPI node that measures it, or null when no meter answers it.</param>
/// <param name="Example">What may be typed.</param>
/// <param name="Title">Title of the check, with the probe's name at <c>{0}</c>; empty when the name says it all.</param>
/// <param name="Bad">What a faulty unit answers.</param>
/// <param name="Good">What a good unit answers, when the limits do not say it.</param>
/// <param name="ByEye">True when an eye or a hand judges it and not a meter.</param>
/// <param name="NeedsPower">True when the unit must be fed for it.</param>
/// <param name="LeastDifference">Smallest difference between two units that can mean anything, in the SI unit (common practice, no
/// source).</param>
public sealed record ProbeKindFacts(
    ProbeKind Kind,
    ReadingUnit Assumes,
    string Unit,
    string Shown,
    string? Meter,
    string Example,
    string Title,
    string Bad,
    string? Good = null,
    bool ByEye = false,
    bool NeedsPower = false,
    double LeastDifference = 0
);
