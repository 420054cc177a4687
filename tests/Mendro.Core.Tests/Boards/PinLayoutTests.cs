using CsCheck;
using Mendro.Core.Boards;

namespace Mendro.Core.Tests.Boards;

/// <summary>Counting legs. Dual-in-line and quad numbering: JEDEC standard numbering, value from memory.</summary>
public class PinLayoutTests
{
    private static PinLayout Package(string text) => PinLayout.Read(text).Value!;

    // A 14-leg logic package: ground at leg 7, bottom left; supply at leg 14, top right, opposite leg 1.
    [Theory]
    [InlineData("dip-14", 1, "left", 1)]
    [InlineData("dip-14", 7, "left", 7)]
    [InlineData("dip-14", 8, "right", 1)]
    [InlineData("dip-14", 14, "right", 7)]
    [InlineData("quad-64", 1, "left", 1)]
    [InlineData("quad-64", 16, "left", 16)]
    [InlineData("quad-64", 17, "bottom", 1)]
    [InlineData("quad-64", 32, "bottom", 16)]
    [InlineData("quad-64", 33, "right", 1)]
    [InlineData("quad-64", 48, "right", 16)]
    [InlineData("quad-64", 49, "top", 1)]
    [InlineData("quad-64", 64, "top", 16)]
    [InlineData("row-5", 3, "bottom", 3)]
    public void Legs_are_counted_from_the_mark_counterclockwise(string package, int number, string side, int place)
    {
        var pin = Package(package).Of(number);
        (pin.Side, pin.Place).ShouldBe((side, place));
    }

    [Fact]
    public void Leg_1_and_the_last_of_two_rows_face_each_other()
    {
        var package = Package("dip-28");
        package.Of(1).Y.ShouldBe(package.Of(28).Y, 1e-12);
        package.Of(14).Y.ShouldBe(package.Of(15).Y, 1e-12);
        (package.Of(1).X, package.Of(28).X).ShouldBe((0, 1));
    }

    // Going round, the angle seen from the middle only grows counterclockwise (in a picture whose y grows downward: falls).
    [Fact]
    public void The_count_goes_once_round_whatever_the_package() =>
        Gen.Select(Gen.OneOf(Gen.Const("dip"), Gen.Const("quad")), Gen.Int[1, 50])
            .Sample(
                (shape, n) =>
                {
                    var package = Package($"{shape}-{4 * n}");
                    double Angle(int pin)
                    {
                        var at = package.Of(pin);
                        return Math.Atan2(0.5 - at.Y, at.X - 0.5);
                    }

                    var turned = 0.0;
                    for (var pin = 2; pin <= package.Pins; pin++)
                    {
                        var step = Angle(pin) - Angle(pin - 1);
                        step += step < -Math.PI ? 2 * Math.PI : 0;
                        if (step <= 0)
                            return false;
                        turned += step;
                    }

                    return turned < 2 * Math.PI;
                }
            );

    [Theory]
    [InlineData("dip-28", 5, false, "left side, 5th from the top")]
    [InlineData("dip-28", 5, true, "right side, 5th from the top")]
    [InlineData("dip-28", 13, false, "left side, 2nd from the bottom")]
    [InlineData("quad-64", 18, false, "bottom side, 2nd from the left")]
    [InlineData("quad-64", 18, true, "bottom side, 2nd from the right")]
    [InlineData("quad-64", 62, true, "top side, 3rd from the right")]
    [InlineData("row-5", 1, true, "1st from the right, where the mark is")]
    public void A_leg_is_said_from_the_nearer_end_and_mirrored_from_below(string package, int number, bool below, string words) =>
        Package(package).Words(number, below).ShouldBe(words);

    [Theory]
    [InlineData("dip-7")]
    [InlineData("quad-30")]
    [InlineData("dip-1000")]
    [InlineData("ball-100")]
    [InlineData("")]
    [InlineData(null)]
    public void What_is_no_package_is_refused(string? text) => PinLayout.Read(text).IsOk.ShouldBeFalse();
}
