using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Stock;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>Keeps bins and what jobs want out of them.</summary>
public sealed class StockStore(ShopDatabase database, TimeProvider time)
{
    private const string Select = """
        SELECT i.*, coalesce((SELECT sum(n.reserved) FROM part_needs n WHERE n.item_id = i.id AND n.ended_at IS NULL), 0) AS reserved
        FROM stock_items i
        """;

    /// <summary>Bins whose name, bin or source has a word in it, by name.</summary>
    /// <param name="word">Word; blank for all.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<StockItem> List(string word = "", int most = 2000) =>
        database.Read(connection =>
            connection
                .Query<StockItem>(
                    $"{Select} WHERE i.deleted_at IS NULL "
                        + "AND (@word = '' OR instr(lower(i.name || ' ' || i.bin || ' ' || i.source || ' ' || i.spec), lower(@word))) "
                        + "ORDER BY i.name COLLATE NOCASE, i.id LIMIT @most",
                    new { word, most }
                )
                .AsList()
        );

    /// <summary>One bin, or null.</summary>
    public StockItem? Find(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<StockItem>($"{Select} WHERE i.id = @id", new { id }));

    /// <summary>The bin of a part by its name, or null.</summary>
    public StockItem? Named(string name) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<StockItem>(
                $"{Select} WHERE i.deleted_at IS NULL AND i.name = @name COLLATE NOCASE ORDER BY i.id",
                new { name }
            )
        );

    /// <summary>Adds a bin with what lies in it.</summary>
    /// <returns>Its id.</returns>
    public long Add(StockItem item, string why, long? orderLine = null, decimal? cameFor = null) =>
        database.Write(
            (connection, transaction) =>
            {
                var id = connection.ExecuteScalar<long>(
                    """
                    INSERT INTO stock_items (spec, name, bin, count, low, cost, source)
                    VALUES (@Spec, @Name, @Bin, 0, @Low, @Cost, @Source) RETURNING id
                    """,
                    item,
                    transaction
                );
                if (item.Count > 0)
                    Move(connection, transaction, id, item.Count, null, orderLine, why, cameFor);
                return id;
            }
        );

    /// <summary>Keeps all of a bin but its number.</summary>
    public void Save(StockItem item) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE stock_items SET spec = @Spec, name = @Name, bin = @Bin, low = @Low, cost = @Cost, source = @Source WHERE id = @Id",
                    item,
                    transaction
                )
        );

    /// <summary>Moves parts in or out of a bin.</summary>
    /// <param name="id">Bin.</param>
    /// <param name="change">Above nothing in, below nothing out.</param>
    /// <param name="job">Job that they went into, or null.</param>
    /// <param name="why">Why.</param>
    /// <param name="orderLine">Line of the order that brought them, or null.</param>
    /// <param name="cameFor">What those that came cost together; null for the last price of the bin.</param>
    /// <returns>What they are worth, in the shop's currency: below nothing for what went; null where no price is known.</returns>
    public decimal? Move(long id, int change, JobId? job, string why, long? orderLine = null, decimal? cameFor = null) =>
        database.Write((connection, transaction) => Move(connection, transaction, id, change, job, orderLine, why, cameFor));

    /// <summary>Takes a bin away, or brings it back.</summary>
    public void SetDeleted(long id, bool deleted) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE stock_items SET deleted_at = CASE WHEN @deleted THEN @at END WHERE id = @id",
                    new
                    {
                        id,
                        deleted,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>What went in and out of a bin, the newest first.</summary>
    public IReadOnlyList<StockMove> Moves(long id) =>
        database.Read(connection =>
            connection
                .Query<(long Change, long? Job, string Why, string At)>(
                    """
                    SELECT m.change, j.number, m.why, m.at FROM stock_moves m LEFT JOIN jobs j ON j.id = m.job_id
                    WHERE m.item_id = @id ORDER BY m.id DESC LIMIT 100
                    """,
                    new { id }
                )
                .Select(r => new StockMove(
                    (int)r.Change,
                    r.Job,
                    r.Why,
                    Stored.Moment(r.At)
                ))
                .ToList()
        );

    /// <summary>What is wanted still, the oldest first.</summary>
    /// <param name="job">Of one job, or null for all.</param>
    public IReadOnlyList<PartNeed> Needs(JobId? job = null) =>
        database.Read(connection =>
            connection
                .Query<PartNeed>(
                    """
                    SELECT n.*, j.number FROM part_needs n LEFT JOIN jobs j ON j.id = n.job_id
                    WHERE n.ended_at IS NULL AND (@job IS NULL OR n.job_id = @job) AND (j.id IS NULL OR j.deleted_at IS NULL AND j.closed_at IS NULL)
                    ORDER BY n.id
                    """,
                    new { job = job?.Value }
                )
                .AsList()
        );

    /// <summary>A job, or the stock itself, wants parts.</summary>
    /// <returns>Row id.</returns>
    public long Want(JobId? job, string part, int count) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    "INSERT INTO part_needs (job_id, part, count, at) VALUES (@job, @part, @count, @at) RETURNING id",
                    new
                    {
                        job = job?.Value,
                        part,
                        count,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Puts parts by for a need.</summary>
    public void Reserve(long need, long item, int count) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("UPDATE part_needs SET item_id = @item, reserved = @count WHERE id = @need", new { need, item, count }, transaction)
        );

    /// <summary>Some of what was put by went in: so many fewer are wanted.</summary>
    public void Use(long need, int count) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE part_needs SET count = count - @count, reserved = reserved - @count WHERE id = @need",
                    new { need, count },
                    transaction
                )
        );

    /// <summary>A need is over.</summary>
    public void End(long need, string why) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE part_needs SET ended_at = @at, reserved = 0, why = @why WHERE id = @need",
                    new
                    {
                        need,
                        why,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>What is left in a bin, by what it cost: the oldest first.</summary>
    public IReadOnlyList<StockLayer> Layers(long id, Currency currency) =>
        database.Read(connection => StockLayers.Left(Valued(connection, null, id), currency));

    /// <summary>What all bins are worth.</summary>
    public decimal Worth() =>
        database.Read(connection => connection.Query<string>("SELECT value FROM stock_moves WHERE value IS NOT NULL").Sum(Number));

    /// <summary>A movement of a bin, as the books take it: its part, change, value, why and when.</summary>
    public (string Part, int Change, decimal Value, string Why, DateTimeOffset At)? FindMove(long id) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<(string Part, long Change, string? Value, string Why, DateTimeOffset At)?>(
                "SELECT i.name, m.change, m.value, m.why, m.at FROM stock_moves m JOIN stock_items i ON i.id = m.item_id WHERE m.id = @id",
                new { id }
            )
        )
            is { } move
            ? (move.Part, (int)move.Change, move.Value is null ? 0 : Number(move.Value), move.Why, move.At)
            : null;

    /// <summary>The last movement of a bin, or null.</summary>
    public (int Change, decimal? Value, string Why)? LastMove(long id) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<(long Change, string? Value, string Why)?>(
                "SELECT change, value, why FROM stock_moves WHERE item_id = @id ORDER BY id DESC LIMIT 1",
                new { id }
            )
        )
            is { } move
            ? ((int)move.Change, move.Value is null ? null : Number(move.Value), move.Why)
            : null;

    /// <summary>Movements that an order brought, the oldest first.</summary>
    public IReadOnlyList<(long Id, decimal Value, DateTimeOffset At)> Received(long order) =>
        database.Read(connection =>
            connection
                .Query<(long Id, string? Value, DateTimeOffset At)>(
                    """
                    SELECT m.id, m.value, m.at FROM stock_moves m JOIN order_lines l ON l.id = m.order_line_id
                    WHERE l.order_id = @order AND m.change > 0 ORDER BY m.id
                    """,
                    new { order }
                )
                .Select(r => (r.Id, r.Value is null ? 0 : Number(r.Value), r.At))
                .ToList()
        );

    private static List<(int Change, decimal Value)> Valued(SqliteConnection connection, SqliteTransaction? transaction, long id) =>
        connection
            .Query<(long Change, string? Value)>("SELECT change, value FROM stock_moves WHERE item_id = @id ORDER BY id", new { id }, transaction)
            .Select(r => ((int)r.Change, r.Value is null ? 0 : Number(r.Value)))
            .ToList();

    private static decimal Number(string text) =>
        decimal.TryParse(text, System.Globalization.NumberStyles.Float, System.Globalization.CultureInfo.InvariantCulture, out var value) ? value : 0;

    // What comes is worth what it cost; what goes what the oldest of it cost.
    private decimal? Move(
        SqliteConnection connection,
        SqliteTransaction transaction,
        long id,
        int change,
        JobId? job,
        long? orderLine,
        string why,
        decimal? cameFor = null
    )
    {
        var currency = new Currency(
            connection.QueryFirstOrDefault<string>("SELECT value FROM settings WHERE key = 'currency'", transaction: transaction) ?? "EUR"
        );
        var known = connection.QueryFirstOrDefault<string>("SELECT cost FROM stock_items WHERE id = @id", new { id }, transaction) is { } last
            ? Number(last)
            : (decimal?)null;
        var before = change < 0 ? StockLayers.Left(Valued(connection, transaction, id), currency) : [];
        var value =
            change > 0 ? cameFor ?? (known is { } each ? currency.Round(each * change) : null)
            : known is null && before.Sum(l => l.Value) == 0 ? null
            : -StockLayers.Take(before, -change, currency).Cost;
        connection.Execute("UPDATE stock_items SET count = count + @change WHERE id = @id", new { id, change }, transaction);
        connection.Execute(
            "INSERT INTO stock_moves (item_id, change, job_id, order_line_id, why, at, value) VALUES (@id, @change, @job, @orderLine, @why, @at, @value)",
            new
            {
                id,
                change,
                job = job?.Value,
                orderLine,
                why,
                at = time.GetUtcNow(),
                value = value?.ToString(System.Globalization.CultureInfo.InvariantCulture),
            },
            transaction
        );
        return value;
    }
}
