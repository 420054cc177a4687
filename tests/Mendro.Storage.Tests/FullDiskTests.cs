using Dapper;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage.Tests;

/// <summary>A disk that is full at any moment: what was answered stays, what was refused left nothing, and with room it goes on.</summary>
public sealed class FullDiskTests : IDisposable
{
    private readonly ShopFile _shop = new();
    private readonly List<string> _said = [];
    private long? _pages;

    public FullDiskTests()
    {
        _shop.Database.NotWritten += _said.Add;
        // SQLite's own limit of pages answers as a full disk does: SQLITE_FULL, in the middle of whatever is written.
        _shop.Database.Opening = connection => connection.Execute($"PRAGMA max_page_count = {_pages ?? uint.MaxValue - 1}");
    }

    public void Dispose() => _shop.Dispose();

    private long Pages()
    {
        using var connection = _shop.Database.Open();
        return connection.ExecuteScalar<long>("PRAGMA page_count");
    }

    [Fact]
    public void Wherever_it_ends_all_that_was_answered_is_there_and_nothing_of_what_was_refused()
    {
        _shop.TakeIn();
        using (var connection = _shop.Database.Open())
            connection.Execute("VACUUM");
        var (taken, refused) = (new List<string>(), new List<string>());
        for (var room = 0; room < 40; room++)
        {
            _pages = Pages() + room % 8;
            for (var n = 0; n < 6; n++)
            {
                // Long enough to need pages of its own.
                var claim = $"claim-{room}-{n}-" + new string((char)('a' + n), 900);
                try
                {
                    _shop.Jobs.TakeIn(new NewJob(ShopFile.Blank() with { Claim = claim }, "Ada Vint", "0170 555", []));
                    taken.Add(claim);
                }
                catch (ShopFullException ex)
                {
                    ex.Why.ShouldBe("The disk is full");
                    refused.Add(claim);
                }
            }

            _pages = null;
        }

        (taken.Count > 20, refused.Count > 20).ShouldBe((true, true));
        _said.Count.ShouldBe(refused.Count);
        using var look = _shop.Database.Open();
        look.ExecuteScalar<string>("PRAGMA integrity_check").ShouldBe("ok");
        var there = look.Query<string>("SELECT claim FROM jobs").ToList();
        taken.Except(there).ShouldBeEmpty();
        there.Intersect(refused).ShouldBeEmpty();
        look.ExecuteScalar<long>("SELECT count(*) FROM jobs j WHERE NOT EXISTS (SELECT 1 FROM job_texts t WHERE t.job_id = j.id)").ShouldBe(0);
    }

    [Fact]
    public void Reading_goes_on_meanwhile()
    {
        var job = _shop.TakeIn();
        _pages = 1;
        Should.Throw<ShopFullException>(() =>
        {
            for (var n = 0; n < 200; n++)
                _shop.Jobs.TakeIn(new NewJob(ShopFile.Blank() with { Claim = new string('x', 900) }, null, "", []));
        });
        _shop.Jobs.Find(job.Number)!.Id.ShouldBe(job.Id);
    }

    [Theory]
    [InlineData(13, "The disk is full")]
    [InlineData(8, "The disk takes nothing: it is read-only")]
    [InlineData(10, "The disk is full, or does not work")]
    [InlineData(19, null)]
    [InlineData(5, null)]
    public void Of_what_is_thrown_only_that_counts_which_says_that_nothing_can_be_written(int code, string? why) =>
        ShopFullException.Reason(new SqliteException("x", code)).ShouldBe(why);

    [Fact]
    public void What_was_left_half_written_is_swept_and_nothing_else()
    {
        var folder = Directory.CreateTempSubdirectory("mendro-sweep-").FullName;
        try
        {
            Directory.CreateDirectory(Path.Combine(folder, "pictures", "ab"));
            Directory.CreateDirectory(Path.Combine(folder, ".restoring-1"));
            string[] stay = ["shop.db", "pictures/ab/x.jpg", "erased.txt"];
            string[] go = ["pictures/ab/x.jpg.1.part", "backups.part", ".room", ".restoring-1/shop.db"];
            foreach (var file in stay.Concat(go))
                File.WriteAllText(Path.Combine(folder, file), "x");
            new ShopRoom(folder, _shop.Time).Sweep().ShouldBe(4);
            foreach (var file in stay)
                File.Exists(Path.Combine(folder, file)).ShouldBeTrue(file);
            foreach (var file in go)
                File.Exists(Path.Combine(folder, file)).ShouldBeFalse(file);
        }
        finally
        {
            Directory.Delete(folder, true);
        }
    }

    [Fact]
    public void Room_is_looked_for_again_and_found()
    {
        var folder = Directory.CreateTempSubdirectory("mendro-room-").FullName;
        try
        {
            var room = new ShopRoom(folder, _shop.Time);
            room.Problem.ShouldBeNull();
            room.Lost("The disk is full");
            room.Problem.ShouldBe("The disk is full");
            // Some seconds later it is tried, and there is room.
            _shop.Time.Advance(TimeSpan.FromSeconds(4));
            room.Problem.ShouldBeNull();
            room.Lost("The disk is full");
            room.Found();
            room.Problem.ShouldBeNull();
            Directory.EnumerateFileSystemEntries(folder).ShouldBeEmpty();
        }
        finally
        {
            Directory.Delete(folder, true);
        }
    }
}
