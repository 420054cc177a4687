using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Methods;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>A method run step by step: minutes by the clock, waits by a timer, what is put on the unit, the check at the end.</summary>
public sealed class RunDeskTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private RunSheet? Sheet(long number) => _shop.Runs.Open(_shop.Jobs.Find(number)!, _shop.View(number).Profile);

    private void Pass(double minutes) => _shop.Time.Advance(TimeSpan.FromMinutes(minutes));

    private string? Next(long number, bool sure = false) => _shop.Runs.Next(number, Sheet(number)!.Run.Step, sure).Refusal?.Problem;

    [Fact]
    public void A_switch_is_flushed_with_its_minutes_its_drying_and_its_check()
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Runs.Start(number, "switch", "flush-switch").Done.ShouldNotBeNull();
        foreach (var minutes in (double[])[1, 2, 0.5])
        {
            Pass(minutes);
            Next(number).ShouldBeNull();
        }

        var waiting = Sheet(number)!;
        waiting.Now.Kind.ShouldBe(RunStepKind.Wait);
        waiting.Timer!.Left.ShouldBe(120, 0.01);
        _shop.Timers.All().Single().Timer.Number.ShouldBe(number);
        Pass(1);
        Next(number)!.ShouldContain("waited 1 of 2 min");
        Pass(1.5);
        Sheet(number)!.Timer!.IsDue.ShouldBeTrue();
        Next(number).ShouldBeNull();
        _shop.Timers.All().ShouldBeEmpty();
        Pass(0.5);
        _shop.Runs.Finish(number, null, null, "").Refusal!.Problem.ShouldContain("what the check showed");
        _shop.Runs.Finish(number, true, true, "brown juice came out").Done.ShouldNotBeNull();

        var view = _shop.View(number);
        var repair = view.All<RepairLogged>().Single();
        // 1 + 2 + 0.5 of work and 0.5 of checking; the wait is no work.
        repair.Record.Minutes.ShouldBe(4);
        repair.Record.Note.ShouldBe("brown juice came out");
        // The model has a probe for the switch in both positions: the check is its reading.
        view.All<ProbeReading>().Single().Body.Outcome.ShouldBe(ProbeOutcome.Normal);
        repair.Body.Held.ShouldBeNull();
        view.All<FunctionTrial>().Last().Body.Passed.ShouldBeTrue();
        view.All<MaterialUsed>()
            .Select(m => m.Body.Done)
            .ShouldBe([
                new SequenceStep("contact-cleaner", "plated-contacts"),
                new SequenceStep("contact-cleaner", "plated-contacts"),
                new SequenceStep(Dry: 2.5),
            ]);
        Sheet(number).ShouldBeNull();
    }

    [Fact]
    public void Where_it_stands_is_kept_over_a_restart_and_a_pause_costs_no_minutes()
    {
        var number = _shop.TakeIn();
        _shop.Runs.Start(number, "switch", "flush-switch").Done.ShouldNotBeNull();
        Pass(2);
        _shop.Runs.Pause(number).Done!.Words.ShouldBe("Paused.");
        Pass(45);
        _shop.Runs.Pause(number).Done.ShouldNotBeNull();
        Pass(1);
        Sheet(number)!.StepSeconds.ShouldBe(180, 0.01);
        Next(number).ShouldBeNull();
        _shop.Runs.Back(number).Done.ShouldNotBeNull();
        Pass(1);
        // A desk that was just made knows nothing but what is in the file.
        var again = new RunDesk(
            new JobBench(_shop.Jobs, _shop.Records, _shop.Models, _shop.Ledger, _shop.Time),
            new RunStore(_shop.Database),
            _shop.Records,
            _shop.Repairs,
            new TimerDesk(new TimerStore(_shop.Database), _shop.Jobs, _shop.Ledger, _shop.Time),
            _shop.Ledger,
            TradeLibrary.Shipped,
            _shop.Time
        ).Open(_shop.Jobs.Find(number)!, _shop.View(number).Profile)!;
        (again.Run.Step, Math.Round(again.StepSeconds)).ShouldBe((0, 240));
    }

    [Fact]
    public void A_dangerous_step_is_refused_until_rinse_and_drying_are_logged()
    {
        var number = _shop.TakeIn();
        _shop.Runs.Log(number, new SequenceStep("bleach-1-10", "bare-plastic")).Done.ShouldNotBeNull();
        _shop.Runs.Start(number, "contacts", "acid-contacts").Done.ShouldNotBeNull();
        // Gloves, goggles and which cells: nothing is put on yet.
        Next(number).ShouldBeNull();
        var told = Next(number)!;
        told.ShouldContain("chlorine");
        Sheet(number)!.Materials.Stops.Single().Rule.ShouldBe("chlorine");
        _shop.Runs.Log(number, new SequenceStep(Rinse: true)).Done.ShouldNotBeNull();
        Next(number)!.ShouldContain("chlorine");
        _shop.Runs.Log(number, new SequenceStep(Dry: 30)).Done.ShouldNotBeNull();
        Next(number).ShouldBeNull();
    }

    [Fact]
    public void What_an_earlier_job_put_on_the_same_unit_is_still_on_it()
    {
        var (first, second, other) = (_shop.TakeIn(), _shop.TakeIn(), _shop.TakeIn());
        foreach (var (number, serial) in ((long, string)[])[(first, "H4-11"), (second, "H4-11"), (other, "H4-12")])
            _shop.Jobs.SaveIntake(_shop.Jobs.Find(number)! with { Serial = serial }, "Ilka Dorn", "");
        _shop.Runs.Log(first, new SequenceStep("vinegar", "battery-contacts")).Done.ShouldNotBeNull();
        var bleach = new SequenceStep("bleach-1-10", "bare-plastic");
        _shop.Runs.Log(second, bleach).Refusal!.Problem.ShouldContain("chlorine");
        _shop.Runs.Log(other, bleach).Done.ShouldNotBeNull();
    }

    [Fact]
    public void A_check_that_no_probe_says_goes_with_the_repair_and_moves_the_diagnosis()
    {
        double Share(bool? held)
        {
            var number = _shop.TakeIn("pellin-atrium-cartridge", fails: "cartridge");
            if (_shop.Repairs.Log(new RepairOrder(number, "edge", "swab-edge", Held: held)).Refusal is { } refusal)
                throw new InvalidOperationException(refusal.Problem);
            return _shop.View(number).Diagnosis!.Parts["edge"].Share;
        }

        Share(false).ShouldBeGreaterThan(Share(null));
    }

    [Fact]
    public void One_method_runs_at_a_time_and_a_page_that_lags_behind_moves_nothing()
    {
        var number = _shop.TakeIn();
        _shop.Runs.Start(number, "switch", "flush-switch").Done.ShouldNotBeNull();
        _shop.Runs.Start(number, "contacts", "wipe-contacts").Refusal!.Problem.ShouldContain("under way");
        Next(number).ShouldBeNull();
        _shop.Runs.Next(number, 0, false).Refusal!.Problem.ShouldContain("done already");
        Sheet(number)!.Run.Step.ShouldBe(1);
        _shop.Runs.Drop(number).Done.ShouldNotBeNull();
        Sheet(number).ShouldBeNull();
        _shop.View(number).All<RepairLogged>().ShouldBeEmpty();
        _shop.Runs.Next(number, 1, false).Refusal.ShouldBe(Refusal.Missing);
    }

    [Fact]
    public void A_modification_waits_for_the_owners_yes_and_shop_stock_needs_none()
    {
        var number = _shop.TakeIn("dovrel-sextant");
        var (part, method) = ("lamp", "replace-backlight");
        _shop.Repairs.Log(new RepairOrder(number, part, method)).Refusal!.Problem.ShouldContain("who agreed");
        _shop.Runs.Start(number, part, method).Refusal!.Problem.ShouldContain("who agreed");
        _shop.Repairs.Consent(number, new ConsentGiven(part, method, " ", ConsentWay.Phone)).Refusal.ShouldNotBeNull();
        _shop.Repairs.Consent(number, new ConsentGiven(part, method, "Ilka Dorn", ConsentWay.Phone)).Done.ShouldNotBeNull();
        _shop.Repairs.Log(new RepairOrder(number, part, method)).Done.ShouldNotBeNull();
        var stock = _shop.TakeIn("dovrel-sextant", owner: null);
        _shop.Repairs.Log(new RepairOrder(stock, part, method)).Done.ShouldNotBeNull();
    }
}
