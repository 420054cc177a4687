using BenchmarkDotNet.Attributes;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Web.Drawing;

namespace Mendro.Benchmarks;

/// <summary>The computing of one visit to Find. Aims: posteriors 20 ms, ranking with explanations 150 ms, map 30 ms.</summary>
[MemoryDiagnoser]
public class DiagnosisBenchmarks
{
    private FaultNetwork _network = null!;
    private List<Observed> _observed = [];
    private DeviceModel _model = null!;
    private List<BenchEvent> _events = [];
    private UnitDiagnosis _diagnosis = null!;
    private MapScene _scene = null!;
    private DeviceModel _hardModel = null!;
    private List<BenchEvent> _hard = [];

    /// <summary>A random network of the stated size, and the largest demo profile with ten failures.</summary>
    [GlobalSetup]
    public void Prepare()
    {
        var random = new Random(5);
        _network = new FaultNetwork(
            Enumerable.Range(0, 80).Select(i => new Fault($"f{i}", 0.005 + 0.1 * random.NextDouble())).ToList(),
            Enumerable
                .Range(0, 60)
                .Select(j => new Finding(
                    $"s{j}",
                    0.01,
                    Enumerable
                        .Range(0, 80)
                        .Where(_ => random.NextDouble() < 0.25)
                        .Select(i => new Link(i, 0.1 + 0.85 * random.NextDouble()))
                        .ToList()
                ))
                .ToList()
        );
        _observed = Enumerable.Range(0, 60).Select(j => new Observed(j, j < 12)).ToList();

        // Most parts: the six-cell backlit handheld. Nine functions fail and one look is bad: ten present findings.
        _model = new DeviceModel(TradeLibrary.Shipped.Profiles.MaxBy(p => p.Parts.Count)!, TradeLibrary.Shipped);
        _events = _model.Profile.Functions.Select((f, n) => (BenchEvent)new FunctionTried(n, f.Id, false)).ToList();
        _events.Add(new ProbeTaken(99, "psucaps-eye", ProbeOutcome.Abnormal));
        _diagnosis = UnitDiagnosis.Make(_model, _events).Value!;
        _hardModel = new DeviceModel(TradeLibrary.Shipped.Profiles.Single(p => p.Id == "dovrel-bastion"), TradeLibrary.Shipped);
        _hard = _hardModel
            .Profile.Functions.SelectMany(f =>
                Enum.GetValues<Provocation>()
                    .Select(how => (BenchEvent)new Provoked(0, f.Id, how, true))
                    .Prepend(new FunctionTried(0, f.Id, false))
            )
            .Concat(_hardModel.Profile.Probes.Select(p => new ProbeTaken(0, p.Id, ProbeOutcome.Abnormal)))
            .Select((e, n) => e with { Id = n })
            .ToList();
        _scene = new MapScene(
            _model,
            _diagnosis.Verdict,
            new Dictionary<string, string>(),
            new Dictionary<string, string>(),
            "tp1",
            id => id,
            id => id,
            id => id
        );
    }

    /// <summary>Evidence contrived so that everything hangs together, which is sampled. Aim: 1 s.</summary>
    [Benchmark]
    public double Contrived() => UnitDiagnosis.Make(_hardModel, _hard).Value!.Unexplained;

    /// <summary>80 faults, 60 findings observed, 12 of them present.</summary>
    [Benchmark]
    public double Posteriors() => NoisyOrInference.Infer(_network, _observed).Value!.Fault(0);

    /// <summary>Largest profile, ten present findings: diagnosis and full ranking.</summary>
    [Benchmark]
    public int DiagnosisAndRanking() =>
        new MoveAdvisor(new BenchCosts()).Advise(UnitDiagnosis.Make(_model, _events).Value!, AccessState.Closed).Moves.Count;

    /// <summary>The same, with what speaks for and against every suspect.</summary>
    [Benchmark]
    public int Explanations() => Why.Make(_diagnosis).Suspects.Count;

    /// <summary>The map of the largest profile.</summary>
    [Benchmark]
    public int Map() => PathMapSvg.Draw(_scene).Length;
}
