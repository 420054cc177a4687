using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Readings;

/// <summary>What good units show at one probe.</summary>
/// <param name="Median">Median over the units, SI base unit; null when most of them are over range.</param>
/// <param name="Spread">Robust standard deviation: 1.4826 × median absolute deviation (Hampel, JASA 1974); 0 for one unit.</param>
/// <param name="Units">Number of good units.</param>
/// <param name="Lowest">Lowest value seen.</param>
/// <param name="Highest">Highest value seen.</param>
public sealed record Signature(double? Median, double Spread, int Units, double? Lowest, double? Highest)
{
    /// <summary>Up to so many spreads from the median a reading is alike.</summary>
    public const double LineInSpreads = 3;

    /// <summary>Makes the median absolute deviation of a normal distribution its standard deviation.</summary>
    public const double MadToSigma = 1.4826;

    // A few units that agree by chance would make anything else look wrong: meters and parts differ by some per cent.
    internal const double LeastRelativeSpread = 0.02;

    /// <summary>Puts the readings of good units together, one a unit; null stands for over range.</summary>
    /// <returns>The signature, or null without any reading.</returns>
    public static Signature? Of(IReadOnlyList<double?> readings)
    {
        if (readings.Count == 0)
            return null;
        var values = readings.OfType<double>().Order().ToList();
        if (values.Count * 2 <= readings.Count)
            return new Signature(null, 0, readings.Count, values.Count > 0 ? values[0] : null, values.Count > 0 ? values[^1] : null);
        var median = MedianOf(values);
        return new Signature(
            median,
            MadToSigma * MedianOf(values.Select(v => Math.Abs(v - median)).Order().ToList()),
            readings.Count,
            values[0],
            values[^1]
        );
    }

    /// <summary>Compares a reading: how many spreads it is away from the median.</summary>
    /// <param name="value">Reading in the SI base unit; null for over range.</param>
    /// <param name="kind">Kind of probe; sets how small a difference can mean anything (common practice, no source).</param>
    public SignatureMatch Compare(double? value, ProbeKind kind)
    {
        if (Median is not { } median || value is not { } v)
            return new(null, Median is null == value is null);
        var least = TradeLibrary.Of(kind).LeastDifference;
        var spread = Math.Max(Math.Max(Spread, least), LeastRelativeSpread * Math.Abs(median));
        var away =
            spread > 0 ? (v - median) / spread
            : v == median ? 0
            : double.PositiveInfinity * Math.Sign(v - median);
        return new(away, Math.Abs(away) <= LineInSpreads);
    }

    private static double MedianOf(List<double> sorted) =>
        sorted.Count % 2 == 1 ? sorted[sorted.Count / 2] : (sorted[sorted.Count / 2 - 1] + sorted[sorted.Count / 2]) / 2;
}

/// <summary>A reading beside the good units.</summary>
/// <param name="Spreads">How many spreads away it is, with sign; null when one of both is over range.</param>
/// <param name="Alike">True when it is like the good units: within three spreads, a spread being at least 2 % of the median and 0.1
/// Ω or 10 mV.</param>
public sealed record SignatureMatch(double? Spreads, bool Alike);
