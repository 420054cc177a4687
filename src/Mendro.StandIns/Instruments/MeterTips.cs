namespace Mendro.StandIns.Instruments;

/// <summary>What the tips of the stand-in meter touch: nothing, or a point with a true value.</summary>
public sealed class MeterTips(TimeProvider time)
{
    /// <summary>Readings for which the tips are in the air at least: a busy machine must see them lifted too.</summary>
    private const int LeastLifted = 5;

    private readonly Lock _lock = new();
    private TipPoint? _point;
    private int _lifted;
    private long _touchedAt;
    private TimeSpan _delay;

    /// <summary>Moves the tips to a point: lifted at once and for some readings, on it after the delay that a hand needs.</summary>
    /// <param name="point">Where to.</param>
    /// <param name="delay">How long the hand needs; zero when the tips are on the point already.</param>
    public void Reach(TipPoint point, TimeSpan delay)
    {
        lock (_lock)
            (_point, _touchedAt, _delay, _lifted) = (point, time.GetTimestamp(), delay, delay > TimeSpan.Zero ? LeastLifted : 0);
    }

    /// <summary>Lifts the tips.</summary>
    public void Lift()
    {
        lock (_lock)
            _point = null;
    }

    /// <summary>The point under the tips and how long they have been on it; null while they are lifted. Asked once a
    /// reading.</summary>
    public (TipPoint Point, TimeSpan For)? Touching()
    {
        lock (_lock)
        {
            if (_point is not { } point)
                return null;
            if (_lifted > 0)
            {
                // The hand waits in the air: from here its delay counts anew when it is over already.
                _lifted--;
                if (time.GetElapsedTime(_touchedAt) >= _delay)
                    _touchedAt = time.GetTimestamp() - (long)(_delay.TotalSeconds * time.TimestampFrequency);
                return null;
            }

            var since = time.GetElapsedTime(_touchedAt) - _delay;
            return since >= TimeSpan.Zero ? (point, since) : null;
        }
    }
}

/// <summary>A point as the meter finds it.</summary>
/// <param name="Function">SCPI node that gives the true value: VOLT, VOLT:AC, RES, CONT, DIOD, CAP or CURR.</param>
/// <param name="Value">True value in the SI base unit; null for an open circuit.</param>
public sealed record TipPoint(string Function, double? Value);
