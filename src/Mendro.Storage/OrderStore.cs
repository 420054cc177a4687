using Dapper;
using Mendro.Core.Stock;

namespace Mendro.Storage;

/// <summary>A supplier.</summary>
public sealed record Supplier
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Name.</summary>
    public string Name { get; init; } = "";

    /// <summary>Address at which it answers, or blank when its prices come by file.</summary>
    public string Address { get; init; } = "";

    /// <summary>Postage of a parcel.</summary>
    public decimal Postage { get; init; }

    /// <summary>Worth of goods from which there is none, or null.</summary>
    public decimal? FreeFrom { get; init; }

    /// <summary>Days until it is here.</summary>
    public int LeadDays { get; init; } = 3;

    /// <summary>ISO 4217 code.</summary>
    public string Currency { get; init; } = "EUR";

    /// <summary>Own words.</summary>
    public string Words { get; init; } = "";

    /// <summary>When it answered last, UTC.</summary>
    public DateTimeOffset? AskedAt { get; init; }

    /// <summary>Why it did not answer last, or blank.</summary>
    public string Problem { get; init; } = "";
}

/// <summary>An order that was sent.</summary>
public sealed record SentOrder
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Supplier.</summary>
    public long SupplierId { get; init; }

    /// <summary>Its name.</summary>
    public string Supplier { get; init; } = "";

    /// <summary>ISO 4217 code.</summary>
    public string Currency { get; init; } = "EUR";

    /// <summary>Postage.</summary>
    public decimal Postage { get; init; }

    /// <summary>Tax on it that is had back, beside its prices; 0 for none.</summary>
    public decimal Tax { get; init; }

    /// <summary>When it was sent, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>Day on which it is expected, as 2026-11-26.</summary>
    public string ExpectedOn { get; init; } = "";

    /// <summary>When all of it was here or given up, UTC.</summary>
    public DateTimeOffset? EndedAt { get; init; }

    /// <summary>Its lines.</summary>
    public IReadOnlyList<SentLine> Lines { get; init; } = [];

    /// <summary>Goods and postage.</summary>
    public decimal Total => Postage + Lines.Sum(l => l.Price * (l.Count - l.Cancelled));
}

/// <summary>A line of an order.</summary>
public sealed record SentLine
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Order.</summary>
    public long OrderId { get; init; }

    /// <summary>Part.</summary>
    public string Part { get; init; } = "";

    /// <summary>The supplier's number.</summary>
    public string Number { get; init; } = "";

    /// <summary>Price of one.</summary>
    public decimal Price { get; init; }

    /// <summary>How many.</summary>
    public int Count { get; init; }

    /// <summary>How many came as they should.</summary>
    public int Received { get; init; }

    /// <summary>How many came wrong and go back.</summary>
    public int Wrong { get; init; }

    /// <summary>How many of the wrong ones were sent back.</summary>
    public int Returned { get; init; }

    /// <summary>How many wrong ones lie here still.</summary>
    public int ToReturn => Math.Max(0, Wrong - Returned);

    /// <summary>How many will not come.</summary>
    public int Cancelled { get; init; }

    /// <summary>How many are still to come.</summary>
    public int ToCome => Math.Max(0, Count - Received - Cancelled);
}

/// <summary>Keeps suppliers with their prices, and orders.</summary>
public sealed class OrderStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Suppliers, by name.</summary>
    public IReadOnlyList<Supplier> Suppliers() =>
        database.Read(connection => connection.Query<Supplier>("SELECT * FROM suppliers WHERE deleted_at IS NULL ORDER BY name COLLATE NOCASE").AsList());

    /// <summary>One supplier, or null.</summary>
    public Supplier? FindSupplier(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<Supplier>("SELECT * FROM suppliers WHERE id = @id AND deleted_at IS NULL", new { id }));

    /// <summary>Keeps a supplier.</summary>
    /// <returns>Its id.</returns>
    public long Save(Supplier supplier) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    supplier.Id == 0
                        ? """
                          INSERT INTO suppliers (name, address, postage, free_from, lead_days, currency, words, asked_at, problem)
                          VALUES (@Name, @Address, @Postage, @FreeFrom, @LeadDays, @Currency, @Words, @AskedAt, @Problem) RETURNING id
                          """
                        : """
                          UPDATE suppliers SET name = @Name, address = @Address, postage = @Postage, free_from = @FreeFrom, lead_days = @LeadDays,
                            currency = @Currency, words = @Words, asked_at = @AskedAt, problem = @Problem WHERE id = @Id RETURNING id
                          """,
                    supplier,
                    transaction
                )
        );

    /// <summary>Takes a supplier away, or brings it back.</summary>
    public void SetDeleted(long id, bool deleted) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE suppliers SET deleted_at = CASE WHEN @deleted THEN @at END WHERE id = @id",
                    new
                    {
                        id,
                        deleted,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>What a supplier has.</summary>
    public IReadOnlyList<PriceLine> Prices(long supplier) =>
        database.Read(connection =>
            connection
                .Query<(string Number, string Part, string Price, long From, long? Available)>(
                    "SELECT number, part, price, from_count, available FROM supplier_prices WHERE supplier_id = @supplier ORDER BY part, from_count, id",
                    new { supplier }
                )
                .Select(r => new PriceLine(
                    r.Number,
                    r.Part,
                    Stored.Amount(r.Price),
                    (int)r.From,
                    (int?)r.Available
                ))
                .ToList()
        );

    /// <summary>How many prices are known of a supplier.</summary>
    public int PriceCount(long supplier) =>
        database.Read(connection =>
            connection.ExecuteScalar<int>("SELECT count(*) FROM supplier_prices WHERE supplier_id = @supplier", new { supplier })
        );

    /// <summary>What a supplier has from now on, in the place of what it had.</summary>
    public void SetPrices(long supplier, IReadOnlyList<PriceLine> lines) =>
        database.Write(
            (connection, transaction) =>
            {
                connection.Execute("DELETE FROM supplier_prices WHERE supplier_id = @supplier", new { supplier }, transaction);
                connection.Execute(
                    """
                    INSERT INTO supplier_prices (supplier_id, number, part, price, from_count, available)
                    VALUES (@supplier, @Number, @Part, @Price, @From, @Available)
                    """,
                    lines.Select(l => new
                    {
                        supplier,
                        l.Number,
                        l.Part,
                        l.Price,
                        l.From,
                        l.Available,
                    }),
                    transaction
                );
                return 0;
            }
        );

    /// <summary>Keeps an order that was sent.</summary>
    /// <returns>Its id.</returns>
    public long Add(SentOrder order) =>
        database.Write(
            (connection, transaction) =>
            {
                var id = connection.ExecuteScalar<long>(
                    """
                    INSERT INTO orders (supplier_id, currency, postage, at, expected_on) VALUES (@SupplierId, @Currency, @Postage, @at, @ExpectedOn)
                    RETURNING id
                    """,
                    new
                    {
                        order.SupplierId,
                        order.Currency,
                        order.Postage,
                        at = time.GetUtcNow(),
                        order.ExpectedOn,
                    },
                    transaction
                );
                connection.Execute(
                    "INSERT INTO order_lines (order_id, part, number, price, count) VALUES (@id, @Part, @Number, @Price, @Count)",
                    order.Lines.Select(l => new
                    {
                        id,
                        l.Part,
                        l.Number,
                        l.Price,
                        l.Count,
                    }),
                    transaction
                );
                return id;
            }
        );

    /// <summary>Orders, those on their way first, then the newest.</summary>
    /// <param name="most">How many.</param>
    /// <param name="open">True for those on their way only.</param>
    public IReadOnlyList<SentOrder> List(int most, bool open = false) =>
        database.Read(connection =>
        {
            var orders = connection
                .Query<SentOrder>(
                    """
                    SELECT o.*, s.name AS supplier FROM orders o JOIN suppliers s ON s.id = o.supplier_id WHERE NOT @open OR o.ended_at IS NULL
                    ORDER BY o.ended_at IS NOT NULL, o.id DESC LIMIT @most
                    """,
                    new { most, open }
                )
                .AsList();
            var lines = connection
                .Query<SentLine>("SELECT * FROM order_lines WHERE order_id IN @ids ORDER BY id", new { ids = orders.Select(o => o.Id) })
                .ToLookup(l => l.OrderId);
            return orders.Select(o => o with { Lines = lines[o.Id].ToList() }).ToList();
        });

    /// <summary>An order without its lines, or null.</summary>
    public SentOrder? Find(long id) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<SentOrder>(
                "SELECT o.*, s.name AS supplier FROM orders o JOIN suppliers s ON s.id = o.supplier_id WHERE o.id = @id",
                new { id }
            )
        );

    /// <summary>Keeps the tax on an order that is had back.</summary>
    public void SetTax(long id, decimal tax) =>
        database.Write((connection, transaction) => connection.Execute("UPDATE orders SET tax = @tax WHERE id = @id", new { id, tax }, transaction));

    /// <summary>One line with its order, or null.</summary>
    public SentLine? FindLine(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<SentLine>("SELECT * FROM order_lines WHERE id = @id", new { id }));

    /// <summary>Keeps what became of a line; an order with nothing left to come is ended.</summary>
    public void Save(SentLine line) =>
        database.Write(
            (connection, transaction) =>
            {
                connection.Execute(
                    "UPDATE order_lines SET received = @Received, wrong = @Wrong, returned = @Returned, cancelled = @Cancelled WHERE id = @Id",
                    line,
                    transaction
                );
                connection.Execute(
                    """
                    UPDATE orders SET ended_at = CASE WHEN EXISTS (SELECT 1 FROM order_lines WHERE order_id = @OrderId AND count > received + cancelled)
                      THEN NULL ELSE coalesce(ended_at, @at) END WHERE id = @OrderId
                    """,
                    new { line.OrderId, at = time.GetUtcNow() },
                    transaction
                );
                return 0;
            }
        );
}
