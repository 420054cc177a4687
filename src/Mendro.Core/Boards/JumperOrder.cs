using System.Numerics;

namespace Mendro.Core.Boards;

/// <summary>The order in which wires are soldered.</summary>
public static class JumperOrder
{
    // Beyond this many wires that warm one another the order is only good.
    private const int MostExact = 14;

    /// <summary>
    /// What is hidden under something comes first. Then wires whose joints warm one another are taken so that the fewest finished joints
    /// are warmed by one still to be heated (dynamic programming over what is left), and always the wires nearest to the last ones, so
    /// that a corner of the board is finished before the iron goes elsewhere.
    /// </summary>
    /// <param name="wires">Wires.</param>
    /// <param name="reheatMm">Distance within which a new joint warms an old one, mm.</param>
    /// <returns>Their indexes in order.</returns>
    public static IReadOnlyList<int> Of(IReadOnlyList<JumperWire> wires, double reheatMm)
    {
        var order = new List<int>();
        foreach (var hidden in (bool[])[true, false])
        {
            var own = Enumerable.Range(0, wires.Count).Where(n => (wires[n].From.Under ?? wires[n].To.Under) is not null == hidden).ToList();
            var clusters = Clusters(wires, own, reheatMm);
            // A joint that the wires after these warm anyway cannot be spared by their order.
            var after = hidden ? Enumerable.Range(0, wires.Count).Except(own).SelectMany(n => Ends(wires[n])).ToList() : [];
            while (clusters.Count > 0)
            {
                var next = order.Count == 0 ? clusters[0] : clusters.MinBy(c => c.Min(n => Apart(wires[order[^1]], wires[n])))!;
                order.AddRange(next.Count <= MostExact ? Best(wires, next, after, reheatMm) : Good(wires, next, reheatMm));
                clusters.Remove(next);
            }
        }

        return order;
    }

    /// <summary>Joints that are finished and warmed by a later one, in an order.</summary>
    public static int Warmed(IReadOnlyList<JumperWire> wires, IReadOnlyList<int> order, double reheatMm) =>
        order.Select((w, n) => Warmed(wires, w, order.Skip(n + 1), reheatMm)).Sum();

    private static int Warmed(IReadOnlyList<JumperWire> wires, int wire, IEnumerable<int> later, double reheatMm)
    {
        var others = later.SelectMany(n => Ends(wires[n])).ToList();
        return Ends(wires[wire]).Count(joint => others.Exists(o => joint.To(o) < reheatMm));
    }

    private static JumperPoint[] Ends(JumperWire wire) => [wire.From, wire.To];

    /// <summary>Distance between the nearest ends of two wires, mm.</summary>
    private static double Apart(JumperWire one, JumperWire other) => Ends(one).Min(a => Ends(other).Min(a.To));

    /// <summary>Wires that warm one another, over others too, stand together.</summary>
    private static List<List<int>> Clusters(IReadOnlyList<JumperWire> wires, List<int> own, double reheatMm)
    {
        var (clusters, left) = (new List<List<int>>(), own.ToList());
        while (left.Count > 0)
        {
            var cluster = new List<int> { left[0] };
            left.RemoveAt(0);
            for (var n = 0; n < cluster.Count; n++)
                foreach (var near in left.Where(o => Apart(wires[cluster[n]], wires[o]) < reheatMm).ToList())
                {
                    cluster.Add(near);
                    left.Remove(near);
                }

            clusters.Add(cluster);
        }

        return clusters;
    }

    private static IEnumerable<int> Best(IReadOnlyList<JumperWire> wires, List<int> cluster, List<JumperPoint> after, double reheatMm)
    {
        // For every joint of every wire: which wires would warm it.
        var warms = cluster
            .Select(w =>
                Ends(wires[w])
                    .Where(joint => !after.Exists(a => joint.To(a) < reheatMm))
                    .Select(joint =>
                        cluster.Select((o, n) => o != w && Ends(wires[o]).Any(e => joint.To(e) < reheatMm) ? 1 << n : 0).Sum()
                    )
                    .ToArray()
            )
            .ToList();
        var least = new int[1 << cluster.Count];
        var first = new int[1 << cluster.Count];
        for (var left = 1; left < least.Length; left++)
        {
            least[left] = int.MaxValue;
            for (var rest = left; rest != 0; rest &= rest - 1)
            {
                var n = BitOperations.TrailingZeroCount(rest);
                var later = left & ~(1 << n);
                var cost = least[later] + warms[n].Count(mask => (mask & later) != 0);
                if (cost < least[left])
                    (least[left], first[left]) = (cost, n);
            }
        }

        for (var left = least.Length - 1; left != 0; left &= ~(1 << first[left]))
            yield return cluster[first[left]];
    }

    /// <summary>From the end: the wire with the fewest neighbours among those that are left is the last of them.</summary>
    private static List<int> Good(IReadOnlyList<JumperWire> wires, List<int> cluster, double reheatMm)
    {
        var (left, order) = (cluster.ToList(), new List<int>());
        while (left.Count > 0)
        {
            var last = left.MinBy(w => left.Count(o => o != w && Apart(wires[w], wires[o]) < reheatMm));
            order.Insert(0, last);
            left.Remove(last);
        }

        return order;
    }
}
