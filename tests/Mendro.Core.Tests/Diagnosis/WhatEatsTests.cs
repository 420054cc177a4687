using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Diagnosis;

/// <summary>What eats a board, what a bay loses, what shows a picture (common practice, no source).</summary>
public sealed class WhatEatsTests
{
    private static IEnumerable<DeviceProfile> Everything => TradeLibrary.Shipped.Archetypes.Concat(TradeLibrary.Shipped.Profiles);

    /// <summary>Models with cells in a bay whose volts are taken at its contacts, and whose contacts can be looked at.</summary>
    public static TheoryData<string> WithABay =>
        [.. Everything.Where(p => Volts(p) is not null && p.Probes.Any(x => IsLook(p, x, "battery-contacts"))).Select(p => p.Id)];

    [Theory]
    [MemberData(nameof(WithABay))]
    public void No_volts_with_fresh_cells_in_lie_at_the_contacts_of_the_bay(string id)
    {
        var profile = Everything.Single(p => p.Id == id);
        var model = new DeviceModel(profile, TradeLibrary.Shipped);
        var (light, volts) = (profile.Functions.First(f => f.Kind == "power-light"), Volts(profile)!);
        var bench = new Bench(model).Fails(light.Id, "nothing").Reads(volts.Id.ToString(), "0.1 V");

        var cells = profile.Parts.First(p => p.Kind == "cells");
        bench.Add(new RepairDone(bench.Events.Count, cells.Id, "fresh-cells"));
        bench.Fails(light.Id, "nothing").Reads(volts.Id.ToString(), "0.1 V");

        var next = bench.Advise(AccessState.Closed).Moves[0];
        next.Id.ShouldNotBe("aside");
        Share(bench, model, "battery-contacts").ShouldBeGreaterThan(0.6);
    }

    [Theory]
    [MemberData(nameof(WithABay))]
    public void Good_volts_of_the_cells_clear_half_of_what_crust_may_lose_and_nothing_of_a_loose_spring(string id)
    {
        var model = new DeviceModel(Everything.Single(p => p.Id == id), TradeLibrary.Shipped);
        var told = new FunctionTried(0, model.Profile.Functions.First(f => f.Kind == "power-light").Id, false, "nothing");
        double[] Odds(params BenchEvent[] events) =>
            [
                .. new[] { "eaten", "loose" }.Select(mode =>
                {
                    var fault = model.Faults.ToList().FindIndex(f => f.Part.Kind == "battery-contacts" && f.Mode.Id == mode);
                    var p = UnitDiagnosis.Make(model, [.. events.Select((e, n) => e with { Id = n })]).Value!.Posterior.Fault(fault);
                    return p / (1 - p);
                }),
            ];
        var good = new ProbeTaken(0, Volts(model.Profile)!.Id, ProbeOutcome.Normal);
        var (before, after) = (Odds(told), Odds(told, good));

        (after[0] / before[0]).ShouldBeLessThan(after[1] / before[1]);
        (after[1] / before[1]).ShouldBeGreaterThanOrEqualTo(1);
    }

    [Fact]
    public void A_leak_comes_off_before_the_line_that_it_ate_is_bridged()
    {
        var bench = new Bench(Build("build-console-hard-disk"))
            .Works("power-light")
            .Works("start-up")
            .Fails("power-button", "stuck")
            .Reads("powersw-ohms", "2 ohm")
            .Reads("line1-beep", "no beep");
        var looks = new List<string>();
        for (var n = 0; n < 4 && bench.Advise(AccessState.BoardOut).Moves[0] is { Probe: { } probe }; n++)
        {
            looks.Add(probe.Id.ToString());
            bench.Reads(probe.Id.ToString(), probe.Id == "clockcap-eye" ? "bad, wet and brown round it" : "ok");
        }

        looks.ShouldContain("clockcap-eye");
        bench.Advise(AccessState.BoardOut).Moves[0].Id.ShouldBe("fix:clockcap:remove-clock-capacitor");
        bench.Add(new RepairDone(bench.Events.Count, new PartId("clockcap"), "remove-clock-capacitor"));
        bench.Fails("power-button", "stuck").Advise(AccessState.BoardOut).Moves[0].Id.ShouldBe("fix:line1:jumper");
    }

    [Fact]
    public void Where_what_eats_is_clean_the_line_is_bridged_at_once()
    {
        var bench = new Bench(Build("build-console-hard-disk")).Works("power-light").Works("start-up").Fails("eject", "nothing");
        bench.Reads("clockcap-eye", "dry and clean").Reads("railcaps-eye", "ok").Reads("line2-beep", "no beep");
        bench.Advise(AccessState.BoardOut).Moves[0].Id.ShouldBe("fix:line2:jumper");
    }

    [Fact]
    public void A_wheel_that_does_nothing_on_a_pale_screen_may_want_its_bias()
    {
        var bench = new Bench(Build("build-handheld-four-cell-grey"))
            .Works("power-light")
            .Works("start-up")
            .Works("speaker")
            .Fails("picture", "dim")
            .Fails("wheels", "nothing");
        bench.Reads("tp7", "-7 V").Reads("tp6", "5.0 V").Advise(AccessState.Open).Moves[0].Id.ShouldBe("fix:bias:repair-bias");
    }

    [Theory]
    [InlineData("build-console-three-rails")]
    [InlineData("build-console-top-loading")]
    [InlineData("build-console-internal-supply")]
    public void No_output_socket_is_renewed_before_another_screen_was_tried(string id)
    {
        var bench = new Bench(Build(id)).Works("power-light").Fails("video", "flicker").Fails("sound", "buzz");
        var order = new List<string>();
        while (order.Count < 8 && !order.Contains("swap:screen") && bench.Advise().Moves[0] is { Ends: false } move)
        {
            order.Add(move.Id);
            _ = move switch
            {
                { Probe: { } probe } => bench.Reads(probe.Id.ToString(), "ok"),
                { SwapOut: { } piece } => bench.Add(
                    new SwapTried(bench.Events.Count, "video", [.. bench.Model.Closure("video").Where(p => p != piece)], false)
                ),
                { Repair: { } repair } => bench.Repairs(repair.Part.Id.ToString(), repair.Method.Id).Fails("video", "flicker").Fails("sound", "buzz"),
                _ => bench.Works(move.Function!.Id.ToString()),
            };
        }

        order.ShouldContain("swap:screen");
        order.ShouldNotContain(m => m.StartsWith("fix:av:replace", StringComparison.Ordinal), string.Join(", ", order));
    }

    private static DeviceModel Build(string id) => new(Everything.Single(p => p.Id == id), TradeLibrary.Shipped);

    private static Probe? Volts(DeviceProfile profile) =>
        profile.Probes.FirstOrDefault(p =>
            p is { Kind: ProbeKind.Volts, State: AccessState.Closed, At: { } at } && profile.Parts.Any(x => x.Id == at && x.Kind == "cells")
        );

    private static bool IsLook(DeviceProfile profile, Probe probe, string kind) =>
        probe.Kind == ProbeKind.Look && probe.Spans?.Any(s => profile.Parts.Any(p => p.Id == s && p.Kind == kind)) == true;

    private static double Share(Bench bench, DeviceModel model, string kind) =>
        UnitDiagnosis.Make(model, bench.Events).Value!.Suspects.Where(s => s.Fault.Part.Kind == kind).Sum(s => s.Share);
}
