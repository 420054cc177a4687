using Mendro.Core.Boards;
using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>One way to seat a capacitor that breaks no rule by itself.</summary>
/// <param name="Position">Index of the position.</param>
/// <param name="Choice">Part.</param>
/// <param name="Pose">How it sits.</param>
/// <param name="Angle">Direction of its axis, degrees.</param>
/// <param name="DistanceMm">Lead end from the middle of the pads, mm.</param>
/// <param name="Centre">Middle of the disc, or of the rectangle.</param>
/// <param name="Corners">Corners of the rectangle; of a disc none.</param>
/// <param name="Top">Height of its top, mm.</param>
public sealed record FitSeat(
    int Position,
    FitChoice Choice,
    FitPose Pose,
    double Angle,
    double DistanceMm,
    BoardPoint Centre,
    IReadOnlyList<BoardPoint> Corners,
    double Top
)
{
    private const int CornersOfADisc = 48;

    /// <summary>True for a disc.</summary>
    public bool IsDisc => Corners.Count == 0;

    /// <summary>Radius of the disc, mm.</summary>
    public double Radius => Choice.DiameterMm / 2;

    /// <summary>Furthest that the body reaches from its middle, mm.</summary>
    public double Reach => IsDisc ? Radius : Centre.To(Corners[0]);

    /// <summary>Distance to a polygon, mm; 0 or less where they overlap.</summary>
    public double To(IReadOnlyList<BoardPoint> polygon) =>
        IsDisc
            ? (PlaneGeometry.Covers(polygon, Centre) ? -1 : 1) * PlaneGeometry.ToEdge(polygon, Centre) - Radius
            : PlaneGeometry.Between(Corners, polygon);

    /// <summary>Distance to a point, mm; 0 or less where it is covered.</summary>
    public double To(BoardPoint point) =>
        IsDisc ? Centre.To(point) - Radius
        : PlaneGeometry.Covers(Corners, point) ? 0
        : PlaneGeometry.ToEdge(Corners, point);

    /// <summary>Distance to another body, mm.</summary>
    public double To(FitSeat other) =>
        (IsDisc, other.IsDisc) switch
        {
            (true, true) => Centre.To(other.Centre) - Radius - other.Radius,
            (true, false) => To(other.Corners),
            (false, true) => other.To(Corners),
            _ => PlaneGeometry.Between(Corners, other.Corners),
        };

    /// <summary>Its outline seen from above.</summary>
    public IReadOnlyList<IReadOnlyList<double>> Body =>
        (
            IsDisc
                ? Enumerable
                    .Range(0, CornersOfADisc)
                    .Select(n => 2 * Math.PI * n / CornersOfADisc)
                    .Select(a => new BoardPoint(Centre.X + Radius * Math.Cos(a), Centre.Y + Radius * Math.Sin(a)))
                : Corners
        )
            .Select(p => (IReadOnlyList<double>)[Math.Round(p.X, 6), Math.Round(p.Y, 6)])
            .ToList();
}

/// <summary>
/// All ways to seat each capacitor of a board, and which of them exclude one another. Upright it is a disc on the middle of its pads;
/// lying a rectangle that points away from there. What is chosen among them is a solver's work.
/// </summary>
public sealed class FitPuzzle
{
    private const double Slack = 1e-9;

    private readonly double _gap;
    private readonly List<BoardPoint> _outline;
    private readonly List<(List<BoardPoint> Polygon, string Name)> _parts;
    private readonly List<(List<BoardPoint> Polygon, BoardZone Zone)> _zones;
    private readonly List<(int Position, BoardPoint Pad)> _pads = [];
    private readonly (string Reason, double ByMm)[] _nearest;

    /// <summary>Lays the puzzle out.</summary>
    /// <param name="board">Board.</param>
    /// <param name="choices">Parts that may go into each position, by reference designator; others stay as they are.</param>
    /// <param name="angleStep">Degrees between two directions, above 0.</param>
    /// <param name="bendMm">Least distance of the lead end from the middle of the pads, mm.</param>
    /// <param name="gapMm">Least distance between bodies, mm.</param>
    public FitPuzzle(
        Board board,
        IReadOnlyDictionary<string, IReadOnlyList<FitChoice>> choices,
        double angleStep,
        double bendMm,
        double gapMm
    )
    {
        _gap = gapMm;
        _outline = Points(board.Outline);
        _parts = (board.Parts ?? []).Select(p => (Points(p.Polygon), p.Refdes)).ToList();
        _zones = (board.Zones ?? []).Select(z => (Points(z.Polygon), z)).ToList();
        var all = (board.Capacitors ?? []).Where(c => c.Pads is not null).ToList();
        Positions = all.Where(c => choices.ContainsKey(c.Refdes)).Select(c => c.Refdes).ToList();
        foreach (var capacitor in all)
        {
            var position = Positions.ToList().IndexOf(capacitor.Refdes);
            _pads.Add((position, Point(capacitor.Pads!.Plus)));
            _pads.Add((position, Point(capacitor.Pads!.Minus)));
        }

        _nearest = Positions.Select(_ => ("no part to choose from", 0.0)).ToArray();
        var seats = new List<FitSeat>();
        for (var position = 0; position < Positions.Count; position++)
        {
            var pads = all.First(c => c.Refdes == Positions[position]).Pads!;
            var (plus, minus) = (Point(pads.Plus), Point(pads.Minus));
            var middle = new BoardPoint((plus.X + minus.X) / 2, (plus.Y + minus.Y) / 2);
            var least = double.MaxValue;
            foreach (var seat in choices[Positions[position]].SelectMany(c => Ways(position, middle, c, angleStep, bendMm)))
            {
                var (reason, by) = Trouble(seat);
                if (by <= Slack)
                    seats.Add(seat);
                else if (by < least)
                    (least, _nearest[position]) = (by, (reason, Math.Round(by, 3)));
            }
        }

        Seats = seats;
    }

    /// <summary>Positions to be filled.</summary>
    public IReadOnlyList<string> Positions { get; }

    /// <summary>Ways that break no rule by themselves.</summary>
    public IReadOnlyList<FitSeat> Seats { get; }

    /// <summary>True when two seats of different positions may not both be taken.</summary>
    public bool Exclude(FitSeat one, FitSeat other) =>
        one.Position != other.Position
        && one.Centre.To(other.Centre) - one.Reach - other.Reach < _gap
        && one.To(other) < _gap - Slack;

    /// <summary>The plan of the seats that were taken.</summary>
    public FitPlan Plan(IReadOnlyList<FitSeat> taken, bool optimal)
    {
        var unplaced = new List<FitUnplaced>();
        for (var position = 0; position < Positions.Count; position++)
        {
            if (taken.Any(t => t.Position == position))
                continue;
            var own = Seats.Where(s => s.Position == position).ToList();
            var (reason, by) =
                own.Count == 0 ? _nearest[position]
                : taken.Count == 0 ? ("not tried to the end", 0)
                : own.Select(s => taken.Select(t => (t, By: _gap - s.To(t))).MaxBy(x => x.By))
                        .Select(x => ($"{Positions[x.t.Position]} leaves no room", Math.Round(Math.Max(0, x.By), 3)))
                        .MinBy(x => x.Item2);
            unplaced.Add(new FitUnplaced(Positions[position], reason, by));
        }

        return new FitPlan(
            taken
                .OrderBy(t => t.Position)
                .Select(t => new FitPlacement(Positions[t.Position], t.Choice.Id, t.Pose, t.Angle, t.DistanceMm, t.Body, t.Top))
                .ToList(),
            unplaced,
            optimal
        );
    }

    private static IEnumerable<FitSeat> Ways(int position, BoardPoint middle, FitChoice choice, double angleStep, double bendMm)
    {
        yield return new FitSeat(position, choice, FitPose.Upright, 0, 0, middle, [], choice.HeightMm);
        for (var n = 0; n * angleStep < 360 - 1e-9; n++)
        {
            var angle = n * angleStep;
            var (cos, sin) = (Math.Cos(angle * Math.PI / 180), Math.Sin(angle * Math.PI / 180));
            for (var m = 0; bendMm + m <= choice.LeadMm + Slack; m++)
            {
                var distance = bendMm + m;
                BoardPoint At(double along, double across) =>
                    new(middle.X + along * cos - across * sin, middle.Y + along * sin + across * cos);
                var (near, far, half) = (distance, distance + choice.HeightMm, choice.DiameterMm / 2);
                yield return new FitSeat(
                    position,
                    choice,
                    FitPose.Lying,
                    angle,
                    distance,
                    At((near + far) / 2, 0),
                    [At(near, -half), At(far, -half), At(far, half), At(near, half)],
                    choice.DiameterMm
                );
            }
        }
    }

    /// <summary>What breaks a rule most, and by how many millimetres.</summary>
    private (string Reason, double ByMm) Trouble(FitSeat seat)
    {
        var worst = ("", 0.0);
        void Note(string reason, double by)
        {
            if (by > worst.Item2)
                worst = (reason, by);
        }

        if (seat.IsDisc)
        {
            var inside = PlaneGeometry.Covers(_outline, seat.Centre);
            Note("the board ends", seat.Radius + (inside ? -1 : 1) * PlaneGeometry.ToEdge(_outline, seat.Centre));
        }
        else if (!PlaneGeometry.Within(seat.Corners, _outline))
            Note(
                "the board ends",
                Math.Max(
                    0.001,
                    seat.Corners.Select(c => PlaneGeometry.Covers(_outline, c) ? 0 : PlaneGeometry.ToEdge(_outline, c)).Max()
                )
            );
        foreach (var (polygon, name) in _parts)
            Note($"{name} is in the way", _gap - seat.To(polygon));
        foreach (var (position, pad) in _pads.Where(p => p.Position != seat.Position))
            Note($"a pad of {(position < 0 ? "another capacitor" : Positions[position])} is in the way", _gap - seat.To(pad));
        foreach (var (polygon, zone) in _zones)
            if (seat.To(polygon) <= Slack)
                Note($"{zone.What ?? "a zone"} leaves {zone.ClearanceMm:0.##} mm", seat.Top - zone.ClearanceMm);
        return worst;
    }

    private static List<BoardPoint> Points(IReadOnlyList<IReadOnlyList<double>> corners) => corners.Select(Point).ToList();

    private static BoardPoint Point(IReadOnlyList<double> xy) => new(xy[0], xy[1]);
}
