using CsCheck;
using Dapper;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;

namespace Mendro.Storage.Tests;

/// <summary>
/// What is kept because it follows from other rows: after whatever was done, it is what one would count anew. The oracle counts
/// with plain loops over the stores.
/// </summary>
public sealed class DerivedRowsTests
{
    private static readonly string[] Words = ["attic", "Übel", "50 %", "K_77", "grey pad"];

    [Fact]
    public void After_any_deeds_lessons_gear_uses_and_words_are_what_they_would_be_counted_anew() =>
        Gen.Int[0, 10]
            .Select(Gen.Int[0, 5], Gen.Int[0, 4])
            .List[1, 40]
            .Sample(
                steps =>
                {
                    using var shop = new ShopFile();
                    var gear = new GearStore(shop.Database, shop.Time);
                    var pieces = (long[])[gear.Add("Console", "test-console"), gear.Add("Cable", "test-cable")];
                    shop.TakeIn("first");
                    foreach (var (deed, which, what) in steps)
                    {
                        shop.Time.Advance(TimeSpan.FromMinutes(1));
                        Do(shop, gear, pieces, deed, which, what);
                    }

                    Check(shop, gear);
                },
                iter: 40,
                threads: 1
            );

    [Fact]
    public void What_was_taken_back_with_its_transaction_leaves_no_trace()
    {
        using var shop = new ShopFile();
        var job = shop.TakeIn("first");
        Should.Throw<InvalidOperationException>(() =>
            shop.Database.InOneTransaction<int>(() =>
            {
                shop.Records.Add(shop.Record(new CauseSeen("switch", "dirty", true), job.Id));
                shop.TakeIn("zebra");
                shop.Database.Settle();
                shop.Database.Found("zebra").ShouldHaveSingleItem();
                throw new InvalidOperationException();
            })
        );
        shop.Database.Found("zebra").ShouldBeEmpty();
        Check(shop, new GearStore(shop.Database, shop.Time));
    }

    [Fact]
    public void A_job_is_marked_anew_whenever_its_records_change_and_only_then()
    {
        using var shop = new ShopFile();
        var (job, other) = (shop.TakeIn(), shop.TakeIn());
        var marks = new List<long>();
        void Mark() => marks.Add(shop.Jobs.Find(job.Number)!.Mark);
        var untouched = shop.Jobs.Find(other.Number)!.Mark;
        Mark();
        var id = shop.Records.Add(shop.Tried("power-light", false, job.Id));
        Mark();
        shop.Records.Withdraw(job.Id, id);
        Mark();
        shop.Records.Restore(job.Id, id);
        Mark();
        shop.Records.Correct(job.Id, id, shop.Tried("power-light", true, job.Id));
        Mark();
        shop.Records.Undo(job.Id);
        Mark();
        marks.ShouldBeUnique();
        shop.Move(job, job.Status with { Shelf = Shelf.SetAside });
        shop.Jobs.Find(job.Number)!.Mark.ShouldBe(marks[^1]);
        shop.Jobs.Find(other.Number)!.Mark.ShouldBe(untouched);
    }

    private static void Do(ShopFile shop, GearStore gear, long[] pieces, int deed, int which, int what)
    {
        var lessons = new LessonStore(shop.Database, shop.Time);
        var jobs = Everything(shop);
        var job = jobs[which % jobs.Count];
        var held = shop.Records.Of(job.Id);
        var cause = held.Where(r => r.Body is CauseSeen).Select(r => r.Id).FirstOrDefault();
        switch (deed)
        {
            case 0:
                shop.Jobs.TakeIn(
                    new NewJob(
                        ShopFile.Blank(Words[what]) with
                        {
                            Revision = what < 2 ? "B" : "",
                            PracticeSeed = what == 4 ? 3 : null,
                        },
                        what == 3 ? "Ilka Dorn" : null,
                        "",
                        [shop.Tried("power-light", what > 2)]
                    )
                );
                break;
            case 1:
                shop.Records.Add(shop.Record(new CauseSeen(what < 3 ? "switch" : "fuse", what == 1 ? "worn" : "open", what != 4), job.Id));
                break;
            case 2 when held.Count > 0:
                shop.Records.Withdraw(job.Id, held[what % held.Count].Id);
                break;
            case 3 when shop.Records.LastWithdrawn(job.Id) is { } gone:
                shop.Records.Restore(job.Id, gone.Id);
                break;
            case 4:
                lessons.Exclude(cause);
                break;
            case 5:
                lessons.Include(cause);
                break;
            case 6:
                shop.Move(job, job.DeletedAt is null ? JobLife.Delete(job.Status) : JobLife.BringBack(job.Status));
                break;
            case 7:
                shop.Jobs.SaveIntake(job with { Revision = what < 2 ? "B" : "C", Serial = Words[what] }, what == 2 ? "Bo Quist" : null, "");
                break;
            case 8:
                shop.Records.Add(
                    shop.Record(
                        new SwapTrial("start-up", SwapResult.Pass, ["main"], ["main"], [new SwapPiece($"g{pieces[what % 2]}", "x", "y")]),
                        job.Id
                    )
                );
                break;
            case 9:
                gear.Clean(pieces[what % 2]);
                break;
            case 10 when held.Count > 0:
                shop.Records.Correct(job.Id, held[^1].Id, held[^1] with { Words = "corrected words" });
                break;
        }
    }

    private static List<Job> Everything(ShopFile shop)
    {
        using var connection = shop.Database.Open();
        return connection.Query<long>("SELECT number FROM jobs ORDER BY number").Select(n => shop.Jobs.Find(n)!).ToList();
    }

    private static void Check(ShopFile shop, GearStore gear)
    {
        var lessons = new LessonStore(shop.Database, shop.Time);
        var taught = Everything(shop)
            .Where(j => j.DeletedAt is null && j.PracticeSeed is null)
            .SelectMany(j =>
                lessons
                    .Of(j.Id)
                    .Where(c => !c.Excluded)
                    .Select(c => (j.ProfileId, j.ProfileVersion, j.Revision, c.PartId, c.ModeId, j.Id))
                    .Distinct()
            )
            .ToList();
        var counted = taught
            .Concat(taught.Select(t => t with { PartId = "", ModeId = "" }).Distinct())
            .CountBy(t => (t.ProfileId, t.ProfileVersion, t.Revision, t.PartId, t.ModeId))
            .Select(t => (t.Key, t.Value));
        lessons
            .Counts()
            .Select(c => ((c.ProfileId, c.ProfileVersion, c.Revision, c.PartId, c.ModeId), c.Found))
            .ShouldBe(counted, ignoreOrder: true);

        var swaps = Everything(shop).SelectMany(j => shop.Records.Of(j.Id)).Where(r => r.Body is SwapTrial).ToList();
        foreach (var piece in gear.All())
            piece.Uses.ShouldBe(swaps.Count(r => r.At >= piece.CleanedAt && r.Body.Pieces.Any(p => p.GearId == piece.Id)));

        using var connection = shop.Database.Open();
        connection
            .Query<(long, string)>("SELECT job_id, text FROM job_texts ORDER BY job_id")
            .ShouldBe(connection.Query<(long, string)>("SELECT job_id, text FROM job_words ORDER BY job_id"));
        // SQLite compares the index with the texts, and throws where they differ.
        connection.Execute("INSERT INTO job_search (job_search, rank) VALUES ('integrity-check', 1)");
        connection.ExecuteScalar<long>("SELECT count(*) FROM jobs_due").ShouldBe(0);
    }
}
