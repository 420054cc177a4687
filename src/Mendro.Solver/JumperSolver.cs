using Google.OrTools.Sat;
using Mendro.Core.Boards;

namespace Mendro.Solver;

/// <summary>
/// Chooses among all wires of a <see cref="JumperPuzzle"/>: first most pieces joined, then fewest points with two wires, then fewest
/// pairs of ends of different wires that warm one another, then fewest crossings where that is asked, then the least length; each proved
/// by a constraint solver (CP-SAT) before the next is asked.
/// </summary>
public static class JumperSolver
{
    private const double PerMm = 1000;

    /// <summary>Solves a puzzle.</summary>
    /// <param name="puzzle">Puzzle.</param>
    /// <param name="limit">Longest time.</param>
    /// <param name="spareCrossings">True to take a longer way rather than cross another wire.</param>
    /// <returns>The wires.</returns>
    public static IReadOnlyList<JumperWire> Solve(JumperPuzzle puzzle, TimeSpan limit, bool spareCrossings = false)
    {
        var wires = puzzle.Wires;
        if (wires.Count == 0)
            return [];
        var model = new CpModel();
        var taken = wires.Select((_, n) => model.NewBoolVar($"w{n}")).ToArray();
        for (var net = 0; net < puzzle.Broken.Count; net++)
            Join(model, puzzle, taken, net);

        var doubles = new List<BoolVar>();
        var ends = Enumerable.Range(0, wires.Count).SelectMany(n => ((string Id, int Wire)[])[(wires[n].From.Id, n), (wires[n].To.Id, n)]);
        foreach (var at in ends.GroupBy(e => e.Id))
        {
            var own = at.Select(e => taken[e.Wire]).ToArray();
            var free = puzzle.Joints.Any(j => j.Id == at.Key) ? 0 : 1;
            if (own.Length <= free)
                continue;
            var twice = model.NewBoolVar($"d{at.Key}");
            model.Add(LinearExpr.Sum(own) <= free + (own.Length - free) * twice);
            doubles.Add(twice);
        }

        var (near, counts) = (new List<BoolVar>(), new List<int>());
        for (var i = 0; i < wires.Count; i++)
            for (var j = i + 1; j < wires.Count; j++)
                // Two ways between the same two pieces are never both taken.
                if (
                    !(wires[i].Net == wires[j].Net && wires[i].GroupFrom == wires[j].GroupFrom && wires[i].GroupTo == wires[j].GroupTo)
                    && puzzle.NearEnds(wires[i], wires[j]) is > 0 and var pairs
                )
                {
                    var both = model.NewBoolVar($"n{i}-{j}");
                    model.AddBoolOr([taken[i].Not(), taken[j].Not(), both]);
                    near.Add(both);
                    counts.Add(pairs);
                }

        for (var n = 0; n < wires.Count; n++)
            if (puzzle.NearJoints(wires[n]) is > 0 and var warmed)
            {
                near.Add(taken[n]);
                counts.Add(warmed);
            }

        LinearExpr[] goals =
        [
            LinearExpr.Sum(doubles),
            LinearExpr.WeightedSum(near, counts),
            .. spareCrossings ? [LinearExpr.Sum(Crossings(model, wires, taken))] : (LinearExpr[])[],
            LinearExpr.WeightedSum(taken, wires.Select(w => (long)Math.Round(w.LengthMm * PerMm))),
        ];
        IReadOnlyList<JumperWire> best = [];
        foreach (var goal in goals)
        {
            model.Minimize(goal);
            var solver = new CpSolver { StringParameters = Steady.Within(limit / goals.Length) };
            if (solver.Solve(model) is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
                return best;
            best = Enumerable.Range(0, wires.Count).Where(n => solver.BooleanValue(taken[n])).Select(n => wires[n]).ToList();
            model.Add(goal <= (long)Math.Round(solver.ObjectiveValue));
        }

        return best;
    }

    private static List<BoolVar> Crossings(CpModel model, IReadOnlyList<JumperWire> wires, BoolVar[] taken)
    {
        var crossed = new List<BoolVar>();
        for (var i = 0; i < wires.Count; i++)
            for (var j = i + 1; j < wires.Count; j++)
                if (wires[i].Net != wires[j].Net && wires[i].Crosses(wires[j]))
                {
                    var both = model.NewBoolVar($"x{i}-{j}");
                    model.AddBoolOr([taken[i].Not(), taken[j].Not(), both]);
                    crossed.Add(both);
                }

        return crossed;
    }

    /// <summary>The pieces of a net that can be joined are, by a tree: as many wires as it takes, and one at least out of every set of
    /// pieces that belong together.</summary>
    private static void Join(CpModel model, JumperPuzzle puzzle, BoolVar[] taken, int net)
    {
        var own = Enumerable.Range(0, puzzle.Wires.Count).Where(n => puzzle.Wires[n].Net == net).ToList();
        var groups = puzzle.Broken[net].Groups.Count;
        if (own.Count == 0)
            return;
        var root = JumperPuzzle.Joined(own.Select(n => puzzle.Wires[n]), groups);
        model.Add(LinearExpr.Sum(own.Select(n => taken[n])) == groups - root.Distinct().Count());
        // A unit of flow out of one piece of each part into every other proves that they hang together.
        var flows = new List<(int From, int To, IntVar Flow)>();
        foreach (var pair in own.GroupBy(n => (puzzle.Wires[n].GroupFrom, puzzle.Wires[n].GroupTo)))
        {
            var some = LinearExpr.Sum(pair.Select(n => taken[n]));
            model.Add(some <= 1);
            foreach (var (from, to) in ((int, int)[])[pair.Key, (pair.Key.GroupTo, pair.Key.GroupFrom)])
            {
                var flow = model.NewIntVar(0, groups, $"f{net}-{from}-{to}");
                model.Add(flow <= groups * some);
                flows.Add((from, to, flow));
            }
        }

        for (var group = 0; group < groups; group++)
        {
            var size = root.Count(r => r == root[group]);
            var into = LinearExpr.Sum(flows.Where(f => f.To == group).Select(f => f.Flow));
            var out_ = LinearExpr.Sum(flows.Where(f => f.From == group).Select(f => f.Flow));
            model.Add(into - out_ == (root[group] == group ? 1 - size : 1));
        }
    }
}
