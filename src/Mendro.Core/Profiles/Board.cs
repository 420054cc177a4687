using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>A board of a unit as it is drawn and planned on: millimetres from its left lower corner, seen from the side of the parts.</summary>
/// <param name="Id">Id; parts of the profile name it as their board.</param>
/// <param name="Name">Name, as said at the bench.</param>
/// <param name="Outline">Corners [x, y], mm.</param>
/// <param name="Drawings">Lines that help to find one's way, side by side.</param>
/// <param name="Zones">Height limits.</param>
/// <param name="Parts">What stays on it.</param>
/// <param name="Capacitors">Capacitor positions.</param>
/// <param name="Points">Where its nets can be touched.</param>
/// <param name="Nets">Its nets.</param>
public sealed record Board(
    [property: RegularExpression(ProfileFormat.IdPattern)] string Id,
    [property: MinLength(1), MaxLength(60)] string Name,
    [property: MinLength(3), MaxLength(ProfileFormat.MostCorners)] IReadOnlyList<IReadOnlyList<double>> Outline,
    [property: MaxLength(ProfileFormat.MostBoardItems)] IReadOnlyList<BoardDrawing>? Drawings = null,
    [property: MaxLength(ProfileFormat.MostBoardItems)] IReadOnlyList<BoardZone>? Zones = null,
    [property: MaxLength(ProfileFormat.MostBoardItems)] IReadOnlyList<BoardPart>? Parts = null,
    [property: MaxLength(ProfileFormat.MostBoardItems)] IReadOnlyList<BoardCapacitor>? Capacitors = null,
    [property: MaxLength(ProfileFormat.MostBoardPoints)] IReadOnlyList<NetPoint>? Points = null,
    [property: MaxLength(ProfileFormat.MostNets)] IReadOnlyList<BoardNet>? Nets = null
)
{
    /// <summary>Capacitors that sit on it in a revision: those of every revision, and its own.</summary>
    /// <param name="revision">Id of the revision; blank for those of every revision only.</param>
    public IEnumerable<BoardCapacitor> CapacitorsOf(string revision) =>
        (Capacitors ?? []).Where(c => c.Revisions is not { Count: > 0 } only || only.Contains(revision));
}

/// <summary>Lines on one side of a board.</summary>
/// <param name="Side">top or bottom.</param>
/// <param name="Lines">Lines, each through points [x, y], mm.</param>
/// <param name="Label">What they show, or null.</param>
public sealed record BoardDrawing(
    [property: AllowedValues("top", "bottom")] string Side,
    [property: MaxLength(ProfileFormat.MostBoardItems)] IReadOnlyList<IReadOnlyList<IReadOnlyList<double>>> Lines,
    [property: MaxLength(60)] string? Label = null
);

/// <summary>A place on a board with a height limit: case post, battery bay, shield.</summary>
/// <param name="Polygon">Corners [x, y], mm.</param>
/// <param name="ClearanceMm">Highest top above it, mm, 0 or more.</param>
/// <param name="What">What limits it.</param>
/// <param name="Side">Side it lies on: top, bottom or both.</param>
public sealed record BoardZone(
    [property: MinLength(3), MaxLength(ProfileFormat.MostCorners)] IReadOnlyList<IReadOnlyList<double>> Polygon,
    [property: Range(0.0, 200.0)] double ClearanceMm,
    [property: MaxLength(60)] string? What = null,
    [property: AllowedValues("top", "bottom", "both")] string Side = "top"
);

/// <summary>Something on a board that stays.</summary>
/// <param name="Refdes">Reference designator.</param>
/// <param name="Polygon">Corners [x, y], mm.</param>
/// <param name="HeightMm">Height, mm.</param>
public sealed record BoardPart(
    [property: MinLength(1), MaxLength(20)] string Refdes,
    [property: MinLength(3), MaxLength(ProfileFormat.MostCorners)] IReadOnlyList<IReadOnlyList<double>> Polygon,
    [property: Range(0.0, 200.0)] double HeightMm = 0
);

/// <summary>The two pads of a capacitor.</summary>
/// <param name="Plus">[x, y], mm; of an unpolar one either.</param>
/// <param name="Minus">[x, y], mm.</param>
public sealed record CapacitorPads(IReadOnlyList<double> Plus, IReadOnlyList<double> Minus);

/// <summary>A capacitor position.</summary>
/// <param name="Refdes">Reference designator.</param>
/// <param name="Section">What it serves, such as <c>supply</c>, <c>sound</c> or <c>display</c>; null when not told.</param>
/// <param name="Farads">Value, farads; null when not told.</param>
/// <param name="Volts">Rated voltage, volts; null when not told.</param>
/// <param name="Technology">What is fitted there, such as <c>aluminium</c>, <c>aluminium-square</c>, <c>tantalum</c>, <c>film</c>.</param>
/// <param name="Polar">False for one without a plus.</param>
/// <param name="Mount"><c>through-hole</c> or <c>surface</c>; null when not told.</param>
/// <param name="DiameterMm">Diameter of what is fitted, mm.</param>
/// <param name="HeightMm">Its height, mm.</param>
/// <param name="Pads">Where its legs go; null when nobody measured it.</param>
/// <param name="Revisions">Revisions in which it is like this; null for all.</param>
/// <param name="Part">Part of the profile that it belongs to; null to find it by board and reference designator.</param>
public sealed record BoardCapacitor(
    [property: MinLength(1), MaxLength(20)] string Refdes,
    [property: MaxLength(40)] string? Section = null,
    [property: Range(1e-12, 10.0)] double? Farads = null,
    [property: Range(0.1, 2000.0)] double? Volts = null,
    [property: MaxLength(40)] string? Technology = null,
    bool Polar = true,
    [property: MaxLength(20)] string? Mount = null,
    [property: Range(0.1, 200.0)] double? DiameterMm = null,
    [property: Range(0.1, 200.0)] double? HeightMm = null,
    CapacitorPads? Pads = null,
    [property: MaxLength(ProfileFormat.MostRevisions)] IReadOnlyList<string>? Revisions = null,
    PartId? Part = null
);
