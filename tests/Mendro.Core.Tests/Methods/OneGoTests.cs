using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Tests.Diagnosis;
using Mendro.StandIns;

namespace Mendro.Core.Tests.Methods;

/// <summary>Two methods in one go: connector and board edge while the connector is off. Common practice, no source.</summary>
public class OneGoTests
{
    private const string Both = "connector-and-edge";

    private static readonly DeviceModel Console = new(
        TradeLibrary.Shipped.Archetypes.Single(p => p.Id == "build-console-front-loading"),
        TradeLibrary.Shipped
    );

    [Fact]
    public void It_is_offered_only_where_both_parts_are() =>
        TradeLibrary
            .Shipped.Profiles.Concat(TradeLibrary.Shipped.Archetypes)
            .Where(p => p.Parts.Any(part => new DeviceModel(p, TradeLibrary.Shipped).MethodsFor(part).Any(m => m.Id == Both)))
            .Select(p => p.Id)
            .ShouldBe(["build-console-front-loading"]);

    [Fact]
    public void It_is_worth_what_both_are_worth_and_takes_less_than_both()
    {
        var bench = new Bench(Console).Fails("start-up", "blinks");
        var diagnosis = bench.Diagnose();
        var shares = Enumerable.Range(0, diagnosis.Case.Faults.Count).Select(Share).ToArray();
        var options = RepairOption.For(diagnosis.Case, shares, new BenchCosts());
        RepairOption Of(string id) => options.Single(o => o.MoveId == id);
        var (both, brush, edge) = (Of($"fix:connector:{Both}"), Of("fix:connector:brush-connector"), Of("fix:edge:clean-board-edge"));
        both.Chance.ShouldBe(brush.Chance + edge.Chance, 1e-12);
        both.Chance.ShouldBeGreaterThan(0.1);
        both.Method.Minutes.ShouldBeLessThan(brush.Method.Minutes + edge.Method.Minutes);

        double Share(int fault) => diagnosis.Suspects.Where(s => s.FaultIndex == fault).Sum(s => s.Share);
    }

    [Fact]
    public void As_evidence_it_is_both_repairs()
    {
        var told = EvidenceFile.Read(
            $$"""
            {"format":"mendro.evidence/1","events":[{"function":"start-up","result":"fail","look":"blinks"},
              {"part":"connector","method":"{{Both}}"},{"function":"start-up","result":"pass"}]}
            """,
            Console
        );
        told.Value!.Events.ShouldBe([
            new FunctionTried(0, "start-up", false, "blinks"),
            new RepairDone(1, "connector", "brush-connector"),
            new RepairDone(2, "edge", "clean-board-edge"),
            new FunctionTried(3, "start-up", true),
        ]);
    }

    [Fact]
    public void A_unit_dirty_at_both_places_is_cured_by_it_and_tried_once()
    {
        var faults = new[] { "connector.dirty", "edge.dirty" }.Select(id => Console.Faults.ToList().FindIndex(f => f.Id == id)).ToList();
        var cured = Enumerable
            .Range(0, 200)
            .Count(n =>
            {
                var bench = new PracticeBench(Console, PracticeUnit.With(Console, $"both/{n}", faults), new BenchCosts());
                bench.Repair("connector", Console.Library.FindMethod(Both)!, Console.Profile.FindFunction("start-up")!);
                bench.Bodies.OfType<RepairLogged>().Select(r => r.Part.ToString()).ShouldBe(["connector", "edge"]);
                bench.Bodies.OfType<FunctionTrial>().Count(t => t.Function == "start-up").ShouldBe(1);
                return !bench.Unit.Present.Overlaps(faults);
            });
        // 0.8 by the brush times 0.88 at the edge; three standard errors of 200.
        (cured / 200.0).ShouldBe(0.8 * 0.88, 0.1);
    }
}
