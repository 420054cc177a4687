using Mendro.Core.Diagnosis;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>The definition itself: sums over every combination of faults. The oracle for small networks.</summary>
internal static class BruteForce
{
    public static (double Evidence, double[] Faults, double[] Findings) Enumerate(FaultNetwork network, IReadOnlyList<Observed> observed)
    {
        var faults = new double[network.Faults.Count];
        var findings = new double[network.Findings.Count];
        double evidence = 0;
        for (var combination = 0; combination < 1 << network.Faults.Count; combination++)
        {
            var weight = 1.0;
            for (var i = 0; i < faults.Length; i++)
                weight *= Has(combination, i) ? network.Faults[i].Prior : 1 - network.Faults[i].Prior;
            foreach (var (index, present) in observed)
            {
                var p = Present(network.Findings[index], combination);
                weight *= present ? p : 1 - p;
            }

            evidence += weight;
            for (var i = 0; i < faults.Length; i++)
                if (Has(combination, i))
                    faults[i] += weight;
            for (var j = 0; j < findings.Length; j++)
                findings[j] += weight * Present(network.Findings[j], combination);
        }

        for (var i = 0; i < faults.Length; i++)
            faults[i] /= evidence;
        for (var j = 0; j < findings.Length; j++)
            findings[j] /= evidence;
        foreach (var (index, present) in observed)
            findings[index] = present ? 1 : 0;
        return (evidence, faults, findings);
    }

    private static double Present(Finding finding, int combination)
    {
        var absent = 1 - finding.Leak;
        foreach (var link in finding.Links)
            if (Has(combination, link.Fault))
                absent *= 1 - link.P;
        return 1 - absent;
    }

    private static bool Has(int combination, int fault) => (combination >> fault & 1) != 0;
}
