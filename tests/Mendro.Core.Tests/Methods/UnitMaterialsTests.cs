using Mendro.Core.Methods;

namespace Mendro.Core.Tests.Methods;

/// <summary>What is on a unit over time: drying in air counts, a rinse does not happen by itself.</summary>
public class UnitMaterialsTests
{
    private static readonly DateTimeOffset Start = new(2026, 3, 1, 9, 0, 0, TimeSpan.Zero);

    private static MaterialMoment At(double minutes, SequenceStep step) => new(step, Start.AddMinutes(minutes));

    private static IEnumerable<string> Stops(double now, SequenceStep next, params MaterialMoment[] past) =>
        UnitMaterials.Before(past, [next], Start.AddMinutes(now), MaterialLibrary.Shipped).Stops.Select(s => s.Rule);

    private static readonly SequenceStep Alcohol = new("isopropyl-91", "plated-contacts");

    [Fact]
    public void Alcohol_dries_by_itself_in_the_time_that_it_needs()
    {
        Stops(2, new SequenceStep(Heat: 350), At(0, Alcohol)).ShouldBe(["flammable-heat"]);
        Stops(4, new SequenceStep(Heat: 350), At(0, Alcohol)).ShouldBeEmpty();
    }

    [Fact]
    public void Acid_waits_for_its_rinse_however_long_it_lies()
    {
        var acid = At(0, new SequenceStep("vinegar", "battery-contacts"));
        Stops(3000, new SequenceStep("bleach-1-10", "bare-plastic"), acid).ShouldBe(["chlorine"]);
        Stops(3000, new SequenceStep("bleach-1-10", "bare-plastic"), acid, At(5, new SequenceStep(Rinse: true))).ShouldBeEmpty();
        Stops(6, new SequenceStep("bleach-1-10", "bare-plastic"), acid, At(5, new SequenceStep(Rinse: true))).ShouldBe(["chlorine"]);
    }

    [Fact]
    public void A_drying_that_was_logged_is_not_counted_twice()
    {
        var steps = UnitMaterials.Sequence([At(0, Alcohol), At(3, new SequenceStep(Dry: 3))], Start.AddMinutes(3));
        steps.Sum(s => s.Dry ?? 0).ShouldBe(3);
    }

    [Fact]
    public void The_report_is_of_the_next_step_alone()
    {
        var report = UnitMaterials.Before(
            [At(0, new SequenceStep("isopropyl-99", "printed-logo"))],
            [Alcohol],
            Start.AddMinutes(1),
            MaterialLibrary.Shipped
        );
        report.Steps.Select(s => (s.Index, s.Verdict)).ShouldBe([(0, MaterialVerdict.Safe)]);
    }
}
