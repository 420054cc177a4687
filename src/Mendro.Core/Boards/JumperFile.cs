using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>A wire of the answer.</summary>
/// <param name="Net">Net.</param>
/// <param name="From">One end.</param>
/// <param name="To">The other.</param>
/// <param name="Path">Its way, [x, y], mm.</param>
/// <param name="LengthMm">Length of the way, mm.</param>
/// <param name="CutMm">Length to cut: with slack, and what is stripped at both ends, mm.</param>
public sealed record JumperLine(string Net, string From, string To, IReadOnlyList<IReadOnlyList<double>> Path, double LengthMm, double CutMm);

/// <summary>The answer on <c>mendro.jumpers/1</c>.</summary>
/// <param name="Wires">Wires.</param>
/// <param name="Order">Their indexes in the order of the work.</param>
/// <param name="Unreachable">Nets that cannot be joined to one.</param>
/// <param name="TotalMm">Length of all ways, mm.</param>
public sealed record JumperAnswer(
    IReadOnlyList<JumperLine> Wires,
    IReadOnlyList<int> Order,
    IReadOnlyList<UnreachableNet> Unreachable,
    double TotalMm
);

/// <summary>Reads <c>mendro.jumpers/1</c>: a board, its points, and the nets in pieces.</summary>
/// <param name="Router">Board.</param>
/// <param name="Points">Points.</param>
/// <param name="Broken">Nets in pieces.</param>
/// <param name="ReheatMm">Distance within which a new joint warms an old one, mm.</param>
/// <param name="Slack">Length to cut over length of the way.</param>
/// <param name="StripMm">Stripped at each end, mm.</param>
public sealed record JumperFile(
    WireRouter Router,
    IReadOnlyList<JumperPoint> Points,
    IReadOnlyList<BrokenNet> Broken,
    double ReheatMm,
    double Slack,
    double StripMm
)
{
    /// <summary>The format name.</summary>
    public const string FormatName = "mendro.jumpers/1";

    /// <summary>Most points.</summary>
    public const int MostPoints = 2000;

    /// <summary>Most corners of outline and keep-outs together.</summary>
    public const int MostCorners = 400;

    /// <summary>Reads a file.</summary>
    /// <returns>The task, or what is wrong with its place.</returns>
    public static Outcome<JumperFile> Read(string json)
    {
        static Outcome<JumperFile> Fail(string problem) => Outcome<JumperFile>.Fail(problem);

        if (ProfileJson.Deserialize<Document>(json, out var told) is { } unreadable)
            return Fail(unreadable);
        if (told?.Format is not (null or FormatName))
            return Fail($"format: expected “{FormatName}”.");
        if (!IsShape(told?.Outline))
            return Fail("outline: 3 or more corners [x, y] in mm.");
        var keepouts = told!.Keepouts ?? [];
        for (var n = 0; n < keepouts.Count; n++)
            if (!IsShape(keepouts[n]))
                return Fail($"keepouts[{n}]: 3 or more corners [x, y] in mm.");
        if (told.Outline!.Count + keepouts.Sum(k => k!.Count) > MostCorners)
            return Fail($"outline and keepouts: at most {MostCorners} corners together.");
        if (told.Points is not { Count: <= MostPoints } points)
            return Fail($"points: up to {MostPoints} are needed.");
        for (var n = 0; n < points.Count; n++)
            if (points[n] is not { Id.Length: > 0, X: { } x, Y: { } y } || !IsMm(x) || !IsMm(y))
                return Fail($"points[{n}]: an id, x and y in mm are needed.");
        if (points.GroupBy(p => p.Id).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return Fail($"points: “{twice.Key}” is there twice.");
        var broken = told.Broken ?? [];
        var known = points.Select(p => p.Id!).ToHashSet();
        for (var n = 0; n < broken.Count; n++)
        {
            if (broken[n] is not { Net.Length: > 0, Groups: { } groups } || groups.Any(g => g is null || g.Any(id => id is null)))
                return Fail($"broken[{n}]: a net and its groups of point ids are needed.");
            if (groups.SelectMany(g => g!).FirstOrDefault(id => !known.Contains(id!)) is { } lost)
                return Fail($"broken[{n}].groups: there is no point “{lost}”.");
        }

        var (clearance, reheat, slack, strip) = (told.ClearanceMm ?? 0.5, told.ReheatMm ?? 6, told.Slack ?? 1.1, told.StripMm ?? 2);
        if (!(clearance is >= 0 and <= 100) || !(reheat is >= 0 and <= 1000) || !(slack is >= 1 and <= 10) || !(strip is >= 0 and <= 100))
            return Fail("clearanceMm and stripMm: 0 to 100 mm; reheatMm: 0 to 1000 mm; slack: 1 to 10.");
        return Outcome<JumperFile>.Ok(
            new JumperFile(
                new WireRouter(Corners(told.Outline), keepouts.Select(k => (IReadOnlyList<BoardPoint>)Corners(k!)).ToList(), clearance),
                points.Select(p => new JumperPoint(p.Id!, new BoardPoint(p.X!.Value, p.Y!.Value), p.State is null or "sound", p.Under)).ToList(),
                broken
                    .Select(b => new BrokenNet(b.Net!, b.Groups!.Select(g => (IReadOnlyList<string>)g!.Select(id => id!).ToList()).ToList()))
                    .ToList(),
                reheat,
                slack,
                strip
            )
        );
    }

    /// <summary>Answers with the wires that were chosen.</summary>
    public JumperAnswer Answer(JumperPuzzle puzzle, IReadOnlyList<JumperWire> wires)
    {
        static double Round(double mm) => Math.Round(mm, 6);
        return new JumperAnswer(
            wires
                .Select(w => new JumperLine(
                    Broken[w.Net].Net,
                    w.From.Id,
                    w.To.Id,
                    w.Path.Select(p => (IReadOnlyList<double>)[Round(p.X), Round(p.Y)]).ToList(),
                    Round(w.LengthMm),
                    Round(w.LengthMm * Slack + 2 * StripMm)
                ))
                .ToList(),
            JumperOrder.Of(wires, ReheatMm),
            puzzle.Unreachable,
            Round(wires.Sum(w => w.LengthMm))
        );
    }

    private static bool IsMm(double mm) => Math.Abs(mm) <= ProfileFormat.FurthestMm;

    private static bool IsShape(List<List<double>?>? corners) =>
        corners is { Count: >= 3 } && corners.All(c => c is { Count: 2 } && c.All(IsMm));

    private static List<BoardPoint> Corners(List<List<double>?> corners) => corners.Select(c => new BoardPoint(c![0], c[1])).ToList();

    private sealed record Point(string? Id, double? X, double? Y, string? State, string? Under);

    private sealed record Pieces(string? Net, List<List<string?>?>? Groups);

    private sealed record Document(
        string? Format,
        List<List<double>?>? Outline,
        List<List<List<double>?>?>? Keepouts,
        List<Point>? Points,
        List<Pieces>? Broken,
        double? ClearanceMm,
        double? ReheatMm,
        double? Slack,
        double? StripMm
    );
}
