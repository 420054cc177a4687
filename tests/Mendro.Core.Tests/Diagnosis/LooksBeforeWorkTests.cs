using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What is looked at, tried or asked before something is charged, opened or renewed (common practice, no source).</summary>
public sealed class LooksBeforeWorkTests
{
    public static TheoryData<string> WithLithium =>
        [
            .. TradeLibrary
                .Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes)
                .Where(p => p.Probes.Any(x => IsLook(p, x)) && p.Functions.Any(f => f.Kind == "charging") && p.Functions.Any(f => f.Kind == "power-light"))
                .Select(p => p.Id),
        ];

    // A swollen cell is not charged: makers' data sheets of lithium-ion cells say so without exception.
    [Theory]
    [MemberData(nameof(WithLithium))]
    public void No_lithium_pack_is_charged_unseen(string id)
    {
        var profile = TradeLibrary.Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes).Single(p => p.Id == id);
        var looks = profile.Probes.Where(p => IsLook(profile, p)).ToList();
        foreach (var charging in new bool?[] { null, true, false })
        {
            var bench = new Bench(new DeviceModel(profile, TradeLibrary.Shipped));
            var (power, charge) = (profile.Functions.First(f => f.Kind == "power-light"), profile.Functions.First(f => f.Kind == "charging"));
            if (charging is { } works)
                _ = works ? bench.Works(charge.Id) : bench.Fails(charge.Id, "nothing");
            bench.Fails(power.Id, "nothing");
            for (var move = 0; move < 8; move++)
            {
                var first = bench.Advise(AccessState.Open).Moves[0];
                var seen = bench.Events.OfType<Evidence.ProbeTaken>().Any(t => looks.Exists(l => l.Id == t.ProbeId));
                if (first.Repair?.Method.NotWith is { Count: > 0 })
                    seen.ShouldBeTrue($"{first.Id} after {bench.Events.Count} facts");
                if (first.Function is { Kind: "charging" } && looks.Exists(l => l.State == AccessState.Closed))
                    seen.ShouldBeTrue($"{first.Id} after {bench.Events.Count} facts");
                if (first.Probe is { } probe)
                    bench.Add(new Evidence.ProbeTaken(bench.Events.Count, probe.Id, Evidence.ProbeOutcome.Normal));
                else
                    break;
            }
        }
    }

    [Fact]
    public void What_charges_is_tried_with_the_case_closed_before_the_unit_is_opened_for_its_fuse()
    {
        var bench = new Bench(Build("build-handheld-lithium")).Fails("power-light", "nothing").Reads("tp4", "3.2 V").Reads("pack-eye", "ok");
        bench.Reads("tp1", "6.3 V").Advise().Moves[0].Id.ShouldBe("fn:charging");
        bench.Works("charging").Advise().Moves[0].Id.ShouldBe("fix:pack:charge-pack");
    }

    [Fact]
    public void A_socket_that_answers_to_a_finger_is_flowed_again_before_it_is_renewed()
    {
        var bench = new Bench("tarn-leaflet").Fails("charging", "nothing").Fails("power-light", "nothing").Reads("tp4", "2.8 V").Reads("tp1", "5.2 V");
        bench.Reads("socket-press", "bad, light comes").Advise().Moves[0].Id.ShouldBe("fix:socket:reflow");
        bench.Repairs("socket", "reflow").Fails("charging", "nothing").Fails("power-light", "nothing").Reads("socket-press", "bad, light comes");
        bench.Advise(AccessState.Open).Moves[0].Id.ShouldBe("fix:socket:replace-socket");
    }

    [Fact]
    public void A_switch_that_was_flushed_in_vain_is_beeped_before_it_is_renewed()
    {
        var bench = new Bench(Build("build-handheld-lithium")).Works("charging").Fails("power-light", "on-then-off").Reads("pack-eye", "ok");
        bench.Reads("tp4", "3.4 V").Reads("tp6", "3.0 V");
        foreach (var time in new[] { 1, 2 })
            bench.Repairs("switch", "flush-switch").Fails("power-light", "on-then-off").Reads("tp6", "3.0 V").Diagnose().ShouldNotBeNull($"{time}");
        bench.Advise(AccessState.Open).Moves[0].Id.ShouldBe("probe:switch-beep");
    }

    [Fact]
    public void Another_adapter_waits_for_the_volts_of_this_one()
    {
        var hot = new Bench("pellin-atrium").Works("power-light").Fails("start-up", "warm").Reads("tp3", "3.1 V");
        var moves = hot.Advise(AccessState.Open).Moves.Select(m => m.Id).ToList();
        moves.IndexOf("probe:tp1").ShouldBeLessThan(moves.IndexOf("swap:adapter"));
    }

    private static bool IsLook(DeviceProfile profile, Probe probe) =>
        probe.Kind == ProbeKind.Look
        && probe.Minutes <= 1.5
        && probe.Spans?.Any(s => TradeLibrary.Shipped.FindPartKind(profile.FindPart(s)!.Kind)?.Has(PartRole.Lithium) == true) == true;

    private static DeviceProfile Build(string id) => TradeLibrary.Shipped.Archetypes.Single(p => p.Id == id);
}
