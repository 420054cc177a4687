using Dapper;
using Mendro.Core.Access;

namespace Mendro.Storage;

/// <summary>A session with whose it is.</summary>
public sealed record SignedIn
{
    /// <summary>Id of the session.</summary>
    public long Id { get; init; }

    /// <summary>Account.</summary>
    public long AccountId { get; init; }

    /// <summary>Name of the account.</summary>
    public string Name { get; init; } = "";

    /// <summary>Role of the account as it is now.</summary>
    public ShopRole Role { get; init; }

    /// <summary>True when the account has a second factor.</summary>
    public bool HasSecond { get; init; }

    /// <summary>The one job that a phone's session is for; null for a whole one.</summary>
    public long? JobNumber { get; init; }

    /// <summary>What the browser said it is.</summary>
    public string Browser { get; init; } = "";

    /// <summary>Where it came from.</summary>
    public string Address { get; init; } = "";

    /// <summary>Begun, UTC.</summary>
    public DateTimeOffset MadeAt { get; init; }

    /// <summary>Last seen, UTC.</summary>
    public DateTimeOffset SeenAt { get; init; }

    /// <summary>Ends whatever happens, UTC.</summary>
    public DateTimeOffset EndsAt { get; init; }
}

/// <summary>The sessions. Of the secret that a cookie carries only a mark is kept.</summary>
public sealed class SessionStore(ShopDatabase database, TimeProvider time)
{
    private const string Select = """
        SELECT s.id, s.account_id, a.name, a.role, a.second_secret IS NOT NULL AS has_second, s.job_number,
          s.browser, s.address, s.made_at, s.seen_at, s.ends_at
        FROM sessions s JOIN accounts a ON a.id = s.account_id WHERE s.ended_at IS NULL AND a.closed_at IS NULL AND s.ends_at > @now
        """;

    // Rows of sessions that ended are kept so long, to be asked about.
    private static readonly TimeSpan Kept = TimeSpan.FromDays(90);

    /// <summary>True when an account has signed in from an address before, whether it is still signed in or not.</summary>
    public bool WasAt(long account, string address) =>
        address.Length > 0
        && database.Read(connection =>
            connection.ExecuteScalar<bool>(
                "SELECT EXISTS (SELECT 1 FROM sessions WHERE account_id = @account AND address = @address AND job_number IS NULL)",
                new { account, address }
            )
        );

    /// <summary>Begins one.</summary>
    /// <param name="mark">Mark of the secret.</param>
    /// <param name="account">Account.</param>
    /// <param name="job">The one job of a phone, or null.</param>
    /// <param name="browser">What the browser said it is.</param>
    /// <param name="address">Where it came from.</param>
    /// <param name="length">How long it lasts at most.</param>
    public long Begin(string mark, long account, long? job, string browser, string address, TimeSpan length) =>
        database.Write(
            (connection, transaction) =>
            {
                var now = time.GetUtcNow();
                connection.Execute("DELETE FROM sessions WHERE ends_at < @before", new { before = now - Kept }, transaction);
                return connection.ExecuteScalar<long>(
                    """
                    INSERT INTO sessions (mark, account_id, job_number, browser, address, made_at, seen_at, ends_at)
                    VALUES (@mark, @account, @job, @browser, @address, @now, @now, @ends) RETURNING id
                    """,
                    new
                    {
                        mark,
                        account,
                        job,
                        browser,
                        address,
                        now,
                        ends = now + length,
                    },
                    transaction
                );
            }
        );

    /// <summary>The session of a mark while it holds, or null.</summary>
    public SignedIn? Find(string mark) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<SignedIn>($"{Select} AND s.mark = @mark", new { mark, now = time.GetUtcNow() })
        );

    /// <summary>Sessions of an account that hold, the newest first.</summary>
    public IReadOnlyList<SignedIn> Of(long account) =>
        database.Read(connection =>
            connection
                .Query<SignedIn>($"{Select} AND s.account_id = @account ORDER BY s.seen_at DESC", new { account, now = time.GetUtcNow() })
                .AsList()
        );

    /// <summary>Notes that it was seen.</summary>
    public void Seen(long id) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("UPDATE sessions SET seen_at = @now WHERE id = @id", new { id, now = time.GetUtcNow() }, transaction)
        );

    /// <summary>Ends sessions of an account.</summary>
    /// <param name="account">Account.</param>
    /// <param name="only">Only this one, or null for all.</param>
    /// <param name="but">All but this one, or null.</param>
    /// <returns>How many ended.</returns>
    public int End(long account, long? only = null, long? but = null) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    UPDATE sessions SET ended_at = @now WHERE account_id = @account AND ended_at IS NULL
                      AND (@only IS NULL OR id = @only) AND (@but IS NULL OR id <> @but)
                    """,
                    new
                    {
                        account,
                        only,
                        but,
                        now = time.GetUtcNow(),
                    },
                    transaction
                )
        );
}
