using Mendro.Core.Methods;

namespace Mendro.Core.Tests.Calculators;

/// <summary>The solder helper: melting points by ISO 9453 (values from memory), settings by common practice.</summary>
public class SolderTests
{
    private static readonly SolderLibrary Library = SolderLibrary.Shipped;

    // ISO 9453: solidus and liquidus, °C; values from memory.
    [Theory]
    [InlineData("sn63pb37", 183, 183)]
    [InlineData("sn60pb40", 183, 190)]
    [InlineData("sn62pb36ag2", 179, 179)]
    [InlineData("sac305", 217, 220)]
    [InlineData("sn99cu1", 227, 227)]
    [InlineData("sn96ag4", 221, 221)]
    [InlineData("sn42bi58", 139, 139)]
    public void Melting_points_are_those_of_the_standard(string alloy, double solidus, double liquidus)
    {
        var found = Library.Alloys.Single(a => a.Id == alloy);
        (found.SolidusC, found.LiquidusC).ShouldBe((solidus, liquidus));
        found.Source.ShouldContain("ISO 9453");
    }

    private static SolderAdvice Advise(string alloy, string joint, string board = "sound") =>
        Library.Advise(
            Library.Alloys.Single(a => a.Id == alloy),
            Library.Joints.Single(j => j.Id == joint),
            Library.Boards.Single(b => b.Id == board)
        );

    // Common practice, no source: near 400 °C for a battery contact, 280 °C and 1 to 2 s for a heat-sealed joint, 330 for fine legs.
    [Theory]
    [InlineData("battery-contact", 390, 400)]
    [InlineData("display-joint", 280, 280)]
    [InlineData("fine-leg", 320, 340)]
    [InlineData("through-hole", 340, 360)]
    public void Leaded_settings_are_those_of_the_bench(string joint, double low, double high) =>
        Advise("sn63pb37", joint).IronC.ShouldBeInRange(low, high);

    [Fact]
    public void No_setting_is_below_the_melting_point_or_above_what_burns_the_flux()
    {
        foreach (var alloy in Library.Alloys)
        foreach (var joint in Library.Joints)
        foreach (var board in Library.Boards)
        {
            var advice = Library.Advise(alloy, joint, board);
            advice.IronC.ShouldBeLessThanOrEqualTo(Library.MostC);
            if (joint.FixedC is null)
                advice.IronC.ShouldBeGreaterThan(alloy.LiquidusC + 50);
            advice.LeastSeconds.ShouldBeLessThanOrEqualTo(advice.MostSeconds);
        }
    }

    [Fact]
    public void A_sick_board_gets_less_heat_for_less_time_and_a_lifted_pad_none()
    {
        var (sound, corroded, lifted) = (
            Advise("sn63pb37", "through-hole"),
            Advise("sn63pb37", "through-hole", "corroded"),
            Advise("sn63pb37", "through-hole", "lifted")
        );
        corroded.IronC.ShouldBeLessThan(sound.IronC);
        corroded.MostSeconds.ShouldBeLessThan(sound.MostSeconds);
        lifted.Add.ShouldContain("wire");
    }

    // The ternary eutectic of bismuth, lead and tin melts at about 96 °C (textbook).
    [Fact]
    public void Bismuth_never_meets_lead() => Advise("sn42bi58", "two-end").Words.ShouldContain(w => w.Contains("96 °C"));

    [Fact]
    public void The_calculator_answers_in_numbers_and_words()
    {
        var answer = Calc.Run("solder", "alloy=sac305", "joint=fine-leg");
        answer.Number("liquidusCelsius").ShouldBe(220);
        answer.Number("ironCelsius").ShouldBe(365);
        answer.Outputs.Single(o => o.Name == "addSolder").Value.ToString()!.ShouldContain("none");
    }
}
