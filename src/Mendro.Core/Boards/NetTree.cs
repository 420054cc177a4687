using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>A point of a net on its board.</summary>
/// <param name="Board">Board.</param>
/// <param name="Point">Point.</param>
/// <param name="State">How it is on this unit: sound, corroded, lost or lifted.</param>
public sealed record PlacedPoint(Board Board, NetPoint Point, string State)
{
    /// <summary>Board and point in one word.</summary>
    public string Key => KeyOf(Board.Id, Point.Id);

    /// <summary>Where it is, mm.</summary>
    public BoardPoint At => new(Point.X, Point.Y);

    /// <summary>True when its pad is off: copper no longer holds the leg, if there is one.</summary>
    public bool IsOff => State is "lost" or "lifted";

    /// <summary>True when something of it can be touched: a pad, or the leg whose pad is gone.</summary>
    public bool IsThere => !IsOff || Point.Part is not null;

    /// <summary>True when it matters by itself: a contact of a part or of the edge.</summary>
    public bool IsContact => Point.Part is not null || Point.Kind is "edge" or "pin" or "leg";

    /// <summary>The key of a point.</summary>
    public static string KeyOf(string board, string point) => $"{board}/{point}";
}

/// <summary>A stretch of a net.</summary>
/// <param name="A">Key of one end.</param>
/// <param name="B">Key of the other.</param>
/// <param name="LengthMm">Length as the crow flies, mm; 0 between boards.</param>
/// <param name="IsJoint">True for a cable or connector between boards.</param>
/// <param name="IsGuess">True when nobody told that copper runs there.</param>
/// <param name="CrossesCrack">True when a crack of the board runs across it.</param>
/// <param name="Weight">Chance to be the broken one, in proportion.</param>
public sealed record NetStretch(string A, string B, double LengthMm, bool IsJoint, bool IsGuess, bool CrossesCrack, double Weight);

/// <summary>A crack of a board.</summary>
/// <param name="Board">Board.</param>
/// <param name="Line">Points [x, y] along it, mm.</param>
public sealed record BoardCrack(string Board, IReadOnlyList<IReadOnlyList<double>> Line);

/// <summary>
/// A net over all boards as a tree. Where nobody told how the copper runs, points are joined by the shortest tree (Kruskal); a ring is
/// opened at its longest told stretch, as a break in a ring cannot be heard.
/// </summary>
public sealed class NetTree
{
    private NetTree(string id, string name, PartId? serves, double? amps, IReadOnlyList<PlacedPoint> points, IReadOnlyList<NetStretch> stretches)
    {
        (Id, Name, Serves, Amps, Points, Stretches) = (id, name, serves, amps, points, stretches);
        ByKey = points.ToDictionary(p => p.Key);
    }

    /// <summary>Id: board and net of its first board.</summary>
    public string Id { get; }

    /// <summary>What it carries.</summary>
    public string Name { get; }

    /// <summary>Part of the profile a break counts for, or null.</summary>
    public PartId? Serves { get; }

    /// <summary>Most current, amperes; null for a signal.</summary>
    public double? Amps { get; }

    /// <summary>Points.</summary>
    public IReadOnlyList<PlacedPoint> Points { get; }

    /// <summary>Stretches; one fewer than points.</summary>
    public IReadOnlyList<NetStretch> Stretches { get; }

    /// <summary>Points by key.</summary>
    public IReadOnlyDictionary<string, PlacedPoint> ByKey { get; }

    /// <summary>All nets of some boards; those that meet at joined points are one.</summary>
    /// <param name="boards">Boards.</param>
    /// <param name="states">States told for this unit, by key of the point.</param>
    /// <param name="cracks">Cracks.</param>
    /// <param name="weights">Chances of a break.</param>
    public static IReadOnlyList<NetTree> All(
        IReadOnlyList<Board> boards,
        IReadOnlyDictionary<string, string> states,
        IReadOnlyList<BoardCrack> cracks,
        BreakWeights weights
    )
    {
        var pieces = boards.SelectMany(b => (b.Nets ?? []).Select(n => (Board: b, Net: n))).ToList();
        var pieceOf = new Dictionary<string, int>();
        for (var n = 0; n < pieces.Count; n++)
            foreach (var id in pieces[n].Net.Points)
                pieceOf.TryAdd(PlacedPoint.KeyOf(pieces[n].Board.Id, id), n);
        var whole = new DisjointSets(pieces.Count);
        var mates = boards
            .SelectMany(b => (b.Points ?? []).Where(p => p.Mate is not null).Select(p => (A: PlacedPoint.KeyOf(b.Id, p.Id), B: p.Mate!)))
            .Where(m => pieceOf.ContainsKey(m.A) && pieceOf.ContainsKey(m.B))
            .ToList();
        foreach (var (a, b) in mates)
            whole.Join(pieceOf[a], pieceOf[b]);
        var mateOf = mates.ToLookup(m => whole.Root(pieceOf[m.A]));
        var pointOf = boards.ToDictionary(b => b.Id, b => (b.Points ?? []).GroupBy(p => p.Id).ToDictionary(g => g.Key, g => g.First()));
        var crackOf = cracks.ToLookup(c => c.Board);
        return Enumerable
            .Range(0, pieces.Count)
            .GroupBy(whole.Root)
            .Select(g => Grow(g.Select(n => pieces[n]).ToList(), mateOf[g.Key].ToList()))
            .ToList();

        NetTree Grow(IReadOnlyList<(Board Board, BoardNet Net)> own, IReadOnlyList<(string A, string B)> joints)
        {
            var points = own.SelectMany(o =>
                    o.Net.Points.Distinct()
                        .Where(pointOf[o.Board.Id].ContainsKey)
                        .Select(id => new PlacedPoint(
                            o.Board,
                            pointOf[o.Board.Id][id],
                            states.GetValueOrDefault(PlacedPoint.KeyOf(o.Board.Id, id), pointOf[o.Board.Id][id].State)
                        ))
                )
                .DistinctBy(p => p.Key)
                .ToList();
            var index = points.Select((p, n) => (p.Key, n)).ToDictionary(x => x.Key, x => x.n);
            var told = own.SelectMany(o =>
                    (o.Net.Segments ?? []).Select(s => (A: PlacedPoint.KeyOf(o.Board.Id, s[0]), B: PlacedPoint.KeyOf(o.Board.Id, s[1])))
                )
                .Where(s => index.ContainsKey(s.A) && index.ContainsKey(s.B))
                .OrderBy(s => points[index[s.A]].At.To(points[index[s.B]].At))
                .ToList();
            var at = new DisjointSets(points.Count);
            var edges = new List<(int A, int B, bool Joint, bool Guess)>();
            foreach (var (a, b) in told)
                if (at.Join(index[a], index[b]))
                    edges.Add((index[a], index[b], false, false));
            foreach (var (board, net) in own)
                edges.AddRange(
                    Shortest(points, net.Points.Select(p => PlacedPoint.KeyOf(board.Id, p)).Where(index.ContainsKey).Select(k => index[k]).ToList(), at)
                        .Select(e => (e.A, e.B, false, true))
                );
            foreach (var (a, b) in joints)
                if (at.Join(index[a], index[b]))
                    edges.Add((index[a], index[b], true, false));
            var stretches = edges.Select(e => Stretch(points, edges, e, crackOf, weights)).ToList();
            var first = own[0];
            return new NetTree(
                PlacedPoint.KeyOf(first.Board.Id, first.Net.Id),
                first.Net.Name,
                own.Select(o => o.Net.Serves).FirstOrDefault(s => s is not null),
                own.Max(o => o.Net.Amps),
                points,
                stretches
            );
        }
    }

    private static List<(int A, int B)> Shortest(IReadOnlyList<PlacedPoint> points, IReadOnlyList<int> own, DisjointSets joined)
    {
        var pairs = new List<(double Mm, int A, int B)>();
        for (var i = 0; i < own.Count; i++)
            for (var j = i + 1; j < own.Count; j++)
                if (joined.Root(own[i]) != joined.Root(own[j]))
                    pairs.Add((points[own[i]].At.To(points[own[j]].At), own[i], own[j]));
        return pairs.OrderBy(p => p.Mm).Where(p => joined.Join(p.A, p.B)).Select(p => (p.A, p.B)).ToList();
    }

    private static NetStretch Stretch(
        IReadOnlyList<PlacedPoint> points,
        IReadOnlyList<(int A, int B, bool Joint, bool Guess)> edges,
        (int A, int B, bool Joint, bool Guess) edge,
        ILookup<string, BoardCrack> cracks,
        BreakWeights weights
    )
    {
        var (a, b) = (points[edge.A], points[edge.B]);
        var length = edge.Joint ? 0 : a.At.To(b.At);
        var crosses = !edge.Joint && cracks[a.Board.Id].Any(c => Crosses(c.Line, a.At, b.At));
        var weight = (edge.Joint ? weights.Joint : length * weights.PerMm) + (crosses ? weights.Crack : 0);
        foreach (var (end, other) in ((int, int)[])[(edge.A, edge.B), (edge.B, edge.A)])
        {
            var point = points[end];
            weight += point.Point.Kind == "via" ? weights.Via : 0;
            weight += point.State == "corroded" ? weights.Corroded : point.IsOff ? weights.Lifted : 0;
            var next = edges.Where(e => (e.A == end || e.B == end) && e != edge && !e.Joint).ToList();
            if (!edge.Joint && next is [var only] && Turns(points[other].At, point.At, points[only.A == end ? only.B : only.A].At))
                weight += weights.Bend;
        }

        return new NetStretch(a.Key, b.Key, length, edge.Joint, edge.Guess, crosses, Math.Max(weight, weights.PerMm * 1e-3));
    }

    private static bool Turns(BoardPoint before, BoardPoint at, BoardPoint after)
    {
        var turn = Math.Atan2(after.Y - at.Y, after.X - at.X) - Math.Atan2(at.Y - before.Y, at.X - before.X);
        return Math.Abs(Math.IEEERemainder(turn, 2 * Math.PI)) > Math.PI / 6;
    }

    /// <summary>True when a line crosses a straight piece.</summary>
    public static bool Crosses(IReadOnlyList<IReadOnlyList<double>> line, BoardPoint a, BoardPoint b) =>
        line.Zip(line.Skip(1)).Any(s => PlaneGeometry.Meet(a, b, new BoardPoint(s.First[0], s.First[1]), new BoardPoint(s.Second[0], s.Second[1])));
}
