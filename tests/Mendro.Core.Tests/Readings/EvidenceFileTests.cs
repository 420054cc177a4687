using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Readings;

/// <summary>The <c>mendro.evidence/1</c> format.</summary>
public class EvidenceFileTests
{
    private static readonly DeviceModel Quartet = Shipped.Model("harrow-quartet");

    [Fact]
    public void Every_kind_of_event_is_read_in_order()
    {
        var evidence = EvidenceFile
            .Read(
                """
                {"format":"mendro.evidence/1","state":"board-out","events":[
                  {"mark":"rattle"},{"function":"picture","result":"fail","look":"flicker"},{"probe":"tp3","reading":"6.2 V"},
                  {"part":"switch","cause":"dirty"},{"part":"switch","method":"flush-switch"},{"swap":"picture","chain":["main","panel"],"result":"pass"}]}
                """,
                Quartet
            )
            .Value!;
        evidence.State.ShouldBe(AccessState.BoardOut);
        evidence
            .Events.Take(5)
            .ShouldBe([
                new MarkSeen(0, "rattle"),
                new FunctionTried(1, "picture", false, "flicker"),
                new ProbeTaken(2, "tp3", ProbeOutcome.Normal),
                new CauseConfirmed(3, "switch", "dirty", true),
                new RepairDone(4, "switch", "flush-switch"),
            ]);
        evidence.Events[5].ShouldBeOfType<SwapTried>().Chain.ShouldBe(new[] { "main", "panel" });
    }

    [Fact]
    public void Starts_provocations_and_gear_are_read()
    {
        var evidence = EvidenceFile
            .Read(
                """
                {"format":"mendro.evidence/1","gear":[{"id":"b","name":"Cartridge B","kind":"test-cartridge","usesSinceCleaning":12}],"events":[
                  {"function":"start-up","result":"pass","starts":20},{"function":"start-up","provoked":"warmed","changed":true},
                  {"swap":"start-up","chain":["main"],"gear":["b"],"result":"flicker"}]}
                """,
                Quartet
            )
            .Value!;
        evidence.Gear.ShouldBe([new GearItem("b", "Cartridge B", "test-cartridge", 12)]);
        evidence.Events[0].ShouldBe(new FunctionTried(0, "start-up", true, null, 20));
        evidence.Events[1].ShouldBe(new Provoked(1, "start-up", Provocation.Warmed, true));
        var swap = evidence.Events[2].ShouldBeOfType<SwapTried>();
        (swap.Passed, swap.Flickers).ShouldBe((false, true));
        swap.Gear.ShouldBe(["b"]);
        UnitDiagnosis.Make(Quartet, evidence.Events, new CaseContext(Gear: evidence.Gear)).IsOk.ShouldBeTrue();
    }

    [Theory]
    [InlineData("""{"format":"mendro.evidence/1","events":[{"function":"picture","result":"pass","starts":0}]}""", "starts must be 1")]
    [InlineData("""{"format":"mendro.evidence/1","events":[{"function":"picture","provoked":"pressed"}]}""", "changed")]
    [InlineData("""{"format":"mendro.evidence/1","events":[{"swap":"picture","chain":[],"gear":["z"],"result":"pass"}]}""", "“z”")]
    [InlineData("""{"format":"mendro.evidence/1","gear":[{"id":"b","name":"B","kind":"anvil"}],"events":[]}""", "anvil")]
    [InlineData("""{"format":"x"}""", "mendro.evidence/1")]
    [InlineData("""{"format":"mendro.evidence/1","events":[{}]}""", "events[0]: name a function")]
    [InlineData("""{"format":"mendro.evidence/1","events":[null]}""", "events[0]: empty")]
    [InlineData("""{"format":"mendro.evidence/1","events":[{"function":"fly","result":"pass"}]}""", "“fly”")]
    [InlineData("""{"format":"mendro.evidence/1","events":[{"function":"picture"}]}""", "result")]
    [InlineData("""{"format":"mendro.evidence/1","events":[{"function":"picture","result":"fail","look":"purple"}]}""", "purple")]
    [InlineData("""{"format":"mendro.evidence/1","events":[{"probe":"tp3","reading":"beep"}]}""", "events[0]: This probe wants volts")]
    [InlineData("""{"format":"mendro.evidence/1","events":[{"part":"switch"}]}""", "method")]
    [InlineData("""{"format":"mendro.evidence/1","events":[{"part":"switch","cause":"haunted"}]}""", "haunted")]
    [InlineData("""{"format":"mendro.evidence/1","facts":[{"function":"power-light","result":"pass"}]}""", "events: missing; “facts”")]
    public void Errors_name_their_place(string json, string named) => EvidenceFile.Read(json, Quartet).Problem!.ShouldContain(named);
}
