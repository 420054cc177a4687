using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What only gives light, and what only charges, takes no more away than a light or a charge. Common practice, no source.</summary>
public class LightAndChargeTests
{
    private static IEnumerable<DeviceProfile> All => TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes);

    private static bool Has(DeviceProfile profile, params string[] kinds) => kinds.All(k => profile.Functions.Any(f => f.Kind == k));

    public static TheoryData<string> Lit => [.. All.Where(p => Has(p, "backlight", "picture", "speaker", "power-light")).Select(p => p.Id)];

    public static TheoryData<string> Charged => [.. All.Where(p => Has(p, "charging", "picture", "power-light")).Select(p => p.Id)];

    [Theory]
    [MemberData(nameof(Lit))]
    public void A_picture_seen_under_a_lamp_clears_nothing_of_its_light(string id)
    {
        var model = ModelOf(id);
        var light = model.LightOf(Of(model, "picture"));
        var dark = Fails(model, "backlight", "nothing");
        var alone = Share(model, light, Passes(model, "power-light"), dark);
        alone.ShouldBeGreaterThan(0.03);
        Share(model, light, Passes(model, "power-light"), Passes(model, "picture"), dark).ShouldBeGreaterThanOrEqualTo(alone - 0.01);
    }

    [Theory]
    [MemberData(nameof(Charged))]
    public void Volts_of_a_pack_that_runs_just_now_are_hardly_expected_to_be_missing(string id)
    {
        var model = ModelOf(id);
        if (model.Profile.Functions.FirstOrDefault(f => f.Kind == "start-up") is not { } start)
            return;
        var charges = model.ChargesOf(start.Id);
        foreach (var probe in model.Profile.Probes.Where(p => p is { Kind: ProbeKind.Volts, At: { } at } && !charges.Contains(at)))
        {
            var (silent, runs) = (new Bench(model).Fails("charging", "nothing"), new Bench(model).Fails("charging", "nothing").Works(start.Id));
            var template = model.ProbeAbnormal(probe);
            double Missing(Bench bench) => 1 - bench.Diagnose().Case.WhatIf(bench.Diagnose().Posterior, template).ProbabilityAbsent;
            if (Missing(silent) > 0.3)
                Missing(runs).ShouldBeLessThan(Missing(silent) / 2, probe.Id.ToString());
        }
    }

    [Theory]
    [MemberData(nameof(Lit))]
    public void No_picture_may_be_no_light_until_the_light_is_seen(string id)
    {
        var model = ModelOf(id);
        var light = model.LightOf(Of(model, "picture"));
        BenchEvent[] told = [Passes(model, "power-light"), Passes(model, "speaker"), Fails(model, "picture", "nothing")];
        Share(model, light, told).ShouldBeGreaterThan(0.02);
        Share(model, light, [.. told, Passes(model, "backlight")]).ShouldBeLessThan(0.01);
        // In whatever order it is told.
        Share(model, light, [Passes(model, "backlight"), .. told]).ShouldBeLessThan(0.01);
    }

    public static TheoryData<string, string> Lamps =>
        [
            .. All.SelectMany(p => new DeviceModel(p, TradeLibrary.Shipped) is { Lit: { } lit } model
                ? p.Probes.Where(l => l.Kind == ProbeKind.Look && l.PartIds().All(model.LightOf(lit).Contains)).Select(l => (p.Id, l.Id.ToString()))
                : []),
        ];

    [Theory]
    [MemberData(nameof(Lamps))]
    public void A_picture_under_a_lamp_is_there_and_only_its_light_is_not(string id, string lamp)
    {
        var model = ModelOf(id);
        var light = model.LightOf(model.Lit!);
        BenchEvent[] told = [Passes(model, "power-light"), Passes(model, "speaker"), Fails(model, "picture", "nothing")];
        ProbeTaken Seen(string words) => new(0, new ProbeId(lamp), ProbeOutcome.Abnormal, words);
        Share(model, light, [.. told, Seen("bad, a faint picture")]).ShouldBeGreaterThan(0.9);
        Share(model, light, [.. told, Seen("bad, I can just see the game")]).ShouldBeGreaterThan(0.9);
        Share(model, light, [.. told, Seen("bad, no picture under it either")])
            .ShouldBeLessThan(Share(model, light, [.. told, Seen("bad")]) / 2);
    }

    [Theory]
    [MemberData(nameof(Charged))]
    public void What_runs_is_not_empty_for_want_of_a_charge(string id)
    {
        var model = ModelOf(id);
        var charges = model.ChargesOf(Of(model, "picture").Id);
        charges.ShouldNotBeEmpty();
        Share(model, charges, Fails(model, "power-light", "nothing")).ShouldBeGreaterThan(0.05);
        Share(model, charges, Passes(model, "power-light"), Fails(model, "picture", "nothing")).ShouldBeLessThan(0.01);
        Share(model, charges, Fails(model, "picture", "nothing"), Passes(model, "power-light")).ShouldBeLessThan(0.01);
    }

    private static DeviceModel ModelOf(string id) => new(All.Single(p => p.Id == id), TradeLibrary.Shipped);

    private static DeviceFunction Of(DeviceModel model, string kind) => model.Profile.Functions.First(f => f.Kind == kind);

    private static FunctionTried Passes(DeviceModel model, string kind) => new(0, Of(model, kind).Id, true);

    private static FunctionTried Fails(DeviceModel model, string kind, string look) => new(0, Of(model, kind).Id, false, look);

    private static double Share(DeviceModel model, IReadOnlySet<PartId> parts, params BenchEvent[] events) =>
        UnitDiagnosis
            .Make(model, [.. events.Select((e, n) => e with { Id = n })])
            .Value!.Suspects.Where(s => parts.Contains(s.Fault.Part.Id))
            .Sum(s => s.Share);
}
