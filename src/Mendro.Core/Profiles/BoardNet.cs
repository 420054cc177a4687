using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>A place on a board where a net can be touched.</summary>
/// <param name="Id">Id, one on its board.</param>
/// <param name="X">Millimetres from the board's left corner, seen from the top.</param>
/// <param name="Y">Millimetres from its lower corner.</param>
/// <param name="Side">top, bottom or both: where it can be touched.</param>
/// <param name="Kind">pad, via, leg, test, pin or edge.</param>
/// <param name="Part">Reference designator of the part whose contact it is; null for a via or test point.</param>
/// <param name="Under">What hides it once that is back on, or null.</param>
/// <param name="State">How it is on every unit of the model: sound, corroded, lost or lifted.</param>
/// <param name="Mate">Point of another board that it is joined to by a cable or connector, as <c>board/point</c>.</param>
public sealed record NetPoint(
    [property: RegularExpression(NetPoint.IdPattern)] string Id,
    [property: Range(-ProfileFormat.FurthestMm, ProfileFormat.FurthestMm)] double X,
    [property: Range(-ProfileFormat.FurthestMm, ProfileFormat.FurthestMm)] double Y,
    [property: AllowedValues("top", "bottom", "both")] string Side = "top",
    [property: AllowedValues("pad", "via", "leg", "test", "pin", "edge")] string Kind = "pad",
    [property: MaxLength(20)] string? Part = null,
    [property: MaxLength(40)] string? Under = null,
    [property: AllowedValues("sound", "corroded", "lost", "lifted")] string State = "sound",
    [property: MaxLength(90)] string? Mate = null
)
{
    /// <summary>Ids of points and nets: as drawings name them, without blanks, commas and slashes.</summary>
    public const string IdPattern = @"^[A-Za-z0-9+_.~#][A-Za-z0-9+_.~#*-]{0,39}$";

    /// <summary>Kinds of points.</summary>
    public static IReadOnlyList<string> Kinds { get; } = ["pad", "via", "leg", "test", "pin", "edge"];

    /// <summary>States of points.</summary>
    public static IReadOnlyList<string> States { get; } = ["sound", "corroded", "lost", "lifted"];

    /// <summary>Sides of points.</summary>
    public static IReadOnlyList<string> Sides { get; } = ["top", "bottom", "both"];

    /// <summary>Side on which a kind is usually reached: holes from both.</summary>
    public static string UsualSide(string kind) => kind is "via" or "leg" or "pin" ? "both" : "top";
}

/// <summary>What is joined by copper on a board.</summary>
/// <param name="Id">Id, one on its board.</param>
/// <param name="Name">What it carries, as said at the bench.</param>
/// <param name="Points">Its points.</param>
/// <param name="Segments">Stretches of copper, each between two points; null when nobody told which way it runs.</param>
/// <param name="Serves">Part of the profile that a break in it counts for, or null.</param>
/// <param name="Amps">Most current it carries, amperes; null for a signal.</param>
public sealed record BoardNet(
    [property: RegularExpression(NetPoint.IdPattern)] string Id,
    [property: MinLength(1), MaxLength(60)] string Name,
    [property: MaxLength(ProfileFormat.MostBoardPoints)] IReadOnlyList<string> Points,
    [property: MaxLength(ProfileFormat.MostBoardPoints)] IReadOnlyList<IReadOnlyList<string>>? Segments = null,
    PartId? Serves = null,
    [property: Range(0.0, 100.0)] double? Amps = null
);
