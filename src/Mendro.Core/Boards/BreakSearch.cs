using System.Numerics;

namespace Mendro.Core.Boards;

/// <summary>A stretch of a net between two points.</summary>
/// <param name="A">One end.</param>
/// <param name="B">The other.</param>
/// <param name="Weight">Its chance to be the broken one, in proportion; 0 or more.</param>
public sealed record NetSegment(string A, string B, double Weight);

/// <summary>A continuity test between two points of a net.</summary>
/// <param name="A">One point.</param>
/// <param name="B">The other.</param>
public sealed record BeepTest(string A, string B);

/// <summary>A segment that may be the broken one.</summary>
/// <param name="A">One end.</param>
/// <param name="B">The other.</param>
/// <param name="P">Chance, 0 to 1.</param>
public sealed record SuspectSegment(string A, string B, double P);

/// <summary>
/// Finds the one broken segment of a tree by continuity tests between points that can be reached, in the fewest tests to be expected, or
/// in the fewest minutes where points differ in how long a tip takes to them.
/// A test that beeps clears its way; a silent one encloses the break. Segments that no test tells apart are one; over the others the
/// best strategy is found exactly by dynamic programming over what is still possible, as long as they are few, else each test splits
/// the chances as evenly as it can (half-split, which on a chain of equal segments is the best there is: Knuth, The Art of Computer
/// Programming 3, 6.2.1).
/// </summary>
public sealed class BreakSearch
{
    /// <summary>Most distinguishable segments for which the best strategy is worked out exactly.</summary>
    public const int MostExact = 14;

    private const int MostClasses = 64;
    private const int MostStates = 400_000;

    private readonly IReadOnlyList<NetSegment> _segments;
    private readonly IReadOnlyList<(BeepTest Test, HashSet<int> Way)> _tests;
    private readonly Dictionary<ulong, (double Cost, int Query)> _known = [];
    private readonly List<(ulong Mask, BeepTest Test, double Cost)> _queries = [];
    private readonly double[] _weights = [];
    private readonly double _cheapest = 1;

    private BreakSearch(
        IReadOnlyList<NetSegment> segments,
        IReadOnlyList<(BeepTest Test, HashSet<int> Way)> tests,
        IReadOnlyList<int> suspects,
        Func<string, double>? cost
    )
    {
        (_segments, _tests) = (segments, tests);
        var total = suspects.Sum(s => segments[s].Weight);
        Suspects = suspects
            .Select(s => new SuspectSegment(segments[s].A, segments[s].B, segments[s].Weight / total))
            .OrderByDescending(s => s.P)
            .ToList();
        var classes = Classes(suspects);
        if (classes.Count < 2)
            return;
        _weights = classes.Select(c => c.Sum(s => segments[s].Weight) / total).ToArray();
        // Of tests that tell the same the cheapest is asked.
        double Cost(BeepTest test) => cost is null ? 1 : cost(test.A) + cost(test.B);
        foreach (var (test, way) in tests.OrderBy(t => Cost(t.Test)))
        {
            ulong mask = 0;
            for (var n = 0; n < classes.Count; n++)
                if (way.Contains(classes[n][0]))
                    mask |= 1UL << n;
            if (mask != 0 && mask != All && _queries.TrueForAll(q => q.Mask != mask && q.Mask != (All & ~mask)))
                _queries.Add((mask, test, Cost(test)));
        }

        _cheapest = _queries.Count == 0 ? 1 : _queries.Min(q => q.Cost);
        var best = Best(All);
        (Next, Expected) = (_queries[best.Query].Test, best.Cost);
    }

    /// <summary>The test to make; null when the break is enclosed as closely as the points allow.</summary>
    public BeepTest? Next { get; }

    /// <summary>Tests to be expected until it is, this one included, or what they cost where costs were told; 0 when it is.</summary>
    public double Expected { get; }

    /// <summary>Segments that may be the broken one, the likeliest first.</summary>
    public IReadOnlyList<SuspectSegment> Suspects { get; }

    private ulong All => _weights.Length == MostClasses ? ulong.MaxValue : (1UL << _weights.Length) - 1;

    /// <summary>Searches a net.</summary>
    /// <param name="segments">Segments; a tree.</param>
    /// <param name="reachable">Points that a probe reaches.</param>
    /// <param name="results">Tests made, and whether they beeped.</param>
    /// <param name="cost">What it costs to set a tip on a point, above 0; null when every test costs one.</param>
    /// <returns>The search, or what is wrong with it.</returns>
    public static Outcome<BreakSearch> Of(
        IReadOnlyList<NetSegment> segments,
        IReadOnlyList<string> reachable,
        IReadOnlyList<(string A, string B, bool Beeps)> results,
        Func<string, double>? cost = null
    )
    {
        static Outcome<BreakSearch> Fail(string why) => Outcome<BreakSearch>.Fail(why);

        var next = new Dictionary<string, List<(string To, int Segment)>>();
        void Join(string from, string to, int n) => (next.TryGetValue(from, out var list) ? list : next[from] = []).Add((to, n));
        for (var n = 0; n < segments.Count; n++)
        {
            Join(segments[n].A, segments[n].B, n);
            Join(segments[n].B, segments[n].A, n);
        }

        if (segments.Count == 0)
            return Fail("segments: there are none.");
        if (segments.FirstOrDefault(s => !(s.Weight >= 0) || !double.IsFinite(s.Weight)) is { } odd)
            return Fail($"segments: the weight of {odd.A}–{odd.B} is 0 or more.");
        if (Ways(next, segments[0].A).Count != next.Count || segments.Count != next.Count - 1)
            return Fail("segments: they make no tree: a ring, or parts that do not hang together.");
        if (reachable.FirstOrDefault(r => !next.ContainsKey(r)) is { } lost)
            return Fail($"reachable: “{lost}” is no point of the net.");
        var possible = Enumerable.Range(0, segments.Count).Where(n => segments[n].Weight > 0).ToHashSet();
        foreach (var (a, b, beeps) in results)
        {
            if (!next.ContainsKey(a) || !next.ContainsKey(b))
                return Fail($"results: {a}–{b} are not both points of the net.");
            var way = Ways(next, a)[b];
            if (beeps)
                possible.ExceptWith(way);
            else
                possible.IntersectWith(way);
        }

        if (possible.Count == 0)
            return Fail("results: they contradict each other, or more than one segment is broken: no single break explains them.");
        var points = reachable.Distinct().ToList();
        var tests = new List<(BeepTest, HashSet<int>)>();
        for (var n = 0; n < points.Count; n++)
        {
            var ways = Ways(next, points[n]);
            tests.AddRange(points.Skip(n + 1).Select(b => (new BeepTest(points[n], b), ways[b])));
        }

        return Outcome<BreakSearch>.Ok(new BreakSearch(segments, tests, possible.Order().ToList(), cost));
    }

    /// <summary>The segments between a point and every other.</summary>
    private static Dictionary<string, HashSet<int>> Ways(Dictionary<string, List<(string To, int Segment)>> next, string from)
    {
        var ways = new Dictionary<string, HashSet<int>> { [from] = [] };
        var open = new Queue<string>([from]);
        while (open.TryDequeue(out var at))
            foreach (var (to, segment) in next[at])
                if (ways.TryAdd(to, [.. ways[at], segment]))
                    open.Enqueue(to);
        return ways;
    }

    /// <summary>Suspects that no test tells apart stand together.</summary>
    private List<List<int>> Classes(IReadOnlyList<int> suspects)
    {
        var classes = new List<List<int>> { suspects.ToList() };
        foreach (var (_, way) in _tests)
            classes = classes
                .SelectMany(c => (List<int>[])[c.Where(way.Contains).ToList(), c.Where(s => !way.Contains(s)).ToList()])
                .Where(c => c.Count > 0)
                .ToList();
        if (classes.Count <= MostClasses)
            return classes;
        // Beyond what fits a word the lightest stay together: they are told apart once the others are out.
        var order = classes.OrderByDescending(c => c.Sum(s => _segments[s].Weight)).ToList();
        return [.. order.Take(MostClasses - 1), order.Skip(MostClasses - 1).SelectMany(c => c).ToList()];
    }

    private double Weight(ulong set)
    {
        var sum = 0.0;
        for (; set != 0; set &= set - 1)
            sum += _weights[BitOperations.TrailingZeroCount(set)];
        return sum;
    }

    /// <summary>Expected tests times chance, and the first test, for what is still possible.</summary>
    private (double Cost, int Query) Best(ulong set)
    {
        if (BitOperations.PopCount(set) < 2)
            return (0, -1);
        if (_known.TryGetValue(set, out var known))
            return known;
        var weight = Weight(set);
        var splits = _queries
            .Select((q, n) => (Query: n, Part: q.Mask & set))
            .Where(x => x.Part != 0 && x.Part != set)
            // The same split from its other side is the same.
            .DistinctBy(x => Math.Min(x.Part, set & ~x.Part))
            .OrderBy(x => _queries[x.Query].Cost / Math.Max(1e-12, Math.Min(Weight(x.Part), weight - Weight(x.Part))))
            .ToList();
        // No test within a part of what was enclosed: it stays as it is.
        if (splits.Count == 0)
            return (0, -1);
        if (BitOperations.PopCount(set) > MostExact || _known.Count > MostStates)
            splits = [splits[0]];
        var best = (Cost: double.MaxValue, Query: -1);
        foreach (var (query, part) in splits)
        {
            var rest = set & ~part;
            var own = weight * _queries[query].Cost;
            if (own + (Least(part) + Least(rest)) * _cheapest >= best.Cost - 1e-15)
                continue;
            var cost = own + Best(part).Cost + Best(rest).Cost;
            if (cost < best.Cost - 1e-15)
                best = (cost, query);
        }

        return _known[set] = best;
    }

    /// <summary>Fewest tests that any questions could do with (Huffman, Proceedings of the IRE 40, 1952): a bound.</summary>
    private double Least(ulong set)
    {
        var heap = new PriorityQueue<double, double>();
        for (; set != 0; set &= set - 1)
        {
            var w = _weights[BitOperations.TrailingZeroCount(set)];
            heap.Enqueue(w, w);
        }

        var sum = 0.0;
        while (heap.Count > 1)
        {
            var two = heap.Dequeue() + heap.Dequeue();
            sum += two;
            heap.Enqueue(two, two);
        }

        return sum;
    }
}
