using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Mendro.Core.Profiles;

namespace Mendro.Core.Boards;

/// <summary>
/// Bare-board test data as board makers hand it out: IPC-D-356A, records 317 (through hole) and 327 (surface), 389 (outline), units
/// CUST 0, 1 and 2, long net names by <c>P NNAME</c>. Columns counted from 1: net 4–17, part 21–26, pin 28–31, drill 34–37, side 40–41,
/// X 42–49, Y 50–57. The file tells no copper between the points: how it runs is guessed from their places.
/// </summary>
public static partial class Ipc356
{
    private const double InchUnitMm = 25.4e-4;
    private const double MetricUnitMm = 1e-3;
    private const string NotConnected = "N/C";
    private const int NetWidth = 14;

    [GeneratedRegex(@"A(?<side>\d\d)\s*X(?<x>[+-]?\s*\d{1,6})\s*Y(?<y>[+-]?\s*\d{1,6})")]
    private static partial Regex PlacePattern();

    [GeneratedRegex(@"^P\s+UNITS\s+(?<units>CUST\s*[012]|SI|METRIC|ENGLISH)", RegexOptions.IgnoreCase)]
    private static partial Regex UnitsPattern();

    [GeneratedRegex(@"^P\s+(?<short>NNAME\w*)\s+(?<name>\S.*?)\s*$")]
    private static partial Regex AliasPattern();

    [GeneratedRegex(@"(?:X(?<x>[+-]?\d{1,7}))?(?:Y(?<y>[+-]?\d{1,7}))?")]
    private static partial Regex CornerPattern();

    [GeneratedRegex(@"~\d+$")]
    private static partial Regex TwicePattern();

    /// <summary>True for a text with a record of this format.</summary>
    public static bool LooksLike(string text) =>
        text.Split('\n').Any(l => l.StartsWith("317", StringComparison.Ordinal) || l.StartsWith("327", StringComparison.Ordinal));

    /// <summary>Reads a file.</summary>
    public static Outcome<NetFile> Read(string text)
    {
        var (notes, points, ids) = (new List<string>(), new List<(NetPoint Point, string Net)>(), new HashSet<string>());
        var (unit, aliases, vias) = (double.NaN, new Dictionary<string, string>(), 0);
        IReadOnlyList<IReadOnlyList<double>>? outline = null;
        var lines = text.Split('\n').Select(l => l.TrimEnd('\r', ' ')).ToList();
        var deepest = lines.Select(l => IsPoint(l) && PlacePattern().Match(l) is { Success: true } m ? m.Groups["side"].Value : "").Max();
        for (var n = 0; n < lines.Count; n++)
        {
            var line = lines[n];
            if (line.StartsWith("999", StringComparison.Ordinal))
                break;
            if (UnitsPattern().Match(line) is { Success: true } units)
                unit = units.Groups["units"].Value.ToUpperInvariant() is "SI" or "METRIC" || units.Value.EndsWith('1') ? MetricUnitMm : InchUnitMm;
            else if (AliasPattern().Match(line) is { Success: true } alias)
                aliases[alias.Groups["short"].Value] = alias.Groups["name"].Value;
            else if (line.StartsWith("389", StringComparison.Ordinal))
                outline ??= Corners(line, Unit(unit));
            else if (!IsPoint(line))
            {
                if (line.Length > 0 && line[0] is not ('C' or 'P' or '0'))
                    notes.Add($"line {n + 1}: the record {line[..Math.Min(3, line.Length)]} is left out.");
            }
            else if (points.Count >= ProfileFormat.MostBoardPoints)
                return Outcome<NetFile>.Fail($"line {n + 1}: at most {ProfileFormat.MostBoardPoints} points.");
            else if (Point(line, Unit(unit), deepest!, ids, ref vias) is { } read)
                points.Add(read);
            else
                notes.Add($"line {n + 1}: no place is told, such as A01X+012345Y+012345 in columns 39 to 57; the record is left out.");
        }

        if (points.Count == 0)
            return Outcome<NetFile>.Fail("the file tells no point: " + (notes.FirstOrDefault() ?? "it has no record 317 or 327."));
        if (double.IsNaN(unit))
            notes.Insert(0, "no units are told: read as ten-thousandths of an inch.");
        var taken = new HashSet<string>();
        var nets = points
            .Where(p => p.Net.Length > 0 && p.Net != NotConnected)
            .GroupBy(p => p.Net)
            .Select(g =>
            {
                var name = NetFile.Plain(aliases.GetValueOrDefault(g.Key, g.Key));
                var shown = name.Length > LongestName ? name[..LongestName] : name;
                return new BoardNet(NetFile.IdOf(name, taken), shown, g.Select(p => p.Point.Id).ToList());
            })
            .ToList();
        return nets.Count > ProfileFormat.MostNets
            ? Outcome<NetFile>.Fail($"at most {ProfileFormat.MostNets} nets.")
            : Outcome<NetFile>.Ok(new NetFile(points.Select(p => p.Point).ToList(), nets, outline, notes));
    }

    private const int LongestName = 60;

    /// <summary>Writes the points and nets of a board, in thousandths of a millimetre.</summary>
    /// <param name="board">Board.</param>
    public static string Write(Board board)
    {
        var text = new StringBuilder();
        void Line(string line) => text.Append(line).Append("\r\n");
        Line("C  Bare-board points and nets, IPC-D-356A");
        Line($"P  JOB   {Ascii(board.Name, 60)}");
        Line("P  UNITS CUST 1");
        var netOf = (board.Nets ?? []).SelectMany(n => n.Points.Select(p => (p, n))).GroupBy(x => x.p).ToDictionary(g => g.Key, g => g.First().n);
        var aliases = new Dictionary<string, string>();
        foreach (var net in board.Nets ?? [])
        {
            var name = NameOf(net);
            aliases[net.Id] = name;
            if (name.Length <= NetWidth && name != NotConnected && !name.StartsWith("NNAME", StringComparison.Ordinal))
                continue;
            aliases[net.Id] = string.Create(CultureInfo.InvariantCulture, $"NNAME{aliases.Count}");
            Line($"P  {aliases[net.Id]}  {name}");
        }

        Line("389BOARD_EDGE      " + string.Join(' ', board.Outline.Append(board.Outline[0]).Select(c => $"X{Signed(c[0])}Y{Signed(c[1])}")));
        foreach (var point in board.Points ?? [])
        {
            var net = netOf.TryGetValue(point.Id, out var own) ? aliases[own.Id] : NotConnected;
            var through = point.Kind is "via" or "leg" or "pin";
            var (refdes, pin) = Names(point);
            var side = point.Side switch
            {
                "top" => "01",
                "bottom" => "02",
                _ => "00",
            };
            var pinned = pin.Length > 0 ? "-" + Ascii(pin, 4).PadRight(4) : "     ";
            Line(
                $"3{(through ? '1' : '2')}7{Ascii(net, NetWidth).PadRight(NetWidth)}   {Ascii(refdes, 6).PadRight(6)}{pinned}       "
                    + $"A{side}X{Signed(point.X)}Y{Signed(point.Y)}X0000Y0000R000 S0"
            );
        }

        Line("999");
        return text.ToString();
    }

    private static bool IsPoint(string line) =>
        line.StartsWith("317", StringComparison.Ordinal) || line.StartsWith("327", StringComparison.Ordinal);

    private static double Unit(double told) => double.IsNaN(told) ? InchUnitMm : told;

    private static (NetPoint, string Net)? Point(string line, double unit, string deepest, HashSet<string> ids, ref int vias)
    {
        if (PlacePattern().Match(line, Math.Min(31, line.Length)) is not { Success: true } place)
            return null;
        var (x, y) = (Mm(place.Groups["x"].Value, unit), Mm(place.Groups["y"].Value, unit));
        if (Math.Abs(x) > ProfileFormat.FurthestMm || Math.Abs(y) > ProfileFormat.FurthestMm)
            return null;
        var (net, refdes, pin) = (Field(line, 4, 17), NetFile.Plain(Field(line, 21, 26)), Field(line, 28, 31));
        var isVia = refdes is "VIA" or "";
        var isTest = refdes.StartsWith("TP", StringComparison.OrdinalIgnoreCase);
        var kind = isVia ? "via"
            : isTest ? "test"
            : line[1] == '1' ? "leg"
            : "pad";
        var side = place.Groups["side"].Value switch
        {
            "00" => "both",
            "01" => "top",
            var layer when layer == deepest => "bottom",
            _ => "both",
        };
        var name = isVia ? $"V{++vias}"
            : pin.Length > 0 ? $"{refdes}-{pin}"
            : refdes;
        return (new NetPoint(NetFile.IdOf(name, ids), x, y, side, kind, isVia || isTest ? null : refdes), net);
    }

    private static string Field(string line, int from, int to) =>
        line.Length < from ? "" : line[(from - 1)..Math.Min(to, line.Length)].Trim();

    private static double Mm(string digits, double unit) =>
        Math.Round(double.Parse(digits.Replace(" ", "", StringComparison.Ordinal), CultureInfo.InvariantCulture) * unit, 3);

    private static List<IReadOnlyList<double>>? Corners(string line, double unit)
    {
        var corners = new List<IReadOnlyList<double>>();
        var (x, y) = (0.0, 0.0);
        foreach (Match corner in CornerPattern().Matches(line[3..].Replace("BOARD_EDGE", "", StringComparison.Ordinal)))
        {
            if (corner.Length == 0)
                continue;
            // A coordinate that does not change is left out.
            x = corner.Groups["x"].Success ? Mm(corner.Groups["x"].Value, unit) : x;
            y = corner.Groups["y"].Success ? Mm(corner.Groups["y"].Value, unit) : y;
            corners.Add([x, y]);
        }

        if (corners.Count > 1 && corners[0].SequenceEqual(corners[^1]))
            corners.RemoveAt(corners.Count - 1);
        return corners.Count is >= 3 and <= ProfileFormat.MostCorners ? corners : null;
    }

    /// <summary>The name a net came with, as long as its id was made from it; else the id.</summary>
    private static string NameOf(BoardNet net)
    {
        var plain = Ascii(net.Name, LongestName);
        return plain == net.Name && !plain.Contains(' ', StringComparison.Ordinal) && NetFile.IdOf(plain, new HashSet<string>()) == net.Id ? plain : net.Id;
    }

    private static (string Refdes, string Pin) Names(NetPoint point)
    {
        // A second point of the same pin had got a number: read again it gets it again.
        var id = TwicePattern().Replace(point.Id, "");
        if (point.Part is { } part)
        {
            var plain = NetFile.IdOf(part, new HashSet<string>());
            return (
                part,
                id.StartsWith(plain + "-", StringComparison.Ordinal) ? id[(plain.Length + 1)..]
                    : id == plain ? ""
                    : id
            );
        }

        return point.Kind == "via" ? ("VIA", "") : id.Split('-', 2) is [var refdes, var pin] ? (refdes, pin) : (id, "");
    }

    private static string Signed(double mm)
    {
        var units = (long)Math.Round(mm / MetricUnitMm);
        return string.Create(CultureInfo.InvariantCulture, $"{(units < 0 ? '-' : '+')}{Math.Abs(units):000000}");
    }

    private static string Ascii(string text, int most)
    {
        var plain = string.Concat(text.Select(c => c is > ' ' and < (char)127 or ' ' ? c : '_'));
        return plain.Length > most ? plain[..most] : plain;
    }
}
