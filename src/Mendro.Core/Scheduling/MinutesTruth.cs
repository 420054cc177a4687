namespace Mendro.Core.Scheduling;

/// <summary>A piece of work that was done.</summary>
/// <param name="Method">Method.</param>
/// <param name="Expected">Minutes it was expected to take, above 0.</param>
/// <param name="Taken">Minutes it took, above 0.</param>
public sealed record WorkDone(string Method, double Expected, double Taken);

/// <summary>How expected minutes turned out for a method, whoever did it.</summary>
/// <param name="Method">Method; blank for all of them.</param>
/// <param name="Times">How often it was done.</param>
/// <param name="Factor">Minutes taken to minutes expected: the median, drawn to that of all methods while there are few.</param>
/// <param name="Sigma">Spread of the logarithm of that, from the median absolute deviation.</param>
public sealed record MinutesTruth(string Method, int Times, double Factor, double Sigma)
{
    // So many repairs weigh as much as what all other methods say.
    private const double Prior = 5;

    // What makes the median absolute deviation of a normal spread its standard deviation (Hampel, JASA 69, 1974).
    private const double MadToSigma = 1.4826;

    // Deviations of fewer say nothing.
    private const int FewestForSpread = 4;

    private const double LeastSigma = 0.1;
    private const double MostSigma = 1.2;

    /// <summary>By method, the most often done first; the last line is of all.</summary>
    public static IReadOnlyList<MinutesTruth> Of(IEnumerable<WorkDone> done)
    {
        var known = done.Where(d => d is { Expected: > 0, Taken: > 0 }).Select(d => (d.Method, Log: Math.Log(d.Taken / d.Expected))).ToList();
        var all = known.Select(k => k.Log).ToList();
        var (middle, spread) = (all.Count == 0 ? 0 : Median(all) * all.Count / (all.Count + Prior), Spread(all, PromiseDate.UsualSigma));
        return
        [
            .. known
                .GroupBy(k => k.Method)
                .Select(g =>
                {
                    var logs = g.Select(k => k.Log).ToList();
                    var share = logs.Count / (logs.Count + Prior);
                    return new MinutesTruth(g.Key, logs.Count, Math.Exp(share * Median(logs) + (1 - share) * middle), Spread(logs, spread));
                })
                .OrderByDescending(t => t.Times)
                .ThenBy(t => t.Method, StringComparer.Ordinal),
            new MinutesTruth("", all.Count, Math.Exp(middle), spread),
        ];
    }

    /// <summary>Median of some values; of an even number the mean of the middle two.</summary>
    public static double Median(IReadOnlyList<double> values)
    {
        var sorted = values.Order().ToList();
        return sorted.Count % 2 == 1 ? sorted[sorted.Count / 2] : (sorted[sorted.Count / 2 - 1] + sorted[sorted.Count / 2]) / 2;
    }

    private static double Spread(IReadOnlyList<double> logs, double usual)
    {
        if (logs.Count < FewestForSpread)
            return usual;
        var middle = Median(logs);
        return Math.Clamp(MadToSigma * Median(logs.Select(l => Math.Abs(l - middle)).ToList()), LeastSigma, MostSigma);
    }
}
