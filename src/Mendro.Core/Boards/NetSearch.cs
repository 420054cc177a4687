namespace Mendro.Core.Boards;

/// <summary>What is known of a net.</summary>
public enum NetState
{
    /// <summary>Nobody tested it, and nothing is seen.</summary>
    Untested,

    /// <summary>Tested in part; all that was tested beeps.</summary>
    Partly,

    /// <summary>Every stretch beeped, or everything that can be reached.</summary>
    Sound,

    /// <summary>Broken, and not yet enclosed as closely as can be.</summary>
    Open,

    /// <summary>Broken, and enclosed.</summary>
    Broken,

    /// <summary>Broken before, and bridged since.</summary>
    Bridged,
}

/// <summary>A continuity test that was made.</summary>
/// <param name="A">Key of one point.</param>
/// <param name="B">Key of the other.</param>
/// <param name="Beeps">True when it beeped.</param>
public sealed record BeepResult(string A, string B, bool Beeps);

/// <summary>
/// What continuity tests say of one net, and which comes next: from end to end first; after a silent one the break is enclosed
/// (<see cref="BreakSearch"/>), also when there are several. Pads that are off break the net without a test.
/// </summary>
public sealed class NetSearch
{
    private readonly HashSet<NetStretch> _broken = [];
    private readonly ILookup<string, NetStretch> _beside;

    /// <summary>Judges a net.</summary>
    /// <param name="net">Net.</param>
    /// <param name="results">Tests in the order of time, of any net.</param>
    /// <param name="canReach">True when a tip can be set on a point now.</param>
    /// <param name="minutes">Usual minutes.</param>
    public NetSearch(NetTree net, IReadOnlyList<BeepResult> results, Func<PlacedPoint, bool> canReach, TraceMinutes minutes)
    {
        Net = net;
        _beside = net.Stretches.SelectMany(s => ((string At, NetStretch Stretch)[])[(s.A, s), (s.B, s)]).ToLookup(x => x.At, x => x.Stretch);
        // A pair that was tested again: the last time holds.
        var own = results
            .Where(r => net.ByKey.ContainsKey(r.A) && net.ByKey.ContainsKey(r.B) && r.A != r.B)
            .GroupBy(r => string.CompareOrdinal(r.A, r.B) < 0 ? (r.A, r.B) : (r.B, r.A))
            .Select(g => g.Last())
            .ToList();
        Results = own;
        // A pad that is off lets go of the copper beside it; the core of a cable that was on it is still its other end.
        _broken.UnionWith(net.Stretches.Where(s => !s.IsJoint && (net.ByKey[s.A].IsOff || net.ByKey[s.B].IsOff)));
        var reachable = net.Points.Where(p => !p.IsOff && canReach(p)).Select(p => p.Key).ToList();
        var ways = own.Select(r => (Result: r, Way: Way(r.A, r.B))).ToList();
        Contradiction = Contradicted(ways);
        var cleared = ways.Where(w => w.Result.Beeps).SelectMany(w => w.Way).ToHashSet();
        cleared.ExceptWith(_broken);
        Cleared = cleared;
        var silent = ways.Where(w => !w.Result.Beeps && !w.Way.Overlaps(_broken))
            .Select(w => w.Way.Except(cleared).ToHashSet())
            .Where(w => w.Count > 0)
            .ToList();
        // One break explains all silence that shares a stretch; what is left has one of its own.
        while (silent.Count > 0)
        {
            var suspects = silent.MinBy(w => w.Count)!;
            foreach (var other in silent.Where(w => w.Overlaps(suspects)).ToList())
                suspects = suspects.Intersect(other).ToHashSet() is { Count: > 0 } shared ? shared : suspects;
            var search = Search(suspects, reachable, minutes);
            if (search.Next is { } test && Next is null)
                (Next, ExpectedMinutes, Suspects) = (test, search.Expected, search.Suspects);
            else if (search.Next is null)
                _broken.UnionWith(suspects);
            silent.RemoveAll(w => w.Overlaps(suspects));
        }

        if (Suspects.Count == 0)
            Suspects = _broken.Select(s => new SuspectSegment(s.A, s.B, 1)).ToList();
        var open = Next is not null;
        if (!open)
            (Next, ExpectedMinutes) = Whole(reachable, cleared, minutes);
        State =
            open ? NetState.Open
            : _broken.Count > 0 ? NetState.Broken
            : Next is null && cleared.Count > 0 ? NetState.Sound
            : cleared.Count > 0 ? NetState.Partly
            : NetState.Untested;
    }

    /// <summary>Net.</summary>
    public NetTree Net { get; }

    /// <summary>What is known.</summary>
    public NetState State { get; }

    /// <summary>Tests of this net, in order.</summary>
    public IReadOnlyList<BeepResult> Results { get; }

    /// <summary>The next test; null when nothing more can be learnt.</summary>
    public BeepTest? Next { get; }

    /// <summary>Minutes to be expected until nothing more can be learnt about the break, this test included.</summary>
    public double ExpectedMinutes { get; }

    /// <summary>Stretches that may be broken, the likeliest first; empty when nothing speaks for a break.</summary>
    public IReadOnlyList<SuspectSegment> Suspects { get; } = [];

    /// <summary>Stretches that conduct.</summary>
    public IReadOnlySet<NetStretch> Cleared { get; }

    /// <summary>Stretches that are broken, or that cannot be told from the broken one.</summary>
    public IReadOnlySet<NetStretch> Broken => _broken;

    /// <summary>Two tests that cannot both be right, in words; null when there are none.</summary>
    public string? Contradiction { get; }

    /// <summary>
    /// Points that still hang together, piece by piece, with wires in place; pieces without a contact of their own are left out, as
    /// nothing is lost with them; where the net has no two contacts, every piece counts.
    /// </summary>
    /// <param name="wires">Wires in place, by the keys of their ends.</param>
    /// <param name="wholeRuns">True to count a broken run as gone from contact to contact.</param>
    public IReadOnlyList<IReadOnlyList<PlacedPoint>> Pieces(IReadOnlyList<(string A, string B)> wires, bool wholeRuns = false)
    {
        var index = Net.Points.Select((p, n) => (p.Key, n)).ToDictionary(x => x.Key, x => x.n);
        var sets = new DisjointSets(index.Count);
        // What may be the broken one is not leant on.
        var gone = _broken.ToHashSet();
        if (State == NetState.Open)
            gone.UnionWith(Net.Stretches.Where(s => Suspects.Any(x => x.A == s.A && x.B == s.B)));
        if (wholeRuns)
            Run(gone);
        foreach (var (a, b) in Net.Stretches.Where(s => !gone.Contains(s)).Select(s => (s.A, s.B)).Concat(wires))
            if (index.TryGetValue(a, out var i) && index.TryGetValue(b, out var j))
                sets.Join(i, j);
        // Of a line of which no two contacts are told every piece counts: somebody wanted its ends joined.
        var told = Net.Points.Count(p => p.IsContact && p.IsThere) >= 2;
        return Net
            .Points.GroupBy(p => sets.Root(index[p.Key]))
            .Where(g => g.Any(p => (p.IsContact || !told) && p.IsThere))
            .Select(g => (IReadOnlyList<PlacedPoint>)g.ToList())
            .ToList();
    }

    /// <summary>Adds to broken stretches all that leads on from them to the next contact or fork.</summary>
    private void Run(HashSet<NetStretch> gone)
    {
        foreach (var broken in gone.ToList())
            foreach (var end in (string[])[broken.A, broken.B])
                for (var at = end; !Net.ByKey[at].IsContact; )
                {
                    var on = Beside(at).Where(s => !gone.Contains(s)).ToList();
                    if (on is not [var next])
                        break;
                    gone.Add(next);
                    at = next.A == at ? next.B : next.A;
                }
    }

    /// <summary>The stretches between two points of the net.</summary>
    public HashSet<NetStretch> Way(string a, string b)
    {
        var before = new Dictionary<string, NetStretch?> { [a] = null };
        var open = new Queue<string>([a]);
        while (!before.ContainsKey(b) && open.TryDequeue(out var at))
            foreach (var stretch in Beside(at))
            {
                var to = stretch.A == at ? stretch.B : stretch.A;
                if (before.TryAdd(to, stretch))
                    open.Enqueue(to);
            }

        var way = new HashSet<NetStretch>();
        for (var at = b; before.GetValueOrDefault(at) is { } stretch; at = stretch.A == at ? stretch.B : stretch.A)
            way.Add(stretch);
        return way;
    }

    private IEnumerable<NetStretch> Beside(string point) =>
        _beside[point];

    /// <summary>The last test that speaks against an earlier one.</summary>
    private string? Contradicted(List<(BeepResult Result, HashSet<NetStretch> Way)> ways)
    {
        for (var n = ways.Count - 1; n >= 0; n--)
        {
            if (ways[n].Result.Beeps)
                continue;
            var heard = ways.Where(w => w.Result.Beeps).ToList();
            var left = ways[n].Way.Where(s => !heard.Exists(h => h.Way.Contains(s))).ToList();
            if (ways[n].Way.Count > 0 && left.Count == 0)
                return $"{Name(ways[n].Result.A)} to {Name(ways[n].Result.B)} was silent, though every stretch of it beeped in other tests: "
                    + "test it again, and press lightly; a break that comes and goes is still a break.";
        }

        return null;
    }

    private string Name(string key) => Net.ByKey[key].Point.Id;

    private BreakSearch Search(HashSet<NetStretch> suspects, IReadOnlyList<string> reachable, TraceMinutes minutes)
    {
        // What is cleared, or broken elsewhere, is no candidate; tests that pass another break say nothing.
        var whole = Parts(_broken);
        var home = whole[suspects.First().A];
        var segments = Net
            .Stretches.Where(s => !_broken.Contains(s) && whole[s.A] == home)
            .Select(s => new NetSegment(s.A, s.B, suspects.Contains(s) ? s.Weight : 0))
            .ToList();
        double Cost(string key) => minutes.Tip + (Net.ByKey[key].State == "corroded" ? minutes.Scraped : 0);
        // Points without a suspect between them tell the same: the easiest of them stands for all, a contact before a via.
        var between = Parts([.. _broken, .. suspects]);
        var tips = reachable
            .Where(r => whole[r] == home)
            .GroupBy(r => between[r])
            .Select(g => g.OrderBy(Cost).ThenByDescending(r => Net.ByKey[r].IsContact).First())
            .ToList();
        return BreakSearch.Of(segments, tips, [], Cost).Value!;
    }

    /// <summary>For each point the part of the net it lies in when some stretches are taken out.</summary>
    private Dictionary<string, int> Parts(HashSet<NetStretch> without)
    {
        var parts = new Dictionary<string, int>();
        foreach (var point in Net.Points)
        {
            if (parts.ContainsKey(point.Key))
                continue;
            var number = parts.Count;
            var open = new Stack<string>([point.Key]);
            parts[point.Key] = number;
            while (open.TryPop(out var at))
                foreach (var stretch in Beside(at).Where(s => !without.Contains(s)))
                    foreach (var to in (string[])[stretch.A, stretch.B])
                        if (parts.TryAdd(to, number))
                            open.Push(to);
        }

        return parts;
    }

    /// <summary>While nothing is silent: the two reachable points with the most untested chance of a break between them.</summary>
    private (BeepTest?, double) Whole(IReadOnlyList<string> reachable, HashSet<NetStretch> cleared, TraceMinutes minutes)
    {
        var parts = Parts(_broken);
        BeepTest? best = null;
        var most = 0.0;
        // From contacts to contacts: a via proves less of a net than the leg behind it.
        foreach (var from in reachable.Where(r => IsEnd(r) || Net.ByKey[r].IsContact).Take(MostEnds))
        {
            var told = new Dictionary<string, double> { [from] = 0 };
            var open = new Queue<string>([from]);
            while (open.TryDequeue(out var at))
                foreach (var stretch in Beside(at).Where(s => !_broken.Contains(s)))
                {
                    var to = stretch.A == at ? stretch.B : stretch.A;
                    if (told.TryAdd(to, told[at] + (cleared.Contains(stretch) ? 0 : stretch.Weight)))
                        open.Enqueue(to);
                }

            foreach (var to in reachable.Where(r => r != from && parts[r] == parts[from] && told[r] > most + 1e-9))
                (best, most) = (new BeepTest(from, to), told[to]);
        }

        return (best, best is null ? 0 : minutes.Tip * 2);
    }

    private const int MostEnds = 40;

    private bool IsEnd(string key) => Beside(key).Count() == 1;
}
