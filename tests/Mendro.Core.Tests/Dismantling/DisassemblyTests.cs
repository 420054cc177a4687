using Mendro.Core.Diagnosis;
using Mendro.Core.Dismantling;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Tests.Diagnosis;

namespace Mendro.Core.Tests.Dismantling;

/// <summary>What Find pays to reach things: the steps of the teardown, shared, and nothing twice.</summary>
public class DisassemblyTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    public static TheoryData<string> Models { get; } = new(Library.Profiles.Concat(Library.Archetypes).Select(p => p.Id));

    private static DeviceProfile Find(string id) => Library.Profiles.Concat(Library.Archetypes).First(p => p.Id == id);

    // The other way to the same figure: the planner that the command line asks.
    [Theory]
    [MemberData(nameof(Models))]
    public void A_probe_costs_what_the_planner_says_from_closed_and_from_every_step_done(string id)
    {
        var profile = Find(id);
        var (ways, graph) = (Disassembly.Of(profile), TeardownGraph.Of(profile.Steps, profile.Fasteners).Value!);
        foreach (var probe in profile.Probes.Where(p => graph.FreedBy(p.Id).Count > 0))
        {
            var at = default(Apart);
            var done = new List<string>();
            foreach (var step in (string?[])[null, .. (profile.Steps ?? []).Select(s => s.Id)])
            {
                if (step is not null)
                    (at, done) = (ways.Step(at, step, false), [.. done, step]);
                var plan = TeardownPlanner.Plan(graph, [probe.Id.Value], done).Value!;
                ways.Minutes(at, ways.Goal(probe)).ShouldBe(plan.Minutes, 1e-9, $"{probe.Id} after {string.Join(", ", done)}");
            }
        }
    }

    [Theory]
    [MemberData(nameof(Models))]
    public void What_was_reached_costs_nothing_more_and_two_things_never_more_than_each_alone(string id)
    {
        var profile = Find(id);
        var ways = Disassembly.Of(profile);
        var goals = profile.Probes.Select(ways.Goal).Concat(profile.Parts.Select(p => ways.Goal(p.Id, AccessState.BoardOut))).Distinct().ToList();
        foreach (var one in goals)
        {
            var at = ways.After(default, one);
            ways.Minutes(at, one).ShouldBe(0);
            ways.Reached(at, one).ShouldBeTrue();
            foreach (var other in goals)
                ways.Minutes(at, other).ShouldBeLessThanOrEqualTo(ways.Minutes(default, other) + 1e-9);
        }
    }

    [Fact]
    public void A_model_without_steps_has_its_coarse_states()
    {
        var ways = Disassembly.Coarse(new Preparation(5, 6, 4));
        double To(AccessState from, AccessState to) => ways.Minutes(ways.At(from), Disassembly.Goal(to));
        To(AccessState.Closed, AccessState.Lifted).ShouldBe(15);
        To(AccessState.Open, AccessState.BoardOut).ShouldBe(6);
        To(AccessState.Lifted, AccessState.Open).ShouldBe(0);
        ways.Toward(default, Disassembly.Goal(AccessState.Lifted)).ShouldBe(ways.At(AccessState.Open));
    }

    /// <summary>A chain of three boxes; the first lies under a flap, the last under the back and its board.</summary>
    private static DeviceProfile Branches() =>
        MadeUp.Chain(3, 0.1).Profile with
        {
            Preparation = new Preparation(20, 20, 20),
            Steps =
            [
                new TeardownStep("flap", Frees: ["b0"], Minutes: 1),
                new TeardownStep("back", Frees: ["b1"], Minutes: 6),
                new TeardownStep("hook", Frees: [], Needs: ["flap"], Minutes: 2),
                new TeardownStep("slot", Frees: ["b2"], AnyOf: [["hook", "back"]], Minutes: 3),
            ],
        };

    [Fact]
    public void Each_part_has_its_own_way_in_and_alternatives_are_shared_with_what_is_open()
    {
        var ways = Disassembly.Of(Branches());
        double Minutes(Apart from, string part) => ways.Minutes(from, ways.Goal(part, AccessState.Open));
        Minutes(default, "b0").ShouldBe(1);
        Minutes(default, "b1").ShouldBe(6);
        // Through the flap with a hook, 1 + 2 + 3; once the back is off, 3.
        Minutes(default, "b2").ShouldBe(6);
        Minutes(ways.Step(default, "back", false), "b2").ShouldBe(3);
        Minutes(ways.Step(default, "flap", false), "b2").ShouldBe(5);
        // Put back, it is to be paid again.
        Minutes(ways.Step(ways.Step(default, "back", false), "back", true), "b1").ShouldBe(6);
    }

    [Fact]
    public void Find_pays_for_the_flap_and_not_for_the_whole_case()
    {
        var made = MadeUp.Chain(3, 0.1, state: AccessState.Open);
        var model = new DeviceModel(Branches() with { Parts = made.Profile.Parts }, made.Library);
        var diagnosis = UnitDiagnosis.Make(model, [new Core.Evidence.FunctionTried(0, "work", false)]).Value!;
        var moves = new MoveAdvisor(new BenchCosts()).Advise(diagnosis, AccessState.Closed).Moves;
        var minutes = moves.Where(m => m.Repair is not null).ToDictionary(m => m.Repair!.Part.Id.Value, m => m.PreparationMinutes);
        (minutes["b0"], minutes["b1"], minutes["b2"]).ShouldBe((1, 6, 6));
    }

    /// <summary>A state of taking apart is a number of the one who gave it: who shares a model, at whatever moment, shares them too.</summary>
    [Fact]
    public void All_who_share_a_model_share_what_it_numbers()
    {
        foreach (var profile in TradeLibrary.Shipped.Profiles)
        {
            var model = new DeviceModel(profile, TradeLibrary.Shipped);
            using var together = new Barrier(4);
            var seen = new Disassembly[4];
            var threads = Enumerable
                .Range(0, seen.Length)
                .Select(n => new Thread(() =>
                {
                    together.SignalAndWait();
                    seen[n] = model.Disassembly;
                }))
                .ToList();
            threads.ForEach(t => t.Start());
            threads.ForEach(t => t.Join());
            seen.Distinct().Count().ShouldBe(1, profile.Id);
        }
    }
}
