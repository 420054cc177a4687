namespace Mendro.Core;

/// <summary>Slips of the finger.</summary>
public static class Spelling
{
    /// <summary>True when two words differ by one letter too many, too few, wrong, or two that changed places.</summary>
    public static bool IsSlip(string one, string other)
    {
        var n = 0;
        while (n < one.Length && n < other.Length && one[n] == other[n])
            n++;
        var (a, b) = (one[n..], other[n..]);
        if (a.Length == b.Length)
            return a.Length > 0 && (a[1..] == b[1..] || a.Length > 1 && a[0] == b[1] && a[1] == b[0] && a[2..] == b[2..]);
        return a.Length > b.Length ? a[1..] == b : b[1..] == a;
    }
}
