using Mendro.Core.Scheduling;

namespace Mendro.Solver;

/// <summary>
/// Betters an order by moving one task at a time before or behind others, and keeps what is no worse than what stood some tries ago (late
/// acceptance, Burke and Bykov, European Journal of Operational Research 258, 2017). The same seed tries the same moves.
/// </summary>
internal static class OrderSearch
{
    private const int Memory = 200;
    private const int Seed = 1;

    // One look at the clock for so many tries.
    private const int PerLook = 64;

    /// <summary>Searches.</summary>
    /// <param name="load">Workload.</param>
    /// <param name="decoder">Decoder of it.</param>
    /// <param name="from">Order to begin with.</param>
    /// <param name="tries">Most tries.</param>
    /// <param name="until">True when the time is up.</param>
    /// <returns>The best order.</returns>
    public static int[] Better(Workload load, OrderDecoder decoder, int[] from, int tries, Func<bool> until)
    {
        if (from.Length < 2)
            return from;
        var random = new Random(Seed);
        var order = (int[])from.Clone();
        var now = load.Value(decoder.Starts(order));
        var (best, bestOrder) = (now, (int[])order.Clone());
        var past = new double[Memory];
        Array.Fill(past, now);
        for (var n = 0; n < tries && best > 0 && (n % PerLook != 0 || !until()); n++)
        {
            var (one, other) = (random.Next(order.Length), random.Next(order.Length));
            Move(order, one, other);
            var value = load.Value(decoder.Starts(order));
            if (value <= now || value <= past[n % Memory])
            {
                now = value;
                if (value < best)
                {
                    best = value;
                    Array.Copy(order, bestOrder, order.Length);
                }
            }
            else
                Move(order, other, one);
            past[n % Memory] = now;
        }

        return bestOrder;
    }

    private static void Move(int[] order, int from, int to)
    {
        var task = order[from];
        if (from < to)
            Array.Copy(order, from + 1, order, from, to - from);
        else
            Array.Copy(order, to, order, to + 1, from - to);
        order[to] = task;
    }
}
