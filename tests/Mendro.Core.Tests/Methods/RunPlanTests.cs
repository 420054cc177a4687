using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Methods;

/// <summary>Every method of the library as a run sheet. Steps and figures: common practice, no source.</summary>
public class RunPlanTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    public static TheoryData<string> Methods { get; } = new(Library.Methods.Select(m => m.Id.Value));

    private static Method Find(string id) => Library.FindMethod(id)!;

    [Theory]
    [MemberData(nameof(Methods))]
    public void Each_caution_stands_at_a_step_of_its_own(string id)
    {
        var method = Find(id);
        RunPlan.Of(method).SelectMany(s => s.Cautions).Distinct().Order().ShouldBe(method.Cautions.Order());
    }

    [Theory]
    [MemberData(nameof(Methods))]
    public void The_hands_on_minutes_are_those_of_the_method(string id)
    {
        var method = Find(id);
        RunPlan.Of(method).Sum(s => s.Minutes).ShouldBe(method.Minutes, 1e-9);
        method.Steps.Where(s => s.Wait is not null).ShouldAllBe(s => s.Minutes == null && s.Wait!.Minutes > 0);
    }

    // A method that its own material check would stop half way could not be run.
    [Theory]
    [MemberData(nameof(Methods))]
    public void What_a_method_puts_on_is_known_harms_nothing_for_good_and_is_off_again_before_heat_and_power(string id)
    {
        var materials = MaterialLibrary.Shipped;
        var steps = RunPlan.Of(Find(id)).SelectMany(s => s.Materials).ToList();
        foreach (var put in steps.Where(s => s.Agent is not null))
        {
            materials.FindAgent(put.Agent).ShouldNotBeNull($"{id}: {put.Agent}");
            materials.FindSurface(put.Surface).ShouldNotBeNull($"{id}: {put.Surface}");
        }

        var report = MaterialCheck.Of([.. steps, new SequenceStep(Power: true)], materials);
        report.Steps.ShouldAllBe(s => s.Verdict != MaterialVerdict.Never);
        report.Stops.ShouldBeEmpty(id);
    }

    [Theory]
    [MemberData(nameof(Methods))]
    public void Every_method_but_a_swap_of_bench_gear_ends_with_its_own_check(string id)
    {
        var method = Find(id);
        if (method.Type == MethodType.Swap)
            return;
        method.Check.ShouldNotBeNull();
        method.Check.Good.ShouldNotBe(method.Check.Bad);
        method.Check.By.ShouldNotBeEmpty();
        RunPlan.Of(method)[^1].Kind.ShouldBe(RunStepKind.Check);
    }

    // The four ends that the trade insists on.
    [Theory]
    [InlineData("resolder-legs", "none moves, no two are joined")]
    [InlineData("jumper", "Tug")]
    [InlineData("replace-switch", "both positions")]
    [InlineData("swab-edge", "stays clean")]
    public void Checks_say_what_the_bench_looks_for(string id, string words) => Find(id).Check!.Say.ShouldContain(words);

    [Fact]
    public void Minutes_that_a_step_claims_are_kept_and_the_rest_is_shared()
    {
        var method = Find("flush-switch") with { Minutes = 10, Steps = [new MethodStep("a", 4), new MethodStep("b"), new MethodStep("c")] };
        RunPlan.Of(method).Select(s => s.Minutes).ShouldBe([4, 3, 3, 0]);
    }

    [Fact]
    public void A_boil_of_a_connector_is_twice_ten_to_twenty_minutes_and_then_dries() =>
        RunPlan.Waits(Find("boil-connector")).ShouldBe((50, 160));

    [Fact]
    public void Steps_are_read_and_written_as_words_or_with_what_they_do()
    {
        const string text = """["Look.",{"do":"Wet it.","agent":"vinegar","surface":"battery-contacts","cautions":["acid"]}]""";
        var steps = System.Text.Json.JsonSerializer.Deserialize<List<MethodStep>>(text, ProfileJson.Options)!;
        steps[0].Do.ShouldBe("Look.");
        (steps[1].Agent, steps[1].Surface).ShouldBe(("vinegar", "battery-contacts"));
        steps[1].Cautions.ShouldBe(["acid"]);
        var again = System.Text.Json.JsonSerializer.Serialize(steps, ProfileJson.Options);
        System.Text.Json.JsonSerializer.Deserialize<List<MethodStep>>(again, ProfileJson.Options)![1].Agent.ShouldBe("vinegar");
    }
}
