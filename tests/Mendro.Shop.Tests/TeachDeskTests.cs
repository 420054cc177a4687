using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.Shop.Tests;

/// <summary>Teaching a model while working: versions, records, several benches at once, taking back.</summary>
public sealed class TeachDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void The_job_moves_to_the_new_version_with_its_records_and_other_jobs_stay()
    {
        var (one, other) = (_shop.TakeIn(fails: "power-light"), _shop.TakeIn(fails: "power-light"));
        _shop.Readings.Read(new ReadingOrder(one, "tp3", "6.2 V")).Done.ShouldNotBeNull();
        var before = _shop.View(one);
        _shop.Teach.Teach(one, "part Choke behind switch").Done!.Words.ShouldContain("knows now: part Choke");
        var after = _shop.View(one);
        after.Job.ProfileVersion.ShouldBe(before.Job.ProfileVersion + 1);
        after.Profile.FindPart("choke").ShouldNotBeNull();
        after.Records.Select(r => r.Body).ShouldBe(before.Records.Select(r => r.Body));
        after.Diagnosis!.Suspects.ShouldContain(s => s.Fault.Part.Id == "choke");
        _shop.View(other).Profile.FindPart("choke").ShouldBeNull();
    }

    [Fact]
    public void Two_who_teach_at_once_both_keep_theirs_and_each_takes_back_his_own()
    {
        var (one, other) = (_shop.TakeIn(), _shop.TakeIn());
        _shop.Teach.Teach(one, "part Choke behind switch").Done.ShouldNotBeNull();
        _shop.Teach.Teach(other, "limit tp3 6 to 6.4 V").Done.ShouldNotBeNull();
        var both = _shop.View(other).Profile;
        (both.FindPart("choke") is not null, both.FindProbe("tp3")!.Expect.High).ShouldBe((true, 6.4));
        _shop.Teach.TakeBack(one).Done!.Words.ShouldStartWith("Taken back: part Choke");
        var left = _shop.View(one).Profile;
        (left.FindPart("choke") is null, left.FindProbe("tp3")!.Expect.High).ShouldBe((true, 6.4));
        // What was given no reason to change is as it was.
        left.Feeds.ShouldContain(new Feed("switch", "psu", Carries.Power));
        _shop.Teach.TakeBack(one).Refusal!.Problem.ShouldContain("Nothing was taught");
    }

    [Fact]
    public void What_was_built_upon_is_not_pulled_away()
    {
        var number = _shop.TakeIn();
        _shop.Teach.Teach(number, "part Choke behind switch").Done.ShouldNotBeNull();
        var other = _shop.TakeIn();
        _shop.Teach.Teach(other, "probe Choke out at choke 4 to 6 V").Done.ShouldNotBeNull();
        _shop.Teach.TakeBack(number).Refusal!.Problem.ShouldContain("on top of it");
        _shop.View(other).Profile.FindPart("choke").ShouldNotBeNull();
        _shop.Teach.TakeBack(other).Done.ShouldNotBeNull();
        _shop.Teach.TakeBack(number).Done.ShouldNotBeNull();
        _shop.View(number).Profile.FindPart("choke").ShouldBeNull();
    }

    [Fact]
    public void Readings_of_a_probe_that_is_taken_back_stay_and_harm_nothing()
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Teach.Teach(number, "probe Extra at switch 4.8 to 6.6 V").Done.ShouldNotBeNull();
        _shop.Readings.Read(new ReadingOrder(number, "extra", "0 V")).Done.ShouldNotBeNull();
        _shop.Teach.TakeBack(number).Done.ShouldNotBeNull();
        var view = _shop.View(number);
        view.Records.Count(r => r.Body is ProbeReading).ShouldBe(1);
        view.Diagnosis.ShouldNotBeNull();
    }

    [Fact]
    public void A_suggestion_is_kept_and_a_line_that_cannot_be_taught_changes_nothing()
    {
        var number = _shop.TakeIn();
        var version = _shop.View(number).Job.ProfileVersion;
        _shop.Teach.Teach(number, "the shield wants a screw").Done!.Words.ShouldStartWith("Kept as a suggestion");
        _shop.Teach.Teach(number, "part X behind nowhere").Refusal!.Problem.ShouldContain("nowhere");
        _shop.View(number).Job.ProfileVersion.ShouldBe(version);
        _shop.Teachings.OfModel("harrow-quartet").ShouldHaveSingleItem().VersionAfter.ShouldBeNull();
    }

    [Fact]
    public void A_build_that_ships_is_not_taught()
    {
        var number = _shop.TakeIn("build-pad-wired");
        _shop.Teach.Teach(number, "revision Z: green").Refusal!.Problem.ShouldContain("build that ships");
    }

    [Fact]
    public void A_step_recorded_while_opening_is_kept_in_the_model_and_done_on_this_unit()
    {
        var number = _shop.TakeIn();
        var seen = new Mendro.Core.Planning.StepSeen("Flap off", "s90: cross 00, at 10 10, on bay", ["cells"], [], 1);
        _shop.Teach.TeachStep(number, seen).Done!.Words.ShouldContain("Flap off, 1 fastener");
        var view = _shop.View(number);
        view.Profile.FindStep("flap-off")!.Fasteners.ShouldBe(["s90"]);
        view.All<StepTaken>().Single().Body.StepId.ShouldBe("flap-off");
        _shop.Teach.TakeBack(number).Done.ShouldNotBeNull();
        _shop.View(number).Profile.FindStep("flap-off").ShouldBeNull();
    }
}
