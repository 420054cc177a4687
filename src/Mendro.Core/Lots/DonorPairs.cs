namespace Mendro.Core.Lots;

/// <summary>A like unit as recipient and as donor.</summary>
/// <param name="Number">Number of its job.</param>
/// <param name="Alone">Chance to cure it by itself, 0 to 1.</param>
/// <param name="Blame">Share of the blame of each part that comes off, 0 to 1; together at most 1.</param>
/// <param name="Good">Chance that each such part is good here, 0 to 1.</param>
/// <param name="Worth">What curing it adds, in any money that is the same for all; 1 each where that is not known.</param>
public sealed record DonorCandidate(
    long Number,
    double Alone,
    IReadOnlyDictionary<string, double> Blame,
    IReadOnlyDictionary<string, double> Good,
    double Worth = 1
);

/// <summary>A unit that gives its parts to another.</summary>
/// <param name="To">Unit that is cured.</param>
/// <param name="From">Unit that is taken apart for it.</param>
/// <param name="Chance">Chance to cure it with those parts, 0 to 1.</param>
/// <param name="Part">Part that is most likely to be the one.</param>
/// <param name="Before">Chance to cure the recipient by itself, 0 to 1.</param>
public sealed record Pairing(long To, long From, double Chance, string Part, double Before = 0);

/// <summary>
/// Which of several like units become donors of which, so that most is worth something in the end. A pair is worth the chance of its
/// recipient with the donor's parts, less the chances of both by themselves, each by what curing it adds: none is taken apart that is
/// worth more whole; pairs that do not share a unit are chosen for the greatest
/// sum: a matching of greatest weight (Edmonds, J. Res. NBS 69B, 1965).
/// </summary>
public static class DonorPairs
{
    /// <summary>Chance to cure a unit with the parts of another: by itself, and where that fails, by the part that is to blame, when it
    /// comes off and is good over there.</summary>
    public static double Chance(DonorCandidate to, DonorCandidate from) =>
        to.Alone + (1 - to.Alone) * Math.Min(1, to.Blame.Sum(b => b.Value * from.Good.GetValueOrDefault(b.Key)));

    /// <summary>The better way round of two units as a pair, and what it gains over leaving both; null when it gains nothing.</summary>
    public static (Pairing Pair, double Gain)? Best(DonorCandidate one, DonorCandidate other)
    {
        double Worth(DonorCandidate to, DonorCandidate from) => Chance(to, from) * to.Worth - to.Alone * to.Worth - from.Alone * from.Worth;
        var (to, from) = Worth(one, other) >= Worth(other, one) ? (one, other) : (other, one);
        var (chance, gain) = (Chance(to, from), Worth(to, from));
        if (gain <= 1e-9)
            return null;
        var part = to.Blame.OrderByDescending(b => b.Value * from.Good.GetValueOrDefault(b.Key)).ThenBy(b => b.Key, StringComparer.Ordinal);
        return (new Pairing(to.Number, from.Number, chance, part.First().Key, to.Alone), gain);
    }

    /// <summary>All pairs that gain something, by the places of their units.</summary>
    public static IReadOnlyList<(int One, int Other, Pairing Pair, double Gain)> All(IReadOnlyList<DonorCandidate> units) =>
        Enumerable
            .Range(0, units.Count)
            .SelectMany(i => Enumerable.Range(i + 1, units.Count - i - 1).Select(j => (One: i, Other: j, Best: Best(units[i], units[j]))))
            .Where(p => p.Best is not null)
            .Select(p => (p.One, p.Other, p.Best!.Value.Pair, p.Best.Value.Gain))
            .ToList();
}
