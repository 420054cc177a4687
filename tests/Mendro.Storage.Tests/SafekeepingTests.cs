using System.IO.Compression;
using Dapper;

namespace Mendro.Storage.Tests;

/// <summary>Backups and restores: whole or not at all, and never over a shop without keeping it.</summary>
public sealed class SafekeepingTests : IDisposable
{
    // The name of a picture: 64 digits of a hash.
    private static readonly string Picture = "ab" + new string('0', 62) + ".jpg";

    private static readonly DateTimeOffset At = new(2026, 3, 1, 12, 0, 0, TimeSpan.Zero);

    private readonly ShopFile _shop = new();
    private readonly string _outside = Directory.CreateTempSubdirectory("mendro-safe-").FullName;

    public void Dispose()
    {
        _shop.Dispose();
        Directory.Delete(_outside, true);
    }

    private string Folder => Path.GetDirectoryName(_shop.Database.File)!;

    private string BackupFile => Path.Combine(_outside, "shop.backup");

    private string Elsewhere => Path.Combine(_outside, "elsewhere");

    [Fact]
    public void A_backup_holds_the_shop_and_everything_beside_it()
    {
        _shop.TakeIn("dead", "Ilka Dorn");
        Directory.CreateDirectory(Path.Combine(Folder, "keys"));
        File.WriteAllText(Path.Combine(Folder, "keys", "key-1.xml"), "<key/>");
        Directory.CreateDirectory(Path.Combine(Folder, "pictures", "ab"));
        File.WriteAllBytes(Path.Combine(Folder, "pictures", "ab", Picture), [1, 2, 3]);
        var written = ShopBackup.Write(Folder, BackupFile, At);
        (written.Jobs, written.Level).ShouldBe((1, ShopDatabase.KnownLevel));
        written.Files.Select(f => f.Name).ShouldBe(["shop.db", "keys/key-1.xml", $"pictures/ab/{Picture}"]);

        var (manifest, old) = ShopBackup.Restore(BackupFile, Elsewhere, At);
        old.ShouldBeNull();
        manifest.CreatedAt.ShouldBe(At);
        File.ReadAllText(Path.Combine(Elsewhere, "keys", "key-1.xml")).ShouldBe("<key/>");
        var restored = new ShopDatabase(Path.Combine(Elsewhere, "shop.db"));
        restored.Migrate();
        new JobStore(restored, _shop.Time).Find(101)!.CustomerName.ShouldBe("Ilka Dorn");
        // A backup of the restored shop is the same shop.
        Directory.EnumerateFileSystemEntries(Elsewhere).Select(Path.GetFileName).ShouldNotContain(n => n!.StartsWith('.'));
    }

    [Fact]
    public void Restoring_keeps_the_shop_that_was_there()
    {
        _shop.TakeIn("first");
        ShopBackup.Write(Folder, BackupFile, At);
        _shop.TakeIn("second");
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        var (_, old) = ShopBackup.Restore(BackupFile, Folder, At);
        _shop.Database.AllJobs().ShouldHaveSingleItem().Claim.ShouldBe("first");
        var kept = new ShopDatabase(Path.Combine(old!, "shop.db"));
        kept.AllJobs().Count.ShouldBe(2);
    }

    public static TheoryData<string> Breakages { get; } =
    ["cut short", "no archive", "a byte changed", "a file missing", "newer level", "newer format", "outside name", "empty"];

    [Theory]
    [MemberData(nameof(Breakages))]
    public void A_broken_or_newer_backup_is_refused_with_a_word_and_changes_nothing(string breakage)
    {
        _shop.TakeIn("kept");
        ShopBackup.Write(Folder, BackupFile, At);
        Break(breakage);
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        var before = File.ReadAllBytes(_shop.Database.File);
        var problem = Should.Throw<ShopFileException>(() => ShopBackup.Restore(BackupFile, Folder, At)).Message;
        problem.ShouldContain(breakage.StartsWith("newer", StringComparison.Ordinal) ? "newer version" : "broken");
        problem.ShouldEndWith(".");
        File.ReadAllBytes(_shop.Database.File).ShouldBe(before);
        _shop.Database.AllJobs().ShouldHaveSingleItem();
        Directory
            .EnumerateFileSystemEntries(Folder)
            .ShouldNotContain(p => Path.GetFileName(p).StartsWith(".restoring", StringComparison.Ordinal) || p.Contains("before-restore"));
    }

    [Fact]
    public async Task A_backup_taken_under_write_load_is_a_state_that_existed()
    {
        // Every intake writes a job, its records and its timeline together: whatever is in the backup must be whole.
        using var stop = new CancellationTokenSource();
        var writers = Enumerable
            .Range(0, 3)
            .Select(n =>
                Task.Run(() =>
                {
                    while (!stop.IsCancellationRequested)
                        _shop.Jobs.TakeIn(
                            new NewJob(
                                ShopFile.Blank($"writer {n}"),
                                null,
                                "",
                                [_shop.Tried("power-light", false), _shop.Tried("speaker", true)]
                            )
                        );
                })
            )
            .ToArray();
        try
        {
            for (var n = 0; n < 4; n++)
            {
                var known = _shop.Database.AllJobs().Count;
                ShopBackup.Write(Folder, BackupFile, At);
                var later = _shop.Database.AllJobs().Count;
                var place = Path.Combine(_outside, $"load-{n}");
                ShopBackup.Restore(BackupFile, place, At);
                using var connection = new ShopDatabase(Path.Combine(place, "shop.db")).Open();
                var (jobs, records, lines) = connection.QuerySingle<(long, long, long)>(
                    "SELECT (SELECT count(*) FROM jobs), (SELECT count(*) FROM bench_records), (SELECT count(*) FROM timeline)"
                );
                jobs.ShouldBeInRange(known, later);
                (records, lines).ShouldBe((2 * jobs, 3 * jobs));
                connection.ExecuteScalar<string>("PRAGMA integrity_check").ShouldBe("ok");
            }
        }
        finally
        {
            await stop.CancelAsync();
            await Task.WhenAll(writers);
        }
    }

    [Fact]
    public void The_rotation_keeps_seven_days_and_four_weeks()
    {
        var rotation = new BackupRotation(Folder);
        _shop.TakeIn();
        var first = new DateOnly(2026, 1, 1);
        for (var day = 0; day < 60; day++)
            rotation.Take(first.AddDays(day), At.AddDays(day));
        var today = first.AddDays(59);
        var kept = rotation.Kept().Select(b => today.DayNumber - b.Day.DayNumber).ToList();
        kept.Take(7).ShouldBe([0, 1, 2, 3, 4, 5, 6]);
        // The newest of each of four calendar weeks before, a week apart once its week is over.
        var weekly = kept.Skip(7).ToList();
        weekly.Count.ShouldBe(4);
        weekly.Skip(1).Zip(weekly.Skip(2)).ShouldAllBe(pair => pair.Second - pair.First == 7);
        weekly[^1].ShouldBeInRange(7 + 14, 7 + 28);
        // A second one of the same day takes the place of the first.
        rotation.Take(today, At).Day.ShouldBe(today);
        rotation.Kept().Count.ShouldBe(11);
        ShopBackup.Check(rotation.Kept()[0].Path).Jobs.ShouldBe(1);
    }

    [Fact]
    public void Two_cannot_work_on_one_folder()
    {
        using (ShopLock.TryTake(Folder).ShouldNotBeNull())
            ShopLock.TryTake(Folder).ShouldBeNull();
        using var again = ShopLock.TryTake(Folder).ShouldNotBeNull();
    }

    [Fact]
    public void A_database_of_a_newer_version_is_not_opened()
    {
        using (var connection = _shop.Database.Open())
            connection.Execute("INSERT INTO SchemaVersions (ScriptName, Applied) VALUES ('999_later.sql', '2030-01-01')");
        Should.Throw<ShopFileException>(_shop.Database.Migrate).Message.ShouldContain("newer version");
        File.WriteAllText(Path.Combine(_outside, "odd.db"), "not a database at all, but long enough to be read as one");
        Should
            .Throw<ShopFileException>(new ShopDatabase(Path.Combine(_outside, "odd.db")).Migrate)
            .Message.ShouldContain("no database of a shop");
    }

    private void Break(string how)
    {
        switch (how)
        {
            case "cut short":
                var bytes = File.ReadAllBytes(BackupFile);
                File.WriteAllBytes(BackupFile, bytes[..(bytes.Length * 2 / 3)]);
                break;
            case "empty":
                File.WriteAllBytes(BackupFile, []);
                break;
            case "no archive":
                File.WriteAllText(BackupFile, "a letter to the owner");
                break;
            default:
                using (var zip = ZipFile.Open(BackupFile, ZipArchiveMode.Update))
                    Change(zip, how);
                break;
        }
    }

    private static void Change(ZipArchive zip, string how)
    {
        if (how == "a file missing")
        {
            zip.GetEntry("shop.db")!.Delete();
            return;
        }

        var name = how == "a byte changed" ? "shop.db" : "manifest.json";
        var entry = zip.GetEntry(name)!;
        using var copy = new MemoryStream();
        using (var stream = entry.Open())
            stream.CopyTo(copy);
        entry.Delete();
        var content = copy.ToArray();
        if (name == "shop.db")
        {
            content[^10] ^= 0x40;
        }
        else
        {
            var text = System.Text.Encoding.UTF8.GetString(content);
            content = System.Text.Encoding.UTF8.GetBytes(
                how switch
                {
                    "newer level" => System.Text.RegularExpressions.Regex.Replace(text, "\"level\": \\d+", "\"level\": 99"),
                    "newer format" => text.Replace("mendro.backup/1", "mendro.backup/2"),
                    _ => text.Replace("\"shop.db\"", "\"../shop.db\""),
                }
            );
        }

        using var changed = zip.CreateEntry(name).Open();
        changed.Write(content);
    }
}
