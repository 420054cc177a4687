using CsCheck;
using Mendro.Core.Capacitors;
using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Capacitors;

/// <summary>Groups between two power-ups, and what the unit should do after each.</summary>
public class StagePlanTests
{
    private static readonly DeviceModel Sextant = Shipped.Model("dovrel-sextant");

    private static readonly IReadOnlyList<RecapPosition> Positions = RecapPositions.Of(Sextant.Profile, Sextant.Profile.Boards!, "B");

    [Fact]
    public void Both_revisions_have_twenty_three_and_none_has_both_lists()
    {
        foreach (var revision in (string[])["A", "B"])
            RecapPositions.Of(Sextant.Profile, Sextant.Profile.Boards!, revision).Select(p => p.Key).Distinct().Count().ShouldBe(23);
        RecapPositions.Of(Sextant.Profile, Sextant.Profile.Boards!, "").ShouldBeEmpty();
        RecapPositions.NeedsRevision(Sextant.Profile.Boards!).ShouldBeTrue();
        RecapPositions.NeedsRevision(Shipped.Profile("harrow-quartet").Boards!).ShouldBeFalse();
        Positions.ShouldAllBe(p => p.Part != null);
        Positions.Single(p => p.Key == "main/C40").Part!.Id.Value.ShouldBe("biascaps");
    }

    [Theory]
    [InlineData("C37–C39", "C37 C38 C39")]
    [InlineData("C31 C33", "C31 C33")]
    [InlineData("C2-C3, C9", "C2 C3 C9")]
    [InlineData(null, "")]
    public void Lists_of_designators_are_opened(string? list, string all) =>
        string.Join(' ', Refdes.Expand(list).Order()).ShouldBe(all);

    [Fact]
    public void Every_position_is_in_one_group_no_group_is_too_large_or_on_two_boards_and_sections_stay_together() =>
        Gen.Select(Gen.Int[1, 12], Gen.Int[0, 5])
            .Sample(
                (size, blamed) =>
                {
                    var part = Positions.Select(p => p.Part!.Id).Distinct().ElementAt(blamed % 5);
                    var groups = StagePlan.Groups(Positions, size, p => p == part ? 0.7 : 0.1);
                    groups.SelectMany(g => g).Select(p => p.Key).ShouldBe(Positions.Select(p => p.Key), ignoreOrder: true);
                    groups.ShouldAllBe(g => g.Count >= 1 && g.Count <= size && g.Select(p => p.Board.Id).Distinct().Count() == 1);
                    foreach (var section in Positions.GroupBy(p => (p.Board.Id, p.Section)))
                    {
                        // In as few groups as its size asks for, one behind the other.
                        var at = groups.Select((g, n) => (g, n)).Where(x => x.g.Any(section.Contains)).Select(x => x.n).ToList();
                        at.Count.ShouldBe((section.Count() + size - 1) / size);
                        at.ShouldBe(Enumerable.Range(at[0], at.Count));
                    }

                    groups[0].ShouldContain(p => p.Part!.Id == part);
                },
                iter: 100
            );

    [Fact]
    public void What_worked_must_go_on_and_what_failed_should_work_once_all_on_its_way_is_new()
    {
        var states = Sextant.Profile.Functions.ToDictionary(
            f => f.Id,
            f => f.Id == "speaker" ? FunctionState.Fails : f.Id == "start-up" ? FunctionState.Works : FunctionState.NotTried
        );
        var groups = StagePlan.Groups(Positions, 23, p => p == "soundcaps" ? 0.9 : 0);
        groups[0][0].Board.Id.ShouldBe("sound");
        var stages = StagePlan.Stages(Sextant, groups, new HashSet<string>(), states);
        StageExpectation Of(RecapStage stage, string function) => stage.Expects.Single(e => e.Function.Id == function).Expects;
        // The sound board is fed by the supply board, whose capacitors are still old.
        stages.Select(s => Of(s, "speaker")).ShouldBe([StageExpectation.MayStillFail, StageExpectation.MayStillFail, StageExpectation.WorksNow]);
        stages.Select(s => Of(s, "start-up")).Distinct().ShouldBe([StageExpectation.StillWorks]);
        Of(stages[0], "link").ShouldBe(StageExpectation.Unknown);
    }

    [Fact]
    public void Legs_that_pass_copper_or_run_far_want_sleeves()
    {
        var board = new Board(
            "b",
            "Board",
            [[0, 0], [40, 0], [40, 20], [0, 20]],
            Parts: [new BoardPart("U1", [[14, 8], [16, 8], [16, 12], [14, 12]])],
            Capacitors:
            [
                new BoardCapacitor("C1", Pads: new CapacitorPads([10, 11], [10, 9])),
                new BoardCapacitor("C2", Pads: new CapacitorPads([10, 14], [10, 16])),
            ]
        );
        FitPlacement At(double angle, double distance) => new("C1", "c", FitPose.Lying, angle, distance, [], 5);
        LeadPath Legs(double angle, double distance) => LeadPath.Of(board, board.Capacitors![0], At(angle, distance), 5)!;
        Legs(180, 1.5).WantsSleeves.ShouldBeFalse();
        Legs(180, 7).ShouldSatisfyAllConditions(l => l.Over.ShouldBeEmpty(), l => l.WantsSleeves.ShouldBeTrue());
        Legs(0, 8).Over.ShouldBe(["U1"]);
        Legs(90, 6).Over.ShouldBe(["a pad of C2"]);
        // The legs do not cross: plus, above, goes to the upper side of the can.
        var straight = Legs(0, 3);
        (straight.Plus.Can.Y, straight.Minus.Can.Y).ShouldBe((11, 9));
        LeadPath.Of(board, board.Capacitors![0], new FitPlacement("C1", "c", FitPose.Upright, 0, 0, [], 11), 5).ShouldBeNull();
    }
}
