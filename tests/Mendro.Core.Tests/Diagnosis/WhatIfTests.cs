using Mendro.Core.Diagnosis;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>One pass answers what both outcomes of a check would mean; it must equal observing either for real.</summary>
public class WhatIfTests
{
    [Fact]
    public void What_if_equals_observing_the_finding()
    {
        for (var seed = 0; seed < 60; seed++)
        {
            var random = new Random(seed);
            int faults = random.Next(1, 9),
                findings = random.Next(1, 8);
            var network = new FaultNetwork(
                Enumerable.Range(0, faults).Select(i => new Fault($"f{i}", 0.02 + 0.5 * random.NextDouble())).ToList(),
                Enumerable
                    .Range(0, findings + 1)
                    .Select(j => new Finding(
                        $"s{j}",
                        0.01 + 0.1 * random.NextDouble(),
                        Enumerable
                            .Range(0, faults)
                            .Where(_ => random.NextDouble() < 0.6)
                            .Select(i => new Link(i, 0.05 + 0.9 * random.NextDouble()))
                            .ToList()
                    ))
                    .ToList()
            );
            var observed = Enumerable.Range(0, findings).Select(j => new Observed(j, random.NextDouble() < 0.6)).ToList();
            var next = network.Findings[findings];
            var what = NoisyOrInference.Infer(network, observed).Value!.IfAbsent(next.Leak, next.Links.Select(l => (l.Fault, 1 - l.P)));
            var absent = BruteForce.Enumerate(network, [.. observed, new Observed(findings, false)]);
            var present = BruteForce.Enumerate(network, [.. observed, new Observed(findings, true)]);
            what.ProbabilityAbsent.ShouldBe(absent.Evidence / (absent.Evidence + present.Evidence), 1e-9, $"seed {seed}");
            for (var i = 0; i < faults; i++)
            {
                what.IfAbsent(i).ShouldBe(absent.Faults[i], 1e-9, $"seed {seed}, absent, fault {i}");
                what.IfPresent(i).ShouldBe(present.Faults[i], 1e-7, $"seed {seed}, present, fault {i}");
            }
        }
    }

    [Fact]
    public void A_contradiction_names_a_smallest_set_none_of_which_can_be_left_out()
    {
        // s can only come from a or b; t is sure with a, u is sure with b; v has nothing to do with it.
        var network = new FaultNetwork(
            [new Fault("a", 0.3), new Fault("b", 0.3), new Fault("c", 0.3)],
            [
                new Finding("s", 0, [new Link(0, 0.9), new Link(1, 0.9)]),
                new Finding("t", 0, [new Link(0, 1)]),
                new Finding("u", 0, [new Link(1, 1)]),
                new Finding("v", 0.1, [new Link(2, 0.5)]),
            ]
        );
        List<Observed> observed = [new(3, true), new(1, false), new(0, true), new(2, false)];
        var problem = NoisyOrInference.Infer(network, observed).Problem!;
        problem.ShouldBe("The evidence contradicts itself: s present, t absent, u absent cannot all be true together.");
        // Leaving any of the named ones out makes the rest possible.
        foreach (var named in new[] { 0, 1, 2 })
            NoisyOrInference.Infer(network, observed.Where(o => o.Finding != named).ToList()).IsOk.ShouldBeTrue($"without {named}");
    }

    [Fact]
    public void The_same_finding_given_both_ways_is_named_as_such()
    {
        var network = new FaultNetwork([new Fault("a", 0.3)], [new Finding("s", 0.1, [new Link(0, 0.9)])]);
        NoisyOrInference
            .Infer(network, [new Observed(0, true), new Observed(0, false)])
            .Problem!.ShouldContain("s is given as both present and absent");
    }
}
