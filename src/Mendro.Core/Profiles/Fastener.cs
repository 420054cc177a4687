using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>Something that holds a unit together: a screw, a clip, a foot over a screw; or a hole that is meant to stay empty.</summary>
/// <param name="Id">Id, unique among the fasteners of the profile.</param>
/// <param name="Head">Shape of the head, such as <c>cross</c>, <c>tri-wing</c>, <c>six-lobe</c>, <c>security</c>, <c>slot</c>; also
/// <c>clip</c>, <c>foot</c>, <c>sticker</c>, <c>latch</c> and <c>solder</c>, which take no driver.</param>
/// <param name="Size">Size of the driver, such as <c>00</c>, <c>T10</c> or <c>3.8</c>; null when not told.</param>
/// <param name="LengthMm">Length under the head, mm; null when not told.</param>
/// <param name="X">Place across the face it is on, 0 (left) to 100 (right); null when not told.</param>
/// <param name="Y">Place down the face, 0 (top) to 100 (bottom).</param>
/// <param name="Face">Face it is on, such as <c>back</c> or <c>board</c>; null for the back.</param>
/// <param name="Under">What it is hidden under, or null.</param>
/// <param name="Group">Tray place that it goes to with its like; null for the step's own.</param>
/// <param name="NoScrew">True for a hole that must stay empty.</param>
public sealed record Fastener(
    [property: RegularExpression(ProfileFormat.IdPattern)] string Id,
    [property: MinLength(1), MaxLength(30)] string Head,
    [property: MaxLength(20)] string? Size = null,
    [property: Range(0.0, 200.0)] double? LengthMm = null,
    [property: Range(0.0, 100.0)] double? X = null,
    [property: Range(0.0, 100.0)] double? Y = null,
    [property: MaxLength(30)] string? Face = null,
    [property: MaxLength(60)] string? Under = null,
    [property: MaxLength(30)] string? Group = null,
    bool NoScrew = false
)
{
    private static readonly HashSet<string> ByHand = ["clip", "foot", "sticker", "latch", "solder"];

    /// <summary>The next free id among those taken, such as <c>s7</c>.</summary>
    public static string FreeId(IReadOnlySet<string> taken) => Enumerable.Range(1, 10_000).Select(n => $"s{n}").First(i => !taken.Contains(i));

    /// <summary>The driver it takes, such as <c>cross 00</c>; null when it comes off by hand or stays empty.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string? Driver =>
        NoScrew || ByHand.Contains(Head) ? null
        : Size is { Length: > 0 } size ? $"{Head} {size}"
        : Head;
}
