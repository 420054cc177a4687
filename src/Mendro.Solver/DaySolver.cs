using System.Diagnostics;
using System.Globalization;
using Google.OrTools.Sat;
using Mendro.Core.Scheduling;

namespace Mendro.Solver;

/// <summary>
/// Plans a workload: active tasks take a person and their place, passive ones only their place. Orders worked off one after another give a
/// first plan, a constraint solver (CP-SAT) tries to prove the best one, where it cannot soon the order is searched, and the solver goes on
/// from there. No plan is worse than the first ones; the end is a proof, or the end of the time.
/// </summary>
public static class DaySolver
{
    // Weights, and worths of a minute, to thousandths.
    private const double PerWeight = 1000;

    // Of the time the first try to prove, and the search of orders that follows.
    private const double ProofShare = 0.15;
    private const double SearchShare = 0.5;

    // Tasks put down in all while orders are searched.
    private const int MostPut = 20_000_000;

    private const int MostTickScale = 1000;

    /// <summary>Solves a workload.</summary>
    /// <param name="load">Workload, without circles.</param>
    /// <param name="limit">Longest time.</param>
    /// <param name="before">Starts of a plan that stood before, to begin from; null for none.</param>
    /// <param name="cancel">Gives up with what was found.</param>
    public static WorkPlan Solve(
        Workload load,
        TimeSpan limit,
        IReadOnlyDictionary<string, double>? before = null,
        CancellationToken cancel = default
    )
    {
        if (load.Tasks.Count == 0)
            return new WorkPlan([], 0, true);
        var clock = Stopwatch.StartNew();
        var decoder = new OrderDecoder(load);
        var best = Orders(load, before).MinBy(o => load.Value(decoder.Starts(o)))!;
        if (load.Goal != PlanGoal.Makespan)
        {
            // Sums of what is late are proved only where they are easy, and then at once; else they are searched.
            var (quick, proved) = Prove(load, decoder, best, limit * ProofShare, cancel);
            if (proved || cancel.IsCancellationRequested)
                return quick;
            best = Best(load, decoder, best, Ordered(quick));
            var end = clock.Elapsed + limit * SearchShare;
            best = OrderSearch.Better(load, decoder, best, MostPut / load.Tasks.Count, () => cancel.IsCancellationRequested || clock.Elapsed > end);
        }

        return cancel.IsCancellationRequested ? ListOrder.Plan(load, best) : Prove(load, decoder, best, limit - clock.Elapsed, cancel).Plan;
    }

    private static (WorkPlan Plan, bool Proved) Prove(Workload load, OrderDecoder decoder, int[] from, TimeSpan limit, CancellationToken cancel)
    {
        var first = ListOrder.Plan(load, from);
        if (limit <= TimeSpan.Zero)
            return (first, false);
        var build = new Build(load, first);
        using var solver = new CpSolver { StringParameters = Parameters(limit) };
        var status = build.Solve(solver, cancel);
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
            return (first, false);
        // Worked off in the order that was found nothing begins later, and idle minutes between go.
        var found = ListOrder.Of(load, build.Starts(solver), optimal: false);
        var plan = new[] { first, ListOrder.Plan(load, Ordered(found)), found }.MinBy(p => Math.Round(load.Value(p), 6))!;
        return (plan with { Optimal = status == CpSolverStatus.Optimal }, status == CpSolverStatus.Optimal);
    }

    private static int[] Best(Workload load, OrderDecoder decoder, params int[][] orders) => orders.MinBy(o => load.Value(decoder.Starts(o)))!;

    private static int[] Ordered(WorkPlan plan) =>
        Enumerable.Range(0, plan.Tasks.Count).OrderBy(n => plan.Tasks[n].Start).ThenBy(n => plan.Tasks[n].End).ToArray();

    // One hand without linear relaxations, which tell little of who is next: the same task has the same answer.
    private static string Parameters(TimeSpan limit) =>
        string.Create(CultureInfo.InvariantCulture, $"max_time_in_seconds:{limit.TotalSeconds:0.###} num_workers:1 linearization_level:0 random_seed:1");

    private static IEnumerable<int[]> Orders(Workload load, IReadOnlyDictionary<string, double>? before)
    {
        var tasks = load.Tasks;
        int[] By(Func<int, double> key) => Enumerable.Range(0, tasks.Count).OrderBy(key).ToArray();
        yield return By(n => n);
        yield return By(n => tasks[n].Due ?? double.MaxValue);
        var tail = Tails(load);
        yield return By(n => -tail[tasks[n].Id]);
        yield return By(n => -(tasks[n].Weight + tasks[n].Worth) / Math.Max(1, tasks[n].Minutes));
        if (before is not null)
            yield return By(n => before.GetValueOrDefault(tasks[n].Id, double.MaxValue));
    }

    /// <summary>Minutes from the begin of each task to the end of all that comes after it.</summary>
    private static Dictionary<string, double> Tails(Workload load)
    {
        var next = load.Tasks.SelectMany(t => t.After.Select(a => (a, t.Id))).ToLookup(x => x.a, x => x.Id);
        var minutes = load.Tasks.ToDictionary(t => t.Id, t => t.Minutes);
        var known = new Dictionary<string, double>();
        double Of(string id) =>
            known.TryGetValue(id, out var tail) ? tail : known[id] = minutes[id] + next[id].Select(Of).DefaultIfEmpty(0).Max();
        foreach (var task in load.Tasks)
            Of(task.Id);
        return known;
    }

    /// <summary>The workload as a constraint model, in ticks.</summary>
    private sealed class Build
    {
        private readonly CpModel _model = new();
        private readonly List<IntVar> _starts = [];
        private readonly Workload _load;
        private readonly long _scale;
        private readonly long _horizon;

        public Build(Workload load, WorkPlan first)
        {
            _load = load;
            var told = load
                .Tasks.SelectMany(t => (double[])[t.Minutes, t.Earliest, t.Begun ?? 0, t.Due ?? 0])
                .Concat(load.Closed.SelectMany(c => (double[])[c.From, c.To]))
                .ToList();
            _scale = 1;
            while (_scale < MostTickScale && told.Any(m => Math.Abs(m * _scale - Math.Round(m * _scale)) > 1e-9))
                _scale *= 10;
            // A task that gives way to all others still begins by then.
            _horizon = Ticks(load.Tasks.Sum(t => t.Minutes) + first.Tasks.Max(t => t.End) + load.Closed.Sum(c => c.To - c.From));
            var (people, attended) = (new List<IntervalVar>(), new List<IntervalVar>());
            var places = load.Places.ToDictionary(p => p.Id, _ => new List<IntervalVar>());
            for (var n = 0; n < load.Tasks.Count; n++)
            {
                var task = load.Tasks[n];
                var start = task.Begun is { } begun
                    ? _model.NewIntVar(Ticks(begun), Ticks(begun), task.Id)
                    : _model.NewIntVar(Math.Max(0, Ticks(task.Earliest)), _horizon, task.Id);
                _starts.Add(start);
                _model.AddHint(start, Ticks(first.Tasks[n].Start));
                if (task.Minutes <= 0)
                    continue;
                var interval = _model.NewFixedSizeIntervalVar(start, Ticks(task.Minutes), task.Id);
                if (!task.Passive)
                    people.Add(interval);
                else if (task is { Attended: true, Begun: null })
                    attended.Add(interval);
                if (task.Place is { } place)
                    places[place].Add(interval);
            }

            var index = load.Tasks.Select((t, n) => (t.Id, n)).ToDictionary(x => x.Id, x => x.n);
            foreach (var task in load.Tasks.Where(t => t.Begun is null))
                foreach (var before in task.After)
                    _model.Add(_starts[index[task.Id]] >= End(index[before]));
            var closed = load.Closed.Select((c, n) => _model.NewFixedSizeIntervalVar(Ticks(c.From), Ticks(c.To - c.From), $"closed{n}")).ToList();
            // Where more hands than there are can never be wanted at once, nobody has to be counted.
            if (closed.Count > 0 || MostAtOnce(load) > load.People)
                Together(people, load.People, closed);
            foreach (var one in attended)
                _model.AddNoOverlap([one, .. closed]);
            foreach (var place in load.Places)
                Together(places[place.Id], place.Count, []);
            _model.Minimize(Goal());
        }

        public CpSolverStatus Solve(CpSolver solver, CancellationToken cancel)
        {
            using var stop = cancel.Register(solver.StopSearch);
            return solver.Solve(_model);
        }

        public double[] Starts(CpSolver solver) => _starts.Select(s => solver.Value(s) / (double)_scale).ToArray();

        /// <summary>More active tasks than this never run at once: they have no more places, or wait for one another in no more chains.</summary>
        private static int MostAtOnce(Workload load)
        {
            var active = load.Tasks.Where(t => !t.Passive).ToList();
            var used = active.Select(t => t.Place).Distinct().ToList();
            var places = used.Contains(null) ? int.MaxValue : load.Places.Where(p => used.Contains(p.Id)).Sum(p => p.Count);
            var ids = active.Select(t => t.Id).ToHashSet();
            var ends = new HashSet<string>();
            // A chain is made longer by what waits for its end.
            var chains = active.Count(t => !t.After.Any(a => ids.Contains(a) && ends.Add(a)));
            return Math.Min(places, chains);
        }

        private long Ticks(double minutes) => (long)Math.Round(minutes * _scale);

        private LinearExpr End(int n) => _starts[n] + Ticks(_load.Tasks[n].Minutes);

        private void Together(List<IntervalVar> intervals, int most, List<IntervalVar> closed)
        {
            if (most == 1)
                _model.AddNoOverlap([.. intervals, .. closed]);
            else if (intervals.Count > most || closed.Count > 0)
            {
                var cumulative = _model.AddCumulative(most);
                foreach (var one in intervals)
                    cumulative.AddDemand(one, 1);
                foreach (var one in closed)
                    cumulative.AddDemand(one, most);
            }
        }

        private LinearExpr Goal()
        {
            var most = _horizon + _load.Tasks.Max(t => Ticks(t.Minutes));
            if (_load.Goal == PlanGoal.Makespan)
            {
                var last = _model.NewIntVar(0, most, "last");
                for (var n = 0; n < _starts.Count; n++)
                    _model.Add(last >= End(n));
                return last;
            }

            var (parts, counts) = (new List<LinearExpr>(), new List<long>());
            for (var n = 0; n < _starts.Count; n++)
            {
                if (_load.Tasks[n] is not { Due: { } due, Weight: > 0 and var weight })
                    continue;
                var late = _model.NewIntVar(0, most + Math.Max(0, -Ticks(due)), $"late{n}");
                _model.Add(late >= End(n) - Ticks(due));
                parts.Add(late);
                counts.Add((long)Math.Round(weight * PerWeight * _load.PromiseWorth));
            }

            if (_load.Goal == PlanGoal.Day)
                Worth(parts, counts, most);
            return LinearExpr.WeightedSum(parts, counts);
        }

        private void Worth(List<LinearExpr> parts, List<long> counts, long most)
        {
            for (var n = 0; n < _starts.Count; n++)
                if (_load.Tasks[n] is { Worth: > 0 and var worth, Begun: null })
                {
                    parts.Add(_starts[n]);
                    counts.Add((long)Math.Round(worth * PerWeight));
                }

            var standing = (long)Math.Round(_load.SetupWorth * PerWeight);
            if (standing <= 0)
                return;
            foreach (var setup in _load.SharedSetups)
            {
                var (from, to) = (_model.NewIntVar(0, most, $"from {setup[0]}"), _model.NewIntVar(0, most, $"to {setup[0]}"));
                foreach (var n in setup)
                {
                    _model.Add(from <= _starts[n]);
                    _model.Add(to >= End(n));
                }

                parts.Add(to - from);
                counts.Add(standing);
            }
        }
    }
}
