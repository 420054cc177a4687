namespace Mendro.Core.Planning;

/// <content>The words on which each fact rests, as they were typed.</content>
internal sealed partial class Listener
{
    /// <summary>For each fact the words of its clause from its own on, up to the next fact of the clause; the first also has those
    /// before it.</summary>
    private List<string> Grounds(IReadOnlyList<int> places, string typed)
    {
        return [.. places.Select(at =>
        {
            var (from, to) = _clauses.Find(c => at >= c.From && at < c.To);
            var start = places.Any(p => p >= from && p < at) ? at : from;
            var next = places.Where(p => p > at && p < to).DefaultIfEmpty(to).Min();
            var words = Enumerable.Range(start, Math.Max(0, next - start)).ToList();
            var first = words.FindIndex(n => _used[n]);
            var last = words.FindLastIndex(n => _used[n]);
            return first < 0 ? "" : AsTyped(_words.GetRange(words[first], words[last] - words[first] + 1), typed);
        })];
    }

    /// <summary>The stretch of the line in which the words stand, or the words when they were put another way.</summary>
    private static string AsTyped(List<string> words, string typed)
    {
        int? from = null;
        var end = 0;
        foreach (var word in words)
        {
            var at = typed.IndexOf(word, end, StringComparison.OrdinalIgnoreCase);
            if (at >= 0 && (from is null || at - end < LongestGap))
                (from, end) = (from ?? at, at + word.Length);
        }

        return from is { } start ? typed[start..end] : string.Join(' ', words);
    }

    private const int LongestGap = 24;
}
