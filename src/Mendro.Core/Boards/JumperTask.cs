using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>A wire that is in place.</summary>
/// <param name="Line">Name of its net.</param>
/// <param name="From">Key of one end.</param>
/// <param name="To">Key of the other.</param>
/// <param name="Side">Side it lies on.</param>
/// <param name="CutMm">Length it was cut to, mm.</param>
/// <param name="Wire">Sort of wire.</param>
/// <param name="Path">Its way, [x, y], mm.</param>
/// <param name="ToBeep">True when it was warmed since it last beeped.</param>
public sealed record WireInPlace(
    string Line,
    string From,
    string To,
    string Side,
    double CutMm,
    string Wire,
    IReadOnlyList<IReadOnlyList<double>> Path,
    bool ToBeep
);

/// <summary>A wire of the plan.</summary>
/// <param name="Net">Net.</param>
/// <param name="Wire">Ends and way.</param>
/// <param name="CutMm">Length to cut, mm.</param>
/// <param name="Sort">Sort of wire.</param>
/// <param name="RoomMm">Least room above its way, mm; infinite where nothing limits it.</param>
/// <param name="Limit">What limits it, or null.</param>
/// <param name="TooThickMm">How much too thick it is, mm; null when it fits.</param>
/// <param name="Carries">False when it is too thin for the current, or loses too much.</param>
/// <param name="Crosses">Other wires, planned and in place, that its way crosses.</param>
/// <param name="Warms">Wires in place with a joint that it warms.</param>
public sealed record PlannedWire(
    NetTree Net,
    JumperWire Wire,
    double CutMm,
    WireSort Sort,
    double RoomMm,
    string? Limit,
    double? TooThickMm,
    bool Carries,
    int Crosses,
    IReadOnlyList<WireInPlace> Warms
)
{
    /// <summary>What hides one of its ends once it is back, or null.</summary>
    public string? Under => Wire.From.Under ?? Wire.To.Under;
}

/// <summary>All broken nets of a unit as one puzzle of wires, and what is made of its answer.</summary>
public sealed class JumperTask
{
    private readonly IReadOnlyList<Board> _boards;
    private readonly TraceLibrary _library;
    private readonly TracePlan _plan;
    private readonly IReadOnlyList<NetTree> _nets;
    private readonly IReadOnlyList<WireInPlace> _wires;

    /// <summary>Lays it out.</summary>
    /// <param name="boards">Boards.</param>
    /// <param name="revision">Revision.</param>
    /// <param name="nets">Nets as far as they are known.</param>
    /// <param name="wires">Wires in place.</param>
    /// <param name="plan">What was decided.</param>
    /// <param name="canReach">True when a point can be reached now.</param>
    /// <param name="library">What is known of jumpers.</param>
    public JumperTask(
        IReadOnlyList<Board> boards,
        string revision,
        IReadOnlyList<NetSearch> nets,
        IReadOnlyList<WireInPlace> wires,
        TracePlan plan,
        Func<PlacedPoint, bool> canReach,
        TraceLibrary library
    )
    {
        (_boards, _library, _plan, _wires) = (boards, library, plan, wires);
        var ends = wires.Select(w => (w.From, w.To)).ToList();
        // A run that is passed by as a whole need not be enclosed any further; a gap that is patched has to be known.
        var broken = nets.Where(n => n.State == NetState.Broken || (n.State == NetState.Open && plan.School == JumperSchool.Bypass))
            .Select(n => (Search: n, Pieces: n.Pieces(ends, plan.School == JumperSchool.Bypass)))
            .Where(b => b.Pieces.Count > 1 && b.Search.Pieces(ends).Count > 1)
            .ToList();
        _nets = broken.Select(b => b.Search.Net).ToList();
        var concerned = broken.SelectMany(b => b.Search.Net.Points.Select(p => p.Board.Id)).ToHashSet();
        var layers = BoardLayers.Of(
            boards.Where(b => concerned.Contains(b.Id)).ToList(),
            revision,
            plan.Off,
            library.Wires.Min(w => w.OverMm),
            library.Jumper.ClearanceMm
        );
        JumperPoint Point(PlacedPoint p) =>
            new(
                p.Key,
                p.At,
                canReach(p) && p.IsThere && p.State != "corroded",
                p.Point.Under,
                p.Board.Id,
                p.Point.Side
            );
        var taken = ends.SelectMany(e => (string[])[e.From, e.To]).ToHashSet();
        var everywhere = nets.SelectMany(n => n.Net.Points).Where(p => taken.Contains(p.Key)).DistinctBy(p => p.Key).Select(Point).ToList();
        Puzzle = new JumperPuzzle(
            layers,
            broken.SelectMany(b => b.Search.Net.Points).DistinctBy(p => p.Key).Select(Point).ToList(),
            broken.Select(b => new BrokenNet(b.Search.Net.Name, b.Pieces.Select(p => Ends(p, canReach)).ToList())).ToList(),
            plan.ReheatMm,
            everywhere
        );
    }

    /// <summary>The puzzle.</summary>
    public JumperPuzzle Puzzle { get; }

    /// <summary>Points of a piece that a wire may end on: past a sick run its contacts, to patch a gap any.</summary>
    private IReadOnlyList<string> Ends(IReadOnlyList<PlacedPoint> piece, Func<PlacedPoint, bool> canReach)
    {
        var contacts = piece.Where(p => p.IsContact && p.IsThere && canReach(p) && p.State != "corroded").ToList();
        return (_plan.School == JumperSchool.Bypass && contacts.Count > 0 ? contacts : piece).Select(p => p.Key).ToList();
    }

    /// <summary>The wires of an answer, in the order of the work.</summary>
    public IReadOnlyList<PlannedWire> Plan(IReadOnlyList<JumperWire> wires) =>
        JumperOrder.Of(wires, _plan.ReheatMm).Select(n => Plan(wires[n], wires)).ToList();

    private PlannedWire Plan(JumperWire wire, IReadOnlyList<JumperWire> all)
    {
        var net = _nets[wire.Net];
        var board = _boards.First(b => b.Id == wire.Layer.Board);
        var (room, limit) = BoardLayers.Room(board, wire.Layer.Side, wire.Path);
        var cut = wire.LengthMm * _plan.Slack + 2 * _plan.StripMm;
        var sort =
            _library.FindWire(_plan.Wire)
            ?? _library.Choose(net.Amps, cut, room)
            ?? _library.Wires.Where(w => _library.Carries(w, net.Amps, cut)).MinBy(w => w.OverMm)
            ?? _library.Wires.MaxBy(w => w.MostAmps)!;
        return new PlannedWire(
            net,
            wire,
            cut,
            sort,
            room,
            limit,
            sort.OverMm > room ? sort.OverMm - room : null,
            _library.Carries(sort, net.Amps, cut),
            all.Count(o => o.Net != wire.Net && wire.Crosses(o)) + _wires.Count(w => Crosses(wire, w)),
            _wires.Where(w => Warms(wire, w)).ToList()
        );
    }

    private static bool Crosses(JumperWire wire, WireInPlace other) =>
        other.Side == wire.Layer.Side
        && other.From.StartsWith(wire.Layer.Board + "/", StringComparison.Ordinal)
        && PlaneGeometry.Cross(wire.Path, BoardLayers.Corners(other.Path));

    private bool Warms(JumperWire wire, WireInPlace other) =>
        Puzzle.Joints.Any(j =>
            (j.Id == other.From || j.Id == other.To) && ((JumperPoint[])[wire.From, wire.To]).Any(e => e.To(j) < _plan.ReheatMm)
        );
}
