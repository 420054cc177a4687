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
    /// <summary>Largest number of states kept for one inference; beyond it the exact sum is refused.</summary>
    public const int StateLimit = 12_000_000;

    /// <summary>Posterior of all faults given what was seen.</summary>
    /// <param name="network">Network; probabilities must lie in 0 to 1.</param>
    /// <param name="observed">Findings looked for.</param>
    /// <returns>The posterior, or why there is none: contradictory evidence, or too many findings at once.</returns>
    public static Outcome<Posterior> Infer(FaultNetwork network, IReadOnlyList<Observed> observed)
    {
        var count = network.Faults.Count;
        var negative = new double[count];
        Array.Fill(negative, 1.0);
        var logEvidence = 0.0;
        var presentOf = new List<(int Index, double Q)>[count];
        var present = new List<Finding>();
        var states = new Dictionary<int, bool>();

        foreach (var (index, isPresent) in observed)
        {
            if (states.TryGetValue(index, out var before))
            {
                if (before == isPresent) continue;
                return Contradiction([network.Findings[index].Id], "is given as both present and absent");
            }

            states[index] = isPresent;
            var finding = network.Findings[index];
            if (isPresent)
            {
                present.Add(finding);
                continue;
            }

            if (finding.Leak >= 1) return Contradiction([finding.Id], "is always present in this network, yet was seen absent");
            logEvidence += Math.Log(1 - finding.Leak);
            foreach (var link in finding.Links) negative[link.Fault] *= 1 - link.P;
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
            if (presentOf[i] is not null) continue;
            var with = network.Faults[i].Prior * negative[i];
            var total = 1 - network.Faults[i].Prior + with;
            if (total <= 0) return Contradiction([network.Faults[i].Id], "is certain in this network, yet what was seen absent rules it out");
            posteriors[i] = with / total;
            logEvidence += Math.Log(total);
        }

        var components = new List<FrontierPass>();
        foreach (var group in Components(present.Count, presentOf))
        {
            if (group.Faults.Count == 0)
            {
                var alone = present[group.Findings[0]];
                if (alone.Leak <= 0) return Contradiction([alone.Id], "was seen, but nothing that is still possible can cause it");
                logEvidence += Math.Log(alone.Leak);
                continue;
            }

            var pass = FrontierPass.Plan(
                group.Faults, group.Findings.ToDictionary(f => f, f => present[f].Leak), i => presentOf[i]!,
                i => (1 - network.Faults[i].Prior, network.Faults[i].Prior * negative[i]));
            if (pass.StateCount > StateLimit)
                return Outcome<Posterior>.Fail($"{group.Findings.Count} present findings hang together too tightly for exact inference.");
            if (!pass.Run(posteriors)) return Contradiction(group.Findings.Select(f => present[f].Id).ToList(), "cannot all be true together with what was seen absent");
            foreach (var i in group.Faults) componentOf[i] = components.Count;
            components.Add(pass);
            logEvidence += pass.LogEvidence;
        }

        return Outcome<Posterior>.Ok(new Posterior(network, states, posteriors, componentOf, components, logEvidence));
    }

    private static Outcome<Posterior> Contradiction(IReadOnlyList<string> ids, string why) =>
        Outcome<Posterior>.Fail($"The evidence contradicts itself: {string.Join(", ", ids)} {why}.");

    private static IEnumerable<(List<int> Faults, List<int> Findings)> Components(int presentCount, List<(int Index, double Q)>?[] presentOf)
    {
        var root = Enumerable.Range(0, presentCount).ToArray();
        int Find(int j)
        {
            while (root[j] != j) j = root[j] = root[root[j]];
            return j;
        }

        foreach (var links in presentOf)
            if (links is not null)
                for (var n = 1; n < links.Count; n++) root[Find(links[n].Index)] = Find(links[0].Index);

        var groups = new Dictionary<int, (List<int> Faults, List<int> Findings)>();
        for (var j = 0; j < presentCount; j++)
        {
            if (!groups.TryGetValue(Find(j), out var group)) groups[Find(j)] = group = ([], []);
            group.Findings.Add(j);
        }

        for (var i = 0; i < presentOf.Length; i++)
            if (presentOf[i] is { } links) groups[Find(links[0].Index)].Faults.Add(i);
        return groups.Values;
    }
}
