using System.Globalization;
using System.Text.RegularExpressions;

namespace Mendro.Core.Profiles;

/// <summary>
/// Points and nets of a board as lines of text: <c>point U1-3: 10 20; leg; bottom; of U1; under slot; corroded; to phones/J4-1</c> and
/// <c>net A5: address 5; U1-3 - V7 - U2-9, V7 - TP2; for traces; 0.2 A</c>. Points with <c>-</c> between them are joined by copper in
/// that order; points that only stand side by side are on the net, and nobody told how it runs.
/// </summary>
public static partial class NetText
{
    private const string Joined = " - ";

    [GeneratedRegex(@"^(?<amps>[0-9.]+)\s*A$")]
    private static partial Regex AmpsPattern();

    [GeneratedRegex(NetPoint.IdPattern)]
    private static partial Regex IdPattern();

    /// <summary>True for what can be the id of a point or a net.</summary>
    public static bool IsId(string text) => IdPattern().IsMatch(text);

    /// <summary>Writes a point.</summary>
    public static string Write(NetPoint p) =>
        $"point {p.Id}: "
        + string.Join(
            "; ",
            new[]
            {
                $"{BoardText.N(p.X)} {BoardText.N(p.Y)}",
                p.Kind,
                p.Side == NetPoint.UsualSide(p.Kind) ? null : p.Side,
                p.Part is { } part ? "of " + part : null,
                p.Under is { } under ? "under " + under : null,
                p.State == "sound" ? null : p.State,
                p.Mate is { } mate ? "to " + mate : null,
            }.OfType<string>()
        );

    /// <summary>Writes a net.</summary>
    public static string Write(BoardNet net) =>
        $"net {net.Id}: "
        + string.Join(
            "; ",
            new[]
            {
                net.Name,
                string.Join(", ", Chains(net)),
                net.Serves is { } part ? "for " + part.Value : null,
                net.Amps is { } amps ? BoardText.N(amps) + " A" : null,
            }.OfType<string>()
        );

    /// <summary>Reads places in mm between commas.</summary>
    /// <returns>The places, or null when they are none.</returns>
    public static IReadOnlyList<IReadOnlyList<double>>? ReadLine(string text) => BoardText.ReadPoints(text);

    /// <summary>Reads a point.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="clauses">What stands after the colon.</param>
    /// <param name="fail">Told what is wrong.</param>
    public static NetPoint? ReadPoint(string id, IReadOnlyList<string> clauses, Action<string> fail)
    {
        if (BoardText.ReadPoints(clauses[0]) is not [[var x, var y]])
        {
            fail("a point begins with its place in mm: point U1-3: 10 20; leg; of U1.");
            return null;
        }

        var made = new NetPoint(id, x, y);
        string? side = null;
        foreach (var clause in clauses.Skip(1))
        {
            if (NetPoint.Kinds.Contains(clause))
                made = made with { Kind = clause };
            else if (NetPoint.Sides.Contains(clause))
                side = clause;
            else if (NetPoint.States.Contains(clause))
                made = made with { State = clause };
            else if (clause.StartsWith("of ", StringComparison.Ordinal))
                made = made with { Part = clause[3..].Trim() };
            else if (clause.StartsWith("under ", StringComparison.Ordinal))
                made = made with { Under = clause[6..].Trim() };
            else if (clause.StartsWith("to ", StringComparison.Ordinal))
                made = made with { Mate = clause[3..].Trim() };
            else
                fail($"“{clause}” is none of: pad, via, leg, test, pin, edge, top, bottom, both, of U1, under slot, corroded, lost, lifted, to board/point.");
        }

        return made with { Side = side ?? NetPoint.UsualSide(made.Kind) };
    }

    /// <summary>Reads a net.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="clauses">What stands after the colon.</param>
    /// <param name="fail">Told what is wrong.</param>
    public static BoardNet? ReadNet(string id, IReadOnlyList<string> clauses, Action<string> fail)
    {
        if (clauses.Count < 2)
        {
            fail("a net is its name; its points: net A5: address 5; U1-3 - V7 - U2-9.");
            return null;
        }

        var (points, segments) = (new List<string>(), new List<IReadOnlyList<string>>());
        foreach (var chain in clauses[1].Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var links = chain.Split(Joined, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            points.AddRange(links.SelectMany(l => l.Split(' ', StringSplitOptions.RemoveEmptyEntries)));
            segments.AddRange(links.Zip(links.Skip(1), (a, b) => (IReadOnlyList<string>)[a, b]));
        }

        var made = new BoardNet(id, clauses[0], points.Distinct().ToList(), segments.Count > 0 ? segments : null);
        foreach (var clause in clauses.Skip(2))
            if (clause.StartsWith("for ", StringComparison.Ordinal))
                made = made with { Serves = new PartId(clause[4..].Trim()) };
            else if (AmpsPattern().Match(clause) is { Success: true } m && BoardText.D(m.Groups["amps"].Value) is { } amps)
                made = made with { Amps = amps };
            else
                fail($"“{clause}” is none of: for traces, 0.2 A.");
        return made;
    }

    /// <summary>Stretches as chains, as long as they run on; then the points that no stretch names.</summary>
    private static IEnumerable<string> Chains(BoardNet net)
    {
        var chain = new List<string>();
        foreach (var segment in net.Segments ?? [])
        {
            if (chain.Count > 0 && chain[^1] == segment[0])
            {
                chain.Add(segment[1]);
                continue;
            }

            if (chain.Count > 0)
                yield return string.Join(Joined, chain);
            chain = [.. segment];
        }

        if (chain.Count > 0)
            yield return string.Join(Joined, chain);
        var named = (net.Segments ?? []).SelectMany(s => s).ToHashSet();
        var lone = net.Points.Where(p => !named.Contains(p)).ToList();
        if (lone.Count > 0)
            yield return string.Join(' ', lone);
    }
}
