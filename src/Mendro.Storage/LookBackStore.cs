using Dapper;

namespace Mendro.Storage;

/// <summary>Minutes at work on a moment, of a job.</summary>
public sealed record MinutesAt
{
    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>Minutes.</summary>
    public double Minutes { get; init; }
}

/// <summary>Something that happened to a job.</summary>
public sealed record HappenedAt
{
    /// <summary>Number of the job.</summary>
    public long Number { get; init; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>What, as its timeline says it.</summary>
    public string Words { get; init; } = "";
}

/// <summary>What the last weeks were spent with, over all jobs; practice units and deleted jobs are left aside.</summary>
public sealed class LookBackStore(ShopDatabase database)
{
    private const string Counts = "j.deleted_at IS NULL AND j.practice_seed IS NULL";

    /// <summary>Hands at work since a moment.</summary>
    public IReadOnlyList<MinutesAt> Active(DateTimeOffset from) =>
        database.Read(connection =>
            connection
                .Query<MinutesAt>(
                    $"""
                    SELECT r.at, r.minutes FROM bench_records r JOIN jobs j ON j.id = r.job_id
                    WHERE {Counts} AND r.withdrawn_at IS NULL AND r.minutes > 0 AND r.at >= @from
                    """,
                    new { from }
                )
                .AsList()
        );

    /// <summary>Waits by the timers that ended since a moment.</summary>
    /// <param name="from">Begin, UTC.</param>
    /// <param name="now">Now, UTC.</param>
    public IReadOnlyList<MinutesAt> Passive(DateTimeOffset from, DateTimeOffset now) =>
        database.Read(connection =>
            connection
                .Query<MinutesAt>(
                    """
                    SELECT ends_at AS at, seconds / 60.0 AS minutes FROM timers
                    WHERE paused_seconds IS NULL AND ends_at >= @from AND ends_at <= @now AND (stopped_at IS NULL OR stopped_at >= ends_at)
                    """,
                    new { from, now }
                )
                .AsList()
        );

    /// <summary>Of the newest jobs, how many had parts put in, and how many waited for one.</summary>
    /// <param name="newest">How many jobs are looked at.</param>
    /// <param name="waits">How the timeline begins to say that a job waits for a part.</param>
    public (int WithParts, int Waited) PartWaits(int newest, string waits) =>
        database.Read(connection =>
            connection.QuerySingle<(int, int)>(
                $"""
                WITH j AS (SELECT j.id FROM jobs j WHERE {Counts} ORDER BY j.id DESC LIMIT @newest)
                SELECT count(*) FILTER (WHERE EXISTS
                         (SELECT 1 FROM bench_records r WHERE r.job_id = j.id AND r.cost IS NOT NULL AND r.withdrawn_at IS NULL)),
                       count(*) FILTER (WHERE EXISTS
                         (SELECT 1 FROM timeline t WHERE t.job_id = j.id AND t.kind = 'life' AND t.words LIKE @waits || '%'))
                FROM j
                """,
                new { newest, waits }
            )
        );

    /// <summary>Steps of taking apart and putting back, and repairs, since a moment, by job and order: the step, <c>back STEP</c>, or blank
    /// for a repair.</summary>
    public IReadOnlyList<HappenedAt> Steps(DateTimeOffset from) =>
        database.Read(connection =>
            connection
                .Query<HappenedAt>(
                    $"""
                    SELECT j.number, r.at, CASE r.kind WHEN 'repair' THEN ''
                      ELSE iif(json_extract(r.payload, '$.back'), 'back ', '') || coalesce(json_extract(r.payload, '$.stepId'), '') END AS words
                    FROM bench_records r JOIN jobs j ON j.id = r.job_id
                    WHERE {Counts} AND r.withdrawn_at IS NULL AND r.kind IN ('step', 'repair') AND json_valid(r.payload) AND r.at >= @from
                    ORDER BY j.number, r.seq, r.id
                    """,
                    new { from }
                )
                .AsList()
        );

    /// <summary>Moves of jobs onto shelves, back and out, since a moment, by job and time.</summary>
    public IReadOnlyList<HappenedAt> Moves(DateTimeOffset from) =>
        database.Read(connection =>
            connection
                .Query<HappenedAt>(
                    $"""
                    SELECT j.number, t.at, t.words FROM timeline t JOIN jobs j ON j.id = t.job_id
                    WHERE {Counts} AND t.kind = 'life' AND t.at >= @from ORDER BY j.number, t.id
                    """,
                    new { from }
                )
                .AsList()
        );
}
