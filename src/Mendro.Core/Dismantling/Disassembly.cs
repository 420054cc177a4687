using System.Numerics;
using Mendro.Core.Profiles;

namespace Mendro.Core.Dismantling;

/// <summary>How far a unit is apart: a set of steps done, by its number in the <see cref="Disassembly"/> of its model.</summary>
/// <param name="Index">Number of the set; 0 for a closed unit.</param>
public readonly record struct Apart(int Index);

/// <summary>
/// What it costs to reach things of one model from any set of steps done: exactly the cheapest steps of its teardown, shared between all
/// that is reached. A model without steps, or whose steps stop short of a state, has that coarse state as a step of its own.
/// </summary>
/// <remarks>Rows are worked out when first asked for and kept; safe for several threads.</remarks>
public sealed class Disassembly
{
    private static readonly AccessState[] Levels = [AccessState.Open, AccessState.BoardOut, AccessState.Lifted];

    private readonly TeardownGraph _graph;
    private readonly List<int[][]> _goals = [];
    private readonly Dictionary<string, int> _goalOf = [];
    private readonly int[][] _levels;
    private readonly Dictionary<BigInteger, int> _numbers = new() { [BigInteger.Zero] = 0 };
    private readonly List<BigInteger> _sets = [BigInteger.Zero];
    private readonly Lock _making = new();
    private readonly double _hopeless;
    private volatile Row?[] _rows = new Row?[8];

    private Disassembly(TeardownGraph graph, int[][] levels, Preparation preparation)
    {
        (_graph, _levels) = (graph, levels);
        _hopeless = preparation.Minutes(AccessState.Closed, AccessState.Lifted);
        // The four coarse states are the first four goals.
        _goals.Add([]);
        foreach (var level in levels)
            _goals.Add([level]);
    }

    /// <summary>Goal that is reached at once.</summary>
    public const int Nothing = 0;

    /// <summary>The disassembly of a model. Steps that make no graph are left aside for the coarse states.</summary>
    public static Disassembly Of(DeviceProfile profile)
    {
        var steps = profile.Steps is { Count: > 0 } told && TeardownGraph.Of(told, profile.Fasteners).IsOk ? told : [];
        var made = Make(steps, steps.Select(s => StepAccess.Of(profile, s)).ToList(), profile.Preparation);
        foreach (var probe in profile.Probes)
            made.Keep($"probe:{probe.Id}", Freed(probe.Id, probe.State));
        foreach (var part in profile.Parts)
        foreach (var level in Levels)
            made.Keep($"{part.Id}@{level}", [.. Freed(part.Id, level), made._levels[(int)level - 1]]);
        return made;

        int[][] Freed(string id, AccessState state) =>
            made._graph.FreedBy(id) is { Count: > 0 } by ? [by.ToArray()]
            : state == AccessState.Closed ? []
            : [made._levels[(int)state - 1]];
    }

    /// <summary>The disassembly of a unit of which only the coarse states are known.</summary>
    public static Disassembly Coarse(Preparation preparation) => Make([], [], preparation);

    /// <summary>Goal: a coarse state.</summary>
    public static int Goal(AccessState state) => (int)state;

    /// <summary>Goal: where a probe can be taken.</summary>
    public int Goal(Probe probe) => _goalOf.GetValueOrDefault($"probe:{probe.Id}", Goal(probe.State));

    /// <summary>Goal: where work that wants a state can be done on a part.</summary>
    public int Goal(PartId part, AccessState state) => _goalOf.GetValueOrDefault($"{part}@{state}", Goal(state));

    /// <summary>A unit as a coarse state tells it: taken apart to it the cheapest way.</summary>
    public Apart At(AccessState state) => After(default, Goal(state));

    /// <summary>A unit after a step was done or put back; as before when the model has no such step.</summary>
    public Apart Step(Apart from, string stepId, bool back)
    {
        if (_graph.Find(stepId) is not { } step)
            return from;
        lock (_making)
        {
            var one = BigInteger.One << step;
            var set = _sets[from.Index] | one;
            return Number(back ? set ^ one : set);
        }
    }

    /// <summary>Minutes to take it apart from where it is to a goal.</summary>
    public double Minutes(Apart from, int goal) => Of(from).Minutes[goal];

    /// <summary>How far it is apart when a goal was reached.</summary>
    public Apart After(Apart from, int goal) => new(Of(from).After[goal]);

    /// <summary>The cheapest steps from where it is to a goal, in order, by their ids; null when its steps never reach it. A coarse state
    /// that no step of the model leads to is a step whose id the model does not know.</summary>
    public IReadOnlyList<string>? Way(Apart from, int goal)
    {
        lock (_making)
        {
            return TeardownPlanner.Way(_graph, _goals[goal], Done(_sets[from.Index]))?.Select(step => _graph.Steps[step].Id).ToList();
        }
    }

    /// <summary>How far it is apart when each goal was reached, as numbers by goal.</summary>
    public ReadOnlySpan<int> After(Apart from) => Of(from).After;

    /// <summary>How far it is apart after the first step toward a goal.</summary>
    public Apart Toward(Apart from, int goal) => new(Of(from).Toward[goal]);

    /// <summary>True when a goal is reached.</summary>
    public bool Reached(Apart from, int goal) => Of(from).After[goal] == from.Index;

    private static Disassembly Make(IReadOnlyList<TeardownStep> steps, IReadOnlyList<AccessState> access, Preparation preparation)
    {
        var (all, levels) = (steps.ToList(), new List<string[]>());
        foreach (var level in Levels)
        {
            var reaching = Enumerable.Range(0, steps.Count).Where(n => access[n] >= level).Select(n => steps[n].Id).ToArray();
            if (reaching.Length == 0)
            {
                // Ids of a profile have no blank: this one is never met there.
                var own = new TeardownStep(
                    $"to {level}",
                    null,
                    null,
                    null,
                    levels.Count > 0 ? [levels[^1]] : null,
                    null,
                    null,
                    null,
                    level == AccessState.Open ? preparation.Open
                        : level == AccessState.BoardOut ? preparation.BoardOut
                        : preparation.Lifted,
                    0
                );
                all.Add(own);
                reaching = [own.Id];
            }

            levels.Add(reaching);
        }

        var graph = TeardownGraph.Of(all, []).Value!;
        return new Disassembly(graph, levels.Select(l => l.Select(id => graph.Find(id)!.Value).ToArray()).ToArray(), preparation);
    }

    private void Keep(string key, int[][] groups)
    {
        var same = _goals.FindIndex(g => g.Length == groups.Length && g.Zip(groups).All(p => p.First.AsSpan().SequenceEqual(p.Second)));
        if (same < 0)
        {
            same = _goals.Count;
            _goals.Add(groups);
        }

        _goalOf[key] = same;
    }

    private Row Of(Apart from)
    {
        var rows = _rows;
        return from.Index < rows.Length && rows[from.Index] is { } row ? row : MakeRow(from);
    }

    private Row MakeRow(Apart from)
    {
        lock (_making)
        {
            if (from.Index < _rows.Length && _rows[from.Index] is { } made)
                return made;
            var set = _sets[from.Index];
            var done = Done(set);
            var row = new Row(new double[_goals.Count], new int[_goals.Count], new int[_goals.Count]);
            for (var goal = 0; goal < _goals.Count; goal++)
            {
                if (TeardownPlanner.Way(_graph, _goals[goal], done) is not { } way)
                {
                    // Never reached by its steps: as dear as the whole way, each time.
                    (row.Minutes[goal], row.After[goal], row.Toward[goal]) = (_hopeless, from.Index, from.Index);
                    continue;
                }

                var after = way.Aggregate(set, (s, step) => s | BigInteger.One << step);
                row.Minutes[goal] = way.Sum(step => _graph.Steps[step].Minutes);
                row.After[goal] = Number(after).Index;
                row.Toward[goal] = way.Count == 0 ? from.Index : Number(set | BigInteger.One << way[0]).Index;
            }

            var rows = _rows;
            if (from.Index >= rows.Length)
                Array.Resize(ref rows, Math.Max(from.Index + 1, rows.Length * 2));
            rows[from.Index] = row;
            // Published whole: a reader sees the row as it was made.
            _rows = rows;
            return row;
        }
    }

    private List<int> Done(BigInteger set) =>
        Enumerable.Range(0, _graph.Steps.Count).Where(s => !((set >> s) & BigInteger.One).IsZero).ToList();

    private Apart Number(BigInteger set)
    {
        if (_numbers.TryGetValue(set, out var known))
            return new Apart(known);
        _sets.Add(set);
        return new Apart(_numbers[set] = _sets.Count - 1);
    }

    /// <summary>By goal: minutes, the set afterwards, the set after the first step.</summary>
    private sealed record Row(double[] Minutes, int[] After, int[] Toward);
}

/// <summary>A disassembly with its minutes as a plan counts them: putting back is counted with taking apart.</summary>
/// <param name="Of">The disassembly.</param>
/// <param name="Factor">Factor on the minutes, 1 or more.</param>
public readonly record struct Reach(Disassembly Of, double Factor = 1)
{
    /// <summary>Minutes from where it is to a goal.</summary>
    public double Minutes(Apart from, int goal) => Factor * Of.Minutes(from, goal);

    /// <summary>How far it is apart when a goal was reached.</summary>
    public Apart After(Apart from, int goal) => Of.After(from, goal);
}
