using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.Instruments;
using Mendro.Web.Live;

namespace Mendro.Web.Tests.Meter;

/// <summary>What the page is told while the meter is looked at.</summary>
public class LiveReadingTests
{
    private static readonly DeviceProfile Quartet = TradeLibrary.Shipped.Profiles.Single(p => p.Id == "harrow-quartet");

    [Fact]
    public void A_value_that_stands_still_is_accepted_once_and_then_held() => States(6.21).ShouldBe(["moving", "accepted", "held"]);

    [Fact]
    public void Swapped_tips_are_refused_with_a_word_why_and_taken_after_they_are_turned()
    {
        var watch = new SteadyWatch(TimeSpan.FromSeconds(1), armed: true);
        var told = Watch(watch, -6.21, 0, 12).ToList();
        told.Select(r => r.State).Distinct().ShouldBe(["moving", "refused", "held"]);
        told.Single(r => r.State == "refused").Words.ShouldNotBeNull().ShouldContain("swap the tips");
        told.ShouldAllBe(r => r.Good == false);

        // Lifted, the input wanders about zero; turned, the same point reads plus.
        var wandering = Enumerable.Range(13, 12).Select(i => Look(watch, i % 2 == 0 ? 0.03 : -0.03, i)).ToList();
        wandering[^1].State.ShouldBe("open");
        var turned = Watch(watch, 6.21, 25, 12).ToList();
        turned.Count(r => r.State == "accepted").ShouldBe(1);
        turned.Single(r => r.State == "accepted").Good.ShouldBe(true);
    }

    [Fact]
    public void A_reason_to_stop_is_said_with_the_reading()
    {
        var watch = new SteadyWatch(TimeSpan.FromSeconds(1), armed: true);
        LiveReading At(string probe, ReadingUnit unit, double value) =>
            LiveReading.Look(Quartet, Quartet.FindProbe(probe)!, watch, new MeterSample(new Reading(unit, value), null), TimeSpan.Zero);
        At("rail-ohms", ReadingUnit.Ohms, 1.6).Stop.ShouldBeTrue();
        At("rail-ohms", ReadingUnit.Ohms, 4700).Stop.ShouldBeFalse();
        At("tp5", ReadingUnit.Volts, 9).Stop.ShouldBeTrue();
    }

    private static List<string> States(double volts) =>
        Watch(new SteadyWatch(TimeSpan.FromSeconds(1), armed: true), volts, 0, 13).Select(r => r.State).Distinct().ToList();

    private static IEnumerable<LiveReading> Watch(SteadyWatch watch, double volts, int from, int samples) =>
        Enumerable.Range(from, samples).Select(i => Look(watch, volts, i));

    private static LiveReading Look(SteadyWatch watch, double volts, int tick) =>
        LiveReading.Look(
            Quartet,
            Quartet.FindProbe("tp3")!,
            watch,
            new MeterSample(new Reading(ReadingUnit.Volts, volts), null),
            TimeSpan.FromMilliseconds(110 * tick)
        );
}
