namespace Mendro.Core.Diagnosis;

/// <summary>
/// Exact inference in two-layer noisy-OR networks with several simultaneous faults.
/// <para>
/// Absent findings factor over the faults, so only the present ones couple them (Heckerman, “A tractable inference
/// algorithm for diagnosing multiple diseases”, UAI 1989). Heckerman sums over subsets with alternating signs, which
/// cancels badly when many findings are present. Here the same sum is carried out as a product of fault operators on
/// the set of findings explained so far: every term is positive, so the relative error stays near machine precision.
/// Present findings that share no fault are separated first, and a finding leaves the state as soon as its last
/// fault is done, so the cost is exponential only in the findings that are open at once.
/// </para>
/// </summary>
public static class NoisyOrInference
{
    /// <summary>Largest number of states for the exact sum over one group; beyond it the group is sampled
    /// (<see cref="GibbsPass"/>).</summary>
    public const int StateLimit = 12_000_000;

    /// <summary>
    /// The same for a page, which must answer within a second: ranking the moves asks the sum again for every check that
    /// could be made. Measured, not derived; see docs/diagnosis.md.
    /// </summary>
    public const int PageStateLimit = 250_000;

    /// <summary>Posterior of all faults given what was seen.</summary>
    /// <param name="network">Network; probabilities must lie in 0 to 1.</param>
    /// <param name="observed">Findings looked for.</param>
    /// <param name="stateLimit">States up to which a group is summed exactly.</param>
    /// <returns>The posterior, or which findings contradict each other.</returns>
    public static Outcome<Posterior> Infer(FaultNetwork network, IReadOnlyList<Observed> observed, long stateLimit = StateLimit)
    {
        if (Contradictions.Find(network, observed) is { } contradiction)
            return Outcome<Posterior>.Fail(contradiction.Words(network));
        var count = network.Faults.Count;
        var negative = new double[count];
        Array.Fill(negative, 1.0);
        var logEvidence = 0.0;
        var presentOf = new List<(int Index, double Q)>[count];
        var present = new List<Finding>();
        var states = new Dictionary<int, bool>();

        foreach (var (index, isPresent) in observed)
        {
            if (!states.TryAdd(index, isPresent))
                continue;
            var finding = network.Findings[index];
            if (isPresent)
            {
                present.Add(finding);
                continue;
            }

            logEvidence += Math.Log(1 - finding.Leak);
            foreach (var link in finding.Links)
                negative[link.Fault] *= 1 - link.P;
        }

        for (var j = 0; j < present.Count; j++)
            foreach (var link in present[j].Links)
                if (link.P > 0 && network.Faults[link.Fault].Prior > 0 && negative[link.Fault] > 0)
                    (presentOf[link.Fault] ??= []).Add((j, link.P));

        var posteriors = new double[count];
        var componentOf = new int[count];
        Array.Fill(componentOf, -1);
        for (var i = 0; i < count; i++)
        {
            if (presentOf[i] is not null)
                continue;
            var with = network.Faults[i].Prior * negative[i];
            var total = 1 - network.Faults[i].Prior + with;
            posteriors[i] = with / total;
            logEvidence += Math.Log(total);
        }

        var components = new List<IFindingGroup>();
        var sampled = false;
        foreach (var group in Components(present.Count, presentOf))
        {
            if (group.Faults.Count == 0)
            {
                logEvidence += Math.Log(present[group.Findings[0]].Leak);
                continue;
            }

            var pass = Sum(group.Faults, group.Findings, posteriors);
            foreach (var i in group.Faults)
                componentOf[i] = components.Count;
            components.Add(pass);
            if (pass is GibbsPass)
                sampled = true;
        }

        return Outcome<Posterior>.Ok(new Posterior(network, states, posteriors, componentOf, components, logEvidence, sampled));

        IFindingGroup Sum(List<int> faults, List<int> findings, double[] into)
        {
            (double, double) WeightOf(int i) => (1 - network.Faults[i].Prior, network.Faults[i].Prior * negative[i]);
            Dictionary<int, double> Leaks(int count) => findings.Take(count).ToDictionary(f => f, f => present[f].Leak);
            FrontierPass Plan(int count)
            {
                var leaks = Leaks(count);
                return FrontierPass.Plan(faults, leaks, i => Among(i, leaks), WeightOf);
            }

            List<(int Index, double Q)> Among(int i, Dictionary<int, double> leaks) =>
                leaks.Count == findings.Count ? presentOf[i]! : presentOf[i]!.Where(l => leaks.ContainsKey(l.Index)).ToList();

            var exact = Plan(findings.Count);
            if (exact.StateCount <= stateLimit)
            {
                exact.Run(into);
                return exact;
            }

            GibbsPass Sample(int count, double[] target)
            {
                var leaks = Leaks(count);
                return new GibbsPass(faults, leaks, i => Among(i, leaks), WeightOf, () => LogEvidence(count), target);
            }

            // By the chain rule: as many findings as can be summed, then one after the other given those before it.
            double LogEvidence(int count)
            {
                if (count == 0)
                    return faults.Sum(i => WeightOf(i) is var (without, with) ? Math.Log(without + with) : 0);
                var scratch = new double[into.Length];
                if (Plan(count) is var prefix && prefix.StateCount <= stateLimit)
                {
                    prefix.Run(scratch);
                    return prefix.LogEvidence;
                }

                var next = findings[count - 1];
                var factors = faults.SelectMany(i => presentOf[i]!.Where(l => l.Index == next).Select(l => (i, 1 - l.Q))).ToList();
                var product =
                    count > 1
                        ? Sample(count - 1, scratch).ExpectedProduct(factors)
                        : factors.Aggregate(
                            1.0,
                            (so, f) => WeightOf(f.i) is var (without, with) ? so * (without + with * f.Item2) / (without + with) : so
                        );
                var absent = (1 - present[next].Leak) * product;
                return LogEvidence(count - 1) + Math.Log(Math.Max(1 - absent, 1e-300));
            }

            return Sample(findings.Count, into);
        }
    }

    private static IEnumerable<(List<int> Faults, List<int> Findings)> Components(
        int presentCount,
        List<(int Index, double Q)>?[] presentOf
    )
    {
        var root = Enumerable.Range(0, presentCount).ToArray();
        int Find(int j)
        {
            while (root[j] != j)
                j = root[j] = root[root[j]];
            return j;
        }

        foreach (var links in presentOf)
            if (links is not null)
                for (var n = 1; n < links.Count; n++)
                    root[Find(links[n].Index)] = Find(links[0].Index);

        var groups = new Dictionary<int, (List<int> Faults, List<int> Findings)>();
        for (var j = 0; j < presentCount; j++)
        {
            if (!groups.TryGetValue(Find(j), out var group))
                groups[Find(j)] = group = ([], []);
            group.Findings.Add(j);
        }

        for (var i = 0; i < presentOf.Length; i++)
            if (presentOf[i] is { } links)
                groups[Find(links[0].Index)].Faults.Add(i);
        return groups.Values;
    }
}
