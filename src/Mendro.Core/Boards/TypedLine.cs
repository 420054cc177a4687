using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>A line that is known by its two ends only, as they are called at the bench: “via near R3” to “test point 4”. It is drawn on a
/// sheet of its own, so that it is beeped, bridged and proved as every other.</summary>
/// <param name="Boards">Boards with the line.</param>
/// <param name="Line">The line.</param>
/// <param name="Net">Key of the line, as <c>board/net</c>.</param>
/// <param name="A">Key of one end.</param>
/// <param name="B">Key of the other.</param>
public sealed record TypedLine(IReadOnlyList<Board> Boards, BoardNet Line, string Net, string A, string B)
{
    /// <summary>Id of the sheet.</summary>
    public const string BoardId = "by-ends";

    /// <summary>Longest name of an end, characters.</summary>
    public const int LongestEnd = 30;

    /// <summary>Longest way between two ends, mm.</summary>
    public const double FurthestMm = 400;

    private const string BoardName = "Lines by their ends";
    private const double RowMm = 6;
    private const double RimMm = 4;
    private const int MostLines = 60;

    /// <summary>Adds a line.</summary>
    /// <param name="boards">Boards of the unit.</param>
    /// <param name="from">One end, as it is called.</param>
    /// <param name="to">The other.</param>
    /// <param name="distanceMm">How far apart they are, mm.</param>
    /// <returns>The boards with the line, or why it is none.</returns>
    public static Outcome<TypedLine> Add(IReadOnlyList<Board> boards, string from, string to, double distanceMm)
    {
        var (one, other) = (Plain(from), Plain(to));
        if (one.Length is 0 or > LongestEnd || other.Length is 0 or > LongestEnd)
            return Outcome<TypedLine>.Fail($"Say both ends, each in at most {LongestEnd} characters: via near R3, test point 4.");
        if (string.Equals(one, other, StringComparison.OrdinalIgnoreCase))
            return Outcome<TypedLine>.Fail("The two ends of a line are two places.");
        if (!(distanceMm is >= 1 and <= FurthestMm))
            return Outcome<TypedLine>.Fail($"How far apart are they? 1 to {FurthestMm:0} mm.");
        var sheet = boards.FirstOrDefault(b => b.Id == BoardId) ?? new Board(BoardId, BoardName, [], Points: [], Nets: []);
        var (points, nets) = (sheet.Points ?? [], sheet.Nets ?? []);
        if (nets.Count >= MostLines)
            return Outcome<TypedLine>.Fail($"At most {MostLines} lines are told by their ends; draw the board instead.");
        var taken = points.Select(p => p.Id).ToHashSet();
        var name = $"{one} – {other}";
        if (nets.FirstOrDefault(n => n.Name == name || n.Name == $"{other} – {one}") is { } known)
            return Told(boards, known);
        var y = RimMm + RowMm * nets.Count;
        var a = new NetPoint(NetFile.IdOf(one, taken), RimMm, y, "both", "via");
        var b = new NetPoint(NetFile.IdOf(other, taken), RimMm + distanceMm, y, "both", "via");
        var net = new BoardNet($"line{nets.Count + 1}", name, [a.Id, b.Id], [[a.Id, b.Id]]);
        var all = points.Append(a).Append(b).ToList();
        var (wide, high) = (all.Max(p => p.X) + RimMm, all.Max(p => p.Y) + RimMm);
        sheet = sheet with { Outline = [[0, 0], [wide, 0], [wide, high], [0, high]], Points = all, Nets = [.. nets, net] };
        return Told([.. boards.Where(x => x.Id != BoardId), sheet], net);
    }

    private static Outcome<TypedLine> Told(IReadOnlyList<Board> boards, BoardNet net) =>
        Outcome<TypedLine>.Ok(new TypedLine(boards, net, Key(net.Id), Key(net.Points[0]), Key(net.Points[1])));

    private static string Plain(string text) =>
        string.Join(' ', NetFile.Plain(text).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    private static string Key(string id) => $"{BoardId}/{id}";
}
