using System.Globalization;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Planning;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Mendro.Core.Readings;
using Mendro.StandIns.Instruments;
using Microsoft.Extensions.Time.Testing;

namespace Mendro.StandIns.Tests;

/// <summary>The simulated meter and supply speak SCPI and behave like instruments.</summary>
public class InstrumentTests
{
    private readonly FakeTimeProvider _clock = new();

    [Fact]
    public void The_meter_knows_long_and_short_forms_and_several_commands_in_a_line()
    {
        using var meter = Meter(out _);
        meter.Answer("*IDN?")!.Split(',').Length.ShouldBe(4);
        meter.Answer("CONFIGURE:RESISTANCE").ShouldBeNull();
        meter.Answer("conf?").ShouldBe("\"RES\"");
        meter.Answer("CONF:VOLT:DC;CONF?;SYST:ERR?").ShouldBe("\"VOLT\";0,\"No error\"");
        meter.Answer(":MEAS:CONT?").ShouldBe("9.90000000E+37");
    }

    [Fact]
    public void What_it_does_not_know_goes_to_the_error_queue()
    {
        using var meter = Meter(out _);
        meter.Answer("CONF:TEMP").ShouldBeNull();
        meter.Answer("HELLO?").ShouldBeNull();
        meter.Answer("SYSTEM:ERROR:NEXT?").ShouldBe("-113,\"Undefined header\"");
        meter.Answer("*CLS;SYST:ERR?").ShouldBe("0,\"No error\"");
    }

    [Fact]
    public void A_touched_point_settles_to_its_value_and_has_noise()
    {
        using var meter = Meter(out var tips);
        tips.Reach(new TipPoint("VOLT", 6.2), TimeSpan.FromMilliseconds(500));
        for (var n = 0; n < 5; n++)
        {
            _clock.Advance(TimeSpan.FromMilliseconds(90));
            Math.Abs(Read(meter)).ShouldBeLessThan(0.1);
        }

        _clock.Advance(TimeSpan.FromMilliseconds(110));
        Read(meter).ShouldBeInRange(1.5, 5);
        _clock.Advance(TimeSpan.FromSeconds(1));
        var readings = Enumerable.Range(0, 20).Select(_ => Read(meter)).ToList();
        readings.ShouldAllBe(v => Math.Abs(v - 6.2) < 0.01);
        readings.Distinct().Count().ShouldBeGreaterThan(10);
        (readings.Max() - readings.Min()).ShouldBeLessThan(SteadyWatch.Tolerance(Mendro.Core.Quantities.ReadingUnit.Volts, 6.2));
    }

    [Fact]
    public void On_a_busy_machine_the_tips_are_seen_lifted_before_they_touch()
    {
        using var meter = Meter(out var tips);
        var watch = new SteadyWatch(TimeSpan.FromSeconds(1));
        tips.Reach(new TipPoint("VOLT", 6.2), TimeSpan.FromMilliseconds(700));
        // Nobody reads for two seconds: the hand alone would long be on the point, and the value held for the old one.
        _clock.Advance(TimeSpan.FromSeconds(2));
        var states = new List<SteadyState>();
        for (var at = TimeSpan.Zero; at < TimeSpan.FromSeconds(4); at += TimeSpan.FromMilliseconds(110))
        {
            states.Add(watch.Step(at, Mendro.Core.Quantities.ReadingUnit.Volts, Read(meter)));
            _clock.Advance(TimeSpan.FromMilliseconds(110));
        }

        states.Count(s => s == SteadyState.Accepted).ShouldBe(1);
    }

    [Fact]
    public void Open_leads_wander_in_volts_and_are_over_range_in_ohms()
    {
        using var meter = Meter(out var tips);
        var wandering = Enumerable
            .Range(0, 20)
            .Select(_ =>
            {
                _clock.Advance(TimeSpan.FromMilliseconds(100));
                return Read(meter);
            })
            .ToList();
        (wandering.Max() - wandering.Min()).ShouldBeGreaterThan(0.02);
        meter.Answer("CONF:RES");
        Read(meter).ShouldBeGreaterThan(MeterDialect.Overload);
        // An open circuit reads as lifted tips do.
        tips.Reach(new TipPoint("RES", null), TimeSpan.Zero);
        Read(meter).ShouldBeGreaterThan(MeterDialect.Overload);
    }

    [Fact]
    public void An_AC_adapter_is_measured_in_AC_and_what_is_behind_its_rectifier_in_DC()
    {
        var atrium = Shipped.Profile("pellin-atrium");
        MeterDialect.Function(atrium, atrium.FindProbe("tp1")!).ShouldBe("VOLT:AC");
        MeterDialect.Function(atrium, atrium.FindProbe("tp2")!).ShouldBe("VOLT:DC");
        var minnow = Shipped.Profile("quillon-minnow");
        MeterDialect.Function(minnow, minnow.FindProbe("tp1")!).ShouldBe("VOLT:DC");
        using var meter = Meter(out var tips);
        tips.Reach(new TipPoint("VOLT:AC", 11.2), TimeSpan.Zero);
        _clock.Advance(TimeSpan.FromSeconds(2));
        meter.Answer("CONF:VOLTAGE:AC");
        Read(meter).ShouldBe(11.2, 0.02);
        // In DC an AC adapter shows next to nothing.
        meter.Answer("CONF:VOLT:DC");
        Math.Abs(Read(meter)).ShouldBeLessThan(0.05);
    }

    [Fact]
    public void The_supply_holds_its_current_limit_into_a_short()
    {
        using var supply = new StandInSupply();
        supply.Attach(new SupplyLoad(1.6, 0));
        supply.Answer("VOLT 6;CURR 0.3;OUTP ON");
        Number(supply, "MEAS:CURR?").ShouldBe(0.3, 1e-3);
        Number(supply, "MEAS:VOLT?").ShouldBe(0.48, 1e-3);
        supply.Answer("OUTP OFF");
        Number(supply, "MEAS:CURR?").ShouldBe(0);
        supply.Attach(new SupplyLoad(50, 4));
        supply.Answer("OUTP 1");
        Number(supply, "MEAS:CURR?").ShouldBe(0.12, 1e-3);
        Number(supply, "MEAS:VOLT?").ShouldBe(6, 1e-3);
        supply.Answer("VOLT 900;SYST:ERR?").ShouldBe("-222,\"Data out of range\"");
        supply.Answer("VOLT x;SYST:ERR?").ShouldBe("-104,\"Data type error\"");
        Number(supply, "VOLT?").ShouldBe(6);
    }

    [Fact]
    public void Every_point_of_every_model_reads_as_the_hidden_unit_answers()
    {
        var metered = 0;
        foreach (var profile in TradeLibrary.Shipped.Profiles)
        {
            var model = new DeviceModel(profile, TradeLibrary.Shipped);
            for (var seed = 0; seed < 4; seed++)
                foreach (var probe in profile.Probes.Where(p => ProbeWalk.IsMetered(p.Kind)))
                {
                    var outcome = PracticeUnit.Draw(model, seed, 0).Probe(probe);
                    var point = TrueReadings.At(model, PracticeUnit.Draw(model, seed, 0), probe, 0.5)!;
                    var reply = (point.Value ?? 9.9e37).ToString("E8", CultureInfo.InvariantCulture);
                    var judged = ReadingJudge.Judge(
                        profile,
                        probe,
                        MeterDialect.Typed(MeterDialect.Parse(reply, probe.Kind).Value!, probe.Kind)
                    );
                    judged.Problem.ShouldBeNull($"{profile.Id} {probe.Id} {reply}");
                    judged.Value!.Outcome.ShouldBe(outcome, $"{profile.Id} {probe.Id} {reply}");
                    metered++;
                }
        }

        metered.ShouldBeGreaterThan(300);
    }

    private StandInMeter Meter(out MeterTips tips) => new(tips = new MeterTips(_clock), _clock);

    private static double Read(StandInMeter meter) => double.Parse(meter.Answer("READ?")!, CultureInfo.InvariantCulture);

    private static double Number(StandInSupply supply, string query) => double.Parse(supply.Answer(query)!, CultureInfo.InvariantCulture);
}
