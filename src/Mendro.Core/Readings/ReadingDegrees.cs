using Mendro.Core.Electrical;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>How far a reading is off (common practice, no source).</summary>
public static class ReadingDegrees
{
    /// <summary>Below this share of the lower limit a rail counts as missing.</summary>
    public const double MissingBelow = 0.1;

    /// <summary>Below this share of the lower limit it sags.</summary>
    public const double SaggingBelow = 0.78;

    /// <summary>Ohms from which a contact counts as open.</summary>
    public const double OpenFromOhms = 1000;

    /// <summary>The degree of a reading that is not as expected.</summary>
    /// <param name="probe">Probe it was taken at, with its limits filled in.</param>
    /// <param name="reading">The reading, or null when only good or bad was told.</param>
    public static ReadingDegree Of(Probe probe, Reading? reading)
    {
        if (reading is null || reading.Unit == ReadingUnit.Word)
            return ReadingDegree.Untold;
        var expect = probe.Expect;
        switch (probe.Kind)
        {
            case ProbeKind.Volts or ProbeKind.Current when reading.Value is { } value:
                // Of a negative rail the magnitude counts.
                var turned = expect.High < 0;
                var (low, high) = turned ? (-expect.High, -expect.Low) : (expect.Low, expect.High);
                var magnitude = turned ? -value : value;
                return low is { } least && magnitude < MissingBelow * least ? ReadingDegree.Missing
                    : low is { } wanted && magnitude < SaggingBelow * wanted ? ReadingDegree.Sagging
                    : magnitude < low ? ReadingDegree.Low
                    : magnitude > high ? ReadingDegree.High
                    : ReadingDegree.Untold;
            case ProbeKind.Continuity:
                return reading is { Unit: ReadingUnit.Ohms, Value: < OpenFromOhms } ? ReadingDegree.Resistive : ReadingDegree.Open;
            case ProbeKind.Ohms when reading.Unit is ReadingUnit.Beep && reading.Value > 0:
                return ReadingDegree.Short;
            case ProbeKind.Ohms or ProbeKind.Diode when reading.Unit is ReadingUnit.OverRange or ReadingUnit.Beep:
                return ReadingDegree.Open;
            case ProbeKind.Ohms when reading.Value is { } ohms:
                return ohms < expect.Low ? (ohms < BenchLimits.Shipped.ShortOhms ? ReadingDegree.Short : ReadingDegree.Low)
                    : ohms > expect.High ? (ohms >= 100 * expect.High ? ReadingDegree.Open : ReadingDegree.Resistive)
                    : ReadingDegree.Untold;
            case ProbeKind.Capacitance or ProbeKind.Diode when reading.Value is { } measured:
                return measured < expect.Low ? ReadingDegree.Low
                    : measured > expect.High ? ReadingDegree.High
                    : ReadingDegree.Untold;
            default:
                return ReadingDegree.Untold;
        }
    }
}
