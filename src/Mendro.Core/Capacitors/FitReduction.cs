using Mendro.Core.Boards;
using System.Numerics;

namespace Mendro.Core.Capacitors;

/// <summary>
/// Makes a <see cref="FitPuzzle"/> small without losing its best plan. A seat is left out when another of the same position is worth
/// as much or more and excludes nothing besides what it excludes: any plan with the one stays a plan with the other. What is left
/// falls into groups of positions that have nothing to do with each other, each a puzzle of its own.
/// </summary>
public sealed class FitReduction
{
    private readonly IReadOnlyList<FitSeat> _seats;
    private readonly ulong[][] _excludes;
    private readonly ulong[] _alive;

    /// <summary>Reduces a puzzle.</summary>
    /// <param name="puzzle">Puzzle.</param>
    /// <param name="cancel">Stops reducing; what is left then is larger, and right all the same.</param>
    public FitReduction(FitPuzzle puzzle, CancellationToken cancel = default)
    {
        _seats = puzzle.Seats;
        var words = (_seats.Count + 63) / 64;
        _alive = new ulong[words];
        _excludes = new ulong[_seats.Count][];
        for (var n = 0; n < _seats.Count; n++)
        {
            _excludes[n] = new ulong[words];
            Set(_alive, n);
        }

        var byPosition = Enumerable.Range(0, _seats.Count).GroupBy(n => _seats[n].Position).Select(g => g.ToArray()).ToList();
        foreach (var (one, other) in byPosition.SelectMany((a, i) => byPosition.Skip(i + 1).Select(b => (a, b))))
        {
            if (cancel.IsCancellationRequested)
                break;
            foreach (var n in one)
            foreach (var m in other)
                if (puzzle.Exclude(_seats[n], _seats[m]))
                {
                    Set(_excludes[n], m);
                    Set(_excludes[m], n);
                }
        }

        WasCancelled = cancel.IsCancellationRequested;
        if (!WasCancelled)
            Prune(byPosition, cancel);
        Groups = Split();
    }

    /// <summary>True when not all exclusions are known: nothing may be solved with them.</summary>
    public bool WasCancelled { get; }

    /// <summary>Seats that are left, in groups that exclude nothing of one another; indexes into the puzzle's seats.</summary>
    public IReadOnlyList<IReadOnlyList<int>> Groups { get; }

    /// <summary>Seats left that a seat excludes.</summary>
    public IEnumerable<int> ExcludedBy(int seat)
    {
        for (var word = 0; word < _alive.Length; word++)
            for (var bits = _excludes[seat][word] & _alive[word]; bits != 0; bits &= bits - 1)
                yield return word * 64 + BitOperations.TrailingZeroCount(bits);
    }

    /// <summary>
    /// Sets of seats of a group of which at most one can be taken, as large as they grow, and together all that is excluded: the
    /// larger the sets, the less a solver has to try.
    /// </summary>
    public IEnumerable<IReadOnlyList<int>> Cliques(IReadOnlyList<int> group)
    {
        var words = _alive.Length;
        var own = group.GroupBy(n => _seats[n].Position).ToDictionary(g => g.Key, g => Bits(g, words));
        var barred = group.ToDictionary(n => n, n => Or(_excludes[n], own[_seats[n].Position], n));
        var open = barred.ToDictionary(b => b.Key, b => (ulong[])b.Value.Clone());
        foreach (var start in Crowds(group).Select(c => Bits(c, words)).Concat(group.Select(n => Bits([n], words))))
            while (Unsaid(start, open) is var (first, second))
            {
                var clique = new List<int> { first };
                var left = (ulong[])barred[first].Clone();
                // What is crowded at the point comes first, then whatever goes with all of it.
                for (var next = second; next >= 0; next = Common(left, start) is var near and >= 0 ? near : First(left))
                {
                    clique.Add(next);
                    for (var word = 0; word < words; word++)
                        left[word] &= barred[next][word];
                }

                foreach (var n in clique)
                foreach (var m in clique)
                    open[n][m >> 6] &= ~(1UL << (m & 63));
                yield return clique;
            }
    }

    /// <summary>Seats that cover one point of the board, for points of a grid.</summary>
    private IEnumerable<List<int>> Crowds(IReadOnlyList<int> group)
    {
        const double gridMm = 1.0;
        var cells = new Dictionary<(int, int), List<int>>();
        foreach (var n in group)
        {
            var (seat, reach) = (_seats[n], _seats[n].Reach);
            for (var x = (int)Math.Ceiling((seat.Centre.X - reach) / gridMm); x * gridMm <= seat.Centre.X + reach; x++)
            for (var y = (int)Math.Ceiling((seat.Centre.Y - reach) / gridMm); y * gridMm <= seat.Centre.Y + reach; y++)
                if (seat.To(new BoardPoint(x * gridMm, y * gridMm)) <= 0)
                    (cells.TryGetValue((x, y), out var list) ? list : cells[(x, y)] = []).Add(n);
        }

        return cells.Values.Where(c => c.Count > 1).OrderByDescending(c => c.Count);
    }

    /// <summary>A seat of a set with an exclusion within the set that was not said yet; of a set of one, with any.</summary>
    private static (int, int)? Unsaid(ulong[] start, Dictionary<int, ulong[]> open)
    {
        var alone = start.Sum(w => BitOperations.PopCount(w)) == 1;
        for (var word = 0; word < start.Length; word++)
            for (var bits = start[word]; bits != 0; bits &= bits - 1)
            {
                var n = word * 64 + BitOperations.TrailingZeroCount(bits);
                if ((alone ? First(open[n]) : Common(open[n], start)) is var other and >= 0)
                    return (n, other);
            }

        return null;
    }

    private static int Common(ulong[] one, ulong[] other)
    {
        for (var word = 0; word < one.Length; word++)
            if ((one[word] & other[word]) is not 0 and var bits)
                return word * 64 + BitOperations.TrailingZeroCount(bits);
        return -1;
    }

    private ulong[] Or(ulong[] one, ulong[] other, int without)
    {
        var bits = new ulong[one.Length];
        for (var word = 0; word < bits.Length; word++)
            bits[word] = (one[word] | other[word]) & _alive[word];
        bits[without >> 6] &= ~(1UL << (without & 63));
        return bits;
    }

    private static ulong[] Bits(IEnumerable<int> indexes, int words)
    {
        var bits = new ulong[words];
        foreach (var n in indexes)
            Set(bits, n);
        return bits;
    }

    private static int First(ulong[] bits)
    {
        for (var word = 0; word < bits.Length; word++)
            if (bits[word] != 0)
                return word * 64 + BitOperations.TrailingZeroCount(bits[word]);
        return -1;
    }

    private static void Set(ulong[] bits, int n) => bits[n >> 6] |= 1UL << (n & 63);

    private bool Alive(int n) => (_alive[n >> 6] & (1UL << (n & 63))) != 0;

    /// <summary>Takes dominated seats out until none is left: each one gone may make others comparable.</summary>
    private void Prune(List<int[]> byPosition, CancellationToken cancel)
    {
        for (var again = true; again && !cancel.IsCancellationRequested; )
        {
            again = false;
            foreach (var own in byPosition)
            {
                // Best worth first: only what stands earlier can dominate.
                var order = own.Where(Alive).OrderBy(n => _seats[n].Pose).ThenBy(n => _seats[n].DistanceMm).ThenBy(n => n).ToList();
                var kept = new List<int>();
                foreach (var n in order)
                {
                    if (kept.Any(k => IsSubset(_excludes[k], _excludes[n])))
                    {
                        _alive[n >> 6] &= ~(1UL << (n & 63));
                        again = true;
                    }
                    else
                        kept.Add(n);
                }
            }
        }
    }

    private bool IsSubset(ulong[] inner, ulong[] outer)
    {
        for (var word = 0; word < inner.Length; word++)
            if ((inner[word] & ~outer[word] & _alive[word]) != 0)
                return false;
        return true;
    }

    private List<IReadOnlyList<int>> Split()
    {
        var left = Enumerable.Range(0, _seats.Count).Where(Alive).ToList();
        var group = left.Select(n => _seats[n].Position).Distinct().ToDictionary(p => p, p => p);
        int Root(int position)
        {
            while (group[position] != position)
                position = group[position];
            return position;
        }

        foreach (var n in left)
        foreach (var m in ExcludedBy(n))
            group[Root(_seats[n].Position)] = Root(_seats[m].Position);
        return left.GroupBy(n => Root(_seats[n].Position)).OrderBy(g => g.Key).Select(g => (IReadOnlyList<int>)g.ToList()).ToList();
    }
}
