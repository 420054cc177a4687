using Mendro.Core.Proving;

namespace Mendro.Core.Offers;

/// <summary>A chance that was given, and what came of it.</summary>
/// <param name="Chance">Chance, 0 to 1.</param>
/// <param name="CameTrue">True when it happened.</param>
public sealed record Forecast(double Chance, bool CameTrue);

/// <summary>Chances of about the same size together.</summary>
/// <param name="From">Smallest chance of the group, 0 to 1.</param>
/// <param name="To">Largest.</param>
/// <param name="Said">Mean of the chances given.</param>
/// <param name="Came">How many came true, with their 90 % interval.</param>
public sealed record CalibrationGroup(double From, double To, double Said, ShareInterval Came)
{
    /// <summary>True when what was said lies outside what came: too high or too low by more than luck.</summary>
    public bool IsOff => Said < Came.Low || Said > Came.High;
}

/// <summary>How true the chances given were.</summary>
/// <param name="Count">Forecasts.</param>
/// <param name="Brier">Mean squared error: 0 is perfect, 0.25 is what always saying one half comes to (Brier, Monthly Weather Review 78,
/// 1950).</param>
/// <param name="Reliability">Its part that comes of chances being off (Murphy, J. Applied Meteorology 12, 1973); 0 is perfect.</param>
/// <param name="Resolution">How far the groups part from the mean; more is better.</param>
/// <param name="Uncertainty">The part that lies in the matter itself.</param>
/// <param name="Groups">Groups that hold any.</param>
public sealed record Calibration(
    int Count,
    double Brier,
    double Reliability,
    double Resolution,
    double Uncertainty,
    IReadOnlyList<CalibrationGroup> Groups
)
{
    private const int Bins = 10;

    /// <summary>Works it out; the three parts make the score up to the spread of chances within a group.</summary>
    /// <returns>Null without forecasts.</returns>
    public static Calibration? Of(IReadOnlyList<Forecast> forecasts)
    {
        if (forecasts.Count == 0)
            return null;
        var n = (double)forecasts.Count;
        var mean = forecasts.Count(f => f.CameTrue) / n;
        var groups = forecasts
            .GroupBy(f => Math.Min(Bins - 1, (int)(Math.Clamp(f.Chance, 0, 1) * Bins)))
            .OrderBy(g => g.Key)
            .Select(g => new CalibrationGroup(
                (double)g.Key / Bins,
                (g.Key + 1.0) / Bins,
                g.Average(f => f.Chance),
                ShareInterval.Make(g.Count(f => f.CameTrue), g.Count())
            ))
            .ToList();
        return new Calibration(
            forecasts.Count,
            forecasts.Average(f => Math.Pow(f.Chance - (f.CameTrue ? 1 : 0), 2)),
            groups.Sum(g => g.Came.Of * Math.Pow(g.Said - g.Came.Share, 2)) / n,
            groups.Sum(g => g.Came.Of * Math.Pow(g.Came.Share - mean, 2)) / n,
            mean * (1 - mean),
            groups
        );
    }

    /// <summary>
    /// How often words of sellers hold: the mean of a Beta that stands at first for a few held of a few (common practice, no source).
    /// </summary>
    /// <param name="held">Claims that held.</param>
    /// <param name="of">Claims that were looked into.</param>
    public static double Trust(int held, int of) => (FirstHeld + held) / (FirstOf + of);

    private const double FirstHeld = 7;
    private const double FirstOf = 10;
}
