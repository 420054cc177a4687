using MathNet.Numerics.Distributions;

namespace Mendro.Core.Proving;

/// <summary>What a run of starts proves about an intermittent unit.</summary>
public static class StartRun
{
    /// <summary>
    /// Highest failure rate that the run leaves open: the one-sided Clopper–Pearson bound (Clopper and Pearson,
    /// Biometrika 1934), the quantile of a beta distribution.
    /// </summary>
    /// <param name="successes">Good starts, 0 or more; at least one start in all.</param>
    /// <param name="failures">Failed starts, 0 or more.</param>
    /// <param name="confidence">Confidence, between 0 and 1.</param>
    public static double UpperFailureRate(int successes, int failures, double confidence)
    {
        if (successes == 0)
            return 1;
        // Without a failure the bound has a closed form, more exact than the search for the quantile.
        if (failures == 0)
            return 1 - Math.Pow(1 - confidence, 1.0 / successes);
        return Beta.InvCDF(failures + 1, successes, confidence);
    }

    /// <summary>Good starts in a row, none failed, that show the rate to be no higher.</summary>
    /// <param name="maxFailureRate">Failure rate, between 0 and 1.</param>
    /// <param name="confidence">Confidence, between 0 and 1.</param>
    public static double StartsNeeded(double maxFailureRate, double confidence) =>
        Math.Ceiling(Math.Log(1 - confidence) / Math.Log(1 - maxFailureRate) - 1e-9);
}
