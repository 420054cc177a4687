using System.Text.RegularExpressions;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Readings;

/// <summary>One line of the table of a fuse or switch: between which contacts it conducts in a position.</summary>
/// <param name="Position">Position, such as on, off or in place.</param>
/// <param name="Between">Contacts measured.</param>
/// <param name="Conducts">True when it should beep.</param>
public sealed record SwitchLine(string Position, string Between, bool Conducts);

/// <summary>What fuses and switches show by position (common practice, no source).</summary>
public static partial class SwitchTable
{
    [GeneratedRegex(@"^\s*(?<first>on|off)[\s:]+(?<one>.+?)[\s,;/]+(?<second>on|off)[\s:]+(?<two>.+?)\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex BothPattern();

    /// <summary>Both positions told in one go: <c>off open, on 0.2</c>.</summary>
    /// <returns>What was read switched on and switched off; null when not both were told.</returns>
    public static (string On, string Off)? Both(string text) =>
        BothPattern().Match(text) is { Success: true } told
        && !told.Groups["first"].ValueSpan.Equals(told.Groups["second"].ValueSpan, StringComparison.OrdinalIgnoreCase)
            ? told.Groups["first"].ValueSpan.Equals("on", StringComparison.OrdinalIgnoreCase)
                ? (told.Groups["one"].Value, told.Groups["two"].Value)
                : (told.Groups["two"].Value, told.Groups["one"].Value)
            : null;

    /// <summary>A change-over power switch with a common contact.</summary>
    public static IReadOnlyList<SwitchLine> Power { get; } =
    [
        new("off", "common – off contact", true),
        new("off", "common – on contact", false),
        new("on", "common – on contact", true),
        new("on", "common – off contact", false),
    ];

    /// <summary>A fuse.</summary>
    public static IReadOnlyList<SwitchLine> Fuse { get; } = [new("in place", "end to end", true)];

    /// <summary>Table of a part kind, or null.</summary>
    public static IReadOnlyList<SwitchLine>? Of(PartKind? kind) =>
        kind?.Has(PartRole.Switch) == true ? Power
        : kind?.Has(PartRole.Fuse) == true ? Fuse
        : null;

    /// <summary>Takes a position off the front of a reading: <c>off open</c>, <c>on: beep</c>.</summary>
    /// <returns>True for on, false for off, null when none was told; and the rest.</returns>
    public static (bool? On, string Remainder) Split(string text)
    {
        var typed = text.Trim();
        foreach (var (word, on) in new[] { ("on", true), ("off", false) })
            if (
                typed.Length > word.Length
                && typed.StartsWith(word, StringComparison.OrdinalIgnoreCase)
                && typed[word.Length] is ' ' or ':'
            )
                return (on, typed[(word.Length + 1)..].Trim());
        return (null, typed);
    }
}
