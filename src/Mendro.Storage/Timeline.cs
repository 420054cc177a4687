using Dapper;
using Mendro.Core.Jobs;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>The timeline of a job: written in the same transaction as what it tells of, never changed.</summary>
public sealed class Timeline(ShopDatabase database)
{
    /// <summary>Entries of a job, newest first.</summary>
    public IReadOnlyList<TimelineEntry> Of(JobId jobId) =>
        database.Read(connection =>
            connection
                .Query<TimelineEntry>("SELECT at, kind, words, done_by FROM timeline WHERE job_id = @jobId ORDER BY id DESC", new { jobId })
                .AsList()
        );

    internal static void Add(
        SqliteConnection connection,
        SqliteTransaction transaction,
        JobId jobId,
        DateTimeOffset at,
        string kind,
        string words
    ) =>
        connection.Execute(
            "INSERT INTO timeline (job_id, at, kind, words, done_by) VALUES (@jobId, @at, @kind, @words, @by)",
            new
            {
                jobId,
                at,
                kind,
                words,
                by = Acting.Now,
            },
            transaction
        );
}
