using Dapper;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>
/// Rows that follow from others, kept as an index is: what each job teaches, and the words it is found by. Triggers name the jobs
/// that changed; before a transaction ends, and only then, what differs is drawn anew.
/// </summary>
internal static class DerivedRows
{
    /// <summary>Brings them up to date.</summary>
    public static void Settle(SqliteConnection connection, SqliteTransaction transaction)
    {
        if (connection.ExecuteScalar<long>("SELECT EXISTS (SELECT 1 FROM jobs_due)", transaction: transaction) == 0)
            return;
        connection.Execute(
            """
            DELETE FROM lessons WHERE job_id IN (SELECT job_id FROM jobs_due) AND NOT EXISTS (SELECT 1 FROM teaching t
              WHERE t.job_id = lessons.job_id AND t.profile_id = lessons.profile_id AND t.profile_version = lessons.profile_version
              AND t.revision = lessons.revision AND t.part_id = lessons.part_id AND t.mode_id = lessons.mode_id);
            INSERT INTO lessons (profile_id, part_id, mode_id, job_id, profile_version, revision)
              SELECT DISTINCT t.profile_id, t.part_id, t.mode_id, t.job_id, t.profile_version, t.revision
              FROM jobs_due d CROSS JOIN teaching t ON t.job_id = d.job_id
              WHERE NOT EXISTS (SELECT 1 FROM lessons l WHERE l.job_id = t.job_id AND l.profile_id = t.profile_id
                AND l.part_id = t.part_id AND l.mode_id = t.mode_id);
            INSERT INTO job_texts (job_id, text)
              SELECT w.job_id, w.text FROM jobs_due d CROSS JOIN job_words w ON w.job_id = d.job_id
              WHERE NOT EXISTS (SELECT 1 FROM job_texts t WHERE t.job_id = d.job_id);
            UPDATE job_texts SET text = (SELECT w.text FROM job_words w WHERE w.job_id = job_texts.job_id)
              WHERE job_id IN (SELECT job_id FROM jobs_due)
              AND text <> (SELECT w.text FROM job_words w WHERE w.job_id = job_texts.job_id);
            DELETE FROM jobs_due;
            """,
            transaction: transaction
        );
    }
}
