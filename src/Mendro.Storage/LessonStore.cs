using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.Storage;

/// <summary>A confirmed cause of one job, as learning takes it.</summary>
public sealed record ConfirmedCause
{
    /// <summary>Bench record that confirms it.</summary>
    public long RecordId { get; init; }

    /// <summary>Job.</summary>
    public JobId JobId { get; init; }

    /// <summary>Number on the job's tag.</summary>
    public long Number { get; init; }

    /// <summary>Profile of the job.</summary>
    public string ProfileId { get; init; } = "";

    /// <summary>Version of the profile.</summary>
    public long ProfileVersion { get; init; }

    /// <summary>Board revision, or blank.</summary>
    public string Revision { get; init; } = "";

    /// <summary>Part.</summary>
    public string PartId { get; init; } = "";

    /// <summary>Failure mode.</summary>
    public string ModeId { get; init; } = "";

    /// <summary>The cause in words.</summary>
    public string Words { get; init; } = "";

    /// <summary>True when the job is closed.</summary>
    public bool Closed { get; init; }

    /// <summary>True when the shop has excluded it from learning.</summary>
    public bool Excluded { get; init; }
}

/// <summary>Reads what the shop's jobs have taught, and keeps what must not count.</summary>
public sealed class LessonStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>All confirmed causes of the shop's own jobs; practice units teach nothing.</summary>
    public IReadOnlyList<ConfirmedCause> Causes() =>
        database.Read(connection =>
            connection
                .Query<ConfirmedCause>(
                    """
                    SELECT r.id AS record_id, j.id AS job_id, j.number, j.profile_id, j.profile_version, j.revision,
                      r.subject AS part_id, json_extract(r.payload, '$.mode') AS mode_id,
                      r.words, j.closed_at IS NOT NULL AS closed, e.record_id IS NOT NULL AS excluded
                    FROM bench_records r JOIN jobs j ON j.id = r.job_id LEFT JOIN excluded_lessons e ON e.record_id = r.id
                    WHERE r.kind = 'cause' AND json_extract(r.payload, '$.present') AND r.withdrawn_at IS NULL
                      AND j.deleted_at IS NULL AND j.practice_seed IS NULL
                    ORDER BY r.id
                    """
                )
                .AsList()
        );

    /// <summary>Leaves a cause out of learning.</summary>
    public void Exclude(long recordId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO excluded_lessons (record_id, at) SELECT id, @at FROM bench_records WHERE id = @recordId AND "
                        + "kind = 'cause' ON CONFLICT DO NOTHING",
                    new { recordId, at = time.GetUtcNow() },
                    transaction
                )
        );

    /// <summary>Lets an excluded cause count again.</summary>
    public void Include(long recordId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("DELETE FROM excluded_lessons WHERE record_id = @recordId", new { recordId }, transaction)
        );
}
