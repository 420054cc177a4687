namespace Mendro.Web.Meter;

/// <summary>Pages that want the one meter: the newest has it, and when it goes the one before has it again.</summary>
public sealed class MeterQueue
{
    private readonly Lock _lock = new();
    private readonly SortedSet<long> _waiting = [];
    private long _last;

    /// <summary>Asks for the meter.</summary>
    /// <returns>The ticket of this page.</returns>
    public long Take()
    {
        lock (_lock)
        {
            _waiting.Add(++_last);
            return _last;
        }
    }

    /// <summary>True while this page has the meter.</summary>
    public bool IsFirst(long ticket)
    {
        lock (_lock)
            return _waiting.Count > 0 && _waiting.Max == ticket;
    }

    /// <summary>The page has gone.</summary>
    public void Leave(long ticket)
    {
        lock (_lock)
            _waiting.Remove(ticket);
    }
}
