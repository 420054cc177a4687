using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>Boards to scale, with what sits on them and how it is joined: for the plans of capacitors and jumpers.</summary>
public sealed class BoardSection : ProfileSection
{
    /// <inheritdoc/>
    public override string Key => "boards";

    /// <inheritdoc/>
    public override string Title => "Boards, capacitors and nets";

    /// <inheritdoc/>
    public override string Hint =>
        "each board with its corners in mm, then its height limits, what stays on it, its capacitors, and the points and nets of its copper";

    /// <inheritdoc/>
    public override string Example =>
        "board main: Main board; 0 0, 60 0, 60 40, 0 40\nzone 6.5 mm: 10 10, 20 10, 20 20; battery bay\npart U1 2 mm: 30 5, 42 5, 42 17\n"
        + "cap C31: rail; 100u 10 V; 6.3 x 5.4 mm; surface; plus 10 30, minus 12.2 30; on B\n"
        + "point U1-3: 30 12; leg; of U1\npoint V7: 22 20; via\npoint P1-5: 8 4; pin; of P1; under slot\nnet A5: address 5; U1-3 - V7 - P1-5; for traces";

    /// <inheritdoc/>
    public override string Write(DeviceProfile profile) => BoardText.Write(profile.Boards ?? []);

    /// <inheritdoc/>
    public override DeviceProfile Read(DeviceProfile profile, string? text, out IReadOnlyList<ProfileProblem> problems)
    {
        var read = BoardText.Read(text, out problems);
        return profile with { Boards = read.Count > 0 ? read : null };
    }

    /// <inheritdoc/>
    public override void Check(DeviceProfile profile, TradeLibrary library, Action<string, string> report)
    {
        var all = profile.Boards ?? [];
        for (var n = 0; n < all.Count; n++)
            Check(profile, all, n, report);
    }

    private static void Check(DeviceProfile profile, IReadOnlyList<Board> all, int n, Action<string, string> report)
    {
        var (board, at) = (all[n], $"boards[{n}]");
        if (all.Take(n).Any(b => b.Id == board.Id))
            report($"{at}.id", $"the id “{board.Id}” is used twice.");
        void Shape(string place, IReadOnlyList<IReadOnlyList<double>>? corners, int least)
        {
            if (corners is null || corners.Count < least || !corners.All(IsPoint))
                report($"{at}.{place}", $"at least {least} corners [x, y] within {ProfileFormat.FurthestMm:0} mm.");
        }

        Shape("outline", board.Outline, 3);
        foreach (var (zone, i) in (board.Zones ?? []).Select((z, i) => (z, i)))
            Shape($"zones[{i}].polygon", zone.Polygon, 3);
        foreach (var (part, i) in (board.Parts ?? []).Select((p, i) => (p, i)))
            Shape($"parts[{i}].polygon", part.Polygon, 3);
        foreach (var (drawing, i) in (board.Drawings ?? []).Select((d, i) => (d, i)))
        foreach (var line in drawing.Lines)
            Shape($"drawings[{i}].lines", line, 2);
        var known = profile.Revisions.Select(r => r.Id).ToHashSet();
        foreach (var (one, i) in (board.Capacitors ?? []).Select((c, i) => (c, i)))
        {
            if (one.Pads is { } pads && !(IsPoint(pads.Plus) && IsPoint(pads.Minus)))
                report($"{at}.capacitors[{i}].pads", "two pads [x, y].");
            foreach (var lost in (one.Revisions ?? []).Where(r => !known.Contains(r)))
                report($"{at}.capacitors[{i}].revisions", $"there is no revision “{lost}”.");
            if (one.Part is { } part && profile.FindPart(part) is null)
                report($"{at}.capacitors[{i}].part", $"there is no part “{part}”.");
        }

        Nets(profile, all, board, at, report);
        foreach (var revision in known.DefaultIfEmpty(""))
            if (board.CapacitorsOf(revision).GroupBy(c => c.Refdes).FirstOrDefault(g => g.Count() > 1) is { } twice)
                report($"{at}.capacitors", $"“{twice.Key}” is there twice{(revision.Length > 0 ? $" in revision {revision}" : "")}.");
    }

    private static void Nets(DeviceProfile profile, IReadOnlyList<Board> all, Board board, string at, Action<string, string> report)
    {
        var points = new HashSet<string>();
        foreach (var (point, i) in (board.Points ?? []).Select((p, i) => (p, i)))
        {
            if (!points.Add(point.Id))
                report($"{at}.points[{i}].id", $"the point “{point.Id}” is there twice.");
            if (!IsPoint([point.X, point.Y]))
                report($"{at}.points[{i}]", $"a place within {ProfileFormat.FurthestMm:0} mm.");
            if (point.Mate is { } mate && !HasPoint(all, board, mate))
                report($"{at}.points[{i}].mate", $"there is no point “{mate}” on another board: it is written board/point.");
        }

        var (ids, owner) = (new HashSet<string>(), new Dictionary<string, string>());
        foreach (var (net, i) in (board.Nets ?? []).Select((n, i) => (n, i)))
        {
            if (!ids.Add(net.Id))
                report($"{at}.nets[{i}].id", $"the net “{net.Id}” is there twice.");
            if (net.Serves is { } part && profile.FindPart(part) is null)
                report($"{at}.nets[{i}].serves", $"there is no part “{part}”.");
            foreach (var lost in net.Points.Where(p => !points.Contains(p)))
                report($"{at}.nets[{i}].points", $"there is no point “{lost}”.");
            foreach (var twice in net.Points.Where(p => !owner.TryAdd(p, net.Id)))
                report($"{at}.nets[{i}].points", $"“{twice}” is on net “{owner[twice]}” already.");
            foreach (var odd in (net.Segments ?? []).Where(s => s is not [var a, var b] || a == b || !s.All(net.Points.Contains)))
                report($"{at}.nets[{i}].segments", $"“{string.Join(" - ", odd)}” does not join two points of the net.");
        }
    }

    private static bool HasPoint(IReadOnlyList<Board> all, Board board, string mate) =>
        mate.Split('/') is [var to, var id] && to != board.Id && all.FirstOrDefault(b => b.Id == to)?.Points?.Any(p => p.Id == id) == true;

    private static bool IsPoint(IReadOnlyList<double>? xy) =>
        xy is { Count: 2 } && xy.All(v => Math.Abs(v) <= ProfileFormat.FurthestMm);
}
