using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>A supply that hums. Common practice, no source: what smooths for all hums in all, and a meter on its volts range shows the
/// mean, in which no ripple is.</summary>
public class HumTests
{
    // Consoles whose supply a look or the library says to hum, with picture and sound of their own.
    public static TheoryData<string> Consoles =>
        [
            "build-console-internal-supply",
            "build-console-top-loading",
            "build-disc-console-tray",
            "build-console-three-rails",
        ];

    [Theory]
    [MemberData(nameof(Consoles))]
    public void What_hums_in_picture_and_sound_is_rather_the_supply_than_what_hums_in_one(string id)
    {
        var model = ModelOf(id);
        BenchEvent[] runs = [Passes(model, "power-light"), Passes(model, "start-up")];
        var one = Share(model, Smooths(model), [.. runs, Hums(model, "video-out"), Passes(model, "speaker")]);
        var both = Share(model, Smooths(model), [.. runs, Hums(model, "video-out"), Hums(model, "speaker")]);
        both.ShouldBeGreaterThan(one);
        both.ShouldBeGreaterThan(0.1);
        Share(model, Smooths(model), [Hums(model, "speaker"), .. runs, Hums(model, "video-out")]).ShouldBe(both, 0.001);
    }

    [Theory]
    [MemberData(nameof(Consoles))]
    public void Good_volts_clear_a_supply_that_hums_less_than_one_that_is_weak(string id)
    {
        var model = ModelOf(id);
        var volts = model
            .Profile.Probes.Where(p => p.Kind == ProbeKind.Volts && p.At is { } at && model.Graph.Upstream(at, powerOnly: true).Overlaps(Smooths(model)))
            .ToList();
        volts.ShouldNotBeEmpty();
        foreach (var probe in volts)
        {
            var good = new ProbeTaken(0, probe.Id, ProbeOutcome.Normal);
            BenchEvent[] hums = [Passes(model, "power-light"), Passes(model, "start-up"), Hums(model, "video-out")];
            BenchEvent[] flickers = [hums[0], hums[1], new FunctionTried(0, Of(model, "video-out").Id, false, "flicker")];
            Kept(hums).ShouldBeGreaterThan(Kept(flickers), probe.Id.ToString());
            double Kept(BenchEvent[] told) => Odds([.. told, good]) / Odds(told);
            double Odds(BenchEvent[] told) => Share(model, Smooths(model), told) is var s ? s / (1 - s) : 0;
        }
    }

    [Fact]
    public void Nobody_buys_a_socket_before_the_supply_was_looked_at()
    {
        var model = ModelOf("build-console-internal-supply");
        BenchEvent[] told =
        [
            Passes(model, "power-light"),
            Passes(model, "start-up"),
            Hums(model, "video-out"),
            Hums(model, "speaker"),
            new RepairDone(0, new PartId("av"), "clean-socket"),
            Hums(model, "video-out"),
            Hums(model, "speaker"),
            new ProbeTaken(0, new ProbeId("av-press"), ProbeOutcome.Normal),
            new ProbeTaken(0, new ProbeId("tp5"), ProbeOutcome.Normal),
        ];
        Share(model, Smooths(model), told).ShouldBeGreaterThan(0.2);
    }

    private static HashSet<PartId> Smooths(DeviceModel model) =>
        model.Profile.Parts.Where(p => p.Kind is "supply-board" or "capacitors").Select(p => p.Id).ToHashSet();

    private static DeviceModel ModelOf(string id) => new(TradeLibrary.Shipped.Archetypes.Single(p => p.Id == id), TradeLibrary.Shipped);

    private static DeviceFunction Of(DeviceModel model, string kind) => model.Profile.Functions.First(f => f.Kind == kind);

    private static FunctionTried Passes(DeviceModel model, string kind) => new(0, Of(model, kind).Id, true);

    private static FunctionTried Hums(DeviceModel model, string kind) => new(0, Of(model, kind).Id, false, "buzz");

    private static double Share(DeviceModel model, IReadOnlySet<PartId> parts, params BenchEvent[] events) =>
        UnitDiagnosis
            .Make(model, [.. events.Select((e, n) => e with { Id = n })])
            .Value!.Suspects.Where(s => parts.Contains(s.Fault.Part.Id))
            .Sum(s => s.Share);
}
