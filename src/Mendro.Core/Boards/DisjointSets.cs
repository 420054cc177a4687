namespace Mendro.Core.Boards;

/// <summary>Numbers from 0 that are joined set by set; each set is told by its lowest number (Tarjan, Journal of the ACM 22, 1975).</summary>
internal sealed class DisjointSets(int count)
{
    private readonly int[] _root = Enumerable.Range(0, count).ToArray();

    /// <summary>The number that stands for the set of another.</summary>
    public int Root(int n) => _root[n] == n ? n : (_root[n] = Root(_root[n]));

    /// <summary>Joins two sets; false when they were one already.</summary>
    public bool Join(int a, int b)
    {
        var (x, y) = (Root(a), Root(b));
        _root[Math.Max(x, y)] = Math.Min(x, y);
        return x != y;
    }
}
