using CsCheck;
using Mendro.Core.Electrical;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Core.Tests.Readings;

/// <content>What is read at one part: contacts, switches, capacitors, save cells.</content>
public partial class MeaningTests
{
    [Theory]
    [InlineData("0.4", "good contact")]
    [InlineData("1.6", "subtract the leads")]
    [InlineData("7", "dirty or cracked")]
    [InlineData("OL", "does not conduct")]
    [InlineData("beep", "conducts")]
    public void A_contact_is_told_by_its_ohms(string reading, string words) =>
        Judge(Quartet, "fuse-beep", reading).Reason.ShouldContain(words);

    // The table of series resistance is a value from memory (docs/sources.md).
    [Theory]
    [InlineData("10u", ProbeOutcome.Normal)]
    [InlineData("10u ESR 2.5", ProbeOutcome.Normal)]
    [InlineData("10 uF, esr 9 ohm", ProbeOutcome.Abnormal)]
    [InlineData("10u ESR 9,5", ProbeOutcome.Abnormal)]
    [InlineData("3u ESR 0.5", ProbeOutcome.Abnormal)]
    public void A_capacitor_is_read_with_its_series_resistance(string reading, ProbeOutcome outcome) =>
        Judge(Shipped.Profile("dovrel-sextant"), "biascaps-c", reading).Outcome.ShouldBe(outcome);

    [Theory]
    [InlineData("on beep", ProbeOutcome.Normal)]
    [InlineData("on open", ProbeOutcome.Abnormal)]
    [InlineData("off open", ProbeOutcome.Normal)]
    [InlineData("off: beep", ProbeOutcome.Abnormal)]
    [InlineData("off 0.3", ProbeOutcome.Abnormal)]
    // Both positions in one entry, in either order.
    [InlineData("off open, on 0.2", ProbeOutcome.Normal)]
    [InlineData("on beep off open", ProbeOutcome.Normal)]
    [InlineData("on: OL / off: OL", ProbeOutcome.Abnormal)]
    [InlineData("off 0.3, on 0.2", ProbeOutcome.Abnormal)]
    [InlineData("beep", ProbeOutcome.Normal)]
    public void A_switch_is_read_by_position(string reading, ProbeOutcome outcome) =>
        Judge(Quartet, "switch-beep", reading).Outcome.ShouldBe(outcome);

    [Theory]
    [InlineData("60u", "Below 80 µF: dried out.")]
    [InlineData("300u", "Above 130 µF: it leaks, or others beside it are measured along.")]
    public void A_capacitor_out_of_range_says_what_that_means(string reading, string reason) =>
        Judge(Shipped.Profile("dovrel-sextant"), "soundcaps-c", reading).Reason.ShouldBe(reason);

    [Theory]
    [InlineData("3.2", "Good")]
    [InlineData("2.9", "Ageing")]
    [InlineData("2.6", "Doubtful")]
    [InlineData("1.4", "Flat")]
    [InlineData("4.6", "More than such a cell gives")]
    [InlineData("0.0", "no contact")]
    public void A_save_cell_has_a_rest_of_life(string reading, string words) =>
        Judge(Cartridge, "cell-volts", reading).Reason.ShouldStartWith(words == "no contact" ? "Nothing left" : words);

    [Fact]
    public void Years_left_rise_with_the_volts_and_never_pass_the_shelf_life() =>
        Gen.Double[0, 4]
            .Select(Gen.Double[0, 4])
            .Sample(
                (a, b) =>
                {
                    var limits = BenchLimits.Shipped.SaveCell;
                    var (low, high) = (SaveCellWords.YearsLeft(Math.Min(a, b), limits), SaveCellWords.YearsLeft(Math.Max(a, b), limits));
                    low.ShouldBeLessThanOrEqualTo(high);
                    low.ShouldBeInRange(0, 10);
                    high.ShouldBeInRange(0, 10);
                }
            );
}
