using Dapper;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>A timer of the bench.</summary>
public sealed record BenchTimer
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job it belongs to, or null.</summary>
    public JobId? JobId { get; init; }

    /// <summary>Number on that job's tag, or null.</summary>
    public long? Number { get; init; }

    /// <summary>What it waits for.</summary>
    public string Label { get; init; } = "";

    /// <summary>Whole length, seconds.</summary>
    public double Seconds { get; init; }

    /// <summary>When it is due, UTC; of a paused one without meaning.</summary>
    public DateTimeOffset EndsAt { get; init; }

    /// <summary>Seconds left while it is paused, else null.</summary>
    public double? PausedSeconds { get; init; }

    /// <summary>Seconds left at a moment; 0 or less when it is due.</summary>
    public double Left(DateTimeOffset now) => PausedSeconds ?? (EndsAt - now).TotalSeconds;
}

/// <summary>Keeps timers; those stopped stay as history.</summary>
public sealed class TimerStore(ShopDatabase database)
{
    private const string Select = "SELECT t.*, j.number FROM timers t LEFT JOIN jobs j ON j.id = t.job_id";

    /// <summary>Timers that run, wait or are due, the next one first; paused ones last.</summary>
    public IReadOnlyList<BenchTimer> Running() =>
        database.Read(connection =>
            connection
                .Query<BenchTimer>($"{Select} WHERE t.stopped_at IS NULL ORDER BY t.paused_seconds IS NOT NULL, t.ends_at, t.id")
                .AsList()
        );

    /// <summary>One that was not stopped, or null.</summary>
    public BenchTimer? Find(long id) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<BenchTimer>($"{Select} WHERE t.id = @id AND t.stopped_at IS NULL", new { id })
        );

    /// <summary>Starts one; its id comes back.</summary>
    public long Add(BenchTimer timer) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    "INSERT INTO timers (job_id, label, seconds, ends_at) VALUES (@JobId, @Label, @Seconds, @EndsAt) RETURNING id",
                    new
                    {
                        timer.JobId,
                        timer.Label,
                        timer.Seconds,
                        timer.EndsAt,
                    },
                    transaction
                )
        );

    /// <summary>Keeps its end, or what is left while it is paused.</summary>
    public void Save(BenchTimer timer) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE timers SET ends_at = @EndsAt, paused_seconds = @PausedSeconds WHERE id = @Id",
                    new
                    {
                        timer.EndsAt,
                        timer.PausedSeconds,
                        timer.Id,
                    },
                    transaction
                )
        );

    /// <summary>Stops one.</summary>
    public void Stop(long id, DateTimeOffset at) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("UPDATE timers SET stopped_at = @at WHERE id = @id AND stopped_at IS NULL", new { id, at }, transaction)
        );
}
