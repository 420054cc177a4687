using Mendro.Core.Quantities;

namespace Mendro.Core.Readings;

/// <summary>What a stream of samples amounts to at this moment.</summary>
public enum SteadyState
{
    /// <summary>The value still moves, or has not been watched long enough.</summary>
    Moving,

    /// <summary>Nothing is connected: over range, or a volts input that wanders by itself.</summary>
    Open,

    /// <summary>The value stands still, but the tips have not been lifted since the last reading was taken.</summary>
    Held,

    /// <summary>The value has just stood still long enough: take it. Said once a touch.</summary>
    Accepted,
}

/// <summary>
/// Decides when a metered value may be taken without a hand. A value counts when it stayed within the tolerance for the
/// hold time, and only after the tips were lifted: the old point must not answer for the new one. An open circuit looks
/// like lifted tips, so it is never taken by itself. Near zero volts a floating input is told from a dead point by its
/// wandering, and has to stand still twice as long (common practice, no source).
/// </summary>
public sealed class SteadyWatch
{
    private const double RelativeTolerance = 0.005;
    private const double NearZeroVolts = 0.05;

    // Fewer, and a slow meter or a busy machine could make two readings far apart look like standing still.
    private const int LeastSamples = 3;

    private readonly TimeSpan _hold;
    private readonly List<(TimeSpan At, double Value)> _window = [];
    private bool _armed;

    /// <summary>Begins to watch.</summary>
    /// <param name="hold">How long the value must stand still; a second is usual.</param>
    /// <param name="armed">True when the tips are known to be lifted.</param>
    public SteadyWatch(TimeSpan hold, bool armed = false) => (_hold, _armed) = (hold, armed);

    /// <summary>Takes one sample.</summary>
    /// <param name="at">Time of the sample on any steady clock.</param>
    /// <param name="unit">What is measured.</param>
    /// <param name="value">Value in the SI base unit; null when over range.</param>
    public SteadyState Step(TimeSpan at, ReadingUnit unit, double? value)
    {
        if (value is not { } v)
        {
            _window.Clear();
            _armed = true;
            return SteadyState.Open;
        }

        _window.Add((at, v));
        // One sample older than needed is kept, so that the window really spans the longest hold.
        var longest = _hold * 2;
        while (_window.Count > 2 && _window[1].At <= at - longest)
            _window.RemoveAt(0);
        var need = unit == ReadingUnit.Volts && Math.Abs(v) < NearZeroVolts ? longest : _hold;
        // From the last sample before the hold began on, so that the window spans all of it.
        var from = Math.Max(0, _window.FindLastIndex(s => s.At <= at - need));
        var held = _window.Skip(from).ToList();
        var spans = _window[from].At <= at - need && held.Count >= LeastSamples;
        var (low, high) = (held.Min(s => s.Value), held.Max(s => s.Value));
        if (high - low > Tolerance(unit, (high + low) / 2))
        {
            // Moving is not lifting yet: tips that slide about on a point do not arm. Wandering about zero does.
            if (unit is ReadingUnit.Volts or ReadingUnit.DiodeVolts && Math.Abs(v) < NearZeroVolts)
                _armed = true;
            return _armed && Math.Abs(v) < NearZeroVolts && unit == ReadingUnit.Volts ? SteadyState.Open : SteadyState.Moving;
        }

        if (!spans)
            return SteadyState.Moving;
        if (!_armed)
            return SteadyState.Held;
        _armed = false;
        return SteadyState.Accepted;
    }

    /// <summary>Largest spread of a value that stands still, in its unit.</summary>
    public static double Tolerance(ReadingUnit unit, double value) =>
        Math.Max(
            RelativeTolerance * Math.Abs(value),
            unit switch
            {
                ReadingUnit.Volts => 0.004,
                ReadingUnit.DiodeVolts => 0.004,
                ReadingUnit.Ohms => 0.1,
                ReadingUnit.Farads => 20e-12,
                ReadingUnit.Amps => 0.0005,
                _ => 0,
            }
        );
}
