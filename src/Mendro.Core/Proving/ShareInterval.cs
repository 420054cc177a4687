using MathNet.Numerics.Distributions;

namespace Mendro.Core.Proving;

/// <summary>A share that was counted, with what the count leaves open.</summary>
/// <param name="Count">How many of them, 0 to <paramref name="Of"/>.</param>
/// <param name="Of">Of how many, 0 or more.</param>
/// <param name="Low">Lower end, 0 to 1.</param>
/// <param name="High">Upper end, 0 to 1.</param>
public sealed record ShareInterval(int Count, int Of, double Low, double High)
{
    /// <summary>The share as counted, 0 to 1; 0 where nothing was.</summary>
    public double Share => Of == 0 ? 0 : (double)Count / Of;

    /// <summary>
    /// Two-sided Clopper–Pearson interval (Clopper and Pearson, Biometrika 1934): quantiles of beta distributions. It covers the true
    /// share at least as often as it says; of nothing counted it is 0 to 1.
    /// </summary>
    /// <param name="count">How many, 0 to <paramref name="of"/>.</param>
    /// <param name="of">Of how many.</param>
    /// <param name="confidence">Confidence, between 0 and 1.</param>
    public static ShareInterval Make(int count, int of, double confidence = 0.9)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(count);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(count, of);
        var tail = (1 - confidence) / 2;
        return new ShareInterval(
            count,
            of,
            count == 0 ? 0 : Beta.InvCDF(count, of - count + 1, tail),
            count == of ? 1 : Beta.InvCDF(count + 1, of - count, 1 - tail)
        );
    }
}
