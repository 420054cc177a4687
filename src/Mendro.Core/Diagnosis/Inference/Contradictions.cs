namespace Mendro.Core.Diagnosis;

/// <summary>
/// Finds out whether evidence is impossible and which findings contradict each other. Noisy-OR only ever adds causes,
/// so evidence is possible exactly when every present finding keeps a leak or a cause that no absent finding rules
/// out for certain; no search is needed.
/// </summary>
internal static class Contradictions
{
    /// <summary>A smallest set of findings that cannot be true together, none of which can be left out; null when all can.</summary>
    public static Contradiction? Find(FaultNetwork network, IReadOnlyList<Observed> observed)
    {
        if (!Impossible(network, observed))
            return null;
        // Deletion filter: a finding without which the rest still contradicts itself is not part of the quarrel.
        var core = observed.Distinct().ToList();
        for (var n = core.Count - 1; n >= 0; n--)
        {
            var without = core.Where((_, i) => i != n).ToList();
            if (Impossible(network, without))
                core = without;
        }

        return new Contradiction(core);
    }

    private static bool Impossible(FaultNetwork network, IReadOnlyList<Observed> observed)
    {
        var states = new Dictionary<int, bool>();
        var ruledOut = new HashSet<int>();
        foreach (var (index, present) in observed)
        {
            if (states.TryGetValue(index, out var before) && before != present)
                return true;
            states[index] = present;
            if (present)
                continue;
            var finding = network.Findings[index];
            if (finding.Leak >= 1)
                return true;
            foreach (var link in finding.Links.Where(l => l.P >= 1))
            {
                if (network.Faults[link.Fault].Prior >= 1)
                    return true;
                ruledOut.Add(link.Fault);
            }
        }

        return states.Any(s =>
            s.Value
            && network.Findings[s.Key] is var finding
            && finding.Leak <= 0
            && finding.Links.All(l => l.P <= 0 || network.Faults[l.Fault].Prior <= 0 || ruledOut.Contains(l.Fault))
        );
    }
}

/// <summary>Findings that cannot be true together.</summary>
/// <param name="Findings">The findings with what was seen of them.</param>
public sealed record Contradiction(IReadOnlyList<Observed> Findings)
{
    /// <summary>The contradiction as a sentence that names the findings by id.</summary>
    public string Words(FaultNetwork network)
    {
        if (Findings.Count == 2 && Findings[0].Finding == Findings[1].Finding)
            return $"The evidence contradicts itself: {network.Findings[Findings[0].Finding].Id} is given as both present and absent.";
        var told = Findings
            .OrderByDescending(f => f.Present)
            .Select(f => $"{network.Findings[f.Finding].Id} {(f.Present ? "present" : "absent")}");
        return Findings.Count == 1
            ? $"The evidence contradicts itself: {told.First()} is impossible in this network."
            : $"The evidence contradicts itself: {string.Join(", ", told)} cannot all be true together.";
    }
}
