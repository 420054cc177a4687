using Dapper;

namespace Mendro.Storage;

/// <summary>A round that is under way.</summary>
/// <param name="Key">What its moves have in common.</param>
/// <param name="Title">What is done.</param>
/// <param name="After">Number of the unit that was answered last.</param>
public sealed record RoundUnderWay(string Key, string Title, long After);

/// <summary>Keeps where each round was left.</summary>
public sealed class RoundStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Rounds of a lot that are under way, the newest first.</summary>
    /// <param name="lot">Id of the lot; 0 for rounds over the whole shop.</param>
    public IReadOnlyList<RoundUnderWay> Of(long lot) =>
        database.Read(connection =>
            connection.Query<RoundUnderWay>("SELECT key, title, after FROM rounds WHERE lot_id = @lot ORDER BY at DESC, key", new { lot }).AsList()
        );

    /// <summary>Keeps where a round is.</summary>
    public void Save(long lot, RoundUnderWay round) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT INTO rounds (lot_id, key, title, after, at) VALUES (@lot, @Key, @Title, @After, @at)
                    ON CONFLICT (lot_id, key) DO UPDATE SET title = excluded.title, after = excluded.after, at = excluded.at
                    """,
                    new
                    {
                        lot,
                        round.Key,
                        round.Title,
                        round.After,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>A round is through.</summary>
    public void Forget(long lot, string key) =>
        database.Write((connection, transaction) => connection.Execute("DELETE FROM rounds WHERE lot_id = @lot AND key = @key", new { lot, key }, transaction));
}
