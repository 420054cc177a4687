namespace Mendro.Core.Scheduling;

/// <summary>How much of something that takes several at once is taken, over time.</summary>
internal sealed class Occupancy(int capacity)
{
    // Taken from each time on until the next; before the first nothing is.
    private double[] _at = new double[16];
    private int[] _taken = new int[16];
    private int _count;

    /// <summary>Becomes as another stands.</summary>
    public void Become(Occupancy other)
    {
        if (_at.Length < other._count)
            (_at, _taken) = (new double[other._at.Length], new int[other._at.Length]);
        Array.Copy(other._at, _at, other._count);
        Array.Copy(other._taken, _taken, other._count);
        _count = other._count;
    }

    /// <summary>Takes some of it for a time.</summary>
    public void Take(double from, double to, int count)
    {
        if (to <= from)
            return;
        var first = Mark(from);
        var last = Mark(to);
        for (var n = first; n < last; n++)
            _taken[n] += count;
    }

    /// <summary>First time from one on at which it is free for as long as wanted.</summary>
    public double Free(double from, double length)
    {
        if (length <= 0)
            return from;
        var start = from;
        for (var n = Math.Max(0, Before(from)); n < _count && _at[n] < start + length; n++)
            if (_taken[n] >= capacity && n + 1 < _count && _at[n + 1] > start)
                start = _at[n + 1];
        return start;
    }

    // Index of the last mark at or before a time, or -1.
    private int Before(double time)
    {
        var n = Array.BinarySearch(_at, 0, _count, time);
        return n >= 0 ? n : ~n - 1;
    }

    private int Mark(double time)
    {
        var n = Before(time);
        if (n >= 0 && _at[n] == time)
            return n;
        if (_count == _at.Length)
        {
            Array.Resize(ref _at, 2 * _count);
            Array.Resize(ref _taken, 2 * _count);
        }

        n++;
        Array.Copy(_at, n, _at, n + 1, _count - n);
        Array.Copy(_taken, n, _taken, n + 1, _count - n);
        (_at[n], _taken[n]) = (time, n == 0 ? 0 : _taken[n - 1]);
        _count++;
        return n;
    }
}
