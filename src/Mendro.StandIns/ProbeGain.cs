using Mendro.Core.Diagnosis;
using Mendro.StandIns.Physics;

namespace Mendro.StandIns;

/// <summary>What one more check saved on practice units of a model.</summary>
/// <param name="Units">Practice units worked on with and without it.</param>
/// <param name="MinutesSaved">Mean bench minutes saved a unit; below 0 when it cost some.</param>
/// <param name="StandardError">Standard error of that mean, minutes.</param>
public sealed record ProbeGain(int Units, double MinutesSaved, double StandardError)
{
    /// <summary>True when the saving stands clear of chance: more than two standard errors from nothing.</summary>
    public bool IsSure => Math.Abs(MinutesSaved) > 2 * StandardError;

    /// <summary>Works on practice units that obey physics, each from the baseline test to the end, by the advice's first move.</summary>
    /// <param name="model">Model.</param>
    /// <param name="units">Number of units, 1 or more.</param>
    /// <param name="seed">Seed; the same seed gives the same units, also with another check in the model.</param>
    /// <param name="step">Called after each unit, from any thread.</param>
    /// <param name="stop">Stops it.</param>
    /// <returns>Minutes of each unit.</returns>
    /// <exception cref="OperationCanceledException">It was stopped.</exception>
    public static IReadOnlyList<double> Work(DeviceModel model, int units, long seed, Action step, CancellationToken stop)
    {
        var minutes = new double[units];
        // One core is left to those who work meanwhile.
        var cores = Math.Max(1, Environment.ProcessorCount - 1);
        Parallel.For(
            0,
            units,
            new ParallelOptions { MaxDegreeOfParallelism = cores, CancellationToken = stop },
            n =>
            {
                minutes[n] = Simulation.Work(model, PhysicalUnit.Draw(model, seed, n, null), SimulatedPolicy.Advisor).Minutes;
                step();
            }
        );
        return minutes;
    }

    /// <summary>Compares the same units worked on with and without a check, pair by pair.</summary>
    public static ProbeGain Of(IReadOnlyList<double> without, IReadOnlyList<double> with)
    {
        var saved = without.Zip(with, (a, b) => a - b).ToList();
        var mean = saved.Average();
        var variance = saved.Count > 1 ? saved.Sum(s => (s - mean) * (s - mean)) / (saved.Count - 1) : 0;
        return new ProbeGain(saved.Count, mean, Math.Sqrt(variance / saved.Count));
    }
}
