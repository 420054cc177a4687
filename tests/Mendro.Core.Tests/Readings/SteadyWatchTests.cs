using CsCheck;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;

namespace Mendro.Core.Tests.Readings;

/// <summary>When a metered value may be taken without a hand.</summary>
public class SteadyWatchTests
{
    private static readonly TimeSpan Second = TimeSpan.FromSeconds(1);

    [Fact]
    public void A_value_that_stands_for_a_second_is_taken_once()
    {
        var watch = new SteadyWatch(Second, armed: true);
        var states = Feed(watch, ReadingUnit.Volts, 0, 30, n => 6.2 + 0.001 * (n % 2));
        states.Count(s => s == SteadyState.Accepted).ShouldBe(1);
        states.IndexOf(SteadyState.Accepted).ShouldBe(10);
        states.Skip(11).ShouldAllBe(s => s == SteadyState.Held);
    }

    [Fact]
    public void Two_samples_far_apart_are_not_standing_still()
    {
        var watch = new SteadyWatch(Second, armed: true);
        watch.Step(TimeSpan.Zero, ReadingUnit.Volts, 6.2).ShouldBe(SteadyState.Moving);
        watch.Step(5 * Second, ReadingUnit.Volts, 6.2).ShouldBe(SteadyState.Moving);
        watch.Step(10 * Second, ReadingUnit.Volts, 9.1).ShouldBe(SteadyState.Moving);
    }

    [Fact]
    public void The_old_point_does_not_answer_for_the_new_one()
    {
        var watch = new SteadyWatch(Second);
        Feed(watch, ReadingUnit.Volts, 0, 30, _ => 6.2).ShouldNotContain(SteadyState.Accepted);
        // Lifted: a floating input wanders. Then the next point.
        Feed(watch, ReadingUnit.Volts, 30, 40, n => 0.03 * Math.Sin(n)).ShouldContain(SteadyState.Open);
        Feed(watch, ReadingUnit.Volts, 40, 60, _ => 6.1).Count(s => s == SteadyState.Accepted).ShouldBe(1);
    }

    [Fact]
    public void Sliding_on_a_point_is_not_lifting()
    {
        var watch = new SteadyWatch(Second);
        Feed(watch, ReadingUnit.Volts, 0, 60, n => n % 20 < 5 ? 5.5 + 0.1 * n % 0.7 : 6.2).ShouldNotContain(SteadyState.Accepted);
    }

    [Fact]
    public void A_dead_point_is_told_from_open_leads_and_held_twice_as_long()
    {
        var watch = new SteadyWatch(Second, armed: true);
        Feed(watch, ReadingUnit.Volts, 0, 40, n => 0.03 * Math.Sin(0.6 * n)).ShouldNotContain(SteadyState.Accepted);
        var states = Feed(watch, ReadingUnit.Volts, 40, 80, n => 0.004 + 0.0002 * (n % 3));
        states.IndexOf(SteadyState.Accepted).ShouldBeInRange(19, 22);
    }

    [Fact]
    public void An_open_circuit_is_never_taken_by_itself_but_arms()
    {
        var watch = new SteadyWatch(Second);
        for (var n = 0; n < 40; n++)
            watch.Step(n * Second / 10, ReadingUnit.Ohms, null).ShouldBe(SteadyState.Open);
        Feed(watch, ReadingUnit.Ohms, 40, 60, _ => 0.3).Count(s => s == SteadyState.Accepted).ShouldBe(1);
    }

    [Fact]
    public void What_was_taken_stood_still_within_the_tolerance_for_the_hold() =>
        Gen.Select(Gen.Double[0.2, 12].Array[60], Gen.Int[0, 2].Array[60])
            .Sample(
                (values, repeats) =>
                {
                    var watch = new SteadyWatch(Second, armed: true);
                    var samples = values.SelectMany((v, n) => Enumerable.Repeat(v, 1 + 6 * repeats[n])).ToList();
                    for (var n = 0; n < samples.Count; n++)
                    {
                        if (watch.Step(n * Second / 10, ReadingUnit.Volts, samples[n]) != SteadyState.Accepted)
                            continue;
                        var last = samples.Skip(n - 10).Take(11).ToList();
                        (last.Max() - last.Min()).ShouldBeLessThanOrEqualTo(
                            SteadyWatch.Tolerance(ReadingUnit.Volts, (last.Max() + last.Min()) / 2)
                        );
                    }
                },
                iter: 300
            );

    // SCPI-99: 9.9E37 is over range, 9.91E37 is not a number; IEEE 488.2 NR3 numbers.
    [Theory]
    [InlineData("+5.02310000E+00", ProbeKind.Volts, "5.023 V")]
    [InlineData("-1.23E-3", ProbeKind.Volts, "−0.001 V")]
    [InlineData("9.90000000E+37", ProbeKind.Ohms, "OL")]
    [InlineData("9.91E37", ProbeKind.Continuity, "OL")]
    [InlineData("-9.9E37", ProbeKind.Volts, "OL")]
    [InlineData("+3.2E-01", ProbeKind.Continuity, "0.32 Ω")]
    [InlineData("-4E-02", ProbeKind.Continuity, "0 Ω")]
    [InlineData("4.7E+03", ProbeKind.Ohms, "4.7 kΩ")]
    [InlineData("2.2E-05", ProbeKind.Capacitance, "22 µF")]
    [InlineData("5.1,5.2", ProbeKind.Volts, "5.2 V")]
    [InlineData("0.43", ProbeKind.Diode, "0.43 V diode")]
    public void Replies_become_what_would_be_typed(string reply, ProbeKind kind, string typed) =>
        MeterDialect.Typed(MeterDialect.Parse(reply, kind).Value!, kind).ShouldBe(typed);

    [Theory]
    [InlineData("")]
    [InlineData("HTTP/1.1 400 Bad Request")]
    [InlineData("NaN")]
    public void Other_replies_are_refused(string reply) => MeterDialect.Parse(reply, ProbeKind.Volts).Problem!.ShouldContain("no reading");

    [Fact]
    public void What_the_meter_gives_is_understood_by_the_bar() =>
        Gen.Select(Gen.Int[0, 5], Gen.Double[-13, 7])
            .Sample(
                (which, log) =>
                {
                    var kind = (ProbeKind)which;
                    var reply = Math.Pow(10, log).ToString("0.00000000E+00", System.Globalization.CultureInfo.InvariantCulture);
                    var typed = MeterDialect.Typed(MeterDialect.Parse(reply, kind).Value!, kind);
                    ReadingParser.Parse(typed, ReadingJudge.AssumedUnit(kind)).Problem.ShouldBeNull(typed);
                },
                iter: 3000
            );

    private static List<SteadyState> Feed(SteadyWatch watch, ReadingUnit unit, int from, int to, Func<int, double> value) =>
        Enumerable.Range(from, to - from).Select(n => watch.Step(n * Second / 10, unit, value(n))).ToList();
}
