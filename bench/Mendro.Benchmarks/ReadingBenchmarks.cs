using BenchmarkDotNet.Attributes;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;

namespace Mendro.Benchmarks;

/// <summary>What is done ten times a second while the meter runs, and at every key typed into the bar.</summary>
public class ReadingBenchmarks
{
    private readonly DeviceProfile _profile = TradeLibrary.Shipped.Profiles.Single(p => p.Id == "harrow-quartet");
    private readonly List<double?> _good = Enumerable.Range(0, 200).Select(n => (double?)(5 + 0.01 * (n % 17))).ToList();
    private Probe _probe = null!;

    /// <summary>Chooses the probe.</summary>
    [GlobalSetup]
    public void Setup() => _probe = _profile.FindProbe("tp4")!;

    /// <summary>A typed reading with its meaning.</summary>
    [Benchmark]
    public string Judge() => ReadingJudge.Judge(_profile, _probe, "6,21 V").Value!.Reason;

    /// <summary>A hundred samples watched for standing still.</summary>
    [Benchmark]
    public SteadyState Watch()
    {
        var watch = new SteadyWatch(TimeSpan.FromSeconds(1), armed: true);
        var state = SteadyState.Moving;
        for (var n = 0; n < 100; n++)
            state = watch.Step(TimeSpan.FromMilliseconds(110 * n), ReadingUnit.Volts, 6.2);
        return state;
    }

    /// <summary>The signature of two hundred good units at one probe.</summary>
    [Benchmark]
    public Signature? Signature() => Core.Readings.Signature.Of(_good);
}
