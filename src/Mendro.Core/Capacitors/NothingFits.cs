using Mendro.Core.Profiles;

namespace Mendro.Core.Capacitors;

/// <summary>Why no part goes with a position, and what comes nearest.</summary>
public static class NothingFits
{
    private const int MostForPairs = 80;

    /// <summary>In words: what is in the way, the nearest single part, and two in parallel where they make the value.</summary>
    /// <param name="position">Position.</param>
    /// <param name="parts">Parts to choose from.</param>
    public static string Say(BoardCapacitor position, IReadOnlyList<CapacitorPart> parts)
    {
        if (position.Farads is not { } farads)
            return "nothing fits: its value is not told";
        var sort = parts.Where(p => CapacitorMatch.HasPolarity(position, p) && CapacitorMatch.HasLegs(position, p)).ToList();
        var standing = sort.Where(p => position.Volts is not { } volts || CapacitorMatch.Bears(p, volts)).ToList();
        var same = sort.Where(p => CapacitorMatch.HasValue(p, farads)).ToList();
        var why =
            sort.Count == 0 ? position.Polar ? "no part of that sort is known" : "no bipolar one is known"
            : same.Count == 0 ? $"nothing within {CapacitorMatch.ValueTolerance * 100:0} % of {CapacitorPart.Value(farads)} is known"
            : same.Select(p => CapacitorMatch.Judge(position, p).Problem).FirstOrDefault(p => p is not null) ?? "no size goes in";
        var near = same.Concat(standing).OrderBy(p => Math.Abs(Math.Log(p.Farads / farads))).ThenBy(p => p.Volts).FirstOrDefault();
        return $"nothing fits: {why}"
            + (near is null ? "" : $"; nearest {near.Words}")
            + (Pair(farads, standing) is var (one, other) ? $"; two in parallel where there is room: {one.Words} and {other.Words}" : "");
    }

    /// <summary>Two parts whose values add up within the tolerance, the nearest pair; parallel capacitors add.</summary>
    private static (CapacitorPart, CapacitorPart)? Pair(double farads, IReadOnlyList<CapacitorPart> parts)
    {
        var near = parts.Where(p => p.Farads < farads).OrderByDescending(p => p.Farads).ThenBy(p => p.Volts).Take(MostForPairs).ToList();
        (CapacitorPart, CapacitorPart)? best = null;
        var off = CapacitorMatch.ValueTolerance;
        foreach (var one in near)
        foreach (var other in near)
            if (Math.Abs((one.Farads + other.Farads) / farads - 1) is var away && away < off - 1e-9)
                (best, off) = ((one, other), away);
        return best;
    }
}
