using System.Globalization;

namespace Mendro.Core.Boards;

/// <summary>A line of a run, with the two points it is tested between.</summary>
/// <param name="Net">Net.</param>
/// <param name="A">Key of the point at the first part.</param>
/// <param name="B">Key of the point at the second.</param>
public sealed record RunLine(NetTree Net, string A, string B);

/// <summary>Lines that run side by side between two parts, or over a crack: tested pairwise, one key a line.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name.</param>
/// <param name="Lines">Lines in the order of their pins.</param>
public sealed record LineRun(string Id, string Name, IReadOnlyList<RunLine> Lines)
{
    /// <summary>Fewest lines that make a run.</summary>
    public const int Fewest = 3;

    private const int MostRuns = 40;

    /// <summary>Runs between parts, those of most lines first. A line is told by its own net once.</summary>
    public static IReadOnlyList<LineRun> All(IReadOnlyList<NetTree> nets)
    {
        var lines = new Dictionary<(string, string), List<RunLine>>();
        foreach (var net in nets)
        {
            var parts = net.Points.Where(p => p.Point.Part is not null).GroupBy(p => $"{p.Board.Id}/{p.Point.Part}").ToList();
            // Ground and supply reach everything: they are no lines of a run.
            if (parts.Count is < 2 or > MostParts)
                continue;
            for (var i = 0; i < parts.Count; i++)
                for (var j = i + 1; j < parts.Count; j++)
                {
                    var (a, b) = string.CompareOrdinal(parts[i].Key, parts[j].Key) < 0 ? (parts[i], parts[j]) : (parts[j], parts[i]);
                    (lines.TryGetValue((a.Key, b.Key), out var own) ? own : lines[(a.Key, b.Key)] = []).Add(
                        new RunLine(net, a.First().Key, b.First().Key)
                    );
                }
        }

        return lines
            .Where(l => l.Value.Count >= Fewest)
            .OrderByDescending(l => l.Value.Count)
            .ThenBy(l => l.Key)
            .Take(MostRuns)
            .Select(l => new LineRun(
                $"{l.Key.Item1}~{l.Key.Item2}",
                $"{Part(l.Key.Item1)} to {Part(l.Key.Item2)}",
                l.Value.OrderBy(x => PinOf(x.A)).ThenBy(x => x.A, StringComparer.Ordinal).ToList()
            ))
            .ToList();
    }

    /// <summary>Every line that a crack crosses, tested from one side of it to the other; null when there is none.</summary>
    /// <param name="board">Board.</param>
    /// <param name="name">Its name.</param>
    /// <param name="nets">Nets.</param>
    /// <param name="canReach">True when a tip can be set on a point now.</param>
    public static LineRun? OverCrack(string board, string name, IReadOnlyList<NetTree> nets, Func<PlacedPoint, bool> canReach)
    {
        var lines = nets.SelectMany(net =>
                net.Stretches.Where(s => s.CrossesCrack && net.ByKey[s.A].Board.Id == board)
                    .Select(s => (A: Beside(net, s, s.A, canReach), B: Beside(net, s, s.B, canReach)))
                    .Where(x => x is { A: not null, B: not null })
                    .Select(x => new RunLine(net, x.A!, x.B!))
            )
            .DistinctBy(l => (l.A, l.B))
            .OrderBy(l => l.Net.ByKey[l.A].Point.X)
            .ThenBy(l => l.Net.ByKey[l.A].Point.Y)
            .ToList();
        return lines.Count == 0 ? null : new LineRun($"crack~{board}", $"Over the crack, {name}", lines);
    }

    private const int MostParts = 6;

    /// <summary>The nearest point on one side of a stretch that can be touched.</summary>
    private static string? Beside(NetTree net, NetStretch crossed, string from, Func<PlacedPoint, bool> canReach)
    {
        var (seen, open) = (new HashSet<string> { from }, new Queue<string>([from]));
        while (open.TryDequeue(out var at))
        {
            if (net.ByKey[at] is { IsOff: false } point && canReach(point))
                return at;
            foreach (var next in net.Stretches.Where(s => s != crossed && !s.CrossesCrack && (s.A == at || s.B == at)))
                if (seen.Add(next.A == at ? next.B : next.A))
                    open.Enqueue(next.A == at ? next.B : next.A);
        }

        return null;
    }

    private static string Part(string key) => key[(key.IndexOf('/', StringComparison.Ordinal) + 1)..];

    private static int PinOf(string key)
    {
        var digits = new string(key.Reverse().TakeWhile(char.IsDigit).Reverse().ToArray());
        return int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var pin) ? pin : int.MaxValue;
    }
}
