namespace Mendro.Core.Diagnosis;

/// <summary>What is to be believed after everything seen; made by <see cref="NoisyOrInference"/>.</summary>
public sealed class Posterior
{
    private readonly Dictionary<int, bool> _observed;
    private readonly double[] _faults;
    private readonly int[] _componentOf;
    private readonly List<IFindingGroup> _components;
    private readonly double _logEvidenceAlone;

    internal Posterior(
        FaultNetwork network,
        Dictionary<int, bool> observed,
        double[] faults,
        int[] componentOf,
        List<IFindingGroup> components,
        double logEvidence,
        bool sampled
    )
    {
        Network = network;
        _observed = observed;
        _faults = faults;
        _componentOf = componentOf;
        _components = components;
        _logEvidenceAlone = logEvidence;
        Sampled = sampled;
    }

    /// <summary>The network asked.</summary>
    public FaultNetwork Network { get; }

    /// <summary>Natural logarithm of the probability of all that was observed.</summary>
    public double LogEvidence => _logEvidenceAlone + _components.Sum(c => c.LogEvidence);

    /// <summary>True when a group of findings was too large for the exact sum and was sampled instead; then good to about 0.01.</summary>
    public bool Sampled { get; }

    /// <summary>Probability of all that was observed, 0 to 1; may underflow to 0 where <see cref="LogEvidence"/> does not.</summary>
    public double EvidenceProbability => Math.Exp(LogEvidence);

    /// <summary>Probability that a fault is present, 0 to 1.</summary>
    public double Fault(int index) => _faults[index];

    /// <summary>Probability that a finding is present; 1 or 0 when it was observed.</summary>
    public double Finding(int index)
    {
        if (_observed.TryGetValue(index, out var present))
            return present ? 1 : 0;
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
        foreach (var (component, list) in Group(factors, (fault, factor) => product *= 1 - _faults[fault] * (1 - factor)))
            product *= _components[component].ExpectedProduct(list);
        return product;
    }

    /// <summary>
    /// What would be believed if one more finding were seen absent. The belief if it were seen present follows from
    /// the same numbers, so that one pass answers both.
    /// </summary>
    /// <param name="leak">Leak of the finding.</param>
    /// <param name="factors">Fault index and factor 1 − q of its links.</param>
    public WhatIf IfAbsent(double leak, IEnumerable<(int Fault, double Factor)> factors)
    {
        var absent = (double[])_faults.Clone();
        var product = 1.0;
        foreach (
            var (component, list) in Group(
                factors,
                (fault, factor) =>
                {
                    product *= 1 - _faults[fault] * (1 - factor);
                    absent[fault] = factor * absent[fault] / (1 - absent[fault] * (1 - factor));
                }
            )
        )
            product *= _components[component].Reweigh(list, absent);
        return new WhatIf(_faults, absent, Math.Clamp((1 - leak) * product, 0, 1));
    }

    /// <summary>Sorts factors by group; those of faults that hang together with nothing are handed out one by one.</summary>
    private Dictionary<int, List<(int, double)>> Group(IEnumerable<(int Fault, double Factor)> factors, Action<int, double> alone)
    {
        var grouped = new Dictionary<int, List<(int, double)>>();
        foreach (var (fault, factor) in factors)
        {
            if (factor == 1)
                continue;
            if (_componentOf[fault] < 0)
            {
                alone(fault, factor);
                continue;
            }

            if (!grouped.TryGetValue(_componentOf[fault], out var list))
                grouped[_componentOf[fault]] = list = [];
            list.Add((fault, factor));
        }

        return grouped;
    }
}

/// <summary>What would be believed after one more finding, whichever way it turns out.</summary>
public sealed class WhatIf
{
    private readonly double[] _now;
    private readonly double[] _absent;

    internal WhatIf(double[] now, double[] absent, double probabilityAbsent) =>
        (_now, _absent, ProbabilityAbsent) = (now, absent, probabilityAbsent);

    /// <summary>Chance that the finding turns out absent, 0 to 1.</summary>
    public double ProbabilityAbsent { get; }

    /// <summary>Posterior of a fault if the finding is absent.</summary>
    public double IfAbsent(int fault) => _absent[fault];

    /// <summary>Posterior of a fault if the finding is present: what is believed now is the mean of both.</summary>
    public double IfPresent(int fault) =>
        ProbabilityAbsent >= 1
            ? _now[fault]
            : Math.Clamp((_now[fault] - _absent[fault] * ProbabilityAbsent) / (1 - ProbabilityAbsent), 0, 1);
}
