using System.Text.Json;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.StandIns.Tests;

/// <summary>The laws of the bench, read off dialogues: of made ones each law is found, and the advice keeps them.</summary>
public class BenchLawsTests
{
    private static readonly DeviceModel Quartet = Shipped.Model("harrow-quartet");

    private static DialogueMove Move(string id, DialogueKind kind, string answer = "done") =>
        new(id, kind, kind is DialogueKind.Repair or DialogueKind.Swap ? id.Split(':')[1] : null, 1, AccessState.Closed, answer, null, false);

    private static IEnumerable<string> Breaches(params DialogueMove[] moves)
    {
        EvidenceEntry fails = new("start-up", null, null, null, "fail", null, null, null, null, null, null, null, null, null, null, null);
        return BenchLaws.Read(new Dialogue("harrow-quartet", 1, 0, [], [fails], moves, false, 1), Quartet).Select(b => b.Law);
    }

    private static DialogueMove Fix(string part, string method) => Move($"fix:{part}:{method}", DialogueKind.Repair);

    private static readonly DialogueMove StillFails = Move("fn:start-up", DialogueKind.Trial, "fail");

    [Fact]
    public void Each_law_is_read_off()
    {
        Breaches(Move("swap:testcart", DialogueKind.Swap, "fail"), Fix("testcart", "clean-test-gear")).ShouldBe([BenchLaws.SwappedIsSpared]);
        Breaches(Move("swap:testcart", DialogueKind.Swap, "pass"), Move("aside", DialogueKind.End)).ShouldBe([BenchLaws.NamedIsDealtWith]);
        Breaches(Fix("slot", "replace-slot"), StillFails, Fix("fuse", "replace-fuse"), StillFails, Fix("slot", "replace-slot"), StillFails)
            .ShouldBe([BenchLaws.NotAgainAndAgain]);
        Breaches(Fix("switch", "flush-switch"), StillFails, Fix("switch", "flush-switch"), StillFails).ShouldBe([BenchLaws.FindingBetween]);
        Breaches(Move("probe:fuse-beep", DialogueKind.Check, "ok"), Fix("fuse", "replace-fuse"), StillFails).ShouldBe([BenchLaws.GoodIsKept]);
        Breaches(Move("probe:tp1", DialogueKind.Check, "ok"), Move("probe:tp1", DialogueKind.Check, "ok")).ShouldBe([BenchLaws.AskedOnce]);
        Breaches(Fix("slot", "clean-connector"), Move("aside", DialogueKind.End)).ShouldBe([BenchLaws.TriedBeforeTheEnd]);
    }

    [Fact]
    public void What_keeps_them_is_let_be()
    {
        Breaches(
                Move("probe:slot-eye", DialogueKind.Check, "bad"),
                Fix("slot", "clean-connector"),
                StillFails,
                Move("probe:slot-eye", DialogueKind.Check, "bad"),
                Fix("slot", "clean-connector"),
                Move("fn:start-up", DialogueKind.Trial, "pass")
            )
            .ShouldBeEmpty();
    }

    /// <summary>The share that is asked of the advice; the figures of all models stand in docs/diagnosis.md.</summary>
    [Theory]
    [InlineData("harrow-quartet", WorldKind.Physics)]
    [InlineData("build-console-front-loading", WorldKind.Physics)]
    [InlineData("build-cartridge-plain", WorldKind.Network)]
    [InlineData("build-pad-wired", WorldKind.Network)]
    [InlineData("build-disc-console-lid", WorldKind.Physics)]
    public void The_advice_keeps_the_laws(string profile, WorldKind world)
    {
        const int units = 20;
        var model = Shipped.Model(profile);
        var result = Simulation.Run(model, units, 2026, SimulatedPolicy.Advisor, new SimulatedWorld(Kind: world), dialogues: true);
        result.Dialogues!.Count.ShouldBe(units);
        result.Breaches![BenchLaws.SwappedIsSpared].ShouldBe(0);
        result.Breaches[BenchLaws.NamedIsDealtWith].ShouldBe(0);
        result.Breaches[BenchLaws.TriedBeforeTheEnd].ShouldBe(0);
        result.Breaches[BenchLaws.AskedOnce].ShouldBe(0);
        result.Breaches.Values.Sum().ShouldBeLessThanOrEqualTo(units / 5);
    }

    [Fact]
    public void A_dialogue_is_told_in_one_line_and_adds_up()
    {
        var result = Simulation.Run(Quartet, 4, 5, SimulatedPolicy.Advisor, dialogues: true);
        foreach (var dialogue in result.Dialogues!)
        {
            dialogue.Told.ShouldContain(t => t.Result == "fail");
            dialogue.Moves.ShouldAllBe(m => m.Kind != DialogueKind.Repair || m.Part != null);
            var line = JsonSerializer.Serialize(dialogue, new JsonSerializerOptions(ProfileJson.Options) { WriteIndented = false });
            line.ShouldNotContain("\n");
            JsonDocument.Parse(line).RootElement.GetProperty("moves").GetArrayLength().ShouldBe(dialogue.Moves.Count);
            // What was tried as it came in is told, not moved; the rest of the minutes are the moves'.
            var told = dialogue.Told.Sum(t => Quartet.Profile.FindFunction(t.Function!.Value)!.Minutes);
            (told + dialogue.Moves.Sum(m => m.Minutes)).ShouldBe(dialogue.Minutes, 0.1);
        }
    }

    [Fact]
    public void A_seasoned_hand_cures_most_and_the_advice_needs_less()
    {
        var seasoned = Simulation.Run(Quartet, 30, 1, SimulatedPolicy.Seasoned);
        var advisor = Simulation.Run(Quartet, 30, 1, SimulatedPolicy.Advisor);
        seasoned.ShareCured.ShouldBeGreaterThan(0.5);
        advisor.MeanMinutes.ShouldBeLessThan(0.85 * seasoned.MeanMinutes);
    }
}
