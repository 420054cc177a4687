using Mendro.Core.Proving;
using Mendro.Core.Tests.Diagnosis;

namespace Mendro.Core.Tests.Proving;

/// <summary>What counts as proved. Rule of the trade, common practice: a repair in one area obliges a test of what was disturbed.</summary>
public class ProofSheetTests
{
    private static readonly string[] All = ["power-light", "start-up", "picture", "speaker", "phones", "buttons", "wheels"];

    private static ProofSheet Sheet(Bench bench) => ProofSheet.Make(bench.Model.Profile, bench.Events);

    [Fact]
    public void A_pass_before_the_last_repair_has_gone_stale_and_a_failure_stays()
    {
        var sheet = Sheet(
            new Bench("harrow-quartet").Works("speaker").Fails("picture").Repairs("switch", "flush-switch").Works("power-light")
        );
        sheet.Lines.Single(l => l.Function.Id == "speaker").State.ShouldBe(ProofState.Stale);
        sheet.Lines.Single(l => l.Function.Id == "picture").State.ShouldBe(ProofState.Fails);
        sheet.Lines.Single(l => l.Function.Id == "power-light").State.ShouldBe(ProofState.Proved);
        sheet.Lines.Single(l => l.Function.Id == "buttons").State.ShouldBe(ProofState.NotTried);
        sheet.Complete.ShouldBeFalse();
    }

    [Fact]
    public void Everything_tried_after_the_last_repair_is_complete()
    {
        var sheet = Sheet(new Bench("harrow-quartet").Fails("power-light").Repairs("switch", "flush-switch").Works(All));
        sheet.Complete.ShouldBeTrue();
        sheet.Bar(null).ShouldBeNull();
    }

    [Fact]
    public void An_open_failure_bars_the_hand_over_until_the_reason_is_stated()
    {
        var sheet = Sheet(new Bench("harrow-quartet").Works(All).Fails("speaker"));
        sheet.Bar(null)!.ShouldContain("Still failing: Speaker");
        sheet.Bar("  ")!.ShouldContain("Still failing");
        sheet.Bar("sold as faulty").ShouldBeNull();
    }

    [Fact]
    public void Untried_functions_bar_it_too_and_are_named()
    {
        var sheet = Sheet(new Bench("harrow-quartet").Works(All[..6]));
        sheet.Bar(null)!.ShouldContain("Wheels");
        sheet.Bar(null)!.ShouldNotContain("Speaker");
    }

    /// <summary>What was seen before a repair is not what is there after it: a cure that nobody has tried is no failure.</summary>
    [Fact]
    public void What_was_worked_on_since_it_failed_is_not_tried_and_not_failing()
    {
        var bench = new Bench("harrow-quartet").Works(All).Fails("speaker").Fails("phones").Repairs("speaker", "replace-speaker");
        var sheet = SinceWorked(bench);
        var line = sheet.Lines.Single(l => l.Function.Id == "speaker");
        (line.State, line.Failed).ShouldBe((ProofState.Stale, true));
        // The phones do not hang on the speaker: they fail as before.
        sheet.Failures.Select(l => l.Function.Name).ShouldBe(["Phones"]);
        sheet.Bar(null)!.ShouldContain("Still failing: Phones");
        sheet.Bar(null, new Dictionary<string, string> { ["function:phones"] = "agreed" })!.ShouldContain("Not tried since it was worked on: Speaker");
        SinceWorked(bench.Fails("speaker")).Bar(null)!.ShouldContain("Still failing: Speaker, Phones");
    }

    private static ProofSheet SinceWorked(Bench bench) =>
        ProofSheet.Make(bench.Model, bench.Events);
}
