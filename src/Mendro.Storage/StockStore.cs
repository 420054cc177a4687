using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Stock;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>A bin of the stock.</summary>
public sealed record StockItem
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>What is in it, as JSON.</summary>
    public string Spec { get; init; } = "{}";

    /// <summary>Name of the part.</summary>
    public string Name { get; init; } = "";

    /// <summary>Where it lies.</summary>
    public string Bin { get; init; } = "";

    /// <summary>How many lie there, those reserved among them.</summary>
    public int Count { get; init; }

    /// <summary>Number below which more is ordered, or null.</summary>
    public int? Low { get; init; }

    /// <summary>Own cost of one, in the shop's currency, or null.</summary>
    public decimal? Cost { get; init; }

    /// <summary>Where it came from.</summary>
    public string Source { get; init; } = "";

    /// <summary>How many of them are reserved for jobs.</summary>
    public int Reserved { get; init; }

    /// <summary>When it was taken away, UTC; it can be brought back.</summary>
    public DateTimeOffset? DeletedAt { get; init; }

    /// <summary>How many are free.</summary>
    public int Free => Count - Reserved;

    /// <summary>True when more should be ordered.</summary>
    public bool IsLow => Low is { } low && Free < low;

    /// <summary>What is in it.</summary>
    public StockSpec What => JsonSerializer.Deserialize<StockSpec>(Spec, JsonSerializerOptions.Web) ?? new StockSpec(Name);

    /// <summary>Makes a bin of a line.</summary>
    public static StockItem Of(StockLine line) =>
        new()
        {
            Spec = JsonSerializer.Serialize(line.Spec, JsonSerializerOptions.Web),
            Name = line.Spec.Name,
            Bin = line.Bin,
            Count = line.Count,
            Low = line.Low,
            Cost = line.Cost,
            Source = line.Source,
        };
}

/// <summary>Something that went in or out of a bin.</summary>
/// <param name="Change">How many came, or went when negative.</param>
/// <param name="Job">Number of the job that it went to, or null.</param>
/// <param name="Why">Why.</param>
/// <param name="At">When, UTC.</param>
public sealed record StockMove(int Change, long? Job, string Why, DateTimeOffset At);

/// <summary>A part that a job wants.</summary>
public sealed record PartNeed
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job, or null for the shop's own stock.</summary>
    public JobId? JobId { get; init; }

    /// <summary>Number of the job, or null.</summary>
    public long? Number { get; init; }

    /// <summary>Part.</summary>
    public string Part { get; init; } = "";

    /// <summary>How many.</summary>
    public int Count { get; init; }

    /// <summary>How many of them are put by from a bin.</summary>
    public int Reserved { get; init; }

    /// <summary>Bin from which they are put by, or null.</summary>
    public long? ItemId { get; init; }

    /// <summary>When it was noted, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>How many are still missing.</summary>
    public int Missing => Count - Reserved;
}

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
    public long Add(StockItem item, string why, long? orderLine = null) =>
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
                    Move(connection, transaction, id, item.Count, null, orderLine, why);
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

    /// <summary>Something goes in or out.</summary>
    public void Move(long id, int change, JobId? job, string why, long? orderLine = null) =>
        database.Write(
            (connection, transaction) =>
            {
                Move(connection, transaction, id, change, job, orderLine, why);
                return 0;
            }
        );

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
                    DateTimeOffset.Parse(r.At, System.Globalization.CultureInfo.InvariantCulture)
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

    private void Move(SqliteConnection connection, SqliteTransaction transaction, long id, int change, JobId? job, long? orderLine, string why)
    {
        connection.Execute("UPDATE stock_items SET count = count + @change WHERE id = @id", new { id, change }, transaction);
        connection.Execute(
            "INSERT INTO stock_moves (item_id, change, job_id, order_line_id, why, at) VALUES (@id, @change, @job, @orderLine, @why, @at)",
            new
            {
                id,
                change,
                job = job?.Value,
                orderLine,
                why,
                at = time.GetUtcNow(),
            },
            transaction
        );
    }
}
