using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;

namespace Mendro.Storage;

/// <summary>A unit whose chance to be cured has crossed the line because a cause was confirmed elsewhere.</summary>
public sealed record SecondLookEntry
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job worth another look.</summary>
    public JobId JobId { get; init; }

    /// <summary>Number of the job in which the cause was confirmed.</summary>
    public long FoundIn { get; init; }

    /// <summary>The cause in words.</summary>
    public string Words { get; init; } = "";

    /// <summary>The cause without the words of its record: part and failure.</summary>
    public string Cause => Words.StartsWith(SeenPrefix, StringComparison.Ordinal) ? Words[SeenPrefix.Length..] : Words;

    private const string SeenPrefix = "Cause seen: ";

    /// <summary>Chance before, 0 to 1.</summary>
    public double Before { get; init; }

    /// <summary>Chance now, 0 to 1.</summary>
    public double After { get; init; }

    /// <summary>Minutes of work the chance is for.</summary>
    public double Minutes { get; init; }

    /// <summary>Check that was not made yet and would show the cause; blank when the chance alone calls for the look.</summary>
    public string CheckId { get; init; } = "";
}

/// <summary>Why a unit is worth another look.</summary>
/// <param name="Before">Chance to be cured within the minutes before the cause was found elsewhere, 0 to 1.</param>
/// <param name="After">Chance since, 0 to 1.</param>
/// <param name="Minutes">Minutes of work.</param>
/// <param name="CheckId">Check that would show the same cause and was not made; null when the chance alone calls for it.</param>
public sealed record LookReason(double Before, double After, double Minutes, ProbeId? CheckId = null);

/// <summary>Keeps the second looks until they are taken or dismissed.</summary>
public sealed class SecondLookStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Open entries, the newest of each job; none for jobs that are closed, whose cause was withdrawn or
    /// excluded, or whose check was made since.</summary>
    public IReadOnlyList<SecondLookEntry> Open() =>
        database.Read(connection =>
            connection
                .Query<SecondLookEntry>(
                    """
                    SELECT s.id, s.job_id, c.number AS found_in, r.words, s.before, s.after, s.minutes, s.check_id
                    FROM jobs j CROSS JOIN second_looks s ON s.job_id = j.id
                      CROSS JOIN bench_records r ON r.id = s.cause_record_id CROSS JOIN jobs c ON c.id = r.job_id
                    WHERE s.dismissed_at IS NULL AND j.closed_at IS NULL AND j.deleted_at IS NULL AND j.practice_seed IS NULL
                      AND r.withdrawn_at IS NULL AND c.deleted_at IS NULL
                      AND NOT EXISTS (SELECT 1 FROM excluded_lessons e WHERE e.record_id = r.id)
                      AND NOT EXISTS (SELECT 1 FROM bench_records m WHERE m.job_id = s.job_id AND m.kind = 'probe' AND m.subject = s.check_id
                        AND m.id > s.cause_record_id AND m.withdrawn_at IS NULL)
                      AND NOT EXISTS (SELECT 1 FROM second_looks n WHERE n.job_id = s.job_id AND n.dismissed_at IS NULL AND n.id > s.id)
                    ORDER BY s.after DESC
                    """
                )
                .AsList()
        );

    /// <summary>Notes that a cause was confirmed and is still to be weighed for the other units in the shop.</summary>
    public void Await(long causeRecordId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("INSERT INTO looks_due (record_id) VALUES (@causeRecordId)", new { causeRecordId }, transaction)
        );

    /// <summary>Causes still to be weighed, oldest first.</summary>
    public IReadOnlyList<long> Awaited() =>
        database.Read(connection => connection.Query<long>("SELECT record_id FROM looks_due ORDER BY record_id").AsList());

    /// <summary>A cause was weighed.</summary>
    public void Weighed(long causeRecordId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("DELETE FROM looks_due WHERE record_id = @causeRecordId", new { causeRecordId }, transaction)
        );

    /// <summary>Notes that a job is worth another look.</summary>
    public void Add(JobId jobId, long causeRecordId, LookReason why) =>
        database.Write(
            (connection, transaction) =>
            {
                var at = time.GetUtcNow();
                connection.Execute(
                    """
                    INSERT INTO second_looks (job_id, cause_record_id, before, after, minutes, check_id, at)
                    VALUES (@jobId, @causeRecordId, @Before, @After, @Minutes, @checkId, @at)
                    """,
                    new
                    {
                        jobId,
                        causeRecordId,
                        why.Before,
                        why.After,
                        why.Minutes,
                        checkId = why.CheckId?.Value ?? "",
                        at,
                    },
                    transaction
                );
                Timeline.Add(
                    connection,
                    transaction,
                    jobId,
                    at,
                    "second-look",
                    string.Create(
                        System.Globalization.CultureInfo.InvariantCulture,
                        $"Worth a second look: chance to cure within {why.Minutes:0} min {why.Before * 100:0} → {why.After * 100:0} %"
                    )
                );
                return 0;
            }
        );

    /// <summary>Takes a job off the list: it was looked at, or is not worth it after all.</summary>
    public void Dismiss(JobId jobId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE second_looks SET dismissed_at = @at WHERE job_id = @jobId AND dismissed_at IS NULL",
                    new { jobId, at = time.GetUtcNow() },
                    transaction
                )
        );

    /// <summary>Puts a job that was dismissed last back on the list.</summary>
    public void BringBack(JobId jobId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE second_looks SET dismissed_at = NULL WHERE id = (SELECT max(id) FROM second_looks WHERE job_id = @jobId)",
                    new { jobId },
                    transaction
                )
        );
}
