using Dapper;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>One plan a job as JSON, in a table of its own with job_id, json and changed_at.</summary>
internal sealed class JobPlans(ShopDatabase database, TimeProvider time, string table)
{
    /// <summary>The plan of a job, or null.</summary>
    public string? Find(JobId jobId) =>
        database.Read(connection => connection.ExecuteScalar<string?>($"SELECT json FROM {table} WHERE job_id = @jobId", new { jobId }));

    /// <summary>Keeps the plan of a job.</summary>
    public void Save(JobId jobId, string json) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    $"""
                    INSERT INTO {table} (job_id, json, changed_at) VALUES (@jobId, @json, @at)
                    ON CONFLICT (job_id) DO UPDATE SET json = excluded.json, changed_at = excluded.changed_at
                    """,
                    new
                    {
                        jobId,
                        json,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );
}
