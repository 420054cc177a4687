using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Boards;

/// <summary>
/// Points and nets of a board as CSV, one point a line: <c>point,x_mm,y_mm</c> and, where known, <c>side</c>, <c>kind</c>, <c>part</c>,
/// <c>under</c>, <c>state</c>, <c>mate</c>, <c>net</c>, <c>net_name</c>, <c>joined_to</c> (points it is joined to by copper, between
/// blanks), <c>serves</c>, <c>amps</c>. What is told of a net stands on any of its lines.
/// </summary>
public static class NetCsv
{
    private static readonly string[] Columns =
    [
        "point",
        "x_mm",
        "y_mm",
        "side",
        "kind",
        "part",
        "under",
        "state",
        "mate",
        "net",
        "net_name",
        "joined_to",
        "serves",
        "amps",
    ];

    private sealed record Line(NetPoint Point, string Net, string NetName, IReadOnlyList<string> JoinedTo, string Serves, double? Amps);

    /// <summary>Reads a file.</summary>
    public static Outcome<NetFile> Read(string text)
    {
        var lines = CsvTable.Read(
            text,
            ProfileFormat.MostBoardPoints,
            columns =>
                new[] { "point", "x_mm", "y_mm" }.All(columns.Contains)
                    ? null
                    : $"the columns must be point, x_mm, y_mm and, where known, {string.Join(", ", Columns.Skip(3))}; or the file is IPC-D-356A.",
            field => Read(column => field(column).Trim()),
            out var problems
        );
        var wrong = problems.ToList();
        wrong.AddRange(lines.GroupBy(l => l.Point.Id).Where(g => g.Count() > 1).Select(g => $"the point “{g.Key}” is there twice."));
        var points = lines.Select(l => l.Point).DistinctBy(p => p.Id).ToList();
        if (points.Count == 0)
            return Outcome<NetFile>.Fail(wrong.Count > 0 ? string.Join(" ", wrong.Take(3)) : "the file tells no point.");
        var netOf = lines.GroupBy(l => l.Point.Id).ToDictionary(g => g.Key, g => g.First().Net);
        foreach (var (line, to) in lines.SelectMany(l => l.JoinedTo.Select(to => (l, to))))
            if (netOf.GetValueOrDefault(to) != line.Net || line.Net.Length == 0 || to == line.Point.Id)
                wrong.Add($"“{line.Point.Id}” is joined to “{to}”, which is no other point of its net.");
        if (lines.Where(l => l.Net.Length > 0).Select(l => l.Net).Distinct().Count() > ProfileFormat.MostNets)
            return Outcome<NetFile>.Fail($"at most {ProfileFormat.MostNets} nets.");
        var nets = lines
            .Where(l => l.Net.Length > 0)
            .GroupBy(l => l.Net)
            .Select(g =>
            {
                var segments = g.SelectMany(l =>
                        l.JoinedTo.Where(to => netOf.GetValueOrDefault(to) == g.Key && to != l.Point.Id)
                            .Select(to => (IReadOnlyList<string>)[to, l.Point.Id])
                    )
                    .ToList();
                return new BoardNet(
                    g.Key,
                    g.Select(l => l.NetName).FirstOrDefault(n => n.Length > 0) ?? g.Key,
                    g.Select(l => l.Point.Id).Distinct().ToList(),
                    segments.Count > 0 ? segments : null,
                    g.Select(l => l.Serves).FirstOrDefault(s => s.Length > 0) is { } part ? new PartId(part) : default(PartId?),
                    g.Max(l => l.Amps)
                );
            })
            .ToList();
        return Outcome<NetFile>.Ok(new NetFile(points, nets, null, wrong));
    }

    /// <summary>Writes the points and nets of a board.</summary>
    public static string Write(Board board)
    {
        var netOf = (board.Nets ?? []).SelectMany(n => n.Points.Select(p => (p, n))).GroupBy(x => x.p).ToDictionary(g => g.Key, g => g.First().n);
        var first = (board.Nets ?? []).Where(n => n.Points.Count > 0).ToDictionary(n => n.Id, n => n.Points[0]);
        return CsvTable.Write(
            Columns,
            (board.Points ?? []).Select(p =>
            {
                var net = netOf.GetValueOrDefault(p.Id);
                var joined = (net?.Segments ?? []).Where(s => s[1] == p.Id).Select(s => s[0]);
                var tells = net is not null && first[net.Id] == p.Id;
                return (IReadOnlyList<string>)
                    [
                        Text(p.Id),
                        BoardText.N(p.X),
                        BoardText.N(p.Y),
                        p.Side,
                        p.Kind,
                        Text(p.Part),
                        Text(p.Under),
                        p.State,
                        Text(p.Mate),
                        Text(net?.Id),
                        Text(net is not null && net.Name != net.Id ? net.Name : null),
                        Text(string.Join(' ', joined)),
                        tells ? Text(net!.Serves?.Value) : "",
                        tells && net!.Amps is { } amps ? BoardText.N(amps) : "",
                    ];
            })
        );
    }

    private static Outcome<Line> Read(Func<string, string> field)
    {
        static Outcome<Line> Fail(string why) => Outcome<Line>.Fail(why);

        var (id, kind, state) = (field("point"), Or(field("kind"), "pad"), Or(field("state"), "sound"));
        var side = Or(field("side"), NetPoint.UsualSide(kind));
        if (!NetText.IsId(id))
            return Fail($"“{id}” is no id of a point: letters, digits and + _ . ~ # * - up to 40.");
        if (Number(field("x_mm")) is not { } x || Number(field("y_mm")) is not { } y || !IsMm(x) || !IsMm(y))
            return Fail($"“{id}” needs x_mm and y_mm within {ProfileFormat.FurthestMm:0} mm.");
        if (!NetPoint.Kinds.Contains(kind))
            return Fail($"“{kind}” is no kind: {string.Join(", ", NetPoint.Kinds)}.");
        if (!NetPoint.Sides.Contains(side))
            return Fail($"“{side}” is no side: top, bottom or both.");
        if (!NetPoint.States.Contains(state))
            return Fail($"“{state}” is no state: {string.Join(", ", NetPoint.States)}.");
        var net = field("net");
        if (net.Length > 0 && !NetText.IsId(net))
            return Fail($"“{net}” is no id of a net.");
        if (field("amps") is { Length: > 0 } told && Number(told) is not (>= 0 and <= 100))
            return Fail($"“{told}” is no current from 0 to 100 A.");
        return Outcome<Line>.Ok(
            new Line(
                new NetPoint(id, x, y, side, kind, Blank(field("part")), Blank(field("under")), state, Blank(field("mate"))),
                net,
                NetFile.Plain(field("net_name")),
                field("joined_to").Split(' ', StringSplitOptions.RemoveEmptyEntries),
                field("serves"),
                Number(field("amps"))
            )
        );
    }

    private static double? Number(string text) => BoardText.D(text.Replace(',', '.'));

    private static bool IsMm(double mm) => Math.Abs(mm) <= ProfileFormat.FurthestMm;

    private static string? Blank(string text) => text.Length == 0 ? null : NetFile.Plain(text);

    private static string Or(string text, string usual) => text.Length == 0 ? usual : text.ToLowerInvariant();

    private static string Text(string? text) => SpreadsheetText.Write(text ?? "");
}
