using Dapper;

namespace Mendro.Storage;

/// <summary>
/// What was done under which key. A form carries a key of its own; sent twice, by a double click or a retry, it is done once
/// and answered twice.
/// </summary>
public sealed class ActionStore(ShopDatabase database, TimeProvider time)
{
    private static readonly TimeSpan Kept = TimeSpan.FromDays(3);

    /// <summary>What an action came to, or null when nothing was done under the key; ask inside the transaction that does it.</summary>
    public string? Find(string key) =>
        database.Read(connection => connection.QueryFirstOrDefault<string>("SELECT result FROM actions WHERE key = @key", new { key }));

    /// <summary>Keeps what a key stands for, unless it stands for something already.</summary>
    /// <returns>What it stands for.</returns>
    public string Claim(string key, string what) =>
        database.Write(
            (connection, transaction) =>
            {
                connection.Execute(
                    "INSERT INTO actions (key, at, result) SELECT @key, @at, @what WHERE NOT EXISTS (SELECT 1 FROM actions WHERE key = @key)",
                    new
                    {
                        key,
                        at = time.GetUtcNow(),
                        what,
                    },
                    transaction
                );
                return connection.QuerySingle<string>("SELECT result FROM actions WHERE key = @key", new { key }, transaction);
            }
        );

    /// <summary>Keeps what an action came to; old ones are forgotten.</summary>
    public void Add(string key, string result) =>
        database.Write(
            (connection, transaction) =>
            {
                var at = time.GetUtcNow();
                connection.Execute("DELETE FROM actions WHERE at < @before", new { before = at - Kept }, transaction);
                return connection.Execute(
                    "INSERT INTO actions (key, at, result) VALUES (@key, @at, @result)",
                    new
                    {
                        key,
                        at,
                        result,
                    },
                    transaction
                );
            }
        );
}
