using System.Globalization;
using System.Text.RegularExpressions;

namespace Mendro.Core.Profiles;

/// <summary>Reference designators as they are printed on boards.</summary>
public static partial class Refdes
{
    [GeneratedRegex(@"(?<letters>[A-Za-z]+)(?<from>[0-9]{1,4})(?:\s*[–-]\s*(?:[A-Za-z]+)?(?<to>[0-9]{1,4}))?")]
    private static partial Regex Pattern();

    /// <summary>Reference designators of a list such as <c>C1–C5</c> or <c>C31 C33</c>.</summary>
    public static IReadOnlySet<string> Expand(string? list) =>
        Pattern()
            .Matches(list ?? "")
            .SelectMany(m =>
            {
                var (letters, from) = (m.Groups["letters"].Value, int.Parse(m.Groups["from"].Value, CultureInfo.InvariantCulture));
                var to = m.Groups["to"].Success ? int.Parse(m.Groups["to"].Value, CultureInfo.InvariantCulture) : from;
                return Enumerable.Range(from, Math.Max(1, to - from + 1)).Select(n => FormattableString.Invariant($"{letters}{n}"));
            })
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
}
