using System.Globalization;
using System.IO.Compression;
using Dapper;
using Mendro.Core.Jobs;
using Mendro.Tests.Shared;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage.Tests;

/// <summary>
/// Shops as the versions of their day left them, the demo world of each as it stood then (tests/FrozenShops), are brought up to date and
/// keep all they had. Levels between two frozen ones begin with the lower one and run the scripts up to theirs.
/// </summary>
public sealed class FrozenShopTests : IDisposable
{
    // Drawn anew out of other rows, or the index of the search, whose own tables are its own business.
    private static readonly string[] Derived = ["job_texts", "SchemaVersions", "jobs_due", "books_due", "books_lacking", "journal_months", "sqlite_sequence"];

    // What a migration changes on purpose, by table and column; everything else stays as it was.
    private static readonly (string Table, string Column, string Why)[] Changed =
    [
        ("bench_records", "kind", "kinds are written small since level 5"),
        ("bench_records", "payload", "made of the columns of the first levels at level 5"),
        ("jobs", "mark", "a new one whenever anything of the job is written"),
        ("revisions", "mark", "a new one whenever what it stands for is written"),
        ("bench_records", "symptom", "told by the payload since level 5"),
    ];

    private readonly string _folder = Directory.CreateTempSubdirectory("mendro-frozen-").FullName;

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, true);
    }

    private static string Place { get; } = Path.Combine(Shipped.Root(), "tests", "FrozenShops");

    private static List<int> Frozen { get; } =
        Directory
            .EnumerateFiles(Place, "level-*.db.gz")
            .Select(f => int.Parse(Path.GetFileName(f).AsSpan(6, 2), CultureInfo.InvariantCulture))
            .Order()
            .ToList();

    public static TheoryData<int> Levels => [.. Enumerable.Range(Frozen[0], ShopDatabase.KnownLevel - Frozen[0] + 1)];

    [Theory]
    [MemberData(nameof(Levels))]
    public void A_shop_of_its_day_opens_and_keeps_all_it_had(int level)
    {
        var file = Thaw(level);
        var before = Rows(file);
        before["jobs"].Count.ShouldBeGreaterThan(30);
        var database = new ShopDatabase(file);
        database.Migrate();
        var after = Rows(file);
        foreach (var (table, rows) in before.Where(t => !Derived.Contains(t.Key)))
        {
            after.ShouldContainKey(table, $"level {level}");
            var there = after[table];
            foreach (var (key, row) in rows)
            {
                there.ShouldContainKey(key, $"{table} of level {level}");
                foreach (var (column, value) in row)
                    if (there[key].TryGetValue(column, out var now) && !Changed.Any(c => c.Table == table && c.Column == column))
                        now.ShouldBe(value, $"{table}.{column} of {key}, level {level}");
            }
        }

        Opens(database);
        // The very schema of a new shop: no script was changed after it had run somewhere.
        var (old, fresh) = (Schema(file), Schema(PreparedShop.In(Path.Combine(_folder, "new")).File));
        old.Except(fresh).Concat(fresh.Except(old)).ShouldBeEmpty();
    }

    [Fact]
    public void Every_level_since_the_first_frozen_one_is_tried_and_the_newest_is_frozen_too() =>
        Frozen[^1].ShouldBe(ShopDatabase.KnownLevel, "freeze a shop of the new level: tests/FrozenShops/README.md says how");

    /// <summary>No migration asks a type of the shop what it writes: what the type becomes later would change what was written then.</summary>
    [Fact]
    public void Migrations_know_no_type_of_the_shop()
    {
        foreach (var file in Directory.EnumerateFiles(Path.Combine(Shipped.Root(), "src", "Mendro.Storage", "Migrations"), "*.cs"))
            File.ReadAllLines(file).ShouldNotContain(l => l.StartsWith("using Mendro.", StringComparison.Ordinal), file);
    }

    /// <summary>Every job is there with its records, each of a kind that is known.</summary>
    private static void Opens(ShopDatabase database)
    {
        // The first write brings what follows from other rows up to date; the program makes one as it starts.
        database.Settle();
        var records = new BenchRecordStore(database, TimeProvider.System);
        var jobs = database.AllJobs();
        jobs.ShouldNotBeEmpty();
        foreach (var record in jobs.SelectMany(j => records.Of(j.Id)))
            record.Body.ShouldNotBeOfType<UnknownRecord>(record.Words);
        using var connection = database.Open();
        connection.ExecuteScalar<string>("PRAGMA integrity_check").ShouldBe("ok");
        connection.Query("PRAGMA foreign_key_check").ShouldBeEmpty();
        connection.ExecuteScalar<long>("SELECT count(*) FROM jobs_due").ShouldBe(0);
    }

    private string Thaw(int level)
    {
        var from = Frozen.Last(f => f <= level);
        var file = Path.Combine(_folder, $"level-{level}.db");
        using (var packed = File.OpenRead(Path.Combine(Place, $"level-{from:00}.db.gz")))
        using (var unpacked = new GZipStream(packed, CompressionMode.Decompress))
        using (var made = File.Create(file))
            unpacked.CopyTo(made);
        using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        connection.Open();
        foreach (var script in MigrationLevelTests.Scripts().Where(s => Number(s) > from && Number(s) <= level))
        {
            using var reader = new StreamReader(typeof(ShopDatabase).Assembly.GetManifestResourceStream(script)!);
            connection.Execute(reader.ReadToEnd());
            connection.Execute("INSERT INTO SchemaVersions (ScriptName, Applied) VALUES (@script, '2026-01-01')", new { script });
        }

        return file;
    }

    // “Mendro.Storage.Migrations.007_look_checks.sql” is of level 7.
    private static int Number(string script) => int.Parse(script.Split('.')[3].AsSpan(0, 3), CultureInfo.InvariantCulture);

    /// <summary>All rows of all tables, by row id.</summary>
    private static Dictionary<string, Dictionary<string, Dictionary<string, object?>>> Rows(string file)
    {
        using var connection = new SqliteConnection($"Data Source={file};Mode=ReadOnly;Pooling=False");
        connection.Open();
        return connection
            .Query<string>("SELECT name FROM pragma_table_list WHERE type = 'table' AND schema = 'main' AND name NOT LIKE 'sqlite_%'")
            .ToDictionary(
                table => table,
                table =>
                {
                    var keys = connection.Query<string>($"SELECT name FROM pragma_table_info('{table}') WHERE pk > 0 ORDER BY pk").ToList();
                    return connection
                        .Query($"SELECT {(keys.Count == 0 ? "rowid AS _row, " : "")}* FROM {table}")
                        .Select(r => ((IDictionary<string, object?>)r).ToDictionary())
                        .ToDictionary(r => string.Join(" / ", keys.DefaultIfEmpty("_row").Select(k => r[k])));
                }
            );
    }

    private static List<string> Schema(string file)
    {
        using var connection = new SqliteConnection($"Data Source={file};Mode=ReadOnly;Pooling=False");
        connection.Open();
        var tables = connection
            .Query<string>(
                """
                SELECT t.name || '.' || c.name || ' ' || c.type || ' ' || c."notnull" || ' ' || coalesce(c.dflt_value, '') || ' ' || c.pk
                FROM pragma_table_list t, pragma_table_info(t.name) c WHERE t.schema = 'main' AND t.type = 'table' AND t.name NOT LIKE 'sqlite_%'
                """
            )
            .Concat(connection.Query<string>("SELECT type || ' ' || name || ' on ' || tbl_name FROM sqlite_master WHERE type IN ('index', 'trigger', 'view')"));
        return tables.ToList();
    }
}
