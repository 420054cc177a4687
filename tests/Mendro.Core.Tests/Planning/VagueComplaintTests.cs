using Mendro.Core.Library;
using Mendro.Core.Planning;

namespace Mendro.Core.Tests.Planning;

/// <summary>A thing named and a word of complaint said of it is a failure; “works” is filed only where it is said of that very thing
/// (common practice, no source).</summary>
public class VagueComplaintTests
{
    private static string Heard(string profile, string line) =>
        string.Join(
            ", ",
            Understanding
                .Of(line, Shipped.Profile(profile), TradeLibrary.Shipped)
                .Trials.Select(f => $"{f.Function} {(f.Passed ? "pass" : "fail")}{(f.Look is null ? "" : " " + f.Look)}")
        );

    [Theory]
    [InlineData("there is something wrong with the sound", "speaker fail")]
    [InlineData("sound is strange", "speaker fail")]
    [InlineData("bad sound", "speaker fail")]
    [InlineData("screen looks weird, sound normal", "picture fail, speaker pass")]
    [InlineData("the screen is not right", "picture fail")]
    [InlineData("buttons act up", "buttons fail")]
    [InlineData("trouble with the buttons", "buttons fail")]
    [InlineData("something is off with the picture", "picture fail")]
    [InlineData("lines on the display", "picture fail")]
    [InlineData("headphones work badly", "phones fail")]
    public void What_is_complained_of_fails_and_how_it_looks_is_left_open(string line, string heard) =>
        Heard("harrow-quartet", line).ShouldBe(heard);

    [Theory]
    [InlineData("nothing wrong with the sound")]
    [InlineData("no problem with the buttons")]
    [InlineData("bad battery contact")]
    [InlineData("in good condition")]
    [InlineData("dodgy hinge next to the screen")]
    public void What_is_said_of_something_else_or_denied_is_no_failure(string line) => Heard("harrow-quartet", line).ShouldNotContain("fail");

    [Theory]
    [InlineData("there is a crack in the screen")]
    [InlineData("there is dust behind the screen")]
    [InlineData("there is a fault with the screen")]
    [InlineData("there is hardly any sound")]
    [InlineData("the picture is there but upside down")]
    public void Works_is_not_filed_for_a_good_word_that_is_said_of_something_else(string line) =>
        Heard("harrow-quartet", line).ShouldNotContain("pass");

    [Theory]
    [InlineData("there is sound", "speaker pass")]
    [InlineData("there is still a picture", "picture pass")]
    [InlineData("the picture is there", "picture pass")]
    [InlineData("the picture is there but the sound is gone", "picture pass, speaker fail nothing")]
    public void Where_it_is_said_of_that_very_thing_it_works(string line, string heard) => Heard("harrow-quartet", line).ShouldBe(heard);

    // One more word of complaint never turns what fails into what works (metamorphic).
    [Theory]
    [InlineData("picture works", "picture works badly")]
    [InlineData("sound is good", "sound is not good")]
    [InlineData("there is sound", "there is weird sound")]
    public void A_word_of_complaint_takes_works_away(string good, string bad)
    {
        Heard("harrow-quartet", good).ShouldContain("pass");
        Heard("harrow-quartet", bad).ShouldNotContain("pass");
    }
}
