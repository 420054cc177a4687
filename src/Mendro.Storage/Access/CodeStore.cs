using Dapper;

namespace Mendro.Storage;

/// <summary>A one-time code as it is kept.</summary>
public sealed record KeptCode
{
    /// <summary>Account it was given by or for.</summary>
    public long AccountId { get; init; }

    /// <summary>Job it leads to, or null.</summary>
    public long? JobNumber { get; init; }
}

/// <summary>The one-time codes, by their marks.</summary>
public sealed class CodeStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Lets a phone look at a job.</summary>
    public const string Join = "join";

    /// <summary>Sets a new password.</summary>
    public const string Recover = "recover";

    private static readonly TimeSpan Kept = TimeSpan.FromDays(7);

    /// <summary>Adds a code; those before it for the same end do not hold any more.</summary>
    public void Add(string mark, string purpose, long account, long? job, TimeSpan length) =>
        database.Write(
            (connection, transaction) =>
            {
                var now = time.GetUtcNow();
                connection.Execute(
                    """
                    DELETE FROM one_time_codes WHERE ends_at < @before
                      OR (used_at IS NULL AND purpose = @purpose AND account_id = @account AND job_number IS @job)
                    """,
                    new
                    {
                        before = now - Kept,
                        purpose,
                        account,
                        job,
                    },
                    transaction
                );
                return connection.Execute(
                    """
                    INSERT INTO one_time_codes (mark, purpose, account_id, job_number, made_at, ends_at)
                    VALUES (@mark, @purpose, @account, @job, @now, @ends)
                    """,
                    new
                    {
                        mark,
                        purpose,
                        account,
                        job,
                        now,
                        ends = now + length,
                    },
                    transaction
                );
            }
        );

    /// <summary>The code while it holds, without using it; null when it does not.</summary>
    public KeptCode? Look(string mark, string purpose) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<KeptCode>(
                "SELECT account_id, job_number FROM one_time_codes WHERE mark = @mark AND purpose = @purpose AND used_at IS NULL AND ends_at > @now",
                new { mark, purpose, now = time.GetUtcNow() }
            )
        );

    /// <summary>Uses a code: once.</summary>
    /// <returns>What it was for, or null when there is none, or it was used, or its time is over.</returns>
    public KeptCode? Use(string mark, string purpose) =>
        database.Write(
            (connection, transaction) =>
                connection.QueryFirstOrDefault<KeptCode>(
                    """
                    UPDATE one_time_codes SET used_at = @now WHERE mark = @mark AND purpose = @purpose AND used_at IS NULL AND ends_at > @now
                    RETURNING account_id, job_number
                    """,
                    new { mark, purpose, now = time.GetUtcNow() },
                    transaction
                )
        );
}
