using BenchmarkDotNet.Attributes;
using Mendro.Core.Boards;
using Mendro.Core.Profiles;
using Mendro.Shop;
using Mendro.Solver;
using Mendro.Web.Drawing;

namespace Mendro.Benchmarks;

/// <summary>A board of 2,000 points and 400 nets with 60 parts. Aims: worked out and drawn in 150 ms, twelve broken nets planned in 3 s.</summary>
public class TraceBenchmarks
{
    private const int Nets = 400;
    private const int PointsANet = 5;
    private const int Broken = 12;
    private static readonly TraceLibrary Known = TraceLibrary.Shipped;

    private IReadOnlyList<Board> _boards = [];
    private List<BeepResult> _silent = [];

    /// <summary>Lays the board out.</summary>
    [GlobalSetup]
    public void Lay()
    {
        var random = new Random(7);
        // Parts in rows of ten with lanes between them; points in the lanes.
        var parts = Enumerable
            .Range(0, 60)
            .Select(n => (X: 8 + n % 10 * 20.0, Y: 8 + n / 10 * 22.0))
            .Select((at, n) => new BoardPart($"U{n + 1}", [[at.X, at.Y], [at.X + 12, at.Y], [at.X + 12, at.Y + 12], [at.X, at.Y + 12]], 2))
            .ToList();
        var points = new List<NetPoint>();
        for (var n = 0; n < Nets * PointsANet; n++)
        {
            var (column, row) = (random.Next(10), random.Next(6));
            var (x, y) = (22 + column * 20 + random.NextDouble() * 4, 9 + row * 22 + random.NextDouble() * 10);
            var isLeg = n % PointsANet is 0 or PointsANet - 1;
            points.Add(
                new NetPoint($"P{n}", Math.Round(x, 2), Math.Round(y, 2), "top", isLeg ? "leg" : "via", isLeg ? $"U{n % 60 + 1}" : null)
            );
        }

        var nets = Enumerable
            .Range(0, Nets)
            .Select(n => new BoardNet($"N{n}", $"Net {n}", points.Skip(n * PointsANet).Take(PointsANet).Select(p => p.Id).ToList()))
            .ToList();
        _boards = [new Board("main", "Main board", [[0, 0], [210, 0], [210, 140], [0, 140]], Parts: parts, Points: points, Nets: nets)];
        _silent = Trees().Take(Broken).Select(t => new BeepResult(t.Points[0].Key, t.Points[^1].Key, false)).ToList();
    }

    /// <summary>Nets worked out and one side drawn.</summary>
    [Benchmark]
    public int Draw()
    {
        var nets = Searches([]).Select(s => new TraceNet(s, s.State, [], [], 0)).ToList();
        var sheet = new TraceSheet(null!, new TracePlan(), _boards, nets, [], [], [], new Dictionary<string, bool>());
        var view = new BoardMapView(nets[17], null, [], null, (net, at) => $"?net={net}&at={at}");
        return BoardMapDrawing.Draw(sheet, _boards[0], "top", view).Length;
    }

    /// <summary>Twelve broken nets planned at once.</summary>
    [Benchmark]
    public int Plan()
    {
        var task = new JumperTask(_boards, "", Searches(_silent), [], new TracePlan(), _ => true, Known);
        return task.Plan(JumperSolver.Solve(task.Puzzle, TimeSpan.FromSeconds(3), spareCrossings: true)).Count;
    }

    private IReadOnlyList<NetTree> Trees() => NetTree.All(_boards, new Dictionary<string, string>(), [], Known.Weights);

    private List<NetSearch> Searches(IReadOnlyList<BeepResult> results) =>
        Trees().Select(t => new NetSearch(t, results, _ => true, Known.Minutes)).ToList();
}
