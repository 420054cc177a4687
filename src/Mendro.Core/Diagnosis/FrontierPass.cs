namespace Mendro.Core.Diagnosis;

/// <summary>
/// Forward and backward pass over one group of faults that share present findings. The state is the set of open
/// findings already explained; each fault is an operator on distributions over such sets.
/// </summary>
internal sealed class FrontierPass
{
    private readonly Step[] _steps;
    private readonly double[][] _before;
    private readonly double[][] _after;
    private readonly double[] _total;
    private readonly double[] _scale;
    private readonly Dictionary<int, int> _stepOf = [];

    private FrontierPass(Step[] steps, long stateCount)
    {
        _steps = steps;
        StateCount = stateCount;
        _before = new double[steps.Length][];
        _after = new double[steps.Length][];
        _total = new double[steps.Length];
        _scale = new double[steps.Length];
        for (var k = 0; k < steps.Length; k++) _stepOf[steps[k].Fault] = k;
    }

    /// <summary>Number of states over all steps; memory and time grow with it.</summary>
    public long StateCount { get; }

    /// <summary>Natural logarithm of the probability of this group's evidence.</summary>
    public double LogEvidence { get; private set; }

    /// <summary>Orders the faults so that few findings are open at once, and lays out the steps.</summary>
    public static FrontierPass Plan(
        IReadOnlyList<int> faults, IReadOnlyDictionary<int, double> leaks,
        Func<int, List<(int Index, double Q)>> linksOf, Func<int, (double Without, double With)> weightOf)
    {
        var remaining = leaks.Keys.ToDictionary(f => f, _ => 0);
        foreach (var fault in faults)
            foreach (var (finding, _) in linksOf(fault)) remaining[finding]++;

        var waiting = faults.ToList();
        var frontier = new List<int>();
        var steps = new List<Step>(faults.Count);
        long states = 0;
        while (waiting.Count > 0)
        {
            var best = waiting[0];
            var bestCost = int.MaxValue;
            foreach (var fault in waiting)
            {
                var cost = 0;
                foreach (var (finding, _) in linksOf(fault))
                {
                    if (!frontier.Contains(finding)) cost++;
                    if (remaining[finding] == 1) cost--;
                }

                if (cost >= bestCost) continue;
                (best, bestCost) = (fault, cost);
            }

            waiting.Remove(best);
            var links = linksOf(best);
            var opened = new List<double>();
            foreach (var (finding, _) in links)
            {
                if (frontier.Contains(finding)) continue;
                frontier.Add(finding);
                opened.Add(leaks[finding]);
            }

            var width = frontier.Count;
            states += 1L << Math.Min(width, 40);
            var bits = links.Select(l => (frontier.IndexOf(l.Index), l.Q)).ToArray();
            var closed = new List<int>();
            foreach (var (finding, _) in links)
                if (--remaining[finding] == 0) closed.Add(frontier.IndexOf(finding));
            // From the highest bit down, so that the lower positions stay valid while bits are taken out.
            closed.Sort((a, b) => b.CompareTo(a));
            foreach (var position in closed) frontier.RemoveAt(position);
            var (without, with) = weightOf(best);
            steps.Add(new Step(best, without, with, [.. opened], bits, [.. closed], width));
        }

        return new FrontierPass([.. steps], states);
    }

    /// <summary>Runs both passes and writes the posterior of each fault of the group.</summary>
    /// <returns>False when the evidence is impossible.</returns>
    public bool Run(double[] posteriors)
    {
        var current = new[] { 1.0 };
        var logScale = 0.0;
        for (var k = 0; k < _steps.Length; k++)
        {
            var step = _steps[k];
            current = _before[k] = step.Expand(current);
            current = step.Project(step.Apply(current, 1));
            var largest = 0.0;
            foreach (var x in current) largest = Math.Max(largest, x);
            if (!(largest > 0)) return false;
            _scale[k] = 1 / largest;
            for (var s = 0; s < current.Length; s++) current[s] *= _scale[k];
            logScale += Math.Log(largest);
        }

        LogEvidence = logScale + Math.Log(current[0]);

        var back = new[] { 1.0 };
        for (var k = _steps.Length - 1; k >= 0; k--)
        {
            var step = _steps[k];
            var after = _after[k] = step.Unproject(back);
            var caused = step.Transposed(after);
            double with = 0, without = 0;
            var before = _before[k];
            for (var s = 0; s < before.Length; s++)
            {
                with += before[s] * caused[s];
                without += before[s] * after[s];
                caused[s] = step.Without * after[s] + step.With * caused[s];
            }

            with *= step.With;
            without *= step.Without;
            _total[k] = with + without;
            posteriors[step.Fault] = with / (with + without);
            back = step.Unexpand(caused);
            var largest = 0.0;
            foreach (var x in back) largest = Math.Max(largest, x);
            for (var s = 0; s < back.Length; s++) back[s] /= largest;
        }

        return true;
    }

    /// <summary>Expected product of one factor for each present fault, given the evidence.</summary>
    public double ExpectedProduct(IReadOnlyList<(int Fault, double Factor)> factors)
    {
        var factorAt = new Dictionary<int, double>(factors.Count);
        int first = int.MaxValue, last = -1;
        foreach (var (fault, factor) in factors)
        {
            var k = _stepOf[fault];
            factorAt[k] = factorAt.GetValueOrDefault(k, 1) * factor;
            first = Math.Min(first, k);
            last = Math.Max(last, k);
        }

        if (last < 0) return 1;
        var current = _before[first];
        for (var k = first; ; k++)
        {
            var step = _steps[k];
            var applied = step.Apply(current, factorAt.GetValueOrDefault(k, 1));
            if (k == last)
            {
                double sum = 0;
                for (var s = 0; s < applied.Length; s++) sum += applied[s] * _after[k][s];
                return sum / _total[k];
            }

            current = step.Project(applied);
            for (var s = 0; s < current.Length; s++) current[s] *= _scale[k];
            current = _steps[k + 1].Expand(current);
        }
    }

    private sealed record Step(
        int Fault, double Without, double With, double[] OpenedLeaks, (int Bit, double Q)[] Bits, int[] ClosedBits, int Width)
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
                    if ((s & mask) != 0) continue;
                    var moved = caused[s] * q;
                    caused[s | mask] += moved;
                    caused[s] *= 1 - q;
                }
            }

            var weight = With * factor;
            for (var s = 0; s < caused.Length; s++) caused[s] = Without * state[s] + weight * caused[s];
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
                    if ((s & mask) == 0) caused[s] = (1 - q) * caused[s] + q * caused[s | mask];
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
                for (var s = 0; s < narrower.Length; s++) narrower[s] = state[((s & ~low) << 1) | (1 << bit) | (s & low)];
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
                for (var s = 0; s < state.Length; s++) wider[((s & ~low) << 1) | (1 << bit) | (s & low)] = state[s];
                state = wider;
            }

            return state;
        }
    }
}
