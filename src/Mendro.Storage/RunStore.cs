using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.Storage;

/// <summary>A method under way on a unit.</summary>
public sealed record BenchRun
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job.</summary>
    public JobId JobId { get; init; }

    /// <summary>Part treated.</summary>
    public PartId PartId { get; init; }

    /// <summary>Method.</summary>
    public MethodId MethodId { get; init; }

    /// <summary>Index of the step that is on.</summary>
    public int Step { get; init; }

    /// <summary>Since when its stopwatch runs, UTC; null while it is paused.</summary>
    public DateTimeOffset? Since { get; init; }

    /// <summary>Seconds spent on each step before that, by index.</summary>
    public IReadOnlyList<double> Seconds { get; init; } = [];

    /// <summary>Timer of the wait that is on, or null.</summary>
    public long? TimerId { get; init; }

    /// <summary>Touches of a heat-sensitive joint, spot by spot, in words; empty for none.</summary>
    public string Touches { get; init; } = "";

    /// <summary>When it was begun, UTC.</summary>
    public DateTimeOffset StartedAt { get; init; }

    /// <summary>Seconds spent on a step up to a moment.</summary>
    public double SecondsOn(int step, DateTimeOffset now) =>
        (step < Seconds.Count ? Seconds[step] : 0) + (step == Step && Since is { } since ? Math.Max(0, (now - since).TotalSeconds) : 0);
}

/// <summary>Keeps methods under way, so that neither a closed page nor a restart loses where one was.</summary>
public sealed class RunStore(ShopDatabase database)
{
    /// <summary>The run of a job that is not ended, or null.</summary>
    public BenchRun? Open(JobId jobId) =>
        database
            .Read(connection =>
                connection.QueryFirstOrDefault<Row>(
                    "SELECT * FROM runs WHERE job_id = @jobId AND ended_at IS NULL ORDER BY id DESC LIMIT 1",
                    new { jobId }
                )
            )
            ?.ToRun();

    /// <summary>Begins one; its id comes back.</summary>
    public long Add(BenchRun run) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    """
                    INSERT INTO runs (job_id, part_id, method_id, step, since, seconds, timer_id, touches, started_at)
                    VALUES (@JobId, @PartId, @MethodId, @Step, @Since, @Seconds, @TimerId, @Touches, @StartedAt) RETURNING id
                    """,
                    Row.Of(run),
                    transaction
                )
        );

    /// <summary>Keeps where it is.</summary>
    public void Save(BenchRun run) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    UPDATE runs SET step = @Step, since = @Since, seconds = @Seconds, timer_id = @TimerId, touches = @Touches
                    WHERE id = @Id
                    """,
                    Row.Of(run),
                    transaction
                )
        );

    /// <summary>Ends one.</summary>
    /// <param name="id">Row id.</param>
    /// <param name="at">When, UTC.</param>
    /// <param name="recordId">Repair that was filed; null when it was given up.</param>
    public void End(long id, DateTimeOffset at, long? recordId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE runs SET ended_at = @at, since = NULL, record_id = @recordId WHERE id = @id",
                    new
                    {
                        id,
                        at,
                        recordId,
                    },
                    transaction
                )
        );

    private sealed record Row
    {
        public long Id { get; init; }
        public JobId JobId { get; init; }
        public string PartId { get; init; } = "";
        public string MethodId { get; init; } = "";
        public int Step { get; init; }
        public DateTimeOffset? Since { get; init; }
        public string Seconds { get; init; } = "[]";
        public long? TimerId { get; init; }
        public string Touches { get; init; } = "";
        public DateTimeOffset StartedAt { get; init; }

        public static Row Of(BenchRun run) =>
            new()
            {
                Id = run.Id,
                JobId = run.JobId,
                PartId = run.PartId,
                MethodId = run.MethodId,
                Step = run.Step,
                Since = run.Since,
                Seconds = JsonSerializer.Serialize(run.Seconds),
                TimerId = run.TimerId,
                Touches = run.Touches,
                StartedAt = run.StartedAt,
            };

        public BenchRun ToRun() =>
            new()
            {
                Id = Id,
                JobId = JobId,
                PartId = PartId,
                MethodId = MethodId,
                Step = Step,
                Since = Since,
                Seconds = Stored.Json<List<double>>(Seconds, []),
                TimerId = TimerId,
                Touches = Touches,
                StartedAt = StartedAt,
            };
    }
}
