namespace Mendro.Core.Diagnosis;

/// <summary>One fault as an operator on distributions over the sets of findings explained so far.</summary>
internal sealed record FrontierStep(
    int Fault,
    double Without,
    double With,
    double[] OpenedLeaks,
    (int Bit, double Q)[] Bits,
    int[] ClosedBits,
    int Width
)
{
    /// <summary>Takes the newly opened findings into the state; a leak may already explain them.</summary>
    public double[] Expand(double[] state)
    {
        foreach (var leak in OpenedLeaks)
        {
            var size = state.Length;
            var wider = new double[size * 2];
            for (var s = 0; s < size; s++)
            {
                wider[s] = state[s] * (1 - leak);
                wider[s + size] = state[s] * leak;
            }

            state = wider;
        }

        return state;
    }

    /// <summary>Undoes <see cref="Expand"/> for the backward pass.</summary>
    public double[] Unexpand(double[] state)
    {
        for (var n = OpenedLeaks.Length - 1; n >= 0; n--)
        {
            var size = state.Length / 2;
            var narrower = new double[size];
            for (var s = 0; s < size; s++)
                narrower[s] = (1 - OpenedLeaks[n]) * state[s] + OpenedLeaks[n] * state[s + size];
            state = narrower;
        }

        return state;
    }

    /// <summary>The fault is absent, or it is there and explains what it happens to explain.</summary>
    public double[] Apply(double[] state, double factor)
    {
        var caused = (double[])state.Clone();
        foreach (var (bit, q) in Bits)
        {
            var mask = 1 << bit;
            for (var s = 0; s < caused.Length; s++)
            {
                if ((s & mask) != 0)
                    continue;
                var moved = caused[s] * q;
                caused[s | mask] += moved;
                caused[s] *= 1 - q;
            }
        }

        var weight = With * factor;
        for (var s = 0; s < caused.Length; s++)
            caused[s] = Without * state[s] + weight * caused[s];
        return caused;
    }

    /// <summary>The transposed operator of the fault when present, for the backward pass.</summary>
    public double[] Transposed(double[] state)
    {
        var caused = (double[])state.Clone();
        foreach (var (bit, q) in Bits)
        {
            var mask = 1 << bit;
            for (var s = 0; s < caused.Length; s++)
                if ((s & mask) == 0)
                    caused[s] = (1 - q) * caused[s] + q * caused[s | mask];
        }

        return caused;
    }

    /// <summary>Keeps only the states in which every finding that closes here is explained.</summary>
    public double[] Project(double[] state)
    {
        foreach (var bit in ClosedBits)
        {
            var narrower = new double[state.Length / 2];
            var low = (1 << bit) - 1;
            for (var s = 0; s < narrower.Length; s++)
                narrower[s] = state[((s & ~low) << 1) | (1 << bit) | (s & low)];
            state = narrower;
        }

        return state;
    }

    /// <summary>Undoes <see cref="Project"/> for the backward pass.</summary>
    public double[] Unproject(double[] state)
    {
        for (var n = ClosedBits.Length - 1; n >= 0; n--)
        {
            var bit = ClosedBits[n];
            var low = (1 << bit) - 1;
            var wider = new double[state.Length * 2];
            for (var s = 0; s < state.Length; s++)
                wider[((s & ~low) << 1) | (1 << bit) | (s & low)] = state[s];
            state = wider;
        }

        return state;
    }
}
