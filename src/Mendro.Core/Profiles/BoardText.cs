using System.Globalization;
using System.Text.RegularExpressions;
using Mendro.Core.Quantities;

namespace Mendro.Core.Profiles;

/// <summary>
/// Boards as lines of text: <c>board main: Main board; 0 0, 60 0, 60 40, 0 40</c>, below it <c>zone 6.5 mm: 10 10, 20 10, 20 20; battery
/// bay</c>, <c>part U1 2 mm: 5 5, 12 5, 12 12</c>, <c>draw top: 0 5, 30 5 / 30 9, 0 9; slot</c> and <c>cap C31: rail; 100u 10 V; 6.3 x 5.4 mm;
/// surface; aluminium; plus 10 10, minus 12.2 10; on A, B; of railcaps; unpolar</c>. Points and nets: <see cref="NetText"/>. Places are
/// millimetres.
/// </summary>
public static partial class BoardText
{
    [GeneratedRegex(@"^(?<what>board|zone|part|draw|cap|point|net)\s+(?<name>[^:]+?)\s*:\s*(?<rest>.*)$")]
    private static partial Regex LinePattern();

    [GeneratedRegex(@"^(?<name>.*?)\s*\b(?<mm>[0-9.]+)\s*mm(?:\s+(?<side>top|bottom|both))?$")]
    private static partial Regex WithHeightPattern();

    [GeneratedRegex(@"^(?<d>[0-9.]+)\s*[x×]\s*(?<h>[0-9.]+)\s*mm$")]
    private static partial Regex SizePattern();

    [GeneratedRegex(@"^plus\s+(?<px>-?[0-9.]+)\s+(?<py>-?[0-9.]+)\s*,\s*minus\s+(?<mx>-?[0-9.]+)\s+(?<my>-?[0-9.]+)$")]
    private static partial Regex PadsPattern();

    [GeneratedRegex(@"^(?<farads>\S+?)(?:\s*F)?(?:\s+(?<volts>[0-9.]+)\s*V)?$")]
    private static partial Regex ValuePattern();

    /// <summary>Writes boards.</summary>
    public static string Write(IEnumerable<Board> boards) =>
        string.Join(
            '\n',
            boards.SelectMany(b =>
                ((string[])[$"board {b.Id}: {b.Name}; {Points(b.Outline)}"])
                    .Concat(
                        (b.Drawings ?? []).Select(d =>
                            $"draw {d.Side}: {string.Join(" / ", d.Lines.Select(Points))}{(d.Label is { } said ? "; " + said : "")}"
                        )
                    )
                    .Concat(
                        (b.Zones ?? []).Select(z =>
                            $"zone {N(z.ClearanceMm)} mm{(z.Side == "top" ? "" : " " + z.Side)}: {Points(z.Polygon)}{(z.What is { } what ? "; " + what : "")}"
                        )
                    )
                    .Concat((b.Parts ?? []).Select(p => $"part {p.Refdes} {N(p.HeightMm)} mm: {Points(p.Polygon)}"))
                    .Concat((b.Capacitors ?? []).Select(Write))
                    .Concat((b.Points ?? []).Select(NetText.Write))
                    .Concat((b.Nets ?? []).Select(NetText.Write))
            )
        );

    private static string Write(BoardCapacitor c) =>
        $"cap {c.Refdes}: "
        + string.Join(
            "; ",
            new[]
            {
                c.Section,
                c.Farads is { } farads ? $"{N(farads * 1e6)}u" + (c.Volts is { } volts ? $" {N(volts)} V" : "") : null,
                c is { DiameterMm: { } d, HeightMm: { } h } ? $"{N(d)} x {N(h)} mm" : null,
                c.Mount,
                c.Technology is { } technology ? "made " + technology : null,
                c.Pads is { } pads
                    ? $"plus {N(pads.Plus[0])} {N(pads.Plus[1])}, minus {N(pads.Minus[0])} {N(pads.Minus[1])}"
                    : null,
                c.Revisions is { Count: > 0 } on ? "on " + string.Join(", ", on) : null,
                c.Part is { } part ? "of " + part.Value : null,
                c.Polar ? null : "unpolar",
            }.OfType<string>()
        );

    /// <summary>Reads boards; blank lines are skipped.</summary>
    public static IReadOnlyList<Board> Read(string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var (found, wrong) = (new List<Board>(), new List<ProfileProblem>());
        var lines = (text ?? "").Split('\n');
        for (var n = 0; n < lines.Length; n++)
        {
            var line = lines[n].Trim();
            if (line.Length == 0)
                continue;
            void Fail(string why) => wrong.Add(new ProfileProblem($"boards, line {n + 1}", why));
            var read = LinePattern().Match(line);
            var (what, name) = (read.Groups["what"].Value, read.Groups["name"].Value);
            var clauses = read.Groups["rest"].Value.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            if (!read.Success || clauses.Length == 0)
                Fail("begin with board, zone, part, draw, cap, point or net, a name and a colon.");
            else if (what == "board")
            {
                if (clauses.Length == 2 && ReadPoints(clauses[1]) is { Count: >= 3 } outline)
                    found.Add(new Board(name, clauses[0], outline));
                else
                    Fail("a board is its name; its corners: Main board; 0 0, 60 0, 60 40, 0 40.");
            }
            else if (found.Count == 0)
                Fail("a line with board comes first.");
            else if (Add(found[^1], what, name, clauses, Fail) is { } grown)
                found[^1] = grown;
        }

        problems = wrong;
        return found;
    }

    private static Board? Add(Board board, string what, string name, string[] clauses, Action<string> fail)
    {
        if (what == "cap")
            return ReadCapacitor(name, clauses, fail) is { } c ? board with { Capacitors = [.. board.Capacitors ?? [], c] } : null;
        if (what == "point")
            return NetText.ReadPoint(name, clauses, fail) is { } p ? board with { Points = [.. board.Points ?? [], p] } : null;
        if (what == "net")
            return NetText.ReadNet(name, clauses, fail) is { } net ? board with { Nets = [.. board.Nets ?? [], net] } : null;
        var said = clauses.Length > 1 ? clauses[1] : null;
        if (what == "draw" && clauses[0].Split('/').Select(ReadPoints).ToList() is var lines && lines.All(l => l is { Count: >= 2 }))
            return board with { Drawings = [.. board.Drawings ?? [], new BoardDrawing(name, [.. lines.Select(l => l!)], said)] };
        if (what == "draw" || ReadPoints(clauses[0]) is not { Count: >= 3 } points)
        {
            fail("corners are pairs of millimetres between commas: 10 10, 20 10, 20 20.");
            return null;
        }

        if (WithHeightPattern().Match(name) is not { Success: true } high || D(high.Groups["mm"].Value) is not { } mm)
        {
            fail(what == "zone" ? "a zone says its clearance: zone 6.5 mm: …" : "a part says its height: part U1 2 mm: …");
            return null;
        }

        var side = high.Groups["side"] is { Success: true } told ? told.Value : "top";
        return what == "zone"
            ? board with { Zones = [.. board.Zones ?? [], new BoardZone(points, mm, said, side)] }
            : board with { Parts = [.. board.Parts ?? [], new BoardPart(high.Groups["name"].Value, points, mm)] };
    }

    private static BoardCapacitor? ReadCapacitor(string refdes, string[] clauses, Action<string> fail)
    {
        var made = new BoardCapacitor(refdes);
        for (var n = 0; n < clauses.Length; n++)
        {
            var clause = clauses[n];
            BoardCapacitor? told = clause switch
            {
                "unpolar" => made with { Polar = false },
                "surface" or "through-hole" => made with { Mount = clause },
                _ when clause.StartsWith("made ", StringComparison.Ordinal) => made with { Technology = clause[5..].Trim() },
                _ when clause.StartsWith("on ", StringComparison.Ordinal) => made with { Revisions = Split(clause[3..]) },
                _ when clause.StartsWith("of ", StringComparison.Ordinal) => made with { Part = new PartId(clause[3..].Trim()) },
                _ when SizePattern().Match(clause) is { Success: true } m => made with
                {
                    DiameterMm = D(m.Groups["d"].Value),
                    HeightMm = D(m.Groups["h"].Value),
                },
                _ when PadsPattern().Match(clause) is { Success: true } m
                    && (D(m.Groups["px"].Value), D(m.Groups["py"].Value), D(m.Groups["mx"].Value), D(m.Groups["my"].Value))
                        is ({ } px, { } py, { } mx, { } my) => made with { Pads = new CapacitorPads([px, py], [mx, my]) },
                _ when char.IsDigit(clause[0]) && ValuePattern().Match(clause) is { Success: true } m
                    && QuantityText.Parse(m.Groups["farads"].Value, "F") is { } farads => made with
                {
                    Farads = farads,
                    Volts = m.Groups["volts"].Success ? D(m.Groups["volts"].Value) : null,
                },
                _ when n == 0 && !char.IsDigit(clause[0]) => made with { Section = clause },
                _ => null,
            };
            if (told is null)
                fail($"“{clause}” is none of: a section first, 100u 10 V, 6.3 x 5.4 mm, surface, made aluminium, plus 1 2, minus 3 2, on A, unpolar.");
            made = told ?? made;
        }

        return made;
    }

    internal static List<IReadOnlyList<double>>? ReadPoints(string text)
    {
        var points = new List<IReadOnlyList<double>>();
        foreach (var pair in text.Split(','))
        {
            var xy = pair.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(D).ToList();
            if (xy is not [{ } x, { } y])
                return null;
            points.Add([x, y]);
        }

        return points;
    }

    private static string Points(IEnumerable<IReadOnlyList<double>> points) => string.Join(", ", points.Select(p => $"{N(p[0])} {N(p[1])}"));

    private static string[] Split(string list) => list.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    internal static string N(double value) => value.ToString("0.######", CultureInfo.InvariantCulture);

    internal static double? D(string text) =>
        double.TryParse(text, NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var value)
            ? value
            : null;
}
