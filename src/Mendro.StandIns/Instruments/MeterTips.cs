namespace Mendro.StandIns.Instruments;

/// <summary>What the tips of the stand-in meter touch: nothing, or a point with a true value.</summary>
public sealed class MeterTips(TimeProvider time)
{
    private readonly Lock _lock = new();
    private TipPoint? _point;
    private long _touchedAt;
    private TimeSpan _delay;

    /// <summary>Moves the tips to a point: lifted at once, on it after the delay that a hand needs.</summary>
    public void Reach(TipPoint point, TimeSpan delay)
    {
        lock (_lock)
            (_point, _touchedAt, _delay) = (point, time.GetTimestamp(), delay);
    }

    /// <summary>Lifts the tips.</summary>
    public void Lift()
    {
        lock (_lock)
            _point = null;
    }

    /// <summary>The point under the tips and how long they have been on it; null while they are lifted.</summary>
    public (TipPoint Point, TimeSpan For)? Touching()
    {
        lock (_lock)
        {
            if (_point is not { } point)
                return null;
            var since = time.GetElapsedTime(_touchedAt) - _delay;
            return since >= TimeSpan.Zero ? (point, since) : null;
        }
    }
}

/// <summary>A point as the meter finds it.</summary>
/// <param name="Function">SCPI node that gives the true value: VOLT, VOLT:AC, RES, CONT, DIOD, CAP or CURR.</param>
/// <param name="Value">True value in the SI base unit; null for an open circuit.</param>
public sealed record TipPoint(string Function, double? Value);
