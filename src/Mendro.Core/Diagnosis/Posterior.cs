namespace Mendro.Core.Diagnosis;

/// <summary>What is to be believed after everything seen; made by <see cref="NoisyOrInference"/>.</summary>
public sealed class Posterior
{
    private readonly Dictionary<int, bool> _observed;
    private readonly double[] _faults;
    private readonly int[] _componentOf;
    private readonly List<FrontierPass> _components;

    internal Posterior(
        FaultNetwork network, Dictionary<int, bool> observed, double[] faults, int[] componentOf,
        List<FrontierPass> components, double logEvidence)
    {
        Network = network;
        _observed = observed;
        _faults = faults;
        _componentOf = componentOf;
        _components = components;
        LogEvidence = logEvidence;
    }

    /// <summary>The network asked.</summary>
    public FaultNetwork Network { get; }

    /// <summary>Natural logarithm of the probability of all that was observed.</summary>
    public double LogEvidence { get; }

    /// <summary>Probability of all that was observed, 0 to 1; may underflow to 0 where <see cref="LogEvidence"/> does not.</summary>
    public double EvidenceProbability => Math.Exp(LogEvidence);

    /// <summary>Probability that a fault is present, 0 to 1.</summary>
    public double Fault(int index) => _faults[index];

    /// <summary>Probability that a finding is present; 1 or 0 when it was observed.</summary>
    public double Finding(int index)
    {
        if (_observed.TryGetValue(index, out var present)) return present ? 1 : 0;
        var finding = Network.Findings[index];
        return Math.Clamp(1 - (1 - finding.Leak) * ExpectedProduct(finding.Links.Select(l => (l.Fault, 1 - l.P))), 0, 1);
    }

    /// <summary>
    /// Expected product of the given factors over the faults that are present. With factors 1 − q this is the chance
    /// that a finding with these links stays absent.
    /// </summary>
    /// <param name="factors">Fault index and factor, 0 to 1.</param>
    public double ExpectedProduct(IEnumerable<(int Fault, double Factor)> factors)
    {
        var product = 1.0;
        Dictionary<int, List<(int, double)>>? grouped = null;
        foreach (var (fault, factor) in factors)
        {
            if (factor == 1) continue;
            if (_componentOf[fault] < 0)
            {
                product *= 1 - _faults[fault] * (1 - factor);
                continue;
            }

            grouped ??= [];
            if (!grouped.TryGetValue(_componentOf[fault], out var list)) grouped[_componentOf[fault]] = list = [];
            list.Add((fault, factor));
        }

        if (grouped is not null)
            foreach (var (component, list) in grouped) product *= _components[component].ExpectedProduct(list);
        return product;
    }
}
