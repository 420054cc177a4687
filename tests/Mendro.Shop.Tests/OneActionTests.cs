using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>One action of the user is one transaction and is done once, however often its form arrives.</summary>
public sealed class OneActionTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private static RepairOrder Flush(long number) =>
        new(number, "switch", "flush-switch", Cause: "dirty", Minutes: 6, Cost: 0.2m, Used: "cleaner", Note: "black water", WorksNow: true);

    [Fact]
    public void A_repair_sent_twice_is_filed_once_and_answered_twice()
    {
        var number = _shop.TakeIn(fails: "power-light");
        var first = _shop.Repairs.Log(Flush(number), "a1b2");
        var again = _shop.Repairs.Log(Flush(number), "a1b2");
        again.Done!.Words.ShouldBe(first.Done!.Words);
        _shop.View(number).Records.Select(r => r.Body.Key).ShouldBe(["function", "cause", "repair", "function"]);
        // Another form is another repair.
        _shop.Repairs.Log(Flush(number), "c3d4");
        _shop.View(number).Records.Count(r => r.Body is RepairLogged).ShouldBe(2);
    }

    [Fact]
    public void Two_methods_in_one_go_are_two_repairs_that_share_the_minutes()
    {
        var number = _shop.TakeIn("build-console-front-loading", fails: "start-up");
        var both = new RepairOrder(number, "connector", "connector-and-edge", Minutes: 16, Cost: 0.2m, Note: "black", WorksNow: true);
        _shop.Repairs.Log(both).Done!.Words.ShouldStartWith("Connector and board edge in one go");
        var view = _shop.View(number);
        view.Records.Select(r => r.Body.Key).ShouldBe(["function", "repair", "repair", "function"]);
        // Ten and six minutes alone: of sixteen told, ten and six.
        view.All<RepairLogged>()
            .Select(r => (r.Body.Method.ToString(), r.Record.Minutes, r.Record.Cost, r.Record.Note))
            .ShouldBe([("brush-connector", 10.0, 0.2m, "black"), ("clean-board-edge", 6.0, 0m, "In the same go.")]);
    }

    [Fact]
    public void The_same_form_from_many_hands_at_once_is_filed_once()
    {
        var number = _shop.TakeIn(fails: "power-light");
        Parallel.For(0, 8, _ => _shop.Readings.Try(new TrialOrder(number, "speaker", false), "fa5e").Done.ShouldNotBeNull());
        _shop.View(number).Records.Count(r => r.Subject == "speaker").ShouldBe(1);
        var order = new IntakeOrder(new Job { ProfileId = "harrow-quartet", Currency = "EUR" }, "Ilka Dorn", "", [], []);
        var numbers = new System.Collections.Concurrent.ConcurrentBag<long>();
        Parallel.For(0, 8, _ => numbers.Add(_shop.Intake.TakeIn(order, "d00r").Done!.Number));
        numbers.Distinct().ShouldHaveSingleItem();
        _shop.Database.AllJobs().Count.ShouldBe(2);
    }

    [Fact]
    public void A_refused_form_leaves_nothing_and_may_be_sent_again()
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.Repairs.Log(Flush(number) with { Method = "replace-fuse" }, "e5f6").Refusal!.Kind.ShouldBe(RefusalKind.Invalid);
        _shop.Repairs.Log(Flush(number) with { Minutes = double.NaN }, "e5f6").Refusal!.Problem.ShouldContain("minutes");
        _shop.Repairs.Log(Flush(number) with { Minutes = double.NegativeInfinity }, "e5f6").Refusal.ShouldNotBeNull();
        _shop.View(number).Records.Count.ShouldBe(1);
        _shop.Repairs.Log(Flush(number), "e5f6").Done.ShouldNotBeNull();
        _shop.View(number).Records.Count.ShouldBe(4);
    }

    [Fact]
    public void An_action_that_breaks_half_way_leaves_nothing()
    {
        var number = _shop.TakeIn(fails: "power-light");
        // The last of the three records of a repair cannot be written.
        using (var connection = _shop.Database.Open())
        {
            connection.Execute(
                """
                CREATE TRIGGER broken BEFORE INSERT ON bench_records WHEN NEW.kind = 'function' AND NEW.stage = 'Fix'
                BEGIN SELECT RAISE(ABORT, 'no space'); END
                """
            );
        }

        var timeline = new Timeline(_shop.Database);
        var before = timeline.Of(_shop.Jobs.Find(number)!.Id).Count;
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => _shop.Repairs.Log(Flush(number), "abcd"));
        _shop.View(number).Records.ShouldHaveSingleItem();
        timeline.Of(_shop.Jobs.Find(number)!.Id).Count.ShouldBe(before);
        _shop.Jobs.Find(number)!.Stage.ShouldBe(WorkStage.Find);
    }

    [Fact]
    public void Nothing_is_written_to_a_closed_or_deleted_job()
    {
        var number = _shop.TakeIn(fails: "power-light");
        _shop.HandOver.Close(new CloseOrder(number, JobEnd.Parts, "", "", null, false)).Done.ShouldNotBeNull();
        _shop.Readings.Read(new ReadingOrder(number, "tp3", "6.2")).Refusal!.Kind.ShouldBe(RefusalKind.Locked);
        _shop.Repairs.Log(Flush(number)).Refusal!.Kind.ShouldBe(RefusalKind.Locked);
        _shop.Readings.Undo(number).Refusal!.Kind.ShouldBe(RefusalKind.Locked);
        _shop.View(number).Records.ShouldHaveSingleItem();
        _shop.Readings.Read(new ReadingOrder(999, "tp3", "6.2")).Refusal!.Kind.ShouldBe(RefusalKind.Missing);
    }

    [Fact]
    public void A_correction_of_an_entry_already_gone_is_refused_and_written_nowhere()
    {
        var number = _shop.TakeIn(fails: "power-light");
        var read = _shop.Readings.Read(new ReadingOrder(number, "tp3", "6.2")).Done!.Record;
        _shop.Readings.Withdraw(number, read).Done.ShouldNotBeNull();
        _shop.Readings.Read(new ReadingOrder(number, "tp3", "0", read)).Refusal!.Problem.ShouldContain("withdrawn that entry meanwhile");
        _shop.View(number).Records.ShouldHaveSingleItem();
    }

    [Fact]
    public void How_far_a_unit_is_apart_follows_the_records_that_hold()
    {
        var number = _shop.TakeIn(fails: "power-light");
        var slip = _shop.Readings.Read(new ReadingOrder(number, "tp4", "0.02")).Done!.Record;
        _shop.View(number).Access.ShouldBe(AccessState.Open);
        _shop.Readings.Undo(number).Done!.Record.ShouldBe(slip);
        _shop.View(number).Access.ShouldBe(AccessState.Closed);
        _shop.Readings.Restore(number, slip);
        _shop.View(number).Access.ShouldBe(AccessState.Open);
        _shop.Repairs.CloseUp(number);
        _shop.View(number).Access.ShouldBe(AccessState.Closed);
        _shop.Readings.Undo(number);
        _shop.View(number).Access.ShouldBe(AccessState.Open);
    }
}
