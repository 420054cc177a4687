using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>Evidence contrived so that everything hangs together: answered by the documented approximation, and said so.</summary>
public class HardEvidenceTests
{
    [Theory]
    [InlineData("dovrel-sextant", true)]
    [InlineData("harrow-quartet", false)]
    public void What_is_too_large_for_the_exact_sum_is_sampled_and_says_so(string id, bool twice)
    {
        var model = Shipped.Model(id);
        var diagnosis = UnitDiagnosis.Make(model, Contrived(model, 1)).Value.ShouldNotBeNull();
        diagnosis.Verdict.Sampled.ShouldBeTrue();
        // Shares of the blame are a distribution, also when they are estimated.
        (diagnosis.Suspects.Sum(s => s.Share) + diagnosis.Unexplained).ShouldBe(1, 0.02);
        diagnosis.Suspects.ShouldAllBe(s => s.Posterior >= 0 && s.Posterior <= 1);
        if (!twice)
            return;
        // The same evidence gives the same answer.
        var again = UnitDiagnosis.Make(model, Contrived(model, 1)).Value!;
        again.Suspects.Select(s => s.Posterior).ShouldBe(diagnosis.Suspects.Select(s => s.Posterior));
    }

    [Fact]
    public void A_usual_bench_stays_exact()
    {
        var model = Shipped.Model("harrow-quartet");
        var events = model.Profile.Functions.Select((f, n) => (BenchEvent)new FunctionTried(n, f.Id, false)).ToList();
        UnitDiagnosis.Make(model, events).Value!.Verdict.Sampled.ShouldBeFalse();
    }

    [Fact]
    public void The_command_for_networks_keeps_the_exact_sum_longer_than_a_page()
    {
        NoisyOrInference.StateLimit.ShouldBeGreaterThan(NoisyOrInference.PageStateLimit);
        // Fourteen findings that all share their faults: some 400,000 states, too many for a page and exact for the command.
        var faults = Enumerable.Range(0, 24).Select(i => new Fault($"f{i}", 0.02 + 0.01 * i)).ToList();
        var findings = Enumerable
            .Range(0, 14)
            .Select(j => new Finding(
                $"s{j}",
                0.01,
                Enumerable.Range(0, 24).Select(i => new Link(i, 0.1 + (i * 7 + j * 3) % 9 / 10.0)).ToList()
            ))
            .ToList();
        var observed = Enumerable.Range(0, 14).Select(j => new Observed(j, true)).ToList();
        var network = new FaultNetwork(faults, findings);
        var exact = NoisyOrInference.Infer(network, observed).Value!;
        var sampled = NoisyOrInference.Infer(network, observed, NoisyOrInference.PageStateLimit).Value!;
        (exact.Sampled, sampled.Sampled).ShouldBe((false, true));
        for (var i = 0; i < 24; i++)
            sampled.Fault(i).ShouldBe(exact.Fault(i), 0.02);
    }

    /// <summary>Every function fails with some look, is pressed, flexed and warmed; every probe is bad; swaps fail.</summary>
    internal static List<BenchEvent> Contrived(DeviceModel model, int seed)
    {
        var random = new Random(seed);
        var events = new List<BenchEvent>();
        foreach (var function in model.Profile.Functions)
        {
            var looks = model.Library.FindFunctionKind(function.Kind)!.Looks;
            events.Add(new FunctionTried(events.Count, function.Id, false, looks[random.Next(looks.Count)].Id));
            foreach (var how in Enum.GetValues<Provocation>())
                events.Add(new Provoked(events.Count, function.Id, how, random.Next(2) == 0));
        }

        foreach (var probe in model.Profile.Probes)
            events.Add(new ProbeTaken(events.Count, probe.Id, ProbeOutcome.Abnormal));
        for (var n = 0; n < 6; n++)
        {
            var chain = model.Profile.Parts.Select(p => p.Id).Where(_ => random.Next(2) == 0).ToList();
            events.Add(new SwapTried(events.Count, model.Profile.Functions[n % model.Profile.Functions.Count].Id, chain, false));
        }

        return events;
    }
}
