using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What leaks eats the traces of its board, and what is dry has eaten none. Common practice, no source.</summary>
public class EatenBesideTests
{
    // Looks at what may leak, on a board with traces of its own.
    public static TheoryData<string, string> Looks =>
        [
            .. TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes).SelectMany(p => new DeviceModel(p, TradeLibrary.Shipped) is var model
                ? p.Probes.Where(l => l.Kind == ProbeKind.Look && Beside(model, l).Count > 0).Select(l => (p.Id, l.Id.ToString()))
                : []),
        ];

    [Theory]
    [MemberData(nameof(Looks))]
    public void A_leak_that_is_seen_makes_its_traces_suspects_and_a_dry_one_clears_them(string id, string look)
    {
        var model = new DeviceModel(TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes).Single(p => p.Id == id), TradeLibrary.Shipped);
        var probe = model.Profile.FindProbe(new ProbeId(look))!;
        var untold = Traces();
        Traces(new ProbeTaken(0, probe.Id, ProbeOutcome.Abnormal, "bad, wet, leaking")).ShouldBeGreaterThan(untold * 1.5);
        Traces(new ProbeTaken(0, probe.Id, ProbeOutcome.Normal)).ShouldBeLessThan(untold);
        // Dull and dry is no leak.
        Traces(new ProbeTaken(0, probe.Id, ProbeOutcome.Abnormal, "bad, dull")).ShouldBe(untold, untold * 0.01);

        double Traces(params BenchEvent[] events)
        {
            var unit = new UnitCase(model, events);
            return Beside(model, probe).Average(i => unit.Faults[i].Prior);
        }
    }

    [Fact]
    public void Four_times_the_odds_of_one_in_ten_are_four_in_thirteen() => EatenBeside.Weighed(0.1, 4).ShouldBe(4.0 / 13, 1e-12);

    private static List<int> Beside(DeviceModel model, Probe look)
    {
        var boards = look.PartIds()
            .Where(p => model.FaultsOf(p).Any(i => model.Faults[i].Mode.Eats is not null))
            .Select(p => model.Profile.FindPart(p)!.Board)
            .OfType<string>()
            .ToHashSet();
        return Enumerable.Range(0, model.Faults.Count).Where(i => model.Faults[i] is { Mode.Eaten: true, Part.Board: { } b } && boards.Contains(b)).ToList();
    }
}
