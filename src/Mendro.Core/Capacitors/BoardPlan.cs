namespace Mendro.Core.Capacitors;

/// <summary>A place on a board with a height limit: case post, battery bay, shield.</summary>
/// <param name="Polygon">Corners [x, y], mm.</param>
/// <param name="ClearanceMm">Highest top above it, mm, 0 or more.</param>
/// <param name="What">What limits it.</param>
public sealed record BoardZone(IReadOnlyList<IReadOnlyList<double>> Polygon, double ClearanceMm, string? What = null);

/// <summary>Something on a board that stays.</summary>
/// <param name="Refdes">Reference designator.</param>
/// <param name="Polygon">Corners [x, y], mm.</param>
/// <param name="HeightMm">Height, mm.</param>
public sealed record BoardPart(string Refdes, IReadOnlyList<IReadOnlyList<double>> Polygon, double HeightMm = 0);

/// <summary>The two pads of a capacitor.</summary>
/// <param name="Plus">[x, y], mm; of an unpolar one either.</param>
/// <param name="Minus">[x, y], mm.</param>
public sealed record CapacitorPads(IReadOnlyList<double> Plus, IReadOnlyList<double> Minus);

/// <summary>A capacitor position.</summary>
/// <param name="Refdes">Reference designator.</param>
/// <param name="Pads">Pads.</param>
public sealed record BoardCapacitor(string Refdes, CapacitorPads Pads);

/// <summary>A board as far as fitting capacitors asks for it.</summary>
/// <param name="Outline">Corners [x, y], mm.</param>
/// <param name="Zones">Height limits.</param>
/// <param name="Parts">What stays.</param>
/// <param name="Capacitors">Positions.</param>
/// <param name="Id">Id.</param>
/// <param name="Name">Name.</param>
public sealed record BoardPlan(
    IReadOnlyList<IReadOnlyList<double>> Outline,
    IReadOnlyList<BoardZone>? Zones = null,
    IReadOnlyList<BoardPart>? Parts = null,
    IReadOnlyList<BoardCapacitor>? Capacitors = null,
    string? Id = null,
    string? Name = null
);

/// <summary>A capacitor that may go into a position.</summary>
/// <param name="Id">Id of the part.</param>
/// <param name="DiameterMm">Diameter, mm.</param>
/// <param name="HeightMm">Height of the can, mm.</param>
/// <param name="LeadMm">Furthest that its lead end may stand from the middle of the pads, mm.</param>
public sealed record FitChoice(string Id, double DiameterMm, double HeightMm, double LeadMm = 0);

/// <summary>How a capacitor sits.</summary>
public enum FitPose
{
    /// <summary>On its legs.</summary>
    Upright,

    /// <summary>Laid down with bent legs.</summary>
    Lying,
}

/// <summary>A capacitor in its place.</summary>
/// <param name="Refdes">Position.</param>
/// <param name="Part">Part chosen.</param>
/// <param name="Pose">How it sits.</param>
/// <param name="Angle">Direction of its axis, degrees counterclockwise from x; 0 upright.</param>
/// <param name="DistanceMm">Lead end from the middle of the pads, mm; 0 upright.</param>
/// <param name="Body">Its outline seen from above, [x, y], mm.</param>
/// <param name="Top">Height of its top, mm.</param>
public sealed record FitPlacement(
    string Refdes,
    string Part,
    FitPose Pose,
    double Angle,
    double DistanceMm,
    IReadOnlyList<IReadOnlyList<double>> Body,
    double Top
);

/// <summary>A position that stays empty.</summary>
/// <param name="Refdes">Position.</param>
/// <param name="Reason">What is in the way.</param>
/// <param name="ByMm">By how many millimetres, in the pose that comes nearest.</param>
public sealed record FitUnplaced(string Refdes, string Reason, double ByMm);

/// <summary>Where every capacitor goes.</summary>
/// <param name="Placements">Those that fit.</param>
/// <param name="Unplaced">Those that do not.</param>
/// <param name="Optimal">True when it is proved that no better plan exists.</param>
public sealed record FitPlan(IReadOnlyList<FitPlacement> Placements, IReadOnlyList<FitUnplaced> Unplaced, bool Optimal);
