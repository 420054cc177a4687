using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>A soak under way.</summary>
public sealed record Soak
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job.</summary>
    public JobId JobId { get; init; }

    /// <summary>Function that is watched.</summary>
    public string Function { get; init; } = "";

    /// <summary>Minutes planned.</summary>
    public double Minutes { get; init; }

    /// <summary>When it began, UTC.</summary>
    public DateTimeOffset StartedAt { get; init; }

    /// <summary>Its timer, or null.</summary>
    public long? TimerId { get; init; }

    /// <summary>What happened so far, as JSON.</summary>
    public string Noted { get; init; } = "[]";

    /// <summary>What happened so far.</summary>
    public IReadOnlyList<Interruption> Interruptions => Stored.Json<List<Interruption>>(Noted, []);
}

/// <summary>Keeps the soaks; those ended stay as history.</summary>
public sealed class SoakStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Soaks of a job that run.</summary>
    public IReadOnlyList<Soak> Running(JobId jobId) =>
        database.Read(connection =>
            connection.Query<Soak>("SELECT * FROM soaks WHERE job_id = @jobId AND ended_at IS NULL ORDER BY id", new { jobId }).AsList()
        );

    /// <summary>Begins one.</summary>
    public void Begin(Soak soak) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO soaks (job_id, function, minutes, started_at, timer_id) VALUES (@JobId, @Function, @Minutes, @StartedAt, @TimerId)",
                    new
                    {
                        soak.JobId,
                        soak.Function,
                        soak.Minutes,
                        soak.StartedAt,
                        soak.TimerId,
                    },
                    transaction
                )
        );

    /// <summary>Keeps what happened.</summary>
    public void Note(long id, IReadOnlyList<Interruption> noted) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE soaks SET noted = @json WHERE id = @id",
                    new { id, json = JsonSerializer.Serialize(noted) },
                    transaction
                )
        );

    /// <summary>Ends one.</summary>
    public void End(long id) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("UPDATE soaks SET ended_at = @at WHERE id = @id", new { id, at = time.GetUtcNow() }, transaction)
        );
}
