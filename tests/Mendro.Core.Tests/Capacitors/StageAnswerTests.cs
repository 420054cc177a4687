using Mendro.Core.Capacitors;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Capacitors;

/// <summary>What one word after a stage says. Common practice, no source.</summary>
public class StageAnswerTests
{
    private static readonly Dictionary<FunctionId, bool> Nothing = [];

    private static RecapStage Stage(params (string Function, StageExpectation Expects)[] expects) =>
        new(1, [], [.. expects.Select(e => (new DeviceFunction(e.Function, e.Function, "picture", []), e.Expects))]);

    private static string Told(RecapStage stage, StageChange change, Dictionary<FunctionId, bool>? ticked = null)
    {
        var said = StageAnswer.Of(stage, change, ticked ?? Nothing);
        return said.IsOk ? string.Join(", ", said.Value.OrderBy(x => x.Key.Value).Select(x => $"{x.Key} {x.Value}")) : said.Problem;
    }

    private static readonly RecapStage Early = Stage(
        ("a", StageExpectation.StillWorks), ("b", StageExpectation.MayStillFail), ("c", StageExpectation.MayStillFail), ("d", StageExpectation.Unknown));

    private static readonly RecapStage Last = Stage(
        ("a", StageExpectation.StillWorks), ("b", StageExpectation.WorksNow), ("c", StageExpectation.MayStillFail));

    [Fact]
    public void As_before_is_what_it_did_before_and_says_nothing_of_what_was_never_tried() =>
        Told(Early, StageChange.AsBefore).ShouldBe("a True, b False, c False");

    [Fact]
    public void Better_is_what_should_work_now() => Told(Last, StageChange.Better).ShouldBe("a True, b True, c False");

    [Fact]
    public void Better_asks_which_where_several_failed_and_none_is_due()
    {
        Told(Early, StageChange.Better).ShouldBe("Tick what works now and did not before.");
        Told(Early, StageChange.Better, new() { ["c"] = true }).ShouldBe("a True, b False, c True");
    }

    [Fact]
    public void Worse_asks_what_does_not_work_any_more()
    {
        Told(Last, StageChange.Worse).ShouldBe("Tick what worked before and does not any more.");
        Told(Last, StageChange.Worse, new() { ["a"] = false }).ShouldBe("a False, b False, c False");
    }

    [Fact]
    public void What_is_ticked_says_more_than_the_word() =>
        Told(Last, StageChange.AsBefore, new() { ["b"] = true }).ShouldBe("a True, b True, c False");
}
