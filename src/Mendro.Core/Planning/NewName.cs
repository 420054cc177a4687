using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>What stands on a label that nobody knows, told from what is said of it in the same line.</summary>
public static class NewName
{
    private const int LongestName = 6;

    /// <summary>The name in a line that names no known model: what stands before the first comma or colon, or the words before
    /// those that say how it fails.</summary>
    /// <returns>The name, and the rest of the line as typed.</returns>
    public static (string Name, string Said) In(string line, TradeLibrary library)
    {
        var typed = line.Trim();
        var stop = typed.IndexOfAny([',', ':', ';']);
        if (stop > 0)
            return (typed[..stop].Trim(), typed[(stop + 1)..].Trim());
        var words = typed.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        // Heard by a unit that has every kind of function, the words that fail are told from the words that name.
        for (var n = 1; n < Math.Min(words.Length, LongestName + 1); n++)
        {
            var said = string.Join(' ', words.Skip(n));
            if (library.Profiles.Where(p => p.Generic).Select(p => Understanding.Of(said, p, library)).Any(Clear))
                return (string.Join(' ', words.Take(n)), said);
        }

        return (string.Join(' ', words.Take(LongestName)), string.Join(' ', words.Skip(LongestName)));
    }

    /// <summary>What of a line tells which build it is: its name and what is said of it, without the clauses that say how it fails. A
    /// picture that is missing makes no picture cable of it.</summary>
    public static string Tells(string line, TradeLibrary library)
    {
        var generic = library.Profiles.Where(p => p.Generic).ToList();
        var clauses = line.Split([',', ';', ':'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        return string.Join(
            ' ',
            clauses.Where((c, n) => n == 0 || !generic.Exists(p => Understanding.Of(c, p, library) is { Unsure.Count: 0, Facts.Count: > 0 }))
        );
    }

    private static bool Clear(Understanding heard) => heard.Unsure.Count == 0 && heard.Facts.Count > 0;
}
