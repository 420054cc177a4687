using Mendro.Core.Jobs;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;

namespace Mendro.Shop.Tests.Intake;

/// <summary>A unit that was taken in as the wrong model: its records stay, and its claim is heard again.</summary>
public sealed class ModelChangeDeskTests : IDisposable
{
    private static readonly Dictionary<FunctionId, FunctionId> None = [];

    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private long TakenIn(string line) => _shop.Intake.TakeInLine(line).Done.ShouldNotBeNull().Number;

    private IReadOnlyList<RecordBody> Held(long number) => [.. _shop.View(number).Records.Select(r => r.Body)];

    [Fact]
    public void The_claim_is_heard_again_for_the_model_it_is()
    {
        // On a console “picture” is the video output; on the handheld it is the picture of its own screen.
        var number = TakenIn("atrium, no picture, screws missing");
        Held(number).ShouldContain(new FunctionTrial("video", false, "nothing"));

        _shop.ModelChanges.Change(number, new OtherModel("harrow-quartet", "", "", None)).Done.ShouldNotBeNull();

        var view = _shop.View(number);
        view.Problem.ShouldBeNull();
        view.Job.ModelName.ShouldBe("Harrow Quartet");
        view.Job.Claim.ShouldBe("atrium, no picture, screws missing");
        var held = Held(number);
        held.OfType<FunctionTrial>().ShouldBe([new FunctionTrial("picture", false, "nothing")]);
        held.OfType<MarkNoted>().Select(m => m.Mark).ShouldBe(["screws-missing"]);
        view.Advice.Moves.ShouldNotBeEmpty();
    }

    [Fact]
    public void What_was_tried_by_hand_goes_to_the_function_that_is_told_to_be_the_same()
    {
        var number = TakenIn("atrium, no light");
        _shop.Readings.Try(new TrialOrder(number, "video", true)).Refusal.ShouldBeNull();
        var quartet = _shop.Profiles.Latest("harrow-quartet")!.Value.Profile;

        var asked = _shop.ModelChanges.Asked(number, quartet);
        asked.Select(a => a.From.Id.Value).ShouldBe(["video"]);

        var same = new Dictionary<FunctionId, FunctionId> { ["video"] = "picture" };
        _shop.ModelChanges.Change(number, new OtherModel("harrow-quartet", "", "", same)).Done.ShouldNotBeNull();
        Held(number)
            .OfType<FunctionTrial>()
            .ShouldBe([new FunctionTrial("power-light", false, "nothing"), new FunctionTrial("picture", true)], ignoreOrder: true);
    }

    [Fact]
    public void A_reading_at_a_point_that_the_other_model_does_not_have_is_kept_in_words()
    {
        var number = TakenIn("quartet, no light");
        _shop.Readings.Read(new ReadingOrder(number, "tp3", "6.2 V")).Done.ShouldNotBeNull();
        var words = _shop.View(number).Records.Single(r => r.Body is ProbeReading).Words;

        _shop.ModelChanges.Change(number, new OtherModel("pellin-atrium-pad", "", "", None)).Done.ShouldNotBeNull();

        var view = _shop.View(number);
        view.Problem.ShouldBeNull();
        Held(number).OfType<WordsKept>().ShouldBe([new WordsKept(words, "Harrow Quartet")]);
    }

    [Fact]
    public void A_name_that_is_new_becomes_a_model_of_its_build_and_no_lesson_goes_to_the_wrong_one()
    {
        var number = TakenIn("quartet, no light");
        var done = _shop.ModelChanges.Change(number, new OtherModel("", "Zorbo 3", "build-handheld-four-cell-grey", None)).Done.ShouldNotBeNull();
        _shop.Profiles.Latest(done.Id)!.Value.Profile.Name.ShouldBe("Zorbo 3");
        _shop.View(number).Job.ModelName.ShouldBe("Zorbo 3");
        Held(number).ShouldContain(new FunctionTrial("power-light", false, "nothing"));
    }

    [Theory]
    [InlineData("", "", "")]
    [InlineData("harrow-quartet", "", "")]
    [InlineData("no-such", "", "")]
    [InlineData("", "Zorbo", "no-such-build")]
    public void What_is_no_other_model_is_refused_and_nothing_is_changed(string model, string name, string build)
    {
        var number = TakenIn("quartet, no light");
        var before = Held(number);
        _shop.ModelChanges.Change(number, new OtherModel(model, name, build, None)).Refusal.ShouldNotBeNull();
        Held(number).ShouldBe(before);
    }

    [Fact]
    public void Every_change_there_and_back_loses_no_trial_of_a_function_that_both_have()
    {
        var others = _shop.Profiles.All().Where(p => p is { Generic: false, Archetype: null } && p.Id != "harrow-quartet");
        foreach (var to in others.Where(p => p.FindFunction("power-light") is not null))
        {
            var number = TakenIn("quartet, something odd");
            _shop.Readings.Try(new TrialOrder(number, "power-light", false, "nothing")).Refusal.ShouldBeNull();
            _shop.ModelChanges.Change(number, new OtherModel(to.Id, "", "", None)).Done.ShouldNotBeNull(to.Id);
            _shop.View(number).Problem.ShouldBeNull(to.Id);
            _shop.ModelChanges.Change(number, new OtherModel("harrow-quartet", "", "", None)).Done.ShouldNotBeNull(to.Id);
            Held(number).OfType<FunctionTrial>().ShouldContain(t => t.Function == "power-light" && !t.Passed, to.Id);
        }
    }
}
