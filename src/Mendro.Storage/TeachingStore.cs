using Dapper;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>Something taught to a model while working, or suggested for it.</summary>
public sealed record TeachingEntry
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job in which it was said.</summary>
    public JobId JobId { get; init; }

    /// <summary>Model.</summary>
    public string ProfileId { get; init; } = "";

    /// <summary>Version of the model before.</summary>
    public long VersionBefore { get; init; }

    /// <summary>Version that it made; null for a suggestion, whose words fit nothing.</summary>
    public long? VersionAfter { get; init; }

    /// <summary>The line as typed.</summary>
    public string Line { get; init; } = "";

    /// <summary>What was taught, in words.</summary>
    public string Words { get; init; } = "";

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>When it was taken back, UTC; null while it holds.</summary>
    public DateTimeOffset? WithdrawnAt { get; init; }
}

/// <summary>Keeps what was taught, so that it can be told and taken back.</summary>
public sealed class TeachingStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>What was taught to a model and holds, the newest first.</summary>
    public IReadOnlyList<TeachingEntry> OfModel(string profileId) =>
        database.Read(connection =>
            connection
                .Query<TeachingEntry>(
                    """
                    SELECT * FROM teachings WHERE (profile_id = @profileId OR job_id IN (SELECT id FROM jobs WHERE profile_id = @profileId))
                      AND withdrawn_at IS NULL ORDER BY id DESC
                    """,
                    new { profileId }
                )
                .AsList()
        );

    /// <summary>What was taught in a job and holds, the newest first.</summary>
    public IReadOnlyList<TeachingEntry> OfJob(JobId jobId) =>
        database.Read(connection =>
            connection
                .Query<TeachingEntry>(
                    "SELECT * FROM teachings WHERE job_id = @jobId AND withdrawn_at IS NULL ORDER BY id DESC",
                    new { jobId }
                )
                .AsList()
        );

    /// <summary>Keeps a teaching; its id comes back.</summary>
    public long Add(TeachingEntry entry) =>
        database.Write(
            (connection, transaction) =>
            {
                var at = time.GetUtcNow();
                var id = connection.ExecuteScalar<long>(
                    """
                    INSERT INTO teachings (job_id, profile_id, version_before, version_after, line, words, at)
                    VALUES (@JobId, @ProfileId, @VersionBefore, @VersionAfter, @Line, @Words, @at) RETURNING id
                    """,
                    new
                    {
                        entry.JobId,
                        entry.ProfileId,
                        entry.VersionBefore,
                        entry.VersionAfter,
                        entry.Line,
                        entry.Words,
                        at,
                    },
                    transaction
                );
                var told = entry.VersionAfter is null ? "Suggested for the model" : "Taught the model";
                Timeline.Add(connection, transaction, entry.JobId, at, "taught", $"{told}: {entry.Words}");
                return id;
            }
        );

    /// <summary>Takes a teaching back.</summary>
    public void Withdraw(TeachingEntry entry) =>
        database.Write(
            (connection, transaction) =>
            {
                var at = time.GetUtcNow();
                connection.Execute("UPDATE teachings SET withdrawn_at = @at WHERE id = @Id", new { at, entry.Id }, transaction);
                Timeline.Add(connection, transaction, entry.JobId, at, "taught", $"Taken back: {entry.Words}");
                return 0;
            }
        );
}
