using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Proving;

namespace Mendro.Shop.Tests;

/// <summary>The test plan at work, what stays failing, and soaks.</summary>
public sealed class ProveDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private TestPlan Plan(long number) => ProveDesk.Plan(_shop.View(number));

    private void Answer(long number, string item, bool good = true) =>
        _shop.Prove.Answer(_shop.View(number), item, good, null).Done.ShouldNotBeNull();

    [Fact]
    public void A_unit_that_was_never_opened_is_tried_once_and_its_light_first()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "start-up");
        var plan = Plan(number);
        plan.Items.ShouldAllBe(i => !i.ScrewsIn);
        plan.Items[0].Id.ShouldBe("function:power-light");
        plan.Items.Count(i => i.Id.StartsWith("function:", StringComparison.Ordinal)).ShouldBe(_shop.View(number).Profile.Functions.Count);
    }

    /// <summary>A reset is pressed while a game runs: what is seen on the screen waits for start and picture. Common practice, no source.</summary>
    [Theory]
    [InlineData("harrow-quartet")]
    [InlineData("pellin-atrium")]
    [InlineData("dovrel-bastion")]
    [InlineData("tarn-halyard")]
    public void What_is_seen_on_the_screen_comes_after_start_and_picture(string model)
    {
        var number = _shop.TakeIn(model, fails: "start-up");
        var view = _shop.View(number);
        string KindOf(TestItem item) => item.Function is { } id ? view.Profile.FindFunction(id)!.Kind : "";
        var kinds = Plan(number).Items.TakeWhile(i => !i.ScrewsIn).Select(KindOf).ToList();
        var onScreen = kinds.FindIndex(k => view.Model.Library.FindFunctionKind(k)?.OnScreen == true);
        onScreen.ShouldBeGreaterThan(kinds.FindLastIndex(k => k is "start-up" or "picture" or "video-out"));
    }

    [Fact]
    public void What_was_opened_and_soldered_is_asked_for_by_name_and_again_with_the_screws_in()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "start-up");
        var profile = _shop.View(number).Profile;
        var first = profile.Steps!.First(s => (s.Seats ?? []).Count > 0);
        _shop.File(number, new StepTaken(first.Id, false));
        _shop.File(number, new RepairLogged("joint", "reflow"));
        var plan = Plan(number);
        plan.Items.ShouldContain(i => i.Id == $"step:{first.Id}" && !i.ScrewsIn);
        plan.Items.ShouldContain(i => i.Id == "joint:joint");
        plan.Items.ShouldContain(i => i.Id == "again:buttons" && i.ScrewsIn);
        plan.Items.TakeWhile(i => !i.ScrewsIn).Count().ShouldBe(plan.Items.Count(i => !i.ScrewsIn));
        // Tried open, felt again closed.
        Answer(number, "function:buttons");
        Plan(number).Items.Single(i => i.Id == "function:buttons").State.ShouldBe(ProofState.Proved);
        Plan(number).Items.Single(i => i.Id == "again:buttons").State.ShouldBe(ProofState.Stale);
        foreach (var step in UnitApart.Of(profile, _shop.View(number).Records.Select(r => r.Body)).WayBack)
            _shop.File(number, new StepTaken(step.Id, true));
        _shop.File(number, new AccessNoted(AccessState.Closed));
        Answer(number, "again:buttons");
        Plan(number).Items.Single(i => i.Id == "again:buttons").State.ShouldBe(ProofState.Proved);
        // A later step disturbs its seats anew.
        Answer(number, $"step:{first.Id}");
        Plan(number).Items.Single(i => i.Id == $"step:{first.Id}").State.ShouldBe(ProofState.Proved);
        _shop.File(number, new StepTaken(first.Id, false));
        Plan(number).Items.Single(i => i.Id == $"step:{first.Id}").State.ShouldBe(ProofState.Stale);
    }

    [Fact]
    public void New_capacitors_are_owed_a_look_at_stripes_joints_and_heights_and_the_closing()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "speaker");
        _shop.File(number, new CapacitorsFitted("main", ["C1", "C2"]));
        var owed = Plan(number).Items.Single(i => i.Id == "recap:main");
        owed.State.ShouldBe(ProofState.NotTried);
        owed.How.ShouldContain("stripe");
        owed.Good.ShouldContain("under the shell");
        // It lies open: what goes through the shell is felt again once the screws are in.
        Plan(number).Items.ShouldContain(i => i.ScrewsIn);
        Answer(number, "recap:main");
        Plan(number).Items.Single(i => i.Id == "recap:main").State.ShouldBe(ProofState.Proved);
        // More of them on the same board are looked at anew.
        _shop.File(number, new CapacitorsFitted("main", ["C3"]));
        Plan(number).Items.Single(i => i.Id == "recap:main").State.ShouldBe(ProofState.Stale);
    }

    [Fact]
    public void A_failing_function_goes_with_its_reason_and_the_reason_ends_when_it_works()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "speaker");
        foreach (var item in Plan(number).Items.Where(i => i.Id != "function:speaker").Select(i => i.Id).ToList())
            Answer(number, item);
        _shop.View(number).Proof.Bar(null)!.ShouldContain("Still failing: Speaker");
        _shop.Prove.Keep(_shop.View(number), "function:picture", KeepReason.WaitingPart, "").Refusal.ShouldNotBeNull();
        _shop.Prove.Keep(_shop.View(number), "function:speaker", KeepReason.WaitingPart, "cone on order").Done.ShouldNotBeNull();
        Plan(number).ButFor.ShouldBe(["Speaker (waiting for a part: cone on order)"]);
        Plan(number).Open.ShouldBeEmpty();
        var kept = HandOverDesk.Kept(_shop.View(number).Model, _shop.View(number).Records);
        _shop.View(number).Proof.Bar(null, kept).ShouldBeNull();
        Answer(number, "function:speaker");
        Plan(number).ButFor.ShouldBeEmpty();
        HandOverDesk.Kept(_shop.View(number).Model, _shop.View(number).Records).ShouldBeEmpty();
    }

    [Fact]
    public void A_check_of_the_model_that_fails_disproves_its_function_and_one_that_holds_does_not_prove_it()
    {
        var profile = _shop.Profiles.Latest("harrow-quartet")!.Value.Profile with
        {
            Checks =
            [
                new ProofCheck("two", "A second cartridge", Function: "picture"),
                new ProofCheck("cell", "Cell voltage", After: ["contrast"]),
            ],
        };
        _shop.Profiles.Save(profile);
        var number = _shop.TakeIn("harrow-quartet", fails: "start-up");
        // What belongs to a repair that was not done is not asked for.
        Plan(number).Items.Select(i => i.Id).ShouldContain("check:two");
        Plan(number).Items.Select(i => i.Id).ShouldNotContain("check:cell");
        Answer(number, "check:two");
        Plan(number).Items.Single(i => i.Id == "function:picture").State.ShouldBe(ProofState.NotTried);
        Answer(number, "check:two", good: false);
        Plan(number).Items.Single(i => i.Id == "function:picture").State.ShouldBe(ProofState.Fails);
    }

    [Fact]
    public void A_soak_runs_with_its_timer_and_what_happened_is_evidence()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "start-up");
        _shop.Prove.BeginSoak(number, "picture", 0).Refusal.ShouldNotBeNull();
        _shop.Prove.BeginSoak(number, "picture", 20).Done.ShouldNotBeNull();
        _shop.Prove.BeginSoak(number, "picture", 20).Refusal!.Problem.ShouldContain("already");
        _shop.Timers.All().Single().Timer.Label.ShouldBe("soak: Picture");
        _shop.Time.Advance(TimeSpan.FromMinutes(12.5));
        var soak = _shop.Prove.Soaks(_shop.View(number)).Single();
        _shop.Prove.NoteSoak(number, soak.Id, "went dark").Done.ShouldNotBeNull();
        _shop.Time.Advance(TimeSpan.FromMinutes(10));
        _shop.Prove.EndSoak(number, soak.Id).Done!.Words.ShouldBe("Soak, Picture: 20 of 20 min, went dark at 12.5 min");
        _shop.Timers.All().ShouldBeEmpty();
        _shop.View(number).Records[^1].ToEvent().ShouldBeOfType<FunctionTried>().Passed.ShouldBeFalse();

        _shop.Prove.BeginSoak(number, "picture", 20).Done.ShouldNotBeNull();
        _shop.Time.Advance(TimeSpan.FromMinutes(5));
        // Cut short, it says nothing of what would have come.
        _shop.Prove.EndSoak(number, _shop.Prove.Soaks(_shop.View(number)).Single().Id).Done.ShouldNotBeNull();
        _shop.View(number).Records[^1].ToEvent().ShouldBeNull();
    }
}
