using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>Where wires can go on boards, and how much room is above them.</summary>
public static class BoardLayers
{
    private const int RoundCorners = 8;

    /// <summary>Both sides of boards, with what wires keep away from: parts, capacitors, and places without room for any wire.</summary>
    /// <param name="boards">Boards.</param>
    /// <param name="revision">Revision, for its capacitors.</param>
    /// <param name="off">What is off now: its place is free.</param>
    /// <param name="thinnestMm">Thickness of the thinnest wire, mm.</param>
    /// <param name="clearanceMm">Distance wires keep, mm.</param>
    public static IReadOnlyList<WireLayer> Of(
        IReadOnlyList<Board> boards,
        string revision,
        IReadOnlyList<string> off,
        double thinnestMm,
        double clearanceMm
    ) =>
        boards
            .SelectMany(b =>
                ((string[])["top", "bottom"]).Select(side => new WireLayer(
                    b.Id,
                    side,
                    new WireRouter(Corners(b.Outline), Keepouts(b, side, revision, off, thinnestMm), clearanceMm)
                ))
            )
            .ToList();

    /// <summary>Least room above a way, and what limits it; infinite where nothing does.</summary>
    public static (double Mm, string? What) Room(Board board, string side, IReadOnlyList<BoardPoint> way)
    {
        var least = (Mm: double.PositiveInfinity, What: (string?)null);
        foreach (var zone in (board.Zones ?? []).Where(z => IsOn(z.Side, side) && z.ClearanceMm < least.Mm))
            if (way.Zip(way.Skip(1)).Any(s => PlaneGeometry.Between(Corners(zone.Polygon), [s.First, s.Second]) <= 0))
                least = (zone.ClearanceMm, zone.What);
        return least;
    }

    /// <summary>Corners as points.</summary>
    public static List<BoardPoint> Corners(IReadOnlyList<IReadOnlyList<double>> polygon) => polygon.Select(p => new BoardPoint(p[0], p[1])).ToList();

    private static List<List<BoardPoint>> Keepouts(Board board, string side, string revision, IReadOnlyList<string> off, double thinnestMm)
    {
        var keepouts = (board.Zones ?? [])
            .Where(z => IsOn(z.Side, side) && z.ClearanceMm < thinnestMm)
            .Select(z => Corners(z.Polygon))
            .ToList();
        if (side != "top")
            return keepouts;
        keepouts.AddRange((board.Parts ?? []).Where(p => p.HeightMm > 0 && !off.Contains(p.Refdes)).Select(p => Corners(p.Polygon)));
        foreach (var c in board.CapacitorsOf(revision))
            if (c is { Pads: { } pads, DiameterMm: { } diameter })
                keepouts.Add(Round((pads.Plus[0] + pads.Minus[0]) / 2, (pads.Plus[1] + pads.Minus[1]) / 2, diameter / 2));
        return keepouts;
    }

    private static bool IsOn(string told, string side) => told == "both" || told == side;

    private static List<BoardPoint> Round(double x, double y, double radius) =>
        Enumerable
            .Range(0, RoundCorners)
            .Select(n => new BoardPoint(
                x + radius * Math.Cos(2 * Math.PI * n / RoundCorners),
                y + radius * Math.Sin(2 * Math.PI * n / RoundCorners)
            ))
            .ToList();
}
