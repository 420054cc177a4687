using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>What a shelved job waits for, besides its reason in words.</summary>
/// <param name="JobId">Job.</param>
/// <param name="Number">Number on its tag.</param>
/// <param name="Part">Part that is on its way; blank for none.</param>
/// <param name="Until">Day on which it comes back whatever happens, or null.</param>
public sealed record ShelfWait(JobId JobId, long Number, string Part, DateOnly? Until);

/// <summary>Keeps what shelved jobs wait for.</summary>
public sealed class ShelfStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>What one waits for, or null.</summary>
    public ShelfWait? Find(JobId jobId) => All("w.job_id = @id", jobId.Value).FirstOrDefault();

    /// <summary>All that wait for something, by their day.</summary>
    public IReadOnlyList<ShelfWait> All() => All("1 = 1", 0);

    /// <summary>Those whose day has come.</summary>
    public IReadOnlyList<ShelfWait> Due(DateOnly today) => All().Where(w => w.Until <= today).ToList();

    /// <summary>Notes what a job waits for.</summary>
    public void Save(JobId jobId, string part, DateOnly? until) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT INTO shelf_waits (job_id, part, until, since) VALUES (@jobId, @part, @day, @at)
                    ON CONFLICT (job_id) DO UPDATE SET part = excluded.part, until = excluded.until, since = excluded.since
                    """,
                    new
                    {
                        jobId,
                        part,
                        day = until is { } day ? DayText.Write(day) : null,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>It waits no more.</summary>
    public void Forget(JobId jobId) =>
        database.Write(
            (connection, transaction) => connection.Execute("DELETE FROM shelf_waits WHERE job_id = @jobId", new { jobId }, transaction)
        );

    private List<ShelfWait> All(string where, long id) =>
        database.Read(connection =>
            connection
                .Query<(long Job, long Number, string Part, string? Until)>(
                    $"SELECT w.job_id, j.number, w.part, w.until FROM shelf_waits w JOIN jobs j ON j.id = w.job_id WHERE {where} "
                        + "AND j.closed_at IS NULL AND j.deleted_at IS NULL AND j.shelf <> 'None' ORDER BY w.until IS NULL, w.until, j.number",
                    new { id }
                )
                .Select(w => new ShelfWait(
                    new JobId(w.Job),
                    w.Number,
                    w.Part,
                    w.Until is { } day ? DayText.Read(day) : null
                ))
                .ToList()
        );
}
