namespace Mendro.Core.Diagnosis;

/// <summary>
/// Forward and backward pass over one group of faults that share present findings. The state is the set of open
/// findings already explained; each fault is an operator on distributions over such sets.
/// </summary>
internal sealed class FrontierPass : IFindingGroup
{
    private readonly FrontierStep[] _steps;
    private readonly double[][] _before;
    private readonly double[][] _after;
    private readonly double[] _total;
    private readonly double[] _scale;
    private readonly Dictionary<int, int> _stepOf = [];

    private FrontierPass(FrontierStep[] steps, long stateCount)
    {
        _steps = steps;
        StateCount = stateCount;
        _before = new double[steps.Length][];
        _after = new double[steps.Length][];
        _total = new double[steps.Length];
        _scale = new double[steps.Length];
        for (var k = 0; k < steps.Length; k++)
            _stepOf[steps[k].Fault] = k;
    }

    /// <summary>Number of states over all steps; memory and time grow with it.</summary>
    public long StateCount { get; }

    /// <summary>Natural logarithm of the probability of this group's evidence.</summary>
    public double LogEvidence { get; private set; }

    /// <summary>Orders the faults so that few findings are open at once, and lays out the steps.</summary>
    public static FrontierPass Plan(
        IReadOnlyList<int> faults,
        IReadOnlyDictionary<int, double> leaks,
        Func<int, List<(int Index, double Q)>> linksOf,
        Func<int, (double Without, double With)> weightOf
    )
    {
        var remaining = leaks.Keys.ToDictionary(f => f, _ => 0);
        foreach (var fault in faults)
        foreach (var (finding, _) in linksOf(fault))
            remaining[finding]++;

        var waiting = faults.ToList();
        var frontier = new List<int>();
        var steps = new List<FrontierStep>(faults.Count);
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
                    if (!frontier.Contains(finding))
                        cost++;
                    if (remaining[finding] == 1)
                        cost--;
                }

                if (cost >= bestCost)
                    continue;
                (best, bestCost) = (fault, cost);
            }

            waiting.Remove(best);
            var links = linksOf(best);
            var opened = new List<double>();
            foreach (var (finding, _) in links)
            {
                if (frontier.Contains(finding))
                    continue;
                frontier.Add(finding);
                opened.Add(leaks[finding]);
            }

            var width = frontier.Count;
            states += 1L << Math.Min(width, 40);
            var bits = links.Select(l => (frontier.IndexOf(l.Index), l.Q)).ToArray();
            var closed = new List<int>();
            foreach (var (finding, _) in links)
                if (--remaining[finding] == 0)
                    closed.Add(frontier.IndexOf(finding));
            // From the highest bit down, so that the lower positions stay valid while bits are taken out.
            closed.Sort((a, b) => b.CompareTo(a));
            foreach (var position in closed)
                frontier.RemoveAt(position);
            var (without, with) = weightOf(best);
            steps.Add(new FrontierStep(best, without, with, [.. opened], bits, [.. closed], width));
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
            foreach (var x in current)
                largest = Math.Max(largest, x);
            if (!(largest > 0))
                return false;
            _scale[k] = 1 / largest;
            for (var s = 0; s < current.Length; s++)
                current[s] *= _scale[k];
            logScale += Math.Log(largest);
        }

        LogEvidence = logScale + Math.Log(current[0]);

        var back = new[] { 1.0 };
        for (var k = _steps.Length - 1; k >= 0; k--)
        {
            var step = _steps[k];
            var after = _after[k] = step.Unproject(back);
            var caused = step.Transposed(after);
            double with = 0,
                without = 0;
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
            back = Normalised(step.Unexpand(caused));
        }

        return true;
    }

    /// <summary>Expected product of one factor for each present fault, given the evidence.</summary>
    public double ExpectedProduct(IReadOnlyList<(int Fault, double Factor)> factors)
    {
        var factorAt = new Dictionary<int, double>(factors.Count);
        int first = int.MaxValue,
            last = -1;
        foreach (var (fault, factor) in factors)
        {
            var k = _stepOf[fault];
            factorAt[k] = factorAt.GetValueOrDefault(k, 1) * factor;
            first = Math.Min(first, k);
            last = Math.Max(last, k);
        }

        if (last < 0)
            return 1;
        var current = _before[first];
        for (var k = first; ; k++)
        {
            var step = _steps[k];
            var applied = step.Apply(current, factorAt.GetValueOrDefault(k, 1));
            if (k == last)
            {
                double sum = 0;
                for (var s = 0; s < applied.Length; s++)
                    sum += applied[s] * _after[k][s];
                return sum / _total[k];
            }

            current = step.Project(applied);
            for (var s = 0; s < current.Length; s++)
                current[s] *= _scale[k];
            current = _steps[k + 1].Expand(current);
        }
    }

    /// <inheritdoc/>
    public double Reweigh(IReadOnlyList<(int Fault, double Factor)> factors, double[] posteriors)
    {
        var factorAt = new double[_steps.Length];
        Array.Fill(factorAt, 1.0);
        int first = _steps.Length,
            last = -1;
        foreach (var (fault, factor) in factors)
        {
            var k = _stepOf[fault];
            factorAt[k] *= factor;
            first = Math.Min(first, k);
            last = Math.Max(last, k);
        }

        // Before the first weighted fault the forward states, behind the last one the backward states are as they were.
        var before = (double[][])_before.Clone();
        double product = 1;
        for (var k = first; k < _steps.Length && last >= 0; k++)
        {
            var applied = _steps[k].Apply(before[k], factorAt[k]);
            if (k == last)
            {
                double sum = 0;
                for (var s = 0; s < applied.Length; s++)
                    sum += applied[s] * _after[k][s];
                product = sum / _total[k];
            }

            if (k + 1 == _steps.Length)
                break;
            var current = _steps[k].Project(applied);
            for (var s = 0; s < current.Length; s++)
                current[s] *= _scale[k];
            before[k + 1] = _steps[k + 1].Expand(current);
        }

        var back = new[] { 1.0 };
        for (var k = _steps.Length - 1; k >= 0; k--)
        {
            var step = _steps[k];
            var after = k >= last ? _after[k] : step.Unproject(back);
            var caused = step.Transposed(after);
            double with = 0,
                without = 0;
            for (var s = 0; s < before[k].Length; s++)
            {
                with += before[k][s] * caused[s];
                without += before[k][s] * after[s];
                caused[s] = step.Without * after[s] + step.With * factorAt[k] * caused[s];
            }

            with *= step.With * factorAt[k];
            without *= step.Without;
            posteriors[step.Fault] = with + without > 0 ? with / (with + without) : 0;
            if (k > 0 && k <= last)
                back = Normalised(step.Unexpand(caused));
        }

        return product;
    }

    private static double[] Normalised(double[] state)
    {
        var largest = 0.0;
        foreach (var x in state)
            largest = Math.Max(largest, x);
        if (largest > 0)
            for (var s = 0; s < state.Length; s++)
                state[s] /= largest;
        return state;
    }
}
