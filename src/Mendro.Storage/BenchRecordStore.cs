using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>The bench records: added, withdrawn, brought back, never overwritten.</summary>
public sealed class BenchRecordStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Records of a job that hold, in the order of events.</summary>
    public IReadOnlyList<BenchRecord> Of(JobId jobId) =>
        database.Read(connection =>
            connection
                .Query<Row>("SELECT * FROM bench_records WHERE job_id = @jobId AND withdrawn_at IS NULL ORDER BY seq, id", new { jobId })
                .Select(r => r.ToRecord())
                .ToList()
        );

    /// <summary>Records of some kinds that hold, over all jobs of one unit: those of the same model with the same serial number.</summary>
    /// <param name="job">A job of the unit; without a serial number it stands alone.</param>
    /// <param name="kinds">Keys of the kinds.</param>
    public IReadOnlyList<BenchRecord> OfUnit(Job job, params IReadOnlyList<string> kinds) =>
        database.Read(connection =>
            connection
                .Query<Row>(
                    """
                    SELECT * FROM bench_records WHERE withdrawn_at IS NULL AND kind IN @kinds AND (job_id = @Id OR job_id IN (
                      SELECT id FROM jobs WHERE serial = @Serial AND serial <> '' AND profile_id = @ProfileId AND deleted_at IS NULL))
                    ORDER BY at, job_id, seq, id
                    """,
                    new
                    {
                        job.Id,
                        job.Serial,
                        ProfileId = (string)job.ProfileId,
                        kinds,
                    }
                )
                .Select(r => r.ToRecord())
                .ToList()
        );

    /// <summary>Methods of the newest repairs of the shop that hold, with the minutes that were noted; practice units left aside.</summary>
    /// <param name="most">How many.</param>
    public IReadOnlyList<(string Method, double Minutes)> NewestRepairs(int most) =>
        database.Read(connection =>
            connection
                .Query<(string Method, double Minutes)>(
                    """
                    SELECT json_extract(r.payload, '$.method'), r.minutes FROM bench_records r JOIN jobs j ON j.id = r.job_id
                    WHERE r.kind = 'repair' AND r.withdrawn_at IS NULL AND r.minutes > 0 AND json_valid(r.payload)
                      AND json_extract(r.payload, '$.method') IS NOT NULL AND json_extract(r.payload, '$.claimed') IS NULL AND j.practice_seed IS NULL
                    ORDER BY r.id DESC LIMIT @most
                    """,
                    new { most }
                )
                .AsList()
        );

    /// <summary>The record, withdrawn or not, or null.</summary>
    public BenchRecord? Find(long id) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<Row>("SELECT * FROM bench_records WHERE id = @id", new { id })?.ToRecord()
        );

    /// <summary>The record that stands in the place of another now, by one correction or several; null when none does.</summary>
    public BenchRecord? InPlaceOf(long id) =>
        database.Read(connection =>
            connection
                .QueryFirstOrDefault<Row>(
                    """
                    WITH RECURSIVE later (id) AS (SELECT id FROM bench_records WHERE replaces = @id
                      UNION SELECT r.id FROM bench_records r JOIN later l ON r.replaces = l.id)
                    SELECT * FROM bench_records WHERE id IN (SELECT id FROM later) AND withdrawn_at IS NULL
                    """,
                    new { id }
                )
                ?.ToRecord()
        );

    /// <summary>The record withdrawn last, which “bring back” would bring back, or null.</summary>
    public BenchRecord? LastWithdrawn(JobId jobId) =>
        database.Read(connection =>
            connection
                .QueryFirstOrDefault<Row>(
                    """
                    SELECT * FROM bench_records WHERE job_id = @jobId AND withdrawn_at IS NOT NULL ORDER BY withdrawn_at DESC, id DESC LIMIT 1
                    """,
                    new { jobId }
                )
                ?.ToRecord()
        );

    /// <summary>Files a record at the end.</summary>
    /// <returns>The record's id.</returns>
    public long Add(BenchRecord record) =>
        database.Write(
            (connection, transaction) =>
            {
                var seq = connection.ExecuteScalar<long>(
                    "SELECT coalesce(max(seq), 0) + 1 FROM bench_records WHERE job_id = @JobId",
                    new { record.JobId },
                    transaction
                );
                return Insert(connection, transaction, record with { Seq = seq });
            }
        );

    /// <summary>Takes a record back; it stays in the file and can be brought back.</summary>
    /// <returns>False when there is no such record of this job, or it is withdrawn already.</returns>
    public bool Withdraw(JobId jobId, long id) =>
        database.Write(
            (connection, transaction) =>
            {
                if (Holding(connection, transaction, jobId, id) is not { } record)
                    return false;
                SetWithdrawn(connection, transaction, id, true);
                Timeline.Add(connection, transaction, jobId, time.GetUtcNow(), "withdrawn", $"Withdrawn: {record.Words}");
                return true;
            }
        );

    /// <summary>
    /// Takes the last entry of a job back. When it was a correction, what it had replaced holds again: undo goes back to how
    /// things stood before.
    /// </summary>
    /// <returns>The record taken back, or null when there was none.</returns>
    public BenchRecord? Undo(JobId jobId) =>
        database.Write(
            (connection, transaction) =>
            {
                var last = connection.QueryFirstOrDefault<Row>(
                    "SELECT * FROM bench_records WHERE job_id = @jobId AND withdrawn_at IS NULL ORDER BY id DESC LIMIT 1",
                    new { jobId },
                    transaction
                );
                if (last is null)
                    return null;
                SetWithdrawn(connection, transaction, last.Id, true);
                if (last.Replaces is { } before)
                    SetWithdrawn(connection, transaction, before, false);
                Timeline.Add(
                    connection,
                    transaction,
                    jobId,
                    time.GetUtcNow(),
                    "withdrawn",
                    last.Replaces is null ? $"Undone: {last.Words}" : $"Correction undone: {last.Words}"
                );
                return last.ToRecord();
            }
        );

    /// <summary>
    /// Brings a withdrawn record back to its place. What stands in its place, by a correction before or after, gives way: of a
    /// record and its corrections at most one holds.
    /// </summary>
    /// <returns>False when there is no such withdrawn record of this job.</returns>
    public bool Restore(JobId jobId, long id) =>
        database.Write(
            (connection, transaction) =>
            {
                var record = connection.QueryFirstOrDefault<Row>(
                    "SELECT * FROM bench_records WHERE id = @id AND job_id = @jobId AND withdrawn_at IS NOT NULL",
                    new { id, jobId },
                    transaction
                );
                if (record is null)
                    return false;
                foreach (var other in Family(connection, transaction, id).Where(f => f != id))
                    SetWithdrawn(connection, transaction, other, true);
                SetWithdrawn(connection, transaction, id, false);
                Timeline.Add(connection, transaction, jobId, time.GetUtcNow(), "restored", $"Brought back: {record.Words}");
                return true;
            }
        );

    /// <summary>Puts a corrected record of the same kind in the place of another; the old one stays in the file, withdrawn.</summary>
    /// <returns>The new id, or null when there is nothing to correct.</returns>
    public long? Correct(JobId jobId, long id, BenchRecord corrected) =>
        database.Write<long?>(
            (connection, transaction) =>
            {
                if (Holding(connection, transaction, jobId, id) is not { } old || old.Kind != corrected.Body.Key)
                    return null;
                SetWithdrawn(connection, transaction, id, true);
                return Insert(
                    connection,
                    transaction,
                    corrected with
                    {
                        JobId = jobId,
                        Seq = old.Seq,
                        Replaces = id,
                    },
                    $"Corrected: {old.Words} → {corrected.Words}"
                );
            }
        );

    internal static long Insert(
        SqliteConnection connection,
        SqliteTransaction transaction,
        BenchRecord record,
        string? timelineWords = null
    )
    {
        var id = connection.ExecuteScalar<long>(
            """
            INSERT INTO bench_records (job_id, seq, kind, subject, symptom, payload_version, payload, words, note, minutes, cost, stage, at, replaces, done_by)
            VALUES (@JobId, @Seq, @Key, @Subject, @IsSymptom, @PayloadVersion, @payload, @Words, @Note, @Minutes, @Cost, @stage, @At, @Replaces, @by)
            RETURNING id
            """,
            new
            {
                record.JobId,
                record.Seq,
                record.Body.Key,
                record.Subject,
                record.Body.IsSymptom,
                record.Body.PayloadVersion,
                payload = RecordKinds.Write(record.Body),
                record.Words,
                record.Note,
                record.Minutes,
                record.Cost,
                stage = record.Stage.ToString(),
                record.At,
                record.Replaces,
                by = Acting.Now,
            },
            transaction
        );
        foreach (var gear in record.Body.Pieces.Select(g => g.GearId).OfType<long>().Distinct())
            connection.Execute(
                "INSERT INTO gear_uses (record_id, gear_id) SELECT @id, id FROM gear WHERE id = @gear",
                new { id, gear },
                transaction
            );
        Timeline.Add(connection, transaction, record.JobId, record.At, record.Body.Key, timelineWords ?? record.Words);
        return id;
    }

    private static Row? Holding(SqliteConnection connection, SqliteTransaction transaction, JobId jobId, long id) =>
        connection.QueryFirstOrDefault<Row>(
            "SELECT * FROM bench_records WHERE id = @id AND job_id = @jobId AND withdrawn_at IS NULL",
            new { id, jobId },
            transaction
        );

    private void SetWithdrawn(SqliteConnection connection, SqliteTransaction transaction, long id, bool withdrawn) =>
        connection.Execute(
            withdrawn
                ? "UPDATE bench_records SET withdrawn_at = @at WHERE id = @id AND withdrawn_at IS NULL"
                : "UPDATE bench_records SET withdrawn_at = NULL WHERE id = @id",
            new { id, at = time.GetUtcNow() },
            transaction
        );

    /// <summary>A record with all it replaced and all that replaced it, directly or by steps.</summary>
    private static IReadOnlyList<long> Family(SqliteConnection connection, SqliteTransaction transaction, long id) =>
        connection
            .Query<long>(
                """
                WITH RECURSIVE older (id) AS (SELECT @id UNION SELECT r.replaces FROM bench_records r JOIN older o ON r.id = o.id WHERE r.replaces IS NOT NULL),
                  family (id) AS (SELECT id FROM older UNION SELECT r.id FROM bench_records r JOIN family f ON r.replaces = f.id)
                SELECT id FROM family
                """,
                new { id },
                transaction
            )
            .AsList();

    private const double MostMinutes = 100_000;

    private sealed class Row
    {
        public long Id { get; init; }
        public JobId JobId { get; init; }
        public long Seq { get; init; }
        public string Kind { get; init; } = "";
        public int PayloadVersion { get; init; }
        public string Payload { get; init; } = "";
        public string Words { get; init; } = "";
        public string Note { get; init; } = "";
        public double Minutes { get; init; }
        public decimal? Cost { get; init; }
        public string Stage { get; init; } = "";
        public DateTimeOffset At { get; init; }
        public DateTimeOffset? WithdrawnAt { get; init; }
        public long? Replaces { get; init; }

        public BenchRecord ToRecord() =>
            new()
            {
                Id = Id,
                JobId = JobId,
                Seq = Seq,
                Body = RecordKinds.Read(Kind, PayloadVersion, Payload),
                Words = Words,
                Note = Note,
                // Written by another hand it may be anything; no work takes longer than this.
                Minutes = double.IsFinite(Minutes) ? Math.Clamp(Minutes, 0, MostMinutes) : 0,
                Cost = Cost,
                // A stage of a newer version is one that this one does not know; the record itself still counts.
                Stage = Enum.TryParse<WorkStage>(Stage, out var stage) ? stage : WorkStage.Find,
                At = At,
                WithdrawnAt = WithdrawnAt,
                Replaces = Replaces,
            };
    }
}
