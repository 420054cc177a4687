using Mendro.Core.Jobs;
using Mendro.Core.Planning;

namespace Mendro.Shop.Tests.Intake;

/// <summary>The shop's own words at the door.</summary>
public sealed class DoorWordsTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void A_word_of_the_shop_is_heard_as_what_it_means_and_the_claim_stays_as_typed()
    {
        const string line = "quartet, dead fish, bay gunky";
        _shop.Door.Keep("dead fish = no picture\ngunky = corroded").Done.ShouldNotBeNull();
        var number = _shop.Intake.TakeInLine(line).Done.ShouldNotBeNull().Number;
        var view = _shop.View(number);
        view.Job.Claim.ShouldBe(line);
        view.Records.Select(r => r.Body).OfType<FunctionTrial>().ShouldBe([new FunctionTrial("picture", false, "nothing")]);
        view.Records.Select(r => r.Body).OfType<MarkNoted>().Select(m => m.Mark).ShouldBe(["corrosion-contacts"]);
    }

    [Theory]
    [InlineData("crusty corroded", "an equals sign")]
    [InlineData("crusty =", "an equals sign")]
    [InlineData("crusty = corroded\nCrusty = dead", "twice")]
    [InlineData("blorb = snarfle", "says nothing that is understood")]
    public void What_cannot_be_taken_is_told_and_the_words_before_stay(string text, string problem)
    {
        _shop.Door.Keep("gunky = corroded").Done.ShouldNotBeNull();
        _shop.Door.Keep(text).Refusal.ShouldNotBeNull().Problem.ShouldContain(problem);
        _shop.Door.Own.All.ShouldBe([new ShopWord("gunky", "corroded")]);
    }

    [Fact]
    public void A_word_is_put_in_whole_and_only_once()
    {
        var words = ShopWords.Read("art = no picture\nart deco = yellowed").Value!;
        words.In("cart, art, Art Deco").ShouldBe("cart, no picture, yellowed");
    }

    [Fact]
    public void What_was_turned_over_is_filed_and_nothing_else()
    {
        var turns = new Dictionary<string, string>
        {
            ["fn.picture"] = "fail:vertical-lines",
            ["fn.speaker"] = "none",
            ["mark.cracks"] = "none",
            ["mark.rattle"] = "there",
            ["fn.no-such"] = "pass",
            ["mark.no-such"] = "there",
        };
        var number = _shop.Intake.TakeInLine("quartet, picture ok, no sound, shell cracked", new HeardAs("", turns)).Done.ShouldNotBeNull().Number;
        var held = _shop.View(number).Records.Select(r => r.Body).ToList();
        held.OfType<FunctionTrial>().ShouldBe([new FunctionTrial("picture", false, "vertical-lines")]);
        held.OfType<MarkNoted>().Select(m => m.Mark).ShouldBe(["rattle"]);
    }

    [Fact]
    public void The_model_that_is_meant_is_taken_before_the_one_heard()
    {
        var meant = new HeardAs("harrow-duet", new Dictionary<string, string>());
        var number = _shop.Intake.TakeInLine("zorbo nine, no light", meant).Done.ShouldNotBeNull().Number;
        var view = _shop.View(number);
        view.Job.ModelName.ShouldBe("Harrow Duet Colour");
        view.Job.Claim.ShouldBe("zorbo nine, no light");
        view.Records.Select(r => r.Body).ShouldBe([new FunctionTrial("power-light", false, "nothing")]);
        _shop.Intake.TakeInLine("quartet, no light", new HeardAs(HeardAs.New, new Dictionary<string, string>())).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void The_nearest_models_are_offered_beside_a_name_that_is_new()
    {
        _shop.Intake.Heard("harow kwartet, no light").Nearest.Select(p => p.Id).ShouldContain("harrow-duet");
        _shop.Intake.Heard("quartetto four, no light").Nearest[0].Id.ShouldBe("harrow-quartet");
        _shop.Intake.Heard("blorb").Nearest.ShouldBeEmpty();
    }
}
