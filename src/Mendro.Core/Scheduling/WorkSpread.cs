namespace Mendro.Core.Scheduling;

/// <summary>Work that is still to come on something: its expected minutes, and how far they spread.</summary>
/// <param name="Minutes">Expected minutes, 0 or more.</param>
/// <param name="Sigma">Spread of their logarithm; 0 for certain.</param>
/// <param name="Wait">Days until it can begin for want of a part, 0 or more.</param>
/// <param name="WaitChance">Chance that it waits for a part at all, 0 to 1.</param>
public sealed record WorkSpread(double Minutes, double Sigma, double Wait = 0, double WaitChance = 0);

/// <summary>
/// Honest dates: the work of what goes before and of the thing itself is drawn many times, each lognormal about its expected minutes (the
/// usual shape of repair times: MIL-HDBK-472, 1966, procedure II), and laid into the open hours.
/// </summary>
public static class PromiseDate
{
    /// <summary>Draws.</summary>
    public const int Draws = 2000;

    /// <summary>Seed of the draws.</summary>
    public const int Seed = 1;

    /// <summary>Spread of the logarithm where own repairs do not tell another: one in six takes more than 1.8 times as long as expected
    /// (common practice, no source).</summary>
    public const double UsualSigma = 0.6;

    /// <summary>Open minutes until something is done, drawn and in order.</summary>
    /// <param name="before">What goes before it.</param>
    /// <param name="own">Its own work.</param>
    /// <param name="people">People, who share what goes before; 1 or more.</param>
    /// <param name="openMinutesADay">Open minutes of a day on the average, for parts that come in days.</param>
    public static double[] Drawn(IReadOnlyList<WorkSpread> before, WorkSpread own, int people, double openMinutesADay)
    {
        var random = new Random(Seed);
        var drawn = new double[Draws];
        for (var n = 0; n < Draws; n++)
        {
            var queue = before.Sum(w => Draw(random, w)) / Math.Max(1, people);
            var work = Draw(random, own);
            var waits = random.NextDouble() < own.WaitChance ? own.Wait * openMinutesADay : 0;
            drawn[n] = Math.Max(queue, waits) + work;
        }

        Array.Sort(drawn);
        return drawn;
    }

    /// <summary>Open minutes by which it is done with a certainty.</summary>
    /// <param name="drawn">Draws in order.</param>
    /// <param name="certainty">Certainty, above 0 and below 1.</param>
    public static double At(double[] drawn, double certainty) => drawn[Math.Clamp((int)Math.Ceiling(certainty * drawn.Length) - 1, 0, drawn.Length - 1)];

    /// <summary>Chance that it is done within open minutes.</summary>
    public static double Chance(double[] drawn, double openMinutes) => drawn.Count(d => d <= openMinutes) / (double)drawn.Length;

    private static double Draw(Random random, WorkSpread work)
    {
        if (work.Minutes <= 0)
            return 0;
        // Box and Muller, Annals of Mathematical Statistics 29, 1958. The mean of the draws is the expected minutes.
        var normal = Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        return work.Minutes * Math.Exp(work.Sigma * normal - work.Sigma * work.Sigma / 2);
    }
}
