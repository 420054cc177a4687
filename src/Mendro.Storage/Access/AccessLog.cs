using Dapper;

namespace Mendro.Storage;

/// <summary>One line of the access log.</summary>
/// <param name="At">When, UTC.</param>
/// <param name="Who">Who.</param>
/// <param name="Words">What.</param>
/// <param name="Address">From where.</param>
public sealed record AccessLine(DateTimeOffset At, string Who, string Words, string Address)
{
    /// <summary>For the reader of rows.</summary>
    public AccessLine()
        : this(default, "", "", "") { }
}

/// <summary>Who came in, who was kept out, and what the owners changed: only ever added to.</summary>
public sealed class AccessLog(ShopDatabase database, TimeProvider time)
{
    /// <summary>The newest lines.</summary>
    public IReadOnlyList<AccessLine> Newest(int most) =>
        database.Read(connection =>
            connection.Query<AccessLine>("SELECT at, who, words, address FROM access_log ORDER BY id DESC LIMIT @most", new { most }).AsList()
        );

    /// <summary>Adds a line.</summary>
    public void Add(string who, string words, string address = "") =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO access_log (at, who, words, address) VALUES (@at, @who, @words, @address)",
                    new
                    {
                        at = time.GetUtcNow(),
                        who,
                        words,
                        address,
                    },
                    transaction
                )
        );
}
