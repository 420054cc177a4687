using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Scheduling;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>The bench day: what comes into it, what changes it, what is promised.</summary>
public sealed class DayDeskTests : BenchDay
{
    /// <summary>A line that beeps have shown to be broken wants its wire, before the unit is tried again.</summary>
    [Fact]
    public async Task A_broken_line_comes_into_the_day_as_its_wire()
    {
        var number = _shop.TakeIn("harrow-quartet", fails: "start-up");
        _shop.Traces.Mark(number, "main", "V62", "corroded").Done.ShouldNotBeNull();
        _shop.Traces.Beep(number, "main/U1-6", "main/U2-6", false).Done.ShouldNotBeNull();
        var net = _shop.Traces.Open(_shop.View(number))!.Nets.Single(n => n.IsBroken).Net.Name;
        var board = await Board();
        var own = board.Entries.Where(e => e.Item.Number == number).ToList();
        own[0].Item.FirstWords.ShouldBe($"wire for {net}");
        own[0].Item.LeavesOpen.ShouldBeTrue();
        own[0].Item.Task.Place.ShouldBe("fumes");
        own[0].Item.Task.Setups.ShouldContain("iron");
    }

    [Fact]
    public async Task A_unit_comes_into_the_day_with_its_next_move_its_proof_its_soak_and_its_hand_over()
    {
        var number = _shop.TakeIn(fails: "power-light");
        var board = await Board();
        var own = board.Entries.Where(e => e.Item.Number == number).ToList();
        var move = _shop.View(number).Advice.Moves[0];
        own[0].Item.FirstWords.ShouldBe(move.Title);
        own[0].Start.ShouldBe(At(9));
        own[^1].Item.Words.ShouldBe("hand over");
        own[^1].Item.Stage.ShouldBe(WorkStage.HandOver);
        own.Count(e => e.Person is null && e.Item.Task.Attended).ShouldBe(1);
        foreach (var (one, next) in own.Zip(own.Skip(1)))
            next.Start.ShouldBeGreaterThanOrEqualTo(one.End);
        // With all of it working the owner is called; a unit of the shop's own is put up for sale.
        _shop.AllWork(number, proving: true);
        (await Board()).Entries.ShouldHaveSingleItem().Item.Words.ShouldBe($"{number}: ready: tell the owner");
        var stock = _shop.TakeIn(owner: null);
        _shop.AllWork(stock, proving: true);
        (await Board()).Entries.Single(e => e.Item.Number == stock).Item.Words.ShouldBe("hand over");
    }

    [Fact]
    public async Task Hands_are_busy_while_things_soak_and_nobody_works_at_noon()
    {
        foreach (var fails in new[] { "power-light", "picture", "speaker" })
            _shop.TakeIn(fails: fails);
        Desk.Add(
                new OwnTask
                {
                    Words = "label box",
                    Minutes = 200,
                    Due = "2026-11-30",
                }
            )
            .Done.ShouldNotBeNull();
        Desk.Add([new FixedHour { Words = "market", FromAt = At(10), ToAt = At(11) }]).Done.ShouldNotBeNull();
        _shop.Timers.Start(null, "sun bath", 300).Done.ShouldNotBeNull();
        var board = await Board();
        var load = new Workload(1, board.Terms.WorkPlaces, board.Entries.Select(e => e.Item.Task).ToList(), PlanGoal.Day) { Closed = board.Closed };
        var plan = new WorkPlan(
            board.Entries.Select(e => new PlannedTask(e.Item.Task.Id, (e.Start - board.Now).TotalMinutes, (e.End - board.Now).TotalMinutes, e.Person)).ToList(),
            0,
            false
        );
        PlanCheck.Problems(load, plan).ShouldBeEmpty();
        board.Closed.ShouldContain(new Stretch(60, 120));
        board.Closed.ShouldContain(new Stretch(210, 240));
        board.Meanwhile.ShouldHaveSingleItem().Item.Words.ShouldBe("sun bath");
        // Two hundred minutes fit between one and half past five only, and are done today because they are due.
        board.Entries.Single(e => e.Item.Words == "label box").End.ShouldBeLessThanOrEqualTo(At(17, 30));
    }

    [Fact]
    public async Task With_two_people_a_fixed_hour_takes_one_of_them()
    {
        Desk.Save(DayTerms.Usual with { People = 2 }).Done.ShouldNotBeNull();
        Desk.Add([new FixedHour { Words = "dentist", FromAt = At(9), ToAt = At(11) }]).Done.ShouldNotBeNull();
        foreach (var words in new[] { "one", "two" })
            Desk.Add(new OwnTask { Words = words, Minutes = 60 }).Done.ShouldNotBeNull();
        var board = await Board();
        board.Closed.ShouldNotContain(c => c.From < 100);
        board.Entries.Where(e => e.Item.Lane == "own").Select(e => e.Start).ShouldBe([At(9), At(10)]);
        board.Entries.Select(e => e.Person).Distinct().Count().ShouldBe(2);
    }

    [Fact]
    public async Task A_promise_in_danger_is_told_with_what_would_save_it_and_goes_first()
    {
        var (other, promised) = (_shop.TakeIn(fails: "power-light"), _shop.TakeIn(fails: "picture"));
        Desk.Add(new OwnTask { Words = "big thing", Minutes = 200 }).Done.ShouldNotBeNull();
        var before = Desk.Honest(Berlin, null).ShouldNotBeNull();
        Promise(promised, "2026-11-30");
        var board = await Board();
        var watch = board.Promises.ShouldHaveSingleItem();
        (watch.Job.Number, watch.Due).ShouldBe((promised, At(17, 30)));
        watch.ChanceFirst.ShouldBeGreaterThanOrEqualTo(watch.Chance);
        // More work on the bench: later dates, and what is promised is done today all the same.
        for (var n = 0; n < 12; n++)
            _shop.TakeIn(fails: "picture");
        board = await Board();
        board.Promises.Single().Ends.ShouldNotBeNull().ShouldBeLessThanOrEqualTo(At(17, 30));
        board.Entries.Where(e => e.Item.Number == other).Max(e => e.End).ShouldBeGreaterThan(board.Promises.Single().Ends!.Value);
        Desk.Honest(Berlin, null)!.Value.ShouldBeGreaterThan(before);
        // A day that is over cannot be kept any more.
        Promise(promised, "2026-11-28");
        var late = (await Board()).Promises.Single();
        (late.Due, late.Chance, late.InDanger).ShouldBe((null, 0, true));
    }

    [Fact]
    public async Task What_fits_into_a_quarter_of_an_hour_leaves_nothing_open()
    {
        foreach (var fails in new[] { "power-light", "picture", "speaker", "buttons" })
            _shop.TakeIn(fails: fails);
        var board = await Board();
        var fitting = DayDesk.Fitting(board, 15);
        fitting.ShouldNotBeEmpty();
        fitting.ShouldAllBe(e => e.Item.FirstMinutes <= 15 && !e.Item.LeavesOpen && e.Item.Ready);
        DayDesk.Fitting(board, 0.1).ShouldBeEmpty();
    }

    [Fact]
    public async Task The_plan_outlives_a_restart_and_something_new_moves_others_for_a_reason()
    {
        Desk.Add(new OwnTask { Words = "first", Minutes = 60 }).Done.ShouldNotBeNull();
        Desk.Add(new OwnTask { Words = "second", Minutes = 61 }).Done.ShouldNotBeNull();
        var board = await Board();
        _planner.Dispose();
        _planner = new DayPlanner(_shop.Settings);
        var again = Desk.Board(Berlin);
        again.Fresh.ShouldBeTrue();
        again.Entries.Select(e => (e.Item.Task.Id, e.Start)).ShouldBe(board.Entries.Select(e => (e.Item.Task.Id, e.Start)));
        _shop.Time.Advance(TimeSpan.FromMinutes(2));
        Desk.Add(
                new OwnTask
                {
                    Words = "urgent",
                    Minutes = 30,
                    Due = "2026-11-28",
                }
            )
            .Done.ShouldNotBeNull();
        // Until the new plan is there the day still shows all there is.
        Desk.Board(Berlin).Entries.Count.ShouldBe(3);
        await _planner.Work;
        // What is promised is told with its place, then what it moved.
        Desk.Board(Berlin)
            .Changes.Select(c => (c.Task.Words, c.Why, c.CameIn))
            .ShouldBe([("urgent", "came in", true), ("second", "urgent came in", false)]);
        Desk.Finish(_store.OwnTasks()[0].Id, done: true).Done.ShouldNotBeNull();
        (await Board()).Entries.Select(e => e.Item.Words).ShouldBe(["urgent", "second"]);
    }

    [Fact]
    public async Task A_day_that_slipped_is_planned_once_more_and_then_holds()
    {
        Desk.Add(new OwnTask { Words = "first", Minutes = 60 }).Done.ShouldNotBeNull();
        await Board();
        _shop.Time.Advance(TimeSpan.FromMinutes(15));
        Desk.Board(Berlin).Fresh.ShouldBeFalse();
        (await Board()).Entries.ShouldHaveSingleItem().Start.ShouldBe(At(9, 15));
    }

    [Fact]
    public async Task Stopped_while_it_plans_the_old_plan_holds()
    {
        Desk.Add(new OwnTask { Words = "first", Minutes = 60 }).Done.ShouldNotBeNull();
        var board = await Board();
        for (var n = 0; n < 60; n++)
            Desk.Add(
                    new OwnTask
                    {
                        Words = $"task {n}",
                        Minutes = 10 + n % 7,
                        Due = "2026-12-01",
                    }
                )
                .Done.ShouldNotBeNull();
        Desk.Board(Berlin);
        _planner.Dispose();
        await _planner.Work;
        var again = new DayPlanner(_shop.Settings).Held.ShouldNotBeNull();
        again.Tasks.Select(t => (t.Id, t.Start)).ShouldBe(board.Entries.Select(e => (e.Item.Task.Id, e.Start)));
    }

    [Fact]
    public void Before_one_goes_acid_is_rinsed_packs_are_off_charge_and_what_may_goes_on()
    {
        var number = _shop.TakeIn(fails: "power-light");
        var acid = TradeLibrary
            .Shipped.MethodsFor("battery-contacts")
            .First(m => m.Steps.Any(s => s.Agent is not null && s.Agent.Contains("vinegar", StringComparison.Ordinal)));
        _shop.View(number);
        _shop.Runs.Start(number, "contacts", acid.Id).Done.ShouldNotBeNull();
        Desk.Leaving().ShouldBeEmpty();
        var put = acid.Steps.ToList().FindIndex(s => s.Agent is not null);
        for (var step = 0; step <= put; step++)
            _shop.Runs.Next(number, step, sure: true).Done.ShouldNotBeNull();
        if (_shop.Runs.Open(_shop.Jobs.Find(number)!, _shop.View(number).Profile)!.Timer is null)
            Desk.Leaving().ShouldContain(l => l.Number == number && l.Words.Contains("Rinse") && !l.GoesOn);
        _shop.Timers.Start(null, "pack charges", 90).Done.ShouldNotBeNull();
        _shop.Timers.Start(null, "glue sets", 90).Done.ShouldNotBeNull();
        Desk.Leaving().ShouldContain(l => l.Words == "pack charges: take the pack off charge." && !l.GoesOn);
        Desk.Leaving().ShouldContain(l => l.Words == "glue sets" && l.GoesOn);
    }

    [Fact]
    public void Opened_again_with_nothing_repaired_between_something_was_forgotten()
    {
        HappenedAt Of(long job, string words, int minute) =>
            new()
            {
                Number = job,
                Words = words,
                At = At(9, minute),
            };
        LookBackDesk
            .Forgotten([
                // Closed, opened again down to the board: one time.
                Of(1, "shell", 0), Of(1, "board", 1), Of(1, "", 2), Of(1, "back board", 3), Of(1, "back shell", 4), Of(1, "shell", 5), Of(1, "board", 6),
                // Closed again, and opened for a third time.
                Of(1, "back board", 7), Of(1, "back shell", 8), Of(1, "shell", 9),
                // Another unit: opened for a further repair.
                Of(2, "shell", 10), Of(2, "back shell", 11), Of(2, "", 12), Of(2, "shell", 13),
            ])
            .ShouldBe([At(9, 5), At(9, 9)]);
        new LookBackDesk(new LookBackStore(_shop.Database), _shop.Time).Weeks(2, Berlin).ShouldBe([
            new WeekPast(new DateOnly(2026, 11, 23), 0, 0, 0, 0), new WeekPast(new DateOnly(2026, 11, 30), 0, 0, 0, 0),
        ]);
    }

    [Fact]
    public void What_cannot_be_is_refused()
    {
        Desk.Add(new OwnTask { Words = "", Minutes = 5 }).Refusal.ShouldNotBeNull();
        Desk.Add(new OwnTask { Words = "x", Minutes = 0 }).Refusal.ShouldNotBeNull();
        Desk.Add(new OwnTask { Words = "x", Minutes = 5, Place = "moon" }).Refusal.ShouldNotBeNull();
        Desk.Add([new FixedHour { Words = "x", FromAt = At(11), ToAt = At(10) }]).Refusal.ShouldNotBeNull();
        Desk.Save(DayTerms.Usual with { People = 0 }).Refusal.ShouldNotBeNull();
        Desk.Save(DayTerms.Usual with { Spans = [.. OpenHours.Usual, new OpenSpan(DayOfWeek.Monday, new TimeOnly(12, 0), new TimeOnly(14, 0))] })
            .Refusal!.Problem.ShouldContain("meet");
        DayTerms.Read("nonsense").ShouldBe(DayTerms.Usual);
    }
}
