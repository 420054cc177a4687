using System.Globalization;
using System.Text.RegularExpressions;
using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>Points and nets that were read from a file.</summary>
/// <param name="Points">Points.</param>
/// <param name="Nets">Nets.</param>
/// <param name="Outline">Corners of the board, mm; null when the file tells none.</param>
/// <param name="Notes">What was left out, by line.</param>
public sealed record NetFile(
    IReadOnlyList<NetPoint> Points,
    IReadOnlyList<BoardNet> Nets,
    IReadOnlyList<IReadOnlyList<double>>? Outline,
    IReadOnlyList<string> Notes
)
{
    // A board whose outline nobody told ends a little beyond its points.
    private const double RimMm = 2;

    /// <summary>Reads a file: IPC-D-356A when it looks like one, else CSV.</summary>
    /// <returns>What it tells, or why it tells nothing.</returns>
    public static Outcome<NetFile> Read(string text) => Ipc356.LooksLike(text) ? Ipc356.Read(text) : NetCsv.Read(text);

    /// <summary>The nets on a board: the one that is there keeps all else, a new one is as large as its points.</summary>
    /// <param name="board">Board that is there, or null.</param>
    /// <param name="id">Id of a new one.</param>
    /// <param name="name">Name of a new one.</param>
    public Board On(Board? board, string id, string name)
    {
        var outline = Outline ?? board?.Outline ?? Around(Points);
        return (board ?? new Board(id, name, outline)) with { Outline = outline, Points = Points, Nets = Nets };
    }

    /// <summary>A text that can stand in a line of a board: a semicolon ends a clause there.</summary>
    internal static string Plain(string text) => text.Replace(';', ',').Trim();

    /// <summary>A name as an id: what an id cannot hold becomes a low line; a taken one gets a number.</summary>
    internal static string IdOf(string name, ISet<string> taken)
    {
        var plain = Regex.Replace(name.Trim(), "[^A-Za-z0-9+_.~#*-]", "_");
        if (plain.Length == 0 || !char.IsLetterOrDigit(plain[0]) && !"+_.~#".Contains(plain[0], StringComparison.Ordinal))
            plain = "_" + plain;
        plain = plain.Length > 36 ? plain[..36] : plain;
        var id = plain;
        for (var n = 2; !taken.Add(id); n++)
            id = string.Create(CultureInfo.InvariantCulture, $"{plain}~{n}");
        return id;
    }

    private static IReadOnlyList<IReadOnlyList<double>> Around(IReadOnlyList<NetPoint> points)
    {
        var (x0, x1) = (points.Min(p => p.X) - RimMm, points.Max(p => p.X) + RimMm);
        var (y0, y1) = (points.Min(p => p.Y) - RimMm, points.Max(p => p.Y) + RimMm);
        return [[x0, y0], [x1, y0], [x1, y1], [x0, y1]];
    }
}
