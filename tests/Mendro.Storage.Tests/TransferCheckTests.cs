using System.IO.Compression;
using System.Text.Json;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage.Tests;

/// <summary>What comes in from outside is checked like a form: by file, line and field, all or none.</summary>
public sealed class TransferCheckTests : IDisposable
{
    // Words of people, names and ids: any text may stand there, and the pages show it as text.
    private static readonly string[] Free =
    [
        "profiles.id", "customers.name", "customers.contact", "customer_contacts.kind", "customer_contacts.value", "jobs.profile_id",
        "jobs.model_name", "jobs.unit_name", "jobs.revision", "jobs.serial", "jobs.lot", "jobs.accessories", "jobs.claim", "jobs.condition_note",
        "jobs.shelf_reason", "jobs.next_try", "jobs.ending_note", "jobs.stated_reason", "bench_records.kind", "bench_records.subject",
        "bench_records.words", "bench_records.note", "bench_records.done_by", "timeline.kind", "timeline.words", "timeline.done_by", "gear.name",
        "gear.kind", "second_looks.check_id", "teachings.profile_id", "teachings.line", "teachings.words", "good_readings.profile_id",
        "good_readings.revision", "good_readings.probe_id", "good_readings.unit", "good_readings.good_unit", "retired_models.id",
        "retired_models.now_id", "model_moves.what", "model_moves.from_id", "model_moves.to_id", "model_moves.words", "moved_jobs.model_name",
        "timers.label", "runs.part_id", "runs.method_id", "runs.touches", "shop_methods.method_id", "shop_methods.based_on",
        "usual_methods.part_kind", "usual_methods.method_id", "capacitor_parts.source", "capacitor_parts.mount", "capacitor_parts.name",
        "start_runs.function", "soaks.function", "pictures.about", "pictures.caption", "shelf_waits.part", "sales.condition", "sales.words",
        "comparables.profile_id", "comparables.condition", "comparables.words", "donor_parts.part", "donor_parts.name", "donor_parts.kind",
        "donor_parts.profile_id", "donor_parts.words", "lots.name", "lots.words", "lots.profile_id", "lot_items.why", "purchases.seller",
        "purchases.address", "purchases.proof", "rounds.key", "rounds.title", "offers.title", "offers.claim", "offers.lot", "offers.words",
        "forecasts.function", "stock_items.name", "stock_items.bin", "stock_items.source", "stock_moves.why", "part_needs.part", "part_needs.why",
        "suppliers.name", "suppliers.words", "suppliers.problem", "supplier_prices.number", "supplier_prices.part", "orders.words",
        "order_lines.part", "order_lines.number", "payments.words", "journal.who", "journal.matter", "journal.basis", "journal.what", "journal.lot",
        "bills.who", "own_entries.words", "month_locks.who", "own_tasks.words", "own_tasks.place", "fixed_hours.uid", "fixed_hours.words",
        "feed_items.uid", "feed_items.words", "erasures.done_by", "contact_marks.connector_id", "contact_marks.contact", "contact_marks.state",
        "changes.who", "changes.about", "changes.field", "changes.old", "changes.new",
    ];

    private readonly ShopFile _shop = new();
    private readonly string _outside = Directory.CreateTempSubdirectory("mendro-check-").FullName;

    public void Dispose()
    {
        _shop.Dispose();
        SqliteConnection.ClearAllPools();
        Directory.Delete(_outside, true);
    }

    [Fact]
    public void Each_column_is_checked_or_takes_any_text()
    {
        using var connection = _shop.Database.Open();
        var taken = TransferTable
            .All.SelectMany(t => t.Columns(connection).Select(c => (Table: t.Name, Column: c)))
            .Where(c => TransferCheck.Wrong(c.Table, c.Column, "{") is null)
            .Select(c => $"{c.Table}.{c.Column.Name}")
            .ToList();
        taken.Except(Free).ShouldBeEmpty("a column that is neither checked nor free");
        Free.Except(taken).ShouldBeEmpty("checked now");
    }

    private string Export()
    {
        _shop.TakeIn();
        var folder = Path.Combine(_outside, $"out-{Guid.NewGuid():N}");
        ShopTransfer.Export(_shop.Database, folder);
        return folder;
    }

    private string Refused(string folder)
    {
        var target = Path.Combine(_outside, "target");
        var said = Should.Throw<ShopFileException>(() => ShopTransfer.Import(folder, target)).Message;
        Directory.EnumerateFileSystemEntries(target).ShouldBeEmpty();
        return said;
    }

    [Theory]
    [InlineData("jobs", "stage", "Nowhere", "is none of")]
    [InlineData("jobs", "ending", "5", "is none of")]
    [InlineData("jobs", "received_at", "yesterday", "is no time")]
    [InlineData("jobs", "promised", "31.12.", "is no day")]
    [InlineData("jobs", "currency", "euro", "is no currency")]
    [InlineData("jobs", "paid", "1e", "is no amount")]
    [InlineData("jobs", "number", "one", "is no whole number")]
    public void A_wrong_value_is_named_by_file_line_and_field(string table, string column, string value, string why)
    {
        var folder = Export();
        var file = Path.Combine(folder, table + ".csv");
        var lines = File.ReadAllLines(file);
        var (header, row) = (lines[0].Split(','), lines[1].Split(','));
        row[Array.IndexOf(header, column)] = value;
        File.WriteAllLines(file, [lines[0], string.Join(',', row), .. lines[2..]]);
        Refused(folder).ShouldBe(Refused(folder));
        Refused(folder).ShouldStartWith($"{table}.csv, line 2, {column}: “{value}” {why}");
    }

    [Theory]
    [InlineData("{")]
    [InlineData("{}")]
    [InlineData("null")]
    [InlineData("")]
    public void A_model_that_is_none_is_not_taken_in(string json)
    {
        var folder = Export();
        var file = Directory.EnumerateFiles(Path.Combine(folder, "profiles")).First();
        File.WriteAllText(file, json);
        Refused(folder).ShouldStartWith(Path.GetFileName(file));
    }

    [Fact]
    public void Settings_of_the_network_never_come_in_and_wrong_ones_are_named()
    {
        var settings = new SettingsStore(_shop.Database);
        settings.SetValue("network-names", "*");
        settings.SetValue("network-proxy", "203.0.113.9");
        settings.SetValue("shop-name", "Mine");
        var target = Path.Combine(_outside, "shop");
        var folder = Export();
        ShopTransfer.Import(folder, target);
        var there = new SettingsStore(new ShopDatabase(Path.Combine(target, "shop.db")));
        (there.Value("network-names"), there.Value("network-proxy"), there.Value("shop-name")).ShouldBe((null, null, "Mine"));
        settings.SetValue("rate-per-hour", "-1");
        Refused(Export()).ShouldStartWith("shop.json, rate-per-hour");
    }

    [Fact]
    public void Pictures_go_out_and_come_in_byte_for_byte_and_each_is_what_its_name_says()
    {
        var job = _shop.TakeIn();
        var (jpeg, small) = (new byte[] { 0xFF, 0xD8, 1, 2, 3 }, new byte[] { 0xFF, 0xD8, 9 });
        var hash = PictureFiles.HashOf(jpeg);
        var from = Path.GetDirectoryName(_shop.Database.File)!;
        new PictureFiles(from).Write(hash, jpeg, small);
        using (var connection = _shop.Database.Open())
            connection.Execute(
                "INSERT INTO pictures (job_id, hash, width, height, bytes, at) VALUES (@id, @hash, 1, 1, 5, '2026-03-01T10:00:00Z')",
                new { id = job.Id.Value, hash }
            );
        var (folder, target) = (Path.Combine(_outside, "out"), Path.Combine(_outside, "shop"));
        ShopTransfer.Export(_shop.Database, folder);
        ShopTransfer.Import(folder, target);
        (new PictureFiles(target).Read(hash), new PictureFiles(target).Read(hash, small: true)).ShouldSatisfyAllConditions(
            p => p.Item1.ShouldBe(jpeg),
            p => p.Item2.ShouldBe(small)
        );
        File.WriteAllBytes(Path.Combine(folder, "pictures", hash[..2], hash + ".jpg"), [1, 2, 3]);
        Refused(folder).ShouldContain("is not the picture");
    }

    [Fact]
    public void An_export_of_an_earlier_level_may_lack_what_came_later()
    {
        var folder = Export();
        var manifest = JsonSerializer.Deserialize<ExportManifest>(File.ReadAllText(Path.Combine(folder, "shop.json")), JsonSerializerOptions.Web)!;
        File.Delete(Path.Combine(folder, "purchases.csv"));
        Refused(folder).ShouldContain("purchases.csv");
        var older = manifest with { Level = manifest.Level - 1, Tables = [.. manifest.Tables.Where(t => t.File != "purchases.csv")] };
        File.WriteAllText(Path.Combine(folder, "shop.json"), JsonSerializer.Serialize(older, JsonSerializerOptions.Web));
        ShopTransfer.Import(folder, Path.Combine(_outside, "shop")).Level.ShouldBe(older.Level);
    }

    [Fact]
    public void A_backup_holds_files_of_a_shop_only_no_larger_than_told_and_no_table_of_its_own()
    {
        var from = Path.GetDirectoryName(_shop.Database.File)!;
        _shop.TakeIn();
        File.WriteAllText(Path.Combine(from, "notes.txt"), "not of the shop");
        var good = Path.Combine(_outside, "good.mendro");
        ShopBackup.Write(from, good, _shop.Time.GetUtcNow()).Files.Select(f => f.Name).ShouldBe(["shop.db"]);
        ShopBackup.Check(good).Jobs.ShouldBe(1);

        string With(Action<ZipArchive, BackupManifest> change)
        {
            var file = Path.Combine(_outside, $"{Guid.NewGuid():N}.mendro");
            File.Copy(good, file);
            using (var zip = ZipFile.Open(file, ZipArchiveMode.Update))
            {
                BackupManifest manifest;
                using (var stream = zip.GetEntry("manifest.json")!.Open())
                    manifest = JsonSerializer.Deserialize<BackupManifest>(stream, JsonSerializerOptions.Web)!;
                change(zip, manifest);
            }

            return Should.Throw<ShopFileException>(() => ShopBackup.Check(file)).Message;
        }

        void Tell(ZipArchive zip, BackupManifest manifest)
        {
            zip.GetEntry("manifest.json")!.Delete();
            using var stream = zip.CreateEntry("manifest.json").Open();
            JsonSerializer.Serialize(stream, manifest, JsonSerializerOptions.Web);
        }

        foreach (var name in (string[])["notes.txt", "../shop.db", "keys/../x.xml", "pictures/ab/x.jpg", "wwwroot/x.js", ".bashrc"])
            With(
                    (zip, manifest) =>
                    {
                        using (var entry = zip.CreateEntry(name).Open())
                            entry.Write("x"u8);
                        Tell(zip, manifest with { Files = [.. manifest.Files, new BackupFile(name, 1, Hash("x"u8.ToArray()))] });
                    }
                )
                .ShouldContain("broken");
        With((zip, manifest) => Tell(zip, manifest with { Files = [manifest.Files[0] with { Bytes = manifest.Files[0].Bytes - 1 }] }))
            .ShouldContain("another length");

        // A trigger of somebody else's would run with everything that is filed.
        var other = Path.Combine(_outside, "other");
        Directory.CreateDirectory(other);
        File.Copy(_shop.Database.File, Path.Combine(other, "shop.db"));
        using (var connection = new SqliteConnection($"Data Source={Path.Combine(other, "shop.db")};Pooling=false"))
            connection.Execute("CREATE TRIGGER spy AFTER INSERT ON jobs BEGIN DELETE FROM gear; END");
        var strange = Path.Combine(_outside, "strange.mendro");
        ShopBackup.Write(other, strange, _shop.Time.GetUtcNow());
        Should.Throw<ShopFileException>(() => ShopBackup.Check(strange)).Message.ShouldContain("trigger spy");
    }

    private static string Hash(byte[] bytes) => Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes));
}
