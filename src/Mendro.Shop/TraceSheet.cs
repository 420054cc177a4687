using Mendro.Core.Boards;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Shop;

/// <summary>A net as its job sees it.</summary>
/// <param name="Search">What the tests say.</param>
/// <param name="State">What is known, wires in place counted.</param>
/// <param name="Wires">Wires in place.</param>
/// <param name="Proof">Tests that show the wires do their work, not made since the last one was soldered.</param>
/// <param name="Share">Chance that the part it counts for is the cause, 0 to 1.</param>
public sealed record TraceNet(NetSearch Search, NetState State, IReadOnlyList<WireInPlace> Wires, IReadOnlyList<BeepTest> Proof, double Share)
{
    /// <summary>Net.</summary>
    public NetTree Net => Search.Net;

    /// <summary>The next test of it, or null.</summary>
    public BeepTest? Next => State == NetState.Bridged ? Proof.FirstOrDefault() : Search.Next;

    /// <summary>True when something speaks against it before any test: crust, a pad that is off, a crack.</summary>
    public bool IsMarked => Net.Points.Any(p => p.State != "sound") || Net.Stretches.Any(s => s.CrossesCrack);

    /// <summary>True when a wire or a test is still owed.</summary>
    public bool IsBroken => State is NetState.Open or NetState.Broken;
}

/// <summary>The traces of one unit, worked out.</summary>
/// <param name="View">The job.</param>
/// <param name="Plan">What was decided.</param>
/// <param name="Boards">Boards with nets.</param>
/// <param name="Nets">Nets, those that want a test most first.</param>
/// <param name="Cracks">Cracks.</param>
/// <param name="Wires">Wires in place.</param>
/// <param name="Runs">Lines side by side, those over a crack first.</param>
/// <param name="Told">What pairs of points said last, by <see cref="Pair"/>.</param>
public sealed record TraceSheet(
    JobView View,
    TracePlan Plan,
    IReadOnlyList<Board> Boards,
    IReadOnlyList<TraceNet> Nets,
    IReadOnlyList<BoardCrack> Cracks,
    IReadOnlyList<WireInPlace> Wires,
    IReadOnlyList<LineRun> Runs,
    IReadOnlyDictionary<string, bool> Told
)
{
    /// <summary>What hides points, by name.</summary>
    public IReadOnlyList<string> Covers =>
        Boards.SelectMany(b => b.Points ?? []).Select(p => p.Under).OfType<string>().Distinct().Order(StringComparer.Ordinal).ToList();

    /// <summary>True when a tip can be set on a point now.</summary>
    public bool CanReach(PlacedPoint point) => Reach(Plan, point);

    /// <summary>A net by its id, or null.</summary>
    public TraceNet? Find(string? id) => Nets.FirstOrDefault(n => n.Net.Id == id);

    /// <summary>The net of a point, or null.</summary>
    public TraceNet? NetOf(string? key) => key is null ? null : Nets.FirstOrDefault(n => n.Net.ByKey.ContainsKey(key));

    /// <summary>A point as it is called: with its board where its net runs over several.</summary>
    public string Name(string key) =>
        NetOf(key) is { } net && net.Net.Points.Select(p => p.Board.Id).Distinct().Count() > 1
            ? $"{net.Net.ByKey[key].Point.Id} {MoveWords.Lower(net.Net.ByKey[key].Board.Name)}"
            : key[(key.IndexOf('/', StringComparison.Ordinal) + 1)..];

    /// <summary>Wires that were warmed since they last beeped.</summary>
    public IEnumerable<WireInPlace> ToBeep => Wires.Where(w => w.ToBeep);

    /// <summary>What hides points of broken nets and is still on.</summary>
    public IEnumerable<(string What, int Nets)> InTheWay =>
        Nets.Where(n => n.IsBroken)
            .SelectMany(n => n.Net.Points.Select(p => p.Point.Under).OfType<string>().Distinct())
            .Where(u => !Plan.Off.Contains(u))
            .GroupBy(u => u)
            .Select(g => (g.Key, g.Count()));

    /// <summary>Two points in either order as one key.</summary>
    public static string Pair(string a, string b) => string.CompareOrdinal(a, b) < 0 ? $"{a} {b}" : $"{b} {a}";

    internal static bool Reach(TracePlan plan, PlacedPoint point) => point.Point.Under is not { } under || plan.Off.Contains(under);
}
