using Dapper;
using Mendro.Core;
using Mendro.Core.Calculators;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage.Tests;

/// <summary>A database of every earlier level opens and keeps its content.</summary>
public sealed class MigrationLevelTests : IDisposable
{
    private const int FirstWithPayloads = 5;

    private readonly string _folder = Directory.CreateTempSubdirectory("mendro-level-").FullName;

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, true);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void A_shop_of_an_earlier_level_opens_with_all_it_had(int level)
    {
        level.ShouldBeLessThan(FirstWithPayloads);
        var database = Old(level);
        database.Migrate();
        var time = TimeProvider.System;
        var job = new JobStore(database, time).Find(101)!;
        (job.CustomerName, job.Paid, job.Stage, job.Shelf).ShouldBe(("Ilka Dorn", 6.40m, WorkStage.Fix, Shelf.WaitingPart));
        var records = new BenchRecordStore(database, time).Of(job.Id);
        records
            .Select(r => (r.Id, r.Words))
            .Take(6)
            .ShouldBe([
                (1L, "Power light: nothing at all"),
                (2L, "Fuse, far side: 6.21 V, as expected"),
                (3L, "Switch: beep, jumps"),
                (4L, "Cause seen: Switch, dirty"),
                (5L, "Flush (Switch)"),
                (6L, "Seen at intake: Rattle"),
            ]);
        records[0].Body.ShouldBe(new FunctionTrial("power-light", false, "nothing"));
        records[1]
            .Body.ShouldBe(new ProbeReading("tp3", ProbeOutcome.Normal, new Reading(ReadingUnit.Volts, 6.214), "as expected", "", "short"));
        records[2].Body.ShouldBeOfType<ProbeReading>().Outcome.ShouldBe(ProbeOutcome.Jumps);
        records[3].Body.ShouldBe(new CauseSeen("switch", "dirty", true));
        records[4].Body.ShouldBe(new RepairLogged("switch", "flush-switch", "cleaner"));
        (records[4].Cost, records[4].Minutes, records[4].Note).ShouldBe((0.20m, 6.5, "black water"));
        records[5].Body.ShouldBe(new MarkNoted("rattle"));
        new LessonStore(database, time).Of(job.Id).ShouldHaveSingleItem().ModeId.ShouldBe("dirty");
        database.Found("rattle").ShouldHaveSingleItem();
        // What was withdrawn stays withdrawn and can be brought back.
        new BenchRecordStore(database, time)
            .LastWithdrawn(job.Id)!
            .Words.ShouldBe("Picture: fails");
        // How far it was apart is told by its records from now on; closed up by hand is one of them.
        UnitAccess
            .Of(new DeviceModel(TradeLibrary.Shipped.Profiles.Single(p => p.Id == "harrow-quartet"), TradeLibrary.Shipped), records)
            .ShouldBe(AccessState.Closed);
        records[^1].Body.ShouldBe(new AccessNoted(AccessState.Closed));
        if (level >= 2)
        {
            var later = new BenchRecordStore(database, time).Of(new JobId(2));
            later[0].Body.ShouldBe(new FunctionTrial("speaker", true, null, 12));
            later[1].Body.ShouldBe(new ProvokeTrial("picture", Provocation.Flexed, true));
            var swap = later[2].Body.ShouldBeOfType<SwapTrial>();
            (swap.Function.Value, swap.Result, swap.Gear.Single().GearId).ShouldBe(("start-up", SwapResult.Flicker, 1L));
            later[3].Body.ShouldBeOfType<CalculationFiled>().Name.ShouldBe("Battery pack");
            later[4].Body.ShouldBeOfType<UnknownRecord>().Payload.ShouldContain("deep");
        }

        using var connection = database.Open();
        connection.ExecuteScalar<string>("PRAGMA integrity_check").ShouldBe("ok");
        connection.Query("PRAGMA foreign_key_check").ShouldBeEmpty();
        connection.Query<string>("SELECT name FROM pragma_table_info('bench_records')").ShouldNotContain("detail");
        connection.Query<string>("SELECT name FROM pragma_table_info('jobs')").ShouldNotContain("access");
    }

    [Fact]
    public void There_is_a_test_for_every_level_before_the_payloads() =>
        Scripts().Count(s => string.CompareOrdinal(s, "Mendro.Storage.Migrations.004") < 0).ShouldBe(3);

    internal static List<string> Scripts() =>
        typeof(ShopDatabase)
            .Assembly.GetManifestResourceNames()
            .Where(n => n.EndsWith(".sql", StringComparison.Ordinal))
            .Order(StringComparer.Ordinal)
            .ToList();

    /// <summary>A database as a version of that level left it.</summary>
    private ShopDatabase Old(int level)
    {
        var file = Path.Combine(_folder, $"level-{level}.db");
        using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        connection.Open();
        connection.Execute(
            "CREATE TABLE SchemaVersions (SchemaVersionID INTEGER CONSTRAINT 'PK_SchemaVersions_SchemaVersionID' PRIMARY KEY "
                + "AUTOINCREMENT NOT NULL, ScriptName TEXT NOT NULL, Applied DATETIME NOT NULL)"
        );
        foreach (var script in Scripts().Take(level))
        {
            using var reader = new StreamReader(typeof(ShopDatabase).Assembly.GetManifestResourceStream(script)!);
            connection.Execute(reader.ReadToEnd());
            connection.Execute("INSERT INTO SchemaVersions (ScriptName, Applied) VALUES (@script, '2026-01-01')", new { script });
        }

        var quartet = ProfileJson.Write(TradeLibrary.Shipped.Profiles.Single(p => p.Id == "harrow-quartet"));
        connection.Execute(
            """
            INSERT INTO profiles VALUES ('harrow-quartet', 1, @quartet, 'library', '2026-01-01T00:00:00.000Z');
            INSERT INTO customers VALUES (1, 'Ilka Dorn', '0700', '2026-01-01T00:00:00.000Z');
            INSERT INTO jobs (id, number, profile_id, profile_version, model_name, customer_id, paid, currency, stage, access, shelf, ending, received_at)
              VALUES (1, 101, 'harrow-quartet', 1, 'Harrow Quartet', 1, '6.40', 'EUR', 'Fix', 'Closed', 'WaitingPart', 'Open', '2026-01-01T00:00:00.000Z'),
                     (2, 102, 'harrow-quartet', 1, 'Harrow Quartet', NULL, NULL, 'EUR', 'Find', 'Open', 'None', 'Open', '2026-01-02T00:00:00.000Z');
            INSERT INTO bench_records (id, job_id, seq, kind, subject, state, detail, reading, value, words, note, minutes, cost,
              parts, stage, at, withdrawn_at) VALUES
              (1, 1, 1, 'Function', 'power-light', 'fail', 'nothing', '', NULL, 'Power light: nothing at all', '', 0.5,
                NULL, '', 'Intake', '2026-01-01T00:00:01.000Z', NULL),
              (2, 1, 2, 'Probe', 'tp3', 'normal', 'short', '6.21 V', 6.214, 'Fuse, far side: 6.21 V, as expected', '',
                1, NULL, '', 'Find', '2026-01-01T00:00:02.000Z', NULL),
              (3, 1, 3, 'Probe', 'switch-beep', 'jumps', '', 'beep, jumps', 1, 'Switch: beep, jumps', '', 1, NULL, '',
                'Find', '2026-01-01T00:00:03.000Z', NULL),
              (4, 1, 4, 'Cause', 'switch', 'present', 'dirty', '', NULL, 'Cause seen: Switch, dirty', '', 0, NULL, '', 'Fix', '2026-01-01T00:00:04.000Z', NULL),
              (5, 1, 5, 'Repair', 'switch', 'done', 'flush-switch', '', NULL, 'Flush (Switch)', 'black water', 6.5,
                '0.20', 'cleaner', 'Fix', '2026-01-01T00:00:05.000Z', NULL),
              (6, 1, 6, 'Mark', 'rattle', 'present', '', '', NULL, 'Seen at intake: Rattle', '', 0, NULL, '', 'Intake', '2026-01-01T00:00:06.000Z', NULL),
              (7, 1, 7, 'Function', 'picture', 'fail', '', '', NULL, 'Picture: fails', '', 0.5, NULL, '', 'Find',
                '2026-01-01T00:00:07.000Z', '2026-01-01T00:01:00.000Z');
            """,
            new { quartet }
        );
        if (level >= 2)
        {
            connection.Execute(
                """
                INSERT INTO gear (id, name, kind, cleaned_at, created_at)
                  VALUES (1, 'Cable B', 'test-cable', '2026-01-01T00:00:00.000Z', '2026-01-01T00:00:00.000Z');
                INSERT INTO bench_records (id, job_id, seq, kind, subject, state, detail, words, stage, at, trials) VALUES
                  (8, 2, 1, 'Function', 'speaker', 'pass', '', 'Speaker: works, 12 times running', 'Find', '2026-01-02T00:00:01.000Z', 12),
                  (9, 2, 2, 'Provoke', 'picture', 'changed', 'flexed', 'Flex: it changes', 'Find', '2026-01-02T00:00:02.000Z', 1),
                  (10, 2, 3, 'Swap', 'start-up', 'flicker',
                    '{"chain":["main"],"out":["slot"],"gear":[{"id":"g1","name":"Cable B","kind":"test-cable"}]}',
                    'swap', 'Find', '2026-01-02T00:00:03.000Z', 1),
                  (11, 2, 4, 'Calculation', 'battery-pack', 'bad', '{"cells":4}', 'Battery pack: cells 4 → weak', 'Find', '2026-01-02T00:00:04.000Z', 1),
                  (12, 2, 5, 'Hologram', 'x', 'y', 'deep', 'Hologram taken', 'Find', '2026-01-02T00:00:05.000Z', 1);
                INSERT INTO gear_uses VALUES (10, 1);
                """
            );
        }

        return new ShopDatabase(file);
    }
}
