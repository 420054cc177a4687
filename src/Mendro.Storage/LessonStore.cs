using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Microsoft.Data.Sqlite;

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

/// <summary>How often a cause was confirmed in one version and revision of a model.</summary>
public sealed record LessonCount
{
    /// <summary>Profile.</summary>
    public string ProfileId { get; init; } = "";

    /// <summary>Version of the profile.</summary>
    public long ProfileVersion { get; init; }

    /// <summary>Board revision, or blank.</summary>
    public string Revision { get; init; } = "";

    /// <summary>Part; blank with the mode where units are counted.</summary>
    public string PartId { get; init; } = "";

    /// <summary>Failure mode.</summary>
    public string ModeId { get; init; } = "";

    /// <summary>Units.</summary>
    public int Found { get; init; }
}

/// <summary>Reads what the shop's jobs have taught, and keeps what must not count. Practice units teach nothing.</summary>
public sealed class LessonStore(ShopDatabase database, TimeProvider time)
{
    // Few at a time: preparing a UNION of many takes SQLite longer than asking often.
    private const int MostAtOnce = 5;

    private const string Select = """
        SELECT r.id AS record_id, j.id AS job_id, j.number, j.profile_id, j.profile_version, j.revision,
          r.subject AS part_id, CASE WHEN json_valid(r.payload) THEN json_extract(r.payload, '$.mode') END AS mode_id,
          r.words, j.closed_at IS NOT NULL AS closed, e.record_id IS NOT NULL AS excluded
        FROM bench_records r JOIN jobs j ON j.id = r.job_id LEFT JOIN excluded_lessons e ON e.record_id = r.id
        WHERE r.kind = 'cause' AND CASE WHEN json_valid(r.payload) THEN json_extract(r.payload, '$.present') END AND r.withdrawn_at IS NULL
          AND j.deleted_at IS NULL AND j.practice_seed IS NULL
        """;

    /// <summary>What all jobs taught, counted; excluded causes do not count. Their number grows with models, not with jobs.</summary>
    public IReadOnlyList<LessonCount> Counts() =>
        database.Read(connection =>
            connection.Query<LessonCount>("SELECT * FROM lesson_counts ORDER BY profile_id, profile_version, revision, part_id").AsList()
        );

    /// <summary>Causes found in other units of a lot, of one model: in how many units each, and in how many any was.</summary>
    public (int Units, IReadOnlyDictionary<(string PartId, string ModeId), int> Found) InLot(string lot, string profileId, JobId but) =>
        database.Read(connection =>
        {
            var found = connection
                .Query<ConfirmedCause>(
                    $"{Select} AND e.record_id IS NULL AND j.lot = @lot AND j.profile_id = @profileId AND j.id <> @but",
                    new
                    {
                        lot,
                        profileId,
                        but,
                    }
                )
                .DistinctBy(c => (c.JobId, c.PartId, c.ModeId))
                .ToList();
            return (found.DistinctBy(c => c.JobId).Count(), found.GroupBy(c => (c.PartId, c.ModeId)).ToDictionary(g => g.Key, g => g.Count()));
        });

    /// <summary>Causes confirmed in a job, excluded ones too.</summary>
    public IReadOnlyList<ConfirmedCause> Of(JobId jobId) =>
        database.Read(connection =>
            connection.Query<ConfirmedCause>($"{Select} AND r.job_id = @jobId ORDER BY r.id", new { jobId }).AsList()
        );

    /// <summary>A confirmed cause by its record, or null.</summary>
    public ConfirmedCause? Find(long recordId) =>
        database.Read(connection => connection.QueryFirstOrDefault<ConfirmedCause>($"{Select} AND r.id = @recordId", new { recordId }));

    /// <summary>The newest units that taught each of some causes, a few at a time in one statement.</summary>
    /// <param name="causes">Profile, part and failure mode of each.</param>
    /// <param name="revision">Revision; blank for all.</param>
    /// <param name="most">Most units told of each.</param>
    public ILookup<(string ProfileId, string PartId, string ModeId), ConfirmedCause> Behind(
        IReadOnlyList<(string ProfileId, string PartId, string ModeId)> causes,
        string revision,
        int most
    )
    {
        return database
            .Read(connection => causes.Chunk(MostAtOnce).SelectMany(chunk => Newest(connection, chunk, revision, most)).ToList())
            .DistinctBy(c => (c.JobId, c.PartId, c.ModeId))
            .ToLookup(c => (c.ProfileId, c.PartId, c.ModeId));
    }

    private static IEnumerable<ConfirmedCause> Newest(
        SqliteConnection connection,
        (string ProfileId, string PartId, string ModeId)[] causes,
        string revision,
        int most
    )
    {
        var parameters = new DynamicParameters(new { revision, most });
        var newest = new List<string>();
        foreach (var ((profile, part, mode), n) in causes.Select((cause, n) => (cause, n)))
        {
            parameters.Add($"f{n}", profile);
            parameters.Add($"p{n}", part);
            parameters.Add($"m{n}", mode);
            newest.Add(
                $"""
                SELECT * FROM (SELECT job_id, part_id, mode_id FROM lessons WHERE profile_id = @f{n} AND part_id = @p{n} AND mode_id = @m{n}
                  AND (@revision = '' OR revision = @revision) ORDER BY job_id DESC LIMIT @most)
                """
            );
        }

        return connection.Query<ConfirmedCause>(
            $"""
            WITH newest AS ({string.Join(" UNION ALL ", newest)})
            SELECT r.id AS record_id, j.id AS job_id, j.number, j.profile_id, j.profile_version, j.revision, l.part_id, l.mode_id,
              r.words, j.closed_at IS NOT NULL AS closed, 0 AS excluded
            FROM newest l CROSS JOIN jobs j ON j.id = l.job_id CROSS JOIN bench_records r ON r.job_id = l.job_id
            WHERE r.kind = 'cause' AND r.subject = l.part_id AND r.withdrawn_at IS NULL
              AND CASE WHEN json_valid(r.payload)
                THEN json_extract(r.payload, '$.present') AND json_extract(r.payload, '$.mode') = l.mode_id END
              AND NOT EXISTS (SELECT 1 FROM excluded_lessons e WHERE e.record_id = r.id)
            ORDER BY j.id DESC
            """,
            parameters
        );
    }

    /// <summary>Causes that the shop has left out, the newest first; at most 200.</summary>
    public IReadOnlyList<ConfirmedCause> LeftOut() =>
        database.Read(connection =>
            connection
                .Query<ConfirmedCause>(
                    $"{Select} AND r.id IN (SELECT record_id FROM excluded_lessons ORDER BY record_id DESC LIMIT 200) ORDER BY r.id DESC"
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
