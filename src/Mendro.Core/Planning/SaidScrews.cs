using System.Text.RegularExpressions;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>Screws as one says them of a shell: <c>tri-wing</c>, <c>six-lobe T8</c>, <c>cross 00 screws</c>, <c>security 4.5 mm screws</c>.</summary>
public static partial class SaidScrews
{
    // Cross and slot are said of pads and cartridges too: they count before the word screws only.
    [GeneratedRegex(
        @"\b(?:(?<tri>tri-?\s?wing)|(?<six>six-?lobe|torx)|(?:(?<cross>cross|phillips)|(?<security>security)|(?<slot>slotted|slot|flat))(?=[^,;]*\bscrews?\b))"
            + @"(?:[\s-]*head(?:ed)?)?\s*(?<size>t?\d{1,2}(?:\.\d)?)?(?:\s*mm)?|\b(?<t>t\d{1,2})\b(?:\s+screws?)?",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Pattern();

    /// <summary>Head and size of the screws that were said; null when none were.</summary>
    public static (string Head, string? Size)? Read(string? words)
    {
        if (Pattern().Match(words ?? "") is not { Success: true } said)
            return null;
        var size = said.Groups["size"] is { Success: true, Value: { Length: > 0 } told } ? told.ToUpperInvariant() : null;
        return
            said.Groups["t"] is { Success: true } lobe ? ("six-lobe", lobe.Value.ToUpperInvariant())
            : said.Groups["tri"].Success ? ("tri-wing", size)
            : said.Groups["six"].Success ? ("six-lobe", size is null ? null : size.StartsWith('T') ? size : "T" + size)
            : said.Groups["cross"].Success ? ("cross", size)
            : said.Groups["security"].Success ? ("security", size)
            : ("slot", size);
    }

    /// <summary>A build whose shell is held by the screws that were said: those outside, not those of its boards.</summary>
    public static DeviceProfile Into(DeviceProfile build, string? words) =>
        build.Fasteners is not { Count: > 0 } all || Read(words) is not var (head, size)
            ? build
            : build with
            {
                Fasteners = all.Select(f => f is { Driver: not null, Face: null or "back", Under: null } ? f with { Head = head, Size = size } : f)
                    .ToList(),
            };
}
