using CsCheck;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;

namespace Mendro.Core.Tests.Planning;

/// <summary>One typed line at the door.</summary>
public class QuickIntakeTests
{
    private static readonly TradeLibrary Library = TradeLibrary.Shipped;

    [Theory]
    [InlineData("quartet no light", "harrow-quartet", "power-light", "nothing")]
    [InlineData("Harrow Quartet: vertical lines", "harrow-quartet", "picture", "vertical-lines")]
    [InlineData("atrium blinks", "pellin-atrium", "start-up", "blinks")]
    [InlineData("atrium cartridge dead", "pellin-atrium-cartridge", "cartridge", null)]
    [InlineData("atrium pad one button", "pellin-atrium-pad", "cross", "one-dead")]
    [InlineData("leaflet charging", "tarn-leaflet", "charging", null)]
    [InlineData("any handheld dead", "generic-handheld", "power-light", "nothing")]
    [InlineData("disc console skips", "generic-disc-console", "disc", "skips")]
    public void Model_function_and_look_are_recognised(string line, string profile, string function, string? look)
    {
        var quick = QuickIntake.Parse(line, Library.Profiles, Library).Value!;
        quick.Profile.Id.ShouldBe(profile);
        quick.FunctionId.ShouldBe(function);
        quick.LookId.ShouldBe(look);
    }

    [Fact]
    public void Words_that_mean_nothing_to_the_library_stay_as_the_claim()
    {
        var quick = QuickIntake.Parse("quartet smells of tea", Library.Profiles, Library).Value!;
        quick.Symptom.ShouldBe("smells of tea");
        quick.FunctionId.ShouldBeNull();
    }

    [Theory]
    [InlineData("")]
    [InlineData("zeppelin broken")]
    public void An_unknown_model_is_told(string line) => QuickIntake.Parse(line, Library.Profiles, Library).IsOk.ShouldBeFalse();

    [Fact]
    public void Any_line_is_answered_and_names_only_what_exists() =>
        Gen.String[0, 400]
            .Sample(
                text =>
                {
                    var outcome = QuickIntake.Parse("quartet " + text, Library.Profiles, Library);
                    if (outcome.Value is not { FunctionId: { } function } quick)
                        return;
                    var kind = quick.Profile.FindFunction(function).ShouldNotBeNull().Kind;
                    if (quick.LookId is { } look)
                        Library.FindFunctionKind(kind)!.Looks.ShouldContain(l => l.Id == look);
                },
                iter: 2000
            );
}
