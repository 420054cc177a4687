using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>Reads <c>mendro.fit/1</c>: a board, and the parts that may go into each position.</summary>
/// <param name="Board">Board.</param>
/// <param name="Choices">Parts by reference designator.</param>
/// <param name="AngleStep">Degrees between two directions.</param>
/// <param name="BendMm">Least distance of the lead end from the middle of the pads, mm.</param>
/// <param name="GapMm">Least distance between bodies, mm.</param>
public sealed record FitFile(
    Board Board,
    IReadOnlyDictionary<string, IReadOnlyList<FitChoice>> Choices,
    double AngleStep,
    double BendMm,
    double GapMm
)
{
    /// <summary>The format name.</summary>
    public const string FormatName = "mendro.fit/1";

    /// <summary>Most positions of one board.</summary>
    public const int MostPositions = 60;

    /// <summary>Most ways to seat capacitors, over all positions.</summary>
    public const int MostSeats = 40_000;

    private const double Furthest = 2000;

    /// <summary>Reads a file.</summary>
    /// <returns>The task, or what is wrong with its place.</returns>
    public static Outcome<FitFile> Read(string json)
    {
        static Outcome<FitFile> Fail(string problem) => Outcome<FitFile>.Fail(problem);

        if (ProfileJson.Deserialize<Document>(json, out var told) is { } unreadable)
            return Fail(unreadable);
        if (told?.Format is not (null or FormatName))
            return Fail($"format: expected “{FormatName}”.");
        if (told?.Board is not { Outline: { } outline } board)
            return Fail("board: an outline is needed.");
        if (told.Choices is not { } choices)
            return Fail("choices: say which parts may go where.");
        if (Polygon("board.outline", outline) is { } bad)
            return Fail(bad);
        for (var n = 0; n < (board.Zones?.Count ?? 0); n++)
            if (Polygon($"board.zones[{n}].polygon", board.Zones![n].Polygon) is { } wrong)
                return Fail(wrong);
        for (var n = 0; n < (board.Parts?.Count ?? 0); n++)
            if (Polygon($"board.parts[{n}].polygon", board.Parts![n].Polygon) is { } wrong)
                return Fail(wrong);
        var positions = board.Capacitors ?? [];
        for (var n = 0; n < positions.Count; n++)
            if (positions[n] is not { Refdes.Length: > 0, Pads: { Plus: { } plus, Minus: { } minus } } || !IsPoint(plus) || !IsPoint(minus))
                return Fail($"board.capacitors[{n}]: a refdes and two pads [x, y] are needed.");
        if (positions.GroupBy(p => p.Refdes).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return Fail($"board.capacitors: “{twice.Key}” is there twice.");
        if (choices.Count > MostPositions)
            return Fail($"choices: at most {MostPositions} positions.");
        foreach (var (refdes, parts) in choices)
        {
            if (positions.All(p => p.Refdes != refdes))
                return Fail($"choices.{refdes}: the board has no such position.");
            if (parts is null || !parts.All(p => p is { Id.Length: > 0, LeadMm: >= 0 and <= 100 } && Sized(p.DiameterMm) && Sized(p.HeightMm)))
                return Fail($"choices.{refdes}: each part has an id, diameterMm and heightMm above 0, and leadMm of 0 to 100.");
        }

        var (step, bend, gap) = (told.AngleStep ?? 15, told.BendMm ?? 1.5, told.GapMm ?? 0.3);
        if (!(step is >= 1 and <= 360))
            return Fail("angleStep: 1 to 360 degrees.");
        if (!(bend is >= 0 and <= 100) || !(gap is >= 0 and <= 100))
            return Fail("bendMm and gapMm: 0 to 100 mm.");
        var ways = choices.Sum(c => c.Value.Sum(p => 1 + Math.Ceiling(360 / step) * Math.Max(0, Math.Floor(p.LeadMm - bend) + 1)));
        return ways > MostSeats
            ? Fail($"choices: {ways:0} ways to seat them are too many; at most {MostSeats}. Take larger angle steps or fewer parts.")
            : Outcome<FitFile>.Ok(new FitFile(Of(board), choices, step, bend, gap));
    }

    private static Board Of(Told told) =>
        new(
            told.Id ?? "board",
            told.Name ?? told.Id ?? "Board",
            told.Outline!,
            Zones: told.Zones,
            Parts: told.Parts,
            Capacitors: told.Capacitors?.Select(c => new BoardCapacitor(c.Refdes!, Pads: c.Pads)).ToList()
        );

    private static bool Sized(double mm) => mm is > 0 and <= 200;

    private static bool IsPoint(IReadOnlyList<double> xy) => xy.Count == 2 && xy.All(v => Math.Abs(v) <= Furthest);

    private static string? Polygon(string place, IReadOnlyList<IReadOnlyList<double>>? corners) =>
        corners is { Count: >= 3 and <= 500 } && corners.All(c => c is not null && IsPoint(c))
            ? null
            : $"{place}: 3 to 500 corners [x, y] in mm.";

    // Of a board only what fitting asks for: whatever else a file says of it is left alone.
    private sealed record Position(string? Refdes, CapacitorPads? Pads);

    private sealed record Told(
        string? Id,
        string? Name,
        IReadOnlyList<IReadOnlyList<double>>? Outline,
        IReadOnlyList<BoardZone>? Zones,
        IReadOnlyList<BoardPart>? Parts,
        IReadOnlyList<Position>? Capacitors
    );

    private sealed record Document(
        string? Format,
        Told? Board,
        Dictionary<string, IReadOnlyList<FitChoice>>? Choices,
        double? AngleStep,
        double? BendMm,
        double? GapMm
    );
}
