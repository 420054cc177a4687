using CsCheck;
using Mendro.Core.Library;
using Mendro.Core.Planning;

namespace Mendro.Core.Tests.Planning;

/// <summary>One typed line at the door.</summary>
public class AtTheDoorTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    [Theory]
    [InlineData("quartet no light", "harrow-quartet", "power-light", "nothing")]
    [InlineData("Harrow Quartet: vertical lines", "harrow-quartet", "picture", "vertical-lines")]
    [InlineData("atrium blinks", "pellin-atrium", "start-up", "blinks")]
    [InlineData("atrium no sound on the tv", "pellin-atrium", "sound", "nothing")]
    [InlineData("atrium cartridge dead", "pellin-atrium-cartridge", "cartridge", null)]
    [InlineData("atrium pad one button", "pellin-atrium-pad", "cross", "one-dead")]
    [InlineData("leaflet not charging", "tarn-leaflet", "charging", "nothing")]
    [InlineData("any handheld dead", "generic-handheld", "power-light", "nothing")]
    [InlineData("disc console skips", "generic-disc-console", "disc", "skips")]
    public void Model_function_and_look_are_recognised(string line, string profile, string function, string? look)
    {
        var said = Understanding.AtTheDoor(line, Library.Profiles, Library).Value!;
        said.Profile!.Id.ShouldBe(profile);
        said.Complaint!.Function!.Value.Value.ShouldBe(function);
        said.Complaint.Look.ShouldBe(look);
    }

    [Fact]
    public void Words_that_mean_nothing_to_the_library_stay_as_the_claim()
    {
        var said = Understanding.AtTheDoor("quartet smells of tea", Library.Profiles, Library).Value!;
        said.Claim.ShouldBe("quartet smells of tea");
        said.Complaint.ShouldBeNull();
    }

    [Theory]
    [InlineData("")]
    [InlineData("zeppelin broken")]
    public void An_unknown_model_is_told(string line) => Understanding.AtTheDoor(line, Library.Profiles, Library).IsOk.ShouldBeFalse();

    [Fact]
    public void Any_line_is_answered_and_names_only_what_exists() =>
        Gen.String[0, 400]
            .Sample(
                text =>
                {
                    var heard = Understanding.AtTheDoor("quartet " + text, Library.Profiles, Library);
                    if (!heard.IsOk)
                        return;
                    foreach (var fact in heard.Value.Facts.Where(f => f.Function is not null))
                    {
                        var kind = heard.Value.Profile!.FindFunction(fact.Function!.Value).ShouldNotBeNull().Kind;
                        if (fact.Look is { } look)
                            Library.FindFunctionKind(kind)!.Looks.ShouldContain(l => l.Id == look);
                    }
                },
                iter: 500
            );
}
