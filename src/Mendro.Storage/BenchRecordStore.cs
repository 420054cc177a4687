using Dapper;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;
using Mendro.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>The bench records: added, withdrawn, brought back, never overwritten.</summary>
public sealed class BenchRecordStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Records of a job that hold, in the order of events.</summary>
    public IReadOnlyList<BenchRecord> Of(long jobId)
    {
        using var connection = database.Open();
        return connection.Query<BenchRecord>(
            "SELECT * FROM bench_records WHERE job_id = @jobId AND withdrawn_at IS NULL ORDER BY seq, id", new { jobId }).AsList();
    }

    /// <summary>Records of several jobs that hold, by job.</summary>
    public ILookup<long, BenchRecord> OfAll(IReadOnlyList<long> jobIds)
    {
        using var connection = database.Open();
        return connection.Query<BenchRecord>(
                "SELECT * FROM bench_records WHERE withdrawn_at IS NULL AND job_id IN (SELECT value FROM json_each(@ids)) ORDER BY seq, id",
                new { ids = System.Text.Json.JsonSerializer.Serialize(jobIds) })
            .ToLookup(r => r.JobId);
    }

    /// <summary>The record, withdrawn or not, or null.</summary>
    public BenchRecord? Find(long id)
    {
        using var connection = database.Open();
        return connection.QueryFirstOrDefault<BenchRecord>("SELECT * FROM bench_records WHERE id = @id", new { id });
    }

    /// <summary>The record withdrawn last, which “redo” would bring back, or null.</summary>
    public BenchRecord? LastWithdrawn(long jobId)
    {
        using var connection = database.Open();
        return connection.QueryFirstOrDefault<BenchRecord>(
            "SELECT * FROM bench_records WHERE job_id = @jobId AND withdrawn_at IS NOT NULL ORDER BY withdrawn_at DESC, id DESC LIMIT 1", new { jobId });
    }

    /// <summary>Files a record at the end, and notes when it took opening the unit further.</summary>
    /// <returns>The record's id.</returns>
    public long Add(BenchRecord record, AccessState? reached = null) => database.Write((connection, transaction) =>
    {
        var seq = connection.ExecuteScalar<long>("SELECT coalesce(max(seq), 0) + 1 FROM bench_records WHERE job_id = @JobId", new { record.JobId }, transaction);
        var id = Insert(connection, transaction, record with { Seq = seq });
        if (reached is { } access)
            connection.Execute("UPDATE jobs SET access = @access WHERE id = @JobId", new { access = access.ToString(), record.JobId }, transaction);
        return id;
    });

    /// <summary>Takes a record back; it stays in the file and can be brought back.</summary>
    /// <returns>False when there is no such record of this job, or it is withdrawn already.</returns>
    public bool Withdraw(long jobId, long id) => database.Write((connection, transaction) =>
    {
        var record = connection.QueryFirstOrDefault<BenchRecord>(
            "SELECT * FROM bench_records WHERE id = @id AND job_id = @jobId AND withdrawn_at IS NULL", new { id, jobId }, transaction);
        if (record is null) return false;
        var at = time.GetUtcNow();
        connection.Execute("UPDATE bench_records SET withdrawn_at = @at WHERE id = @id", new { at, id }, transaction);
        Timeline.Add(connection, transaction, jobId, at, "withdrawn", $"Withdrawn: {record.Words}");
        return true;
    });

    /// <summary>Brings a withdrawn record back to its place.</summary>
    /// <returns>False when there is no such withdrawn record of this job.</returns>
    public bool Restore(long jobId, long id) => database.Write((connection, transaction) =>
    {
        var record = connection.QueryFirstOrDefault<BenchRecord>(
            "SELECT * FROM bench_records WHERE id = @id AND job_id = @jobId AND withdrawn_at IS NOT NULL", new { id, jobId }, transaction);
        if (record is null) return false;
        connection.Execute("UPDATE bench_records SET withdrawn_at = NULL WHERE id = @id", new { id }, transaction);
        Timeline.Add(connection, transaction, jobId, time.GetUtcNow(), "restored", $"Brought back: {record.Words}");
        return true;
    });

    /// <summary>Puts a corrected record in the place of another; the old one stays in the file, withdrawn.</summary>
    /// <returns>The new id, or null when there is nothing to correct.</returns>
    public long? Correct(long jobId, long id, BenchRecord corrected) => database.Write<long?>((connection, transaction) =>
    {
        var old = connection.QueryFirstOrDefault<BenchRecord>(
            "SELECT * FROM bench_records WHERE id = @id AND job_id = @jobId AND withdrawn_at IS NULL", new { id, jobId }, transaction);
        if (old is null) return null;
        connection.Execute("UPDATE bench_records SET withdrawn_at = @at WHERE id = @id", new { at = time.GetUtcNow(), id }, transaction);
        return Insert(connection, transaction, corrected with { JobId = jobId, Seq = old.Seq }, $"Corrected: {old.Words} → {corrected.Words}");
    });

    /// <summary>The records as the engine takes them.</summary>
    public static IReadOnlyList<BenchEvent> Events(IEnumerable<BenchRecord> records) => records.Select(r => r.ToEvent()).OfType<BenchEvent>().ToList();

    internal static long Insert(SqliteConnection connection, SqliteTransaction transaction, BenchRecord record, string? timelineWords = null)
    {
        var id = connection.ExecuteScalar<long>("""
            INSERT INTO bench_records (job_id, seq, kind, subject, state, detail, trials, reading, value, words, note, minutes, cost, parts, stage, at)
            VALUES (@JobId, @Seq, @kind, @Subject, @State, @Detail, @Trials, @Reading, @Value, @Words, @Note, @Minutes, @Cost, @Parts, @stage, @At)
            RETURNING id
            """, new
        {
            record.JobId, record.Seq, kind = record.Kind.ToString(), record.Subject, record.State, record.Detail, record.Trials, record.Reading, record.Value,
            record.Words, record.Note, record.Minutes, record.Cost, record.Parts, stage = record.Stage.ToString(), record.At,
        }, transaction);
        if (record.Kind == RecordKind.Swap)
            foreach (var gear in SwapDetail.Read(record.Detail).Gear.Select(g => g.GearId).OfType<long>().Distinct())
                connection.Execute("INSERT INTO gear_uses (record_id, gear_id) SELECT @id, id FROM gear WHERE id = @gear", new { id, gear }, transaction);
        Timeline.Add(connection, transaction, record.JobId, record.At, record.Kind.ToString().ToLowerInvariant(), timelineWords ?? record.Words);
        return id;
    }
}
