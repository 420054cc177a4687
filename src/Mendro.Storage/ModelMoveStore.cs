using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.Storage;

/// <summary>Jobs and good readings that went from one model to another.</summary>
public sealed record ModelMove
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>merge, split, own, or move.</summary>
    public string What { get; init; } = "";

    /// <summary>Model they came from.</summary>
    public string FromId { get; init; } = "";

    /// <summary>Model they went to.</summary>
    public string ToId { get; init; } = "";

    /// <summary>Newest version of the one they came from, before.</summary>
    public long FromVersion { get; init; }

    /// <summary>Newest version of the one they went to, before; 0 when it was made for them.</summary>
    public long ToVersion { get; init; }

    /// <summary>What was done, in words.</summary>
    public string Words { get; init; } = "";

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }
}

/// <summary>Moves jobs with all that hangs on them from one model to another, and back.</summary>
public sealed class ModelMoveStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Moves of a model that hold, the newest first.</summary>
    public IReadOnlyList<ModelMove> Of(string id) =>
        database.Read(connection =>
            connection
                .Query<ModelMove>(
                    "SELECT * FROM model_moves WHERE (from_id = @id OR to_id = @id) AND withdrawn_at IS NULL ORDER BY id DESC",
                    new { id }
                )
                .AsList()
        );

    /// <summary>A move that holds, or null.</summary>
    public ModelMove? Find(long id) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<ModelMove>("SELECT * FROM model_moves WHERE id = @id AND withdrawn_at IS NULL", new { id })
        );

    /// <summary>Jobs that went along.</summary>
    public IReadOnlyList<JobId> JobsOf(long moveId) =>
        database.Read(connection => connection.Query<JobId>("SELECT job_id FROM moved_jobs WHERE move_id = @moveId", new { moveId }).AsList());

    /// <summary>Which model a retired one is now; the id itself when it is in use, null when it was taken back.</summary>
    public string? NowOf(string id) =>
        database.Read(connection =>
        {
            for (var hops = 0; hops < 20; hops++)
            {
                var row = connection.QueryFirstOrDefault<(string Id, string? Now)?>(
                    "SELECT id, now_id FROM retired_models WHERE id = @id",
                    new { id }
                );
                if (row is not { } retired)
                    return id;
                if (retired.Now is not { } now)
                    return null;
                id = now;
            }

            return id;
        });

    /// <summary>Moves jobs and good readings of a model.</summary>
    /// <param name="move">The move; its id is given here.</param>
    /// <param name="to">Version they go to.</param>
    /// <param name="name">Name of the model as on a tag.</param>
    /// <param name="job">Only this job, without readings of other jobs; null for all.</param>
    /// <param name="revision">Only those of this revision; null for all.</param>
    /// <returns>Jobs moved.</returns>
    public int Move(ModelMove move, long to, string name, JobId? job = null, string? revision = null) =>
        database.Write(
            (connection, transaction) =>
            {
                var at = time.GetUtcNow();
                var id = connection.ExecuteScalar<long>(
                    """
                    INSERT INTO model_moves (what, from_id, to_id, from_version, to_version, words, at)
                    VALUES (@What, @FromId, @ToId, @FromVersion, @ToVersion, @Words, @at) RETURNING id
                    """,
                    new
                    {
                        move.What,
                        move.FromId,
                        move.ToId,
                        move.FromVersion,
                        move.ToVersion,
                        move.Words,
                        at,
                    },
                    transaction
                );
                var which = new
                {
                    id,
                    move.FromId,
                    move.ToId,
                    to,
                    name,
                    job,
                    revision,
                };
                connection.Execute(
                    """
                    INSERT INTO moved_jobs (move_id, job_id, profile_version, model_name)
                      SELECT @id, j.id, j.profile_version, j.model_name FROM jobs j WHERE j.profile_id = @FromId
                        AND (@job IS NULL OR j.id = @job) AND (@revision IS NULL OR j.revision = @revision);
                    INSERT INTO moved_readings (move_id, reading_id)
                      SELECT @id, g.id FROM good_readings g WHERE g.profile_id = @FromId
                        AND (@job IS NULL OR g.job_id = @job) AND (@revision IS NULL OR g.revision = @revision);
                    UPDATE good_readings SET profile_id = @ToId WHERE id IN (SELECT reading_id FROM moved_readings WHERE move_id = @id);
                    """,
                    which,
                    transaction
                );
                var moved = connection.Query<JobId>("SELECT job_id FROM moved_jobs WHERE move_id = @id", new { id }, transaction).ToList();
                connection.Execute(
                    """
                    UPDATE jobs SET profile_id = @ToId, profile_version = @to, model_name = @name
                    WHERE id IN (SELECT job_id FROM moved_jobs WHERE move_id = @id)
                    """,
                    which,
                    transaction
                );
                foreach (var one in moved)
                    Timeline.Add(connection, transaction, one, at, "model", $"Now under {name}: {move.Words}");
                if (move.What == "merge")
                    Retire(connection, transaction, move.FromId, move.ToId, at);
                return moved.Count;
            }
        );

    /// <summary>Takes a move back: jobs and readings that are still where it put them go back to what they were.</summary>
    /// <returns>Jobs that went back.</returns>
    public int TakeBack(ModelMove move) =>
        database.Write(
            (connection, transaction) =>
            {
                var at = time.GetUtcNow();
                var back = connection
                    .Query<JobId>(
                        """
                        SELECT m.job_id FROM moved_jobs m JOIN jobs j ON j.id = m.job_id
                        WHERE m.move_id = @Id AND j.profile_id = @ToId
                        """,
                        move,
                        transaction
                    )
                    .ToList();
                connection.Execute(
                    """
                    UPDATE jobs SET profile_id = @FromId,
                      profile_version = (SELECT m.profile_version FROM moved_jobs m WHERE m.move_id = @Id AND m.job_id = jobs.id),
                      model_name = (SELECT m.model_name FROM moved_jobs m WHERE m.move_id = @Id AND m.job_id = jobs.id)
                    WHERE profile_id = @ToId AND id IN (SELECT job_id FROM moved_jobs WHERE move_id = @Id);
                    UPDATE good_readings SET profile_id = @FromId
                    WHERE profile_id = @ToId AND id IN (SELECT reading_id FROM moved_readings WHERE move_id = @Id);
                    DELETE FROM retired_models WHERE id = @FromId;
                    UPDATE model_moves SET withdrawn_at = @at WHERE id = @Id;
                    """,
                    new
                    {
                        move.Id,
                        move.FromId,
                        move.ToId,
                        at,
                    },
                    transaction
                );
                foreach (var job in back)
                    Timeline.Add(connection, transaction, job, at, "model", $"Taken back: {move.Words}");
                // A model that was made for them and has no job left is offered no more.
                if (
                    move.ToVersion == 0
                    && !connection.ExecuteScalar<bool>(
                        "SELECT EXISTS (SELECT 1 FROM jobs WHERE profile_id = @ToId)",
                        new { move.ToId },
                        transaction
                    )
                )
                    Retire(connection, transaction, move.ToId, null, at);
                return back.Count;
            }
        );

    private static void Retire(
        Microsoft.Data.Sqlite.SqliteConnection connection,
        Microsoft.Data.Sqlite.SqliteTransaction transaction,
        string id,
        string? now,
        DateTimeOffset at
    ) =>
        connection.Execute(
            "INSERT INTO retired_models (id, now_id, at) VALUES (@id, @now, @at) ON CONFLICT (id) DO UPDATE SET now_id = @now, at = @at",
            new
            {
                id,
                now,
                at,
            },
            transaction
        );
}
