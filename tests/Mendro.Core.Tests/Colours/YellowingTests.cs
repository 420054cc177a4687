using CsCheck;
using Mendro.Core.Colours;

namespace Mendro.Core.Tests.Colours;

/// <summary>Yellowing out of a photo, and the grey card.</summary>
public sealed class YellowingTests
{
    // sRGB 128 is 0.2159 of the light, and L* 53.585 (value from memory, as any converter gives it).
    [Fact]
    public void A_middle_grey_is_where_converters_have_it()
    {
        LinearLight.FromSrgb(128, 128, 128).Red.ShouldBe(0.2159, 1e-4);
        LinearLight.FromSrgb(128, 128, 128).Lab.L.ShouldBe(53.585, 1e-3);
    }

    [Fact]
    public void Under_the_card_the_colour_of_the_lamp_is_gone() =>
        Gen.Select(Gen.Double[0.3, 1.6], Gen.Double[0.3, 1.6], Gen.Double[0.3, 1.6])
            .Sample(
                (r, g, b) =>
                {
                    LinearLight Lamp(LinearLight light) => new(light.Red * r, light.Green * g, light.Blue * b);
                    var grey = new LinearLight(LinearLight.GreyCard, LinearLight.GreyCard, LinearLight.GreyCard);
                    var (inside, outside) = (new LinearLight(0.6, 0.6, 0.58), new LinearLight(0.55, 0.48, 0.25));
                    var daylight = Yellowing.Of(inside, outside, grey);
                    Yellowing.Of(Lamp(inside), Lamp(outside), Lamp(grey)).DeltaE.ShouldBe(daylight.DeltaE, 1e-6);
                }
            );

    [Fact]
    public void It_says_which_way_and_whether_the_lamp_is_in_it()
    {
        var seen = Yellowing.Of(new LinearLight(0.6, 0.6, 0.58), new LinearLight(0.55, 0.48, 0.25), null);
        seen.Words.ShouldContain("the outside is yellower");
        seen.Words.ShouldContain("without a grey card");
        Yellowing.Of(new LinearLight(0.6, 0.6, 0.6), new LinearLight(0.6, 0.6, 0.6), new LinearLight(0.2, 0.2, 0.2)).Words.ShouldContain("not to be seen");
    }
}
