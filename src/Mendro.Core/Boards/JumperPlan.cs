
namespace Mendro.Core.Boards;

/// <summary>A place where a wire may end.</summary>
/// <param name="Id">Id.</param>
/// <param name="At">Where, mm.</param>
/// <param name="IsSound">True when solder holds there.</param>
/// <param name="Under">What it is hidden under once that is back, or null.</param>
/// <param name="Board">Board it lies on.</param>
/// <param name="Side">top, bottom or both: from where a wire comes to it.</param>
public sealed record JumperPoint(string Id, BoardPoint At, bool IsSound, string? Under = null, string Board = "", string Side = "both")
{
    /// <summary>True when it is reached from a side.</summary>
    public bool IsOn(string side) => Side == "both" || Side == side;

    /// <summary>Distance to another of the same board, mm; infinite between boards.</summary>
    public double To(JumperPoint other) => Board == other.Board ? At.To(other.At) : double.PositiveInfinity;
}

/// <summary>A side of a board that wires are laid on.</summary>
/// <param name="Board">Board.</param>
/// <param name="Side">top or bottom.</param>
/// <param name="Router">Where wires can go.</param>
public sealed record WireLayer(string Board, string Side, WireRouter Router);

/// <summary>A net in pieces.</summary>
/// <param name="Net">Net.</param>
/// <param name="Groups">Points that still hang together, piece by piece.</param>
public sealed record BrokenNet(string Net, IReadOnlyList<IReadOnlyList<string>> Groups);

/// <summary>A wire that may be soldered.</summary>
/// <param name="Net">Index of the net.</param>
/// <param name="From">One end.</param>
/// <param name="To">The other.</param>
/// <param name="GroupFrom">Index of the piece it starts at.</param>
/// <param name="GroupTo">Index of the piece it goes to.</param>
/// <param name="Path">Its way, mm.</param>
/// <param name="LengthMm">Length of the way, mm.</param>
/// <param name="Layer">Side of a board that it is laid on.</param>
public sealed record JumperWire(
    int Net,
    JumperPoint From,
    JumperPoint To,
    int GroupFrom,
    int GroupTo,
    IReadOnlyList<BoardPoint> Path,
    double LengthMm,
    WireLayer Layer
)
{
    /// <summary>True when two ways cross; in an end that they share they do not.</summary>
    public bool Crosses(JumperWire other) => Layer == other.Layer && PlaneGeometry.Cross(Path, other.Path);
}

/// <summary>A net that cannot be joined.</summary>
/// <param name="Net">Net.</param>
/// <param name="Reason">Why.</param>
public sealed record UnreachableNet(string Net, string Reason);

/// <summary>
/// All wires that could join the pieces of broken nets, each by its shortest way; which of them are soldered is a solver's work.
/// </summary>
public sealed class JumperPuzzle
{
    private const int MostOfOnePiece = 24;

    /// <summary>Lays it out on one board.</summary>
    /// <param name="router">Board.</param>
    /// <param name="points">Points.</param>
    /// <param name="broken">Nets in pieces.</param>
    /// <param name="reheatMm">Distance within which a new joint warms an old one, mm.</param>
    public JumperPuzzle(WireRouter router, IReadOnlyList<JumperPoint> points, IReadOnlyList<BrokenNet> broken, double reheatMm)
        : this([new WireLayer("", "top", router)], points, broken, reheatMm) { }

    /// <summary>Lays it out on all boards.</summary>
    /// <param name="layers">Sides of boards.</param>
    /// <param name="points">Points.</param>
    /// <param name="broken">Nets in pieces.</param>
    /// <param name="reheatMm">Distance within which a new joint warms an old one, mm.</param>
    /// <param name="joints">Points at which wires end already.</param>
    public JumperPuzzle(
        IReadOnlyList<WireLayer> layers,
        IReadOnlyList<JumperPoint> points,
        IReadOnlyList<BrokenNet> broken,
        double reheatMm,
        IReadOnlyList<JumperPoint>? joints = null
    )
    {
        (Broken, ReheatMm, Joints) = (broken, reheatMm, joints ?? []);
        var byId = points.ToDictionary(p => p.Id);
        bool CanEnd(JumperPoint p) => p.IsSound && layers.Any(l => l.Board == p.Board && p.IsOn(l.Side) && l.Router.CanEnd(p.At));
        var (wires, lost) = (new List<JumperWire>(), new List<UnreachableNet>());
        for (var net = 0; net < broken.Count; net++)
        {
            var groups = broken[net].Groups.Select(g => g.Select(id => byId[id]).Where(CanEnd).Take(MostOfOnePiece).ToList()).ToList();
            var own = new List<JumperWire>();
            for (var from = 0; from < groups.Count; from++)
                foreach (var point in groups[from])
                foreach (var layer in layers.Where(l => l.Board == point.Board && point.IsOn(l.Side) && l.Router.CanEnd(point.At)))
                {
                    var others = groups
                        .SelectMany((g, to) => to > from ? g.Select(p => (Group: to, Point: p)) : [])
                        .Where(o => o.Point.Board == layer.Board && o.Point.IsOn(layer.Side) && layer.Router.CanEnd(o.Point.At))
                        .ToList();
                    var ways = layer.Router.Ways(point.At, others.Select(o => o.Point.At).ToList());
                    for (var n = 0; n < others.Count; n++)
                        if (ways[n] is { } way)
                            own.Add(new JumperWire(net, point, others[n].Point, from, others[n].Group, way, WireRouter.Length(way), layer));
                }

            // Of two sides the shorter way is the better one.
            wires.AddRange(own.GroupBy(w => (w.From.Id, w.To.Id)).Select(g => g.MinBy(w => w.LengthMm)!));
            if (groups.Count(g => g.Count == 0) is > 0 and var bare)
                lost.Add(new UnreachableNet(broken[net].Net, $"{bare} of {groups.Count} pieces have no sound point to solder to"));
            else if (Pieces(own, groups.Count) > 1)
                lost.Add(new UnreachableNet(broken[net].Net, Apart(groups)));
        }

        (Wires, Unreachable) = (wires, lost);
    }

    private static string Apart(IReadOnlyList<IReadOnlyList<JumperPoint>> groups) =>
        groups.SelectMany(g => g.Select(p => p.Board)).Distinct().Count() > 1
        && groups.Any(g => groups.All(o => o == g || o.All(p => g.All(q => q.Board != p.Board))))
            ? "its pieces lie on different boards: the cable or connector between them is renewed, not bridged"
            : "no way leads round the keep-outs";

    /// <summary>Points at which wires end already.</summary>
    public IReadOnlyList<JumperPoint> Joints { get; }

    /// <summary>Nets in pieces.</summary>
    public IReadOnlyList<BrokenNet> Broken { get; }

    /// <summary>Distance within which a new joint warms an old one, mm.</summary>
    public double ReheatMm { get; }

    /// <summary>Wires that could be soldered.</summary>
    public IReadOnlyList<JumperWire> Wires { get; }

    /// <summary>Nets that cannot be joined to one.</summary>
    public IReadOnlyList<UnreachableNet> Unreachable { get; }

    /// <summary>Pairs of ends of two wires that lie nearer than the reheat distance.</summary>
    public int NearEnds(JumperWire one, JumperWire other) =>
        ((JumperPoint[])[one.From, one.To]).Sum(a => ((JumperPoint[])[other.From, other.To]).Count(b => a.To(b) < ReheatMm));

    /// <summary>Joints that are there already and would be warmed by a wire's ends; on the point itself not counted.</summary>
    public int NearJoints(JumperWire wire) =>
        ((JumperPoint[])[wire.From, wire.To]).Sum(a => Joints.Count(b => b.Id != a.Id && a.To(b) < ReheatMm));

    /// <summary>Pieces that are left when all of some wires are soldered.</summary>
    public static int Pieces(IEnumerable<JumperWire> wires, int groups) => Joined(wires, groups).Distinct().Count();

    /// <summary>For each piece, the one that stands for all that some wires join it to.</summary>
    public static IReadOnlyList<int> Joined(IEnumerable<JumperWire> wires, int groups)
    {
        var sets = new DisjointSets(groups);
        foreach (var wire in wires)
            sets.Join(wire.GroupFrom, wire.GroupTo);
        return Enumerable.Range(0, groups).Select(sets.Root).ToList();
    }
}
