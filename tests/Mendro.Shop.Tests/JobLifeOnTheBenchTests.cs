using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Storage;

namespace Mendro.Shop.Tests;

/// <summary>The life of a job as the pages move it: ready means proved since the last repair, wherever it was proved.</summary>
public sealed class JobLifeOnTheBenchTests : IDisposable
{
    private readonly TestShop _shop = new();

    public void Dispose() => _shop.Dispose();

    private Job Job(long number) => _shop.Jobs.Find(number)!;

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void All_proved_makes_it_ready_under_Find_as_under_Prove(bool proving)
    {
        var number = _shop.TakeIn("pellin-atrium-cartridge");
        _shop.AllWork(number, proving);
        (Job(number).Shelf, Job(number).ShelfReason).ShouldBe((Shelf.Ready, "everything works"));
        JobLife.Present(Job(number).Status).ShouldBe(WorkStage.HandOver);
    }

    [Fact]
    public void A_failure_found_takes_it_off_the_shelf_and_back_to_find()
    {
        var number = _shop.TakeIn("pellin-atrium-cartridge");
        _shop.AllWork(number, proving: true);
        _shop.Try(number, "saving", false);
        (Job(number).Shelf, Job(number).Stage).ShouldBe((Shelf.None, WorkStage.Find));
        // Seen to work after all: ready again.
        _shop.Try(number, "saving", true);
        Job(number).Shelf.ShouldBe(Shelf.Ready);
    }

    [Fact]
    public void A_repair_done_takes_it_off_the_shelf_until_everything_is_proved_again()
    {
        var number = _shop.TakeIn("pellin-atrium-cartridge");
        _shop.AllWork(number);
        _shop.Repairs.Log(new RepairOrder(number, "cell", "replace-save-cell")).Done.ShouldNotBeNull();
        (Job(number).Shelf, Job(number).Stage).ShouldBe((Shelf.None, WorkStage.Fix));
        _shop.AllWork(number);
        Job(number).Shelf.ShouldBe(Shelf.Ready);
    }

    [Fact]
    public void Taking_the_last_pass_back_takes_it_off_the_shelf_and_bringing_it_back_puts_it_there()
    {
        var number = _shop.TakeIn("pellin-atrium-cartridge");
        _shop.AllWork(number);
        var last = _shop.Readings.Undo(number).Done!.Record;
        Job(number).Shelf.ShouldBe(Shelf.None);
        _shop.Readings.Restore(number, last);
        Job(number).Shelf.ShouldBe(Shelf.Ready);
    }

    [Fact]
    public void What_waits_for_a_part_waits_until_it_is_taken_down()
    {
        var number = _shop.TakeIn("pellin-atrium-cartridge");
        _shop.HandOver.Shelve(number, Shelf.WaitingPart, "cell on order", "fit it").Done.ShouldNotBeNull();
        _shop.AllWork(number);
        (Job(number).Shelf, Job(number).ShelfReason).ShouldBe((Shelf.WaitingPart, "cell on order"));
        _shop.HandOver.TakeDown(number);
        Job(number).Shelf.ShouldBe(Shelf.None);
    }

    [Fact]
    public void A_unit_that_works_at_the_door_is_ready_at_once()
    {
        var functions = _shop.Models.Latest("pellin-atrium-cartridge")!.Value.Model.Profile.Functions;
        var baseline = functions.Select(f => new BaselineTrial(f.Id, true, null)).ToList();
        var order = new IntakeOrder(new Job { ProfileId = "pellin-atrium-cartridge", Currency = "EUR" }, null, "", [], baseline);
        Job(_shop.Intake.TakeIn(order).Done!.Number).Shelf.ShouldBe(Shelf.Ready);
    }

    [Fact]
    public void The_timeline_tells_every_move()
    {
        var number = _shop.TakeIn("pellin-atrium-cartridge");
        _shop.AllWork(number);
        _shop.Try(number, "saving", false);
        var words = new Timeline(_shop.Database).Of(Job(number).Id).Select(t => t.Words).ToList();
        words.ShouldContain("Ready to hand over: everything works");
        words.ShouldContain(w => w.StartsWith("Back on the bench: ") && w.EndsWith(" fails"));
    }
}
