using Dapper;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.Storage.Tests;

/// <summary>Jobs in a real file: what goes in comes out, and every write leaves its line in the timeline.</summary>
public sealed class JobStoreTests : IDisposable
{
    private readonly ShopFile _shop = new();

    public void Dispose() => _shop.Dispose();

    [Fact]
    public void A_job_comes_back_as_it_was_taken_in()
    {
        var taken = ShopFile.Blank() with
        {
            Revision = "B",
            Serial = "HQ-1",
            Accessories = "pouch",
            ConditionNote = "worn",
            ValueWorking = 48.50m,
            ValueAsIs = 10m,
            ValueParts = 0.1m,
        };
        var job = _shop.Jobs.TakeIn(
            new NewJob(taken, "Ilka Dorn", "0700", [_shop.Tried("power-light", false), _shop.Tried("speaker", true)])
        );

        job.Number.ShouldBe(101);
        job.ShouldBe(
            taken with
            {
                Id = job.Id,
                Number = 101,
                CustomerId = job.CustomerId,
                CustomerName = "Ilka Dorn",
                CustomerContact = "0700",
                Mark = job.Mark,
            }
        );
        job.ShopStock.ShouldBeFalse();
        _shop
            .Records.Of(job.Id)
            .Select(r => (r.Seq, r.Subject, r.Body.Sign))
            .ShouldBe([(1L, "power-light", RecordSign.Bad), (2L, "speaker", RecordSign.Good)]);
        _shop.Timeline.Of(job.Id).Select(t => t.Kind).ShouldBe(["function", "function", "intake"]);
    }

    [Fact]
    public void Money_keeps_every_cent()
    {
        // Seventeen digits are more than a binary float holds, and it would not give back the cents that were typed as 6.40.
        var job = _shop.Jobs.TakeIn(new NewJob(ShopFile.Blank() with { Paid = 6.40m, ValueParts = 123456789012345.67m }, null, "", []));
        job.Paid!.Value.ToString(System.Globalization.CultureInfo.InvariantCulture).ShouldBe("6.40");
        job.ValueParts.ShouldBe(123456789012345.67m);
        using var connection = _shop.Database.Open();
        connection.QuerySingle<(string, string)>("SELECT typeof(paid), typeof(value_parts) FROM jobs").ShouldBe(("text", "text"));
    }

    [Fact]
    public void Numbers_go_up_and_are_never_used_again()
    {
        _shop.TakeIn().Number.ShouldBe(101);
        var second = _shop.TakeIn();
        _shop.Move(second, JobLife.Delete(second.Status));
        _shop.TakeIn().Number.ShouldBe(103);
    }

    [Fact]
    public void The_same_owner_is_kept_once()
    {
        var first = _shop.TakeIn(owner: "Bertil Quist");
        var second = _shop.TakeIn(owner: "Bertil Quist");
        second.CustomerId.ShouldBe(first.CustomerId);
        var lists = new JobLists(_shop.Database);
        lists.Owners("bert").ShouldBe(["Bertil Quist"]);
        lists.Owners("quist").ShouldBeEmpty();
        lists.Owners("").ShouldBeEmpty();
    }

    [Fact]
    public void A_deleted_job_can_be_brought_back()
    {
        var job = _shop.TakeIn();
        _shop.Move(job, JobLife.Delete(job.Status));
        _shop.Jobs.Live().ShouldBeEmpty();
        _shop.Database.Found("101").ShouldBeEmpty();
        _shop.Database.Jobs(JobShelf.Deleted).ShouldHaveSingleItem().Id.ShouldBe(job.Id);
        var deleted = _shop.Jobs.Find(job.Number)!;
        _shop.Move(deleted, JobLife.BringBack(deleted.Status));
        _shop.Jobs.Live().ShouldHaveSingleItem().Id.ShouldBe(job.Id);
    }

    [Fact]
    public void Closing_takes_a_job_off_the_bench_and_reopening_brings_it_back()
    {
        var job = _shop.TakeIn();
        _shop.Time.Advance(TimeSpan.FromHours(2));
        _shop.Jobs.WriteEnding(job.Id, "works", "", 45m, 30);
        _shop.Move(job, JobLife.Close(job.Status, JobEnd.ForSale));
        var closed = _shop.Jobs.Find(101)!;
        closed.Ending.ShouldBe(JobEnd.ForSale);
        closed.Asking.ShouldBe(45m);
        closed.ClosedAt.ShouldBe(_shop.Time.GetUtcNow());
        _shop.Jobs.Live().ShouldBeEmpty();
        _shop.Move(closed, JobLife.Reopen(closed.Status));
        _shop
            .Jobs.Find(101)!
            .ShouldSatisfyAllConditions(
                j => j.ClosedAt.ShouldBeNull(),
                j => j.Ending.ShouldBe(JobEnd.Open),
                j => j.Stage.ShouldBe(WorkStage.Find)
            );
    }

    [Fact]
    public void Shelf_and_stage_are_kept_and_the_reason_stays_while_the_job_does()
    {
        var job = _shop.TakeIn();
        _shop.Move(job, job.Status with { Shelf = Shelf.WaitingPart, Stage = WorkStage.Fix }, "speaker", "fit it");
        var waits = _shop.Jobs.Find(101)!;
        (waits.Shelf, waits.Stage, waits.ShelfReason, waits.NextTry).ShouldBe((Shelf.WaitingPart, WorkStage.Fix, "speaker", "fit it"));
        _shop.Jobs.Move(waits, waits.Status with { Stage = WorkStage.Prove }, null);
        _shop.Jobs.Find(101)!.ShelfReason.ShouldBe("speaker");
        _shop.Jobs.Move(waits, waits.Status with { Shelf = Shelf.None }, null);
        _shop.Jobs.Find(101)!.ShelfReason.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("102")]
    [InlineData("#102")]
    [InlineData("quartet")]
    [InlineData("HQ-77")]
    [InlineData("dorn")]
    [InlineData("stripes")]
    [InlineData("quartet dorn nothing")]
    [InlineData("power-light")]
    public void Search_finds_by_number_model_serial_owner_claim_and_symptom(string text)
    {
        _shop.Jobs.TakeIn(new NewJob(ShopFile.Blank("other") with { ModelName = "Pellin Atrium" }, null, "", []));
        _shop.Jobs.TakeIn(
            new NewJob(ShopFile.Blank("stripes") with { Serial = "HQ-77" }, "Ilka Dorn", "", [_shop.Tried("power-light", false)])
        );
        _shop.Database.Found(text).Select(j => j.Number).ShouldBe([102L]);
    }

    [Theory]
    [InlineData("%")]
    [InlineData("_")]
    [InlineData("'; DROP TABLE jobs; --")]
    [InlineData(@"\")]
    public void Search_takes_wildcards_and_quotes_literally(string text)
    {
        _shop.TakeIn();
        _shop.Database.Found(text).ShouldBeEmpty();
        _shop.Database.AllJobs().Count.ShouldBe(1);
    }

    [Fact]
    public void A_write_that_fails_half_way_leaves_nothing()
    {
        var broken = _shop.Tried("power-light", false) with { Words = null! };
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() =>
            _shop.Jobs.TakeIn(new NewJob(ShopFile.Blank(), "Half Way", "", [_shop.Tried("picture", true), broken]))
        );
        _shop.Database.AllJobs().ShouldBeEmpty();
        new JobLists(_shop.Database).Owners("h").ShouldBeEmpty();
        using var connection = _shop.Database.Open();
        connection.ExecuteScalar<long>("SELECT count(*) FROM timeline").ShouldBe(0);
    }
}
