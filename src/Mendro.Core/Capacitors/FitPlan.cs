namespace Mendro.Core.Capacitors;

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
