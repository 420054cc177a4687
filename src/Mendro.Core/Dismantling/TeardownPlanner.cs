using System.Numerics;
using Mendro.Core.Profiles;

namespace Mendro.Core.Dismantling;

/// <summary>
/// The cheapest set of steps that reaches several things at once. Steps are shared between what is to be reached, and groups of
/// alternatives make it a search: A* over sets of steps, closed under what each needs, that still have groups to be met. The cheapest
/// way into the dearest open group is its bound, which never says too much, so the first set that is complete and can be carried
/// out in some order is the cheapest (Hart, Nilsson and Raphael 1968).
/// </summary>
public static class TeardownPlanner
{
    // Far beyond any unit; a tangle made on purpose ends with an answer.
    private const int MostSets = 200_000;

    /// <summary>Plans.</summary>
    /// <param name="graph">Steps of the model.</param>
    /// <param name="targets">What is to be reached: what no step frees is reached at once.</param>
    /// <param name="done">Steps done already; they cost nothing and hold whatever they need.</param>
    /// <returns>The plan, or why something cannot be reached.</returns>
    public static Outcome<TeardownPlan> Plan(TeardownGraph graph, IReadOnlyCollection<string> targets, IReadOnlyCollection<string> done)
    {
        foreach (var id in done.Where(id => graph.Find(id) is null))
            return Outcome<TeardownPlan>.Fail($"There is no step “{id}” that could be done already.");
        var search = new Search(graph, done.Select(id => graph.Find(id)!.Value).ToHashSet());
        var goals = targets.Select(graph.FreedBy).Where(by => by.Count > 0).Select(by => by.ToArray()).ToList();
        return search.Run(goals) is { } steps
            ? Outcome<TeardownPlan>.Ok(Made(graph, steps))
            : Outcome<TeardownPlan>.Fail(
                search.TooMany
                    ? "The steps hang together in too many ways to be planned exactly."
                    : $"It cannot be reached: {string.Join(", ", targets.Where(t => search.Run([.. Goal(graph, t)]) is null))}."
            );
    }

    /// <summary>The cheapest steps that meet one of each group, in an order that can be carried out; null when there are none.</summary>
    /// <param name="graph">Steps of the model.</param>
    /// <param name="groups">Steps by index, one of each group to be done.</param>
    /// <param name="done">Steps done already, by index.</param>
    internal static IReadOnlyList<int>? Way(TeardownGraph graph, IReadOnlyList<int[]> groups, IEnumerable<int> done) =>
        new Search(graph, done.ToHashSet()).Run(groups);

    private static IEnumerable<int[]> Goal(TeardownGraph graph, string target) =>
        graph.FreedBy(target) is { Count: > 0 } by ? [by.ToArray()] : [];

    private static TeardownPlan Made(TeardownGraph graph, IReadOnlyList<int> steps) =>
        TeardownPlan.Of(steps.Select(n => graph.Steps[n]).ToList(), graph.Fasteners);

    private sealed class Search
    {
        private readonly TeardownGraph _graph;
        private readonly HashSet<int> _done;
        private readonly decimal[] _minutes;
        private readonly HashSet<int> _possible;
        private readonly List<int> _steps;

        public Search(TeardownGraph graph, HashSet<int> done)
        {
            (_graph, _done) = (graph, done);
            _minutes = graph.Steps.Select(s => (decimal)s.Minutes).ToArray();
            // What can be done at all, when everything that can be is: the rest helps nobody.
            _possible = [.. done];
            while (
                Enumerable.Range(0, _minutes.Length).Where(s => !_possible.Contains(s) && graph.MayBeDone(s, _possible.Contains)).ToList()
                    is { Count: > 0 } more
            )
                _possible.UnionWith(more);
            _steps = _possible.Where(s => !done.Contains(s)).Order().ToList();
        }

        public bool TooMany { get; private set; }

        /// <summary>The cheapest steps in an order that can be carried out; null when there are none.</summary>
        public IReadOnlyList<int>? Run(IReadOnlyList<int[]> goals)
        {
            if (!goals.All(g => g.Any(_possible.Contains)))
                return null;
            var open = new PriorityQueue<BigInteger, (decimal Bound, int Steps, long Turn)>();
            var seen = new HashSet<BigInteger>();
            long turn = 0;
            void Add(BigInteger set)
            {
                if (!seen.Add(set))
                    return;
                var members = Members(set);
                var groups = Open(set, members, goals);
                var ahead = groups.Count == 0 ? 0 : Ahead(set, groups);
                open.Enqueue(set, (members.Sum(s => _minutes[s]) + ahead, members.Count, turn++));
            }

            Add(BigInteger.Zero);
            while (open.TryDequeue(out var set, out _))
            {
                if (seen.Count > MostSets)
                {
                    TooMany = true;
                    return null;
                }

                // The group with the fewest alternatives first: every complete set meets it, whichever is looked at.
                var members = Members(set);
                if (Open(set, members, goals).MinBy(g => g.Length) is { } group)
                {
                    foreach (var step in group)
                        Add(Closed(set, step));
                    continue;
                }

                var (order, stuck) = InOrder(members);
                if (stuck.Count == 0)
                    return order;
                // Steps that wait for one another in a circle: in any order that works, the first of them is let in from outside.
                var free = order.ToHashSet();
                foreach (var step in stuck.Where(s => _graph.Needs[s].All(n => free.Contains(n) || _done.Contains(n))))
                    if (_graph.AnyOf[step].FirstOrDefault(g => !g.Any(t => free.Contains(t) || _done.Contains(t))) is { } circle)
                        foreach (var other in circle.Where(t => _possible.Contains(t) && !Has(set, t)))
                            Add(Closed(set, other));
            }

            return null;
        }

        /// <summary>Groups that a set does not meet, with those of their steps that can be done at all.</summary>
        private List<int[]> Open(BigInteger set, List<int> members, IReadOnlyList<int[]> goals) =>
            goals
                .Concat(members.SelectMany(s => _graph.AnyOf[s]))
                .Where(group => !group.Any(t => _done.Contains(t) || Has(set, t)))
                .Select(group => group.Where(_possible.Contains).ToArray())
                .ToList();

        /// <summary>Minutes that the dearest open group costs at least: each step its own and those of the dearest thing it waits for, the
        /// steps of the set being free.</summary>
        private decimal Ahead(BigInteger set, List<int[]> groups)
        {
            var least = new decimal?[_minutes.Length];
            foreach (var step in _done)
                least[step] = 0;
            foreach (var step in _steps.Where(s => Has(set, s)))
                least[step] = 0;
            // Smaller whenever a cheaper way in is found, until nothing changes.
            for (var changed = true; changed; )
            {
                changed = false;
                foreach (var step in _steps.Where(s => !Has(set, s)))
                    if (Waits(step, least) is { } waits && !(least[step] <= _minutes[step] + waits))
                        (least[step], changed) = (_minutes[step] + waits, true);
            }

            return groups.Max(g => g.Min(t => least[t] ?? decimal.MaxValue / 4));
        }

        private decimal? Waits(int step, decimal?[] least)
        {
            decimal waits = 0;
            foreach (var need in _graph.Needs[step])
                if (least[need] is { } one)
                    waits = Math.Max(waits, one);
                else
                    return null;
            foreach (var group in _graph.AnyOf[step])
                if (group.Min(t => least[t]) is { } cheapest)
                    waits = Math.Max(waits, cheapest);
                else
                    return null;
            return waits;
        }

        /// <summary>A set with one step more and all that it needs.</summary>
        private BigInteger Closed(BigInteger set, int step)
        {
            var pending = new Stack<int>([step]);
            while (pending.TryPop(out var next))
            {
                if (_done.Contains(next) || Has(set, next))
                    continue;
                set |= BigInteger.One << next;
                foreach (var need in _graph.Needs[next])
                    pending.Push(need);
            }

            return set;
        }

        /// <summary>The steps of a set one after the other, each as soon as it may be done; and those that never may.</summary>
        private (List<int> Order, List<int> Stuck) InOrder(List<int> members)
        {
            var (order, left, free) = (new List<int>(), members.ToList(), new HashSet<int>(_done));
            while (left.FindIndex(s => _graph.MayBeDone(s, free.Contains)) is >= 0 and var next)
            {
                order.Add(left[next]);
                free.Add(left[next]);
                left.RemoveAt(next);
            }

            return (order, left);
        }

        private List<int> Members(BigInteger set) => _steps.Where(s => Has(set, s)).ToList();

        private static bool Has(BigInteger set, int step) => !((set >> step) & BigInteger.One).IsZero;
    }
}
