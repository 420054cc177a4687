using CsCheck;
using Mendro.Core.Diagnosis;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Posteriors against the definition (enumeration of all fault combinations) and against hand arithmetic.</summary>
public class NoisyOrInferenceTests
{
    // Corner values are mixed in on purpose: zero leaks, certain links, certain and impossible faults.
    private static readonly Gen<double> Probability = Gen.Frequency(
        (6, Gen.Double[0.001, 0.999]),
        (1, Gen.Const(0.0)),
        (1, Gen.Const(1.0))
    );

    private static readonly Gen<double> Prior = Gen.Frequency((9, Gen.Double[0.001, 0.6]), (1, Gen.Const(0.0)));

    private static readonly Gen<double> Leak = Gen.Frequency((3, Gen.Double[0.0001, 0.3]), (2, Gen.Const(0.0)));

    private static Gen<(FaultNetwork Network, List<Observed> Observed)> Networks(int maxFaults, int maxFindings) =>
        from faultCount in Gen.Int[1, maxFaults]
        from findingCount in Gen.Int[1, maxFindings]
        from priors in Prior.Array[faultCount]
        from leaks in Leak.Array[findingCount]
        from density in Gen.Double[0.1, 1]
        from chosen in Gen.Double[0, 1].Array[faultCount * findingCount]
        from strengths in Probability.Array[faultCount * findingCount]
        from states in Gen.Int[0, 3].Array[findingCount]
        select Assemble(priors, leaks, density, chosen, strengths, states);

    private static (FaultNetwork, List<Observed>) Assemble(
        double[] priors,
        double[] leaks,
        double density,
        double[] chosen,
        double[] strengths,
        int[] states
    )
    {
        var faults = priors.Select((p, i) => new Fault($"f{i}", p)).ToList();
        var findings = leaks
            .Select(
                (leak, j) =>
                    new Finding(
                        $"s{j}",
                        leak,
                        Enumerable
                            .Range(0, priors.Length)
                            .Where(i => chosen[j * priors.Length + i] < density)
                            .Select(i => new Link(i, strengths[j * priors.Length + i]))
                            .ToList()
                    )
            )
            .ToList();
        // 0 and 1: present, 2: absent, 3: not looked for.
        var observed = states.Select((s, j) => (s, j)).Where(x => x.s < 3).Select(x => new Observed(x.j, x.s < 2)).ToList();
        return (new FaultNetwork(faults, findings), observed);
    }

    [Fact]
    public void Posteriors_equal_enumeration_on_random_networks()
    {
        Networks(maxFaults: 9, maxFindings: 10)
            .Sample(
                (network, observed) =>
                {
                    var expected = BruteForce.Enumerate(network, observed);
                    var outcome = NoisyOrInference.Infer(network, observed);
                    // Both must agree on what is impossible.
                    if (expected.Evidence == 0)
                    {
                        outcome.IsOk.ShouldBeFalse();
                        outcome.Problem!.ShouldContain("contradicts");
                        return;
                    }

                    // Evidence so unlikely that the oracle's own sum is at the edge of double precision proves nothing.
                    if (expected.Evidence < 1e-280)
                        return;
                    outcome.IsOk.ShouldBeTrue(outcome.Problem);
                    var posterior = outcome.Value!;
                    (posterior.EvidenceProbability / expected.Evidence).ShouldBe(1, 1e-9);
                    for (var i = 0; i < network.Faults.Count; i++)
                        posterior.Fault(i).ShouldBe(expected.Faults[i], 1e-9);
                    for (var j = 0; j < network.Findings.Count; j++)
                        posterior.Finding(j).ShouldBe(expected.Findings[j], 1e-9);
                },
                iter: 3000,
                seed: "0000KQvYRXc4"
            );
    }

    [Fact]
    public void Fifteen_present_findings_do_not_cancel()
    {
        // Dense, with tiny priors and zero leaks: the alternating sum of the textbook form loses all digits here.
        var faults = Enumerable.Range(0, 12).Select(i => new Fault($"f{i}", 0.002 + 0.001 * i)).ToList();
        var findings = Enumerable
            .Range(0, 15)
            .Select(j => new Finding(
                $"s{j}",
                0,
                Enumerable.Range(0, 12).Select(i => new Link(i, 0.02 + 0.9 * ((i * 7 + j * 11) % 13) / 13.0)).ToList()
            ))
            .ToList();
        var network = new FaultNetwork(faults, findings);
        var observed = Enumerable.Range(0, 15).Select(j => new Observed(j, true)).ToList();

        var expected = BruteForce.Enumerate(network, observed);
        var posterior = NoisyOrInference.Infer(network, observed).Value!;

        (posterior.EvidenceProbability / expected.Evidence).ShouldBe(1, 1e-9);
        for (var i = 0; i < 12; i++)
            posterior.Fault(i).ShouldBe(expected.Faults[i], 1e-9);
    }

    [Fact]
    public void One_fault_one_finding_is_Bayes_rule()
    {
        // Hand arithmetic: P(finding) = 1 − (1 − 0.1)(1 − 0.2·0.5) = 0.19; P(fault | finding) = 0.2·(1 − 0.9·0.5)/0.19.
        var network = new FaultNetwork([new Fault("f", 0.2)], [new Finding("s", 0.1, [new Link(0, 0.5)])]);
        var posterior = NoisyOrInference.Infer(network, [new Observed(0, true)]).Value!;
        posterior.EvidenceProbability.ShouldBe(0.19, 1e-15);
        posterior.Fault(0).ShouldBe(0.2 * 0.55 / 0.19, 1e-15);
    }

    [Fact]
    public void A_second_cause_explains_the_first_away()
    {
        // With zero leak and certain links one of the two must be there: 1/(2 − p) each, for equal priors p.
        const double p = 0.1;
        var network = new FaultNetwork(
            [new Fault("a", p), new Fault("b", p)],
            [new Finding("s", 0, [new Link(0, 1), new Link(1, 1)]), new Finding("t", 0, [new Link(1, 1)])]
        );
        NoisyOrInference.Infer(network, [new Observed(0, true)]).Value!.Fault(0).ShouldBe(1 / (2 - p), 1e-12);
        NoisyOrInference.Infer(network, [new Observed(0, true), new Observed(1, true)]).Value!.Fault(0).ShouldBe(p, 1e-12);
    }

    [Theory]
    [InlineData(true, "s")]
    [InlineData(false, "t")]
    public void Impossible_evidence_is_a_message_that_names_the_finding(bool present, string named)
    {
        var network = new FaultNetwork([new Fault("f", 0.5)], [new Finding("s", 0, []), new Finding("t", 1, [new Link(0, 0.5)])]);
        var outcome = NoisyOrInference.Infer(network, [new Observed(present ? 0 : 1, present)]);
        outcome.IsOk.ShouldBeFalse();
        outcome.Problem!.ShouldContain(named);
        outcome.Problem!.ShouldContain("contradicts itself");
    }

    [Fact]
    public void Present_finding_whose_only_causes_were_ruled_out_is_a_contradiction()
    {
        // The fault would surely show in t; t is absent; s has no other cause.
        var network = new FaultNetwork(
            [new Fault("f", 0.5)],
            [new Finding("s", 0, [new Link(0, 0.5)]), new Finding("t", 0, [new Link(0, 1)])]
        );
        var outcome = NoisyOrInference.Infer(network, [new Observed(0, true), new Observed(1, false)]);
        outcome.IsOk.ShouldBeFalse();
        outcome.Problem!.ShouldContain("s");
    }

    [Fact]
    public void Expected_products_match_enumeration_of_a_new_finding()
    {
        // A finding added to the network must get the same probability as the product computed without it.
        Networks(maxFaults: 7, maxFindings: 6)
            .Sample(
                (network, observed) =>
                {
                    if (BruteForce.Enumerate(network, observed).Evidence < 1e-200)
                        return;
                    var links = network.Faults.Select((_, i) => new Link(i, (i * 37 % 10) / 10.0)).ToList();
                    var wider = network with { Findings = [.. network.Findings, new Finding("new", 0, links)] };
                    var expected = BruteForce.Enumerate(wider, observed).Findings[^1];
                    var posterior = NoisyOrInference.Infer(network, observed).Value!;
                    (1 - posterior.ExpectedProduct(links.Select(l => (l.Fault, 1 - l.P)))).ShouldBe(expected, 1e-9);
                },
                iter: 500,
                seed: "0000KQvYRXc4"
            );
    }
}
