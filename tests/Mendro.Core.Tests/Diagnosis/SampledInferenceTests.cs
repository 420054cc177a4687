using Mendro.Core.Diagnosis;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Beyond the exact limit groups are sampled: good to 0.01 where both run, and the same answer every time.</summary>
public class SampledInferenceTests
{
    public static TheoryData<int, int, int> Networks =>
        new()
        {
            // Seed, faults, present findings; the last ones are as dense as a real unit with everything failing.
            { 1, 8, 4 },
            { 2, 12, 6 },
            { 3, 14, 8 },
            { 4, 20, 8 },
            { 5, 30, 10 },
            { 6, 40, 12 },
        };

    [Theory]
    [MemberData(nameof(Networks))]
    public void Sampled_posteriors_lie_within_a_hundredth_of_the_exact_ones(int seed, int faults, int present)
    {
        var (network, observed) = Random(seed, faults, present);
        var exact = NoisyOrInference.Infer(network, observed).Value!;
        var sampled = NoisyOrInference.Infer(network, observed, stateLimit: 1).Value!;
        exact.Sampled.ShouldBeFalse();
        sampled.Sampled.ShouldBeTrue();
        for (var i = 0; i < faults; i++)
            sampled.Fault(i).ShouldBe(exact.Fault(i), 0.01, $"fault {i}");
        for (var j = 0; j < network.Findings.Count; j++)
            sampled.Finding(j).ShouldBe(exact.Finding(j), 0.015, $"finding {j}");
        // The evidence comes by the chain rule from what was sampled; its logarithm is good to a few hundredths.
        sampled.LogEvidence.ShouldBe(exact.LogEvidence, 0.1 + 0.02 * present);
    }

    [Fact]
    public void What_if_is_sampled_too()
    {
        var (network, observed) = Random(3, 14, 7);
        var factors = Enumerable.Range(0, 14).Where(i => i % 2 == 0).Select(i => (i, 0.2)).ToList();
        var exact = NoisyOrInference.Infer(network, observed).Value!.IfAbsent(0.01, factors);
        var sampled = NoisyOrInference.Infer(network, observed, stateLimit: 1).Value!.IfAbsent(0.01, factors);
        sampled.ProbabilityAbsent.ShouldBe(exact.ProbabilityAbsent, 0.01);
        for (var i = 0; i < 14; i++)
        {
            sampled.IfAbsent(i).ShouldBe(exact.IfAbsent(i), 0.03, $"absent, fault {i}");
            sampled.IfPresent(i).ShouldBe(exact.IfPresent(i), 0.03, $"present, fault {i}");
        }
    }

    [Fact]
    public void The_same_evidence_gives_the_same_sampled_answer()
    {
        var (network, observed) = Random(2, 12, 6);
        var a = NoisyOrInference.Infer(network, observed, stateLimit: 1).Value!;
        var b = NoisyOrInference.Infer(network, observed, stateLimit: 1).Value!;
        Enumerable.Range(0, 12).ShouldAllBe(i => a.Fault(i).Equals(b.Fault(i)));
    }

    [Fact]
    public void Far_more_findings_than_could_be_summed_are_answered()
    {
        // Forty present findings that all hang together: 2^40 states are out of reach.
        var (network, observed) = Random(9, 60, 40);
        var posterior = NoisyOrInference.Infer(network, observed).Value!;
        posterior.Sampled.ShouldBeTrue();
        Enumerable.Range(0, 60).ShouldAllBe(i => posterior.Fault(i) >= 0 && posterior.Fault(i) <= 1);
    }

    private static (FaultNetwork Network, List<Observed> Observed) Random(int seed, int faults, int present)
    {
        var random = new Random(seed);
        var findings = Enumerable
            .Range(0, present + 4)
            .Select(j => new Finding(
                $"s{j}",
                0.005 + 0.02 * random.NextDouble(),
                Enumerable
                    .Range(0, faults)
                    .Where(_ => random.NextDouble() < 0.45)
                    .Select(i => new Link(i, 0.1 + 0.88 * random.NextDouble()))
                    .ToList()
            ))
            .ToList();
        var network = new FaultNetwork(
            Enumerable.Range(0, faults).Select(i => new Fault($"f{i}", 0.01 + 0.2 * random.NextDouble())).ToList(),
            findings
        );
        return (network, Enumerable.Range(0, present + 2).Select(j => new Observed(j, j < present)).ToList());
    }
}
