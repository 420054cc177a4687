using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// How a reading that is off divides into degrees, and which faults show in which degree (common practice, no source). The
/// finding stays one: “off, and this far” takes the place of the plain “off”, as a look takes the place of the plain failure.
/// </summary>
public static class DegreeShares
{
    /// <summary>Share of the bad readings under a fault that have this degree, 0 to 1; of a fault's degrees the sum is 1 at most.</summary>
    /// <param name="probe">Probe.</param>
    /// <param name="mode">Failure mode that shows there.</param>
    /// <param name="source">True when the part makes the volts itself, as cells do.</param>
    /// <param name="degree">Degree.</param>
    public static double Share(Probe probe, FailureMode mode, bool source, ReadingDegree degree)
    {
        if (degree == ReadingDegree.Untold)
            return 1;
        var (missing, sagging, low, high) = (probe.Kind, probe.Rail, mode.Effect) switch
        {
            (ProbeKind.Volts or ProbeKind.Current, _, ModeEffect.Short) => (0.35, 0.5, 0.14, 0.01),
            (ProbeKind.Volts or ProbeKind.Current, _, ModeEffect.Degraded) => (0.06, 0.42, 0.47, 0.05),
            (ProbeKind.Volts or ProbeKind.Current, _, ModeEffect.Intermittent) => (0.55, 0.2, 0.24, 0.01),
            (ProbeKind.Volts or ProbeKind.Current, _, _) when source => (0.35, 0.4, 0.24, 0.01),
            (ProbeKind.Volts or ProbeKind.Current, _, ModeEffect.Dead) => (0.74, 0.1, 0.06, 0.1),
            // A crust or dirt is a resistance; what is broken passes nothing.
            (ProbeKind.Volts or ProbeKind.Current, _, _) when mode.Resistive => (0.5, 0.26, 0.23, 0.01),
            (ProbeKind.Volts or ProbeKind.Current, _, _) => (0.93, 0.05, 0.015, 0.005),
            _ => (0.0, 0.0, 0.0, 0.0),
        };
        if (missing > 0)
            return degree switch
            {
                ReadingDegree.High => Math.Max(high, mode.TooHigh),
                ReadingDegree.Missing => missing * (1 - mode.TooHigh),
                ReadingDegree.Sagging => sagging * (1 - mode.TooHigh),
                ReadingDegree.Low => low * (1 - mode.TooHigh),
                _ => 0.01,
            };
        return (degree, mode.Effect) switch
        {
            (ReadingDegree.Short, ModeEffect.Short) => 0.85,
            (ReadingDegree.Short, _) => 0.1,
            (ReadingDegree.Low, ModeEffect.Short) => 0.15,
            (ReadingDegree.Open, ModeEffect.Open) => mode.Resistive ? 0.6 : 0.93,
            (ReadingDegree.Open, _) => 0.5,
            (ReadingDegree.Resistive, ModeEffect.Open) => mode.Resistive ? 0.4 : 0.07,
            (ReadingDegree.Resistive, ModeEffect.Degraded) => 0.8,
            (ReadingDegree.Low, ModeEffect.Degraded) => 0.9,
            _ => 0.45,
        };
    }

    /// <summary>Share of the bad readings by bench error that have this degree.</summary>
    public static double LeakShare(Probe probe, ReadingDegree degree) =>
        (probe.Kind, degree) switch
        {
            (_, ReadingDegree.Untold) => 1,
            (ProbeKind.Volts or ProbeKind.Current, ReadingDegree.Missing) => 0.25,
            (_, ReadingDegree.Short) => 0.06,
            (_, ReadingDegree.Open) => 0.4,
            _ => 0.35,
        };
}
