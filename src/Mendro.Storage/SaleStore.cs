using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>How a sale stands.</summary>
public enum SaleState
{
    /// <summary>Offered.</summary>
    Offered,

    /// <summary>Sold.</summary>
    Sold,

    /// <summary>Sold, and came back.</summary>
    Returned,

    /// <summary>No longer offered.</summary>
    Withdrawn,
}

/// <summary>A unit that was sent to sale.</summary>
public sealed record Sale
{
    /// <summary>Job.</summary>
    public JobId JobId { get; init; }

    /// <summary>How it stands.</summary>
    public SaleState State { get; init; }

    // What the mapper fills in its place, so that another word there opens the page all the same.
    internal string StateStored
    {
        get => State.ToString();
        init => State = Stored.Word(value, SaleState.Withdrawn);
    }

    /// <summary>Asking price, in the job's currency.</summary>
    public decimal? Asking { get; init; }

    /// <summary>Price it fetched.</summary>
    public decimal? Price { get; init; }

    /// <summary>Fees paid.</summary>
    public decimal Fees { get; init; }

    /// <summary>Postage paid.</summary>
    public decimal Postage { get; init; }

    /// <summary>Packing.</summary>
    public decimal Packing { get; init; }

    /// <summary>Grade.</summary>
    public string Condition { get; init; } = "";

    /// <summary>Words: where, to whom, why it came back.</summary>
    public string Words { get; init; } = "";

    /// <summary>How this sale is taxed, where that is not as usual; blank for the shop's usual way.</summary>
    public string Tax { get; init; } = "";

    /// <summary>The same; null for the shop's usual way.</summary>
    public TaxTreatment? Treatment => Enum.TryParse<TaxTreatment>(Tax, out var told) && Enum.IsDefined(told) ? told : null;

    /// <summary>When it was offered, UTC.</summary>
    public DateTimeOffset OfferedAt { get; init; }

    /// <summary>When it last changed, UTC.</summary>
    public DateTimeOffset ChangedAt { get; init; }
}

/// <summary>A price of another's unit, as it is kept.</summary>
public sealed record Comparable
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Model.</summary>
    public string ProfileId { get; init; } = "";

    /// <summary>Day, as 2026-11-26.</summary>
    public string Day { get; init; } = "";

    /// <summary>Grade.</summary>
    public string Condition { get; init; } = "";

    /// <summary>Price.</summary>
    public decimal Price { get; init; }

    /// <summary>ISO 4217 code.</summary>
    public string Currency { get; init; } = "";

    /// <summary>What it was.</summary>
    public string Words { get; init; } = "";

    /// <summary>The day.</summary>
    public DateOnly On => DayText.Read(Day) ?? default;
}

/// <summary>Keeps own sales and what others were sold for.</summary>
public sealed class SaleStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>The sale of a job, or null.</summary>
    public Sale? Find(JobId jobId) =>
        database.Read(connection => connection.QueryFirstOrDefault<Sale>("SELECT * FROM sales WHERE job_id = @jobId", new { jobId }));

    /// <summary>Sales of the units of a lot.</summary>
    public IReadOnlyDictionary<JobId, Sale> OfLot(string lot) =>
        database.Read(connection =>
            connection.Query<Sale>("SELECT s.* FROM sales s JOIN jobs j ON j.id = s.job_id WHERE j.lot = @lot", new { lot }).ToDictionary(s => s.JobId)
        );

    /// <summary>Keeps a sale.</summary>
    public void Save(Sale sale) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT INTO sales (job_id, state, asking, price, fees, postage, packing, condition, words, tax, offered_at, changed_at)
                    VALUES (@JobId, @state, @Asking, @Price, @Fees, @Postage, @Packing, @Condition, @Words, @Tax, @at, @at)
                    ON CONFLICT (job_id) DO UPDATE SET state = excluded.state, asking = excluded.asking, price = excluded.price,
                      fees = excluded.fees, postage = excluded.postage, packing = excluded.packing, condition = excluded.condition,
                      words = excluded.words, tax = excluded.tax, changed_at = excluded.changed_at
                    """,
                    new
                    {
                        sale.JobId,
                        state = sale.State.ToString(),
                        sale.Asking,
                        sale.Price,
                        sale.Fees,
                        sale.Postage,
                        sale.Packing,
                        sale.Condition,
                        sale.Words,
                        sale.Tax,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Own units of a model that were sold and stayed so, with their currency.</summary>
    public IReadOnlyList<(Sale Sale, string Currency)> Sold(string profileId) =>
        database.Read(connection =>
            connection
                .Query<Sale, string, (Sale, string)>(
                    """
                    SELECT s.*, j.currency FROM sales s JOIN jobs j ON j.id = s.job_id
                    WHERE j.profile_id = @profileId AND s.state = 'Sold' AND s.price IS NOT NULL AND j.deleted_at IS NULL ORDER BY s.changed_at
                    """,
                    (sale, currency) => (sale, currency),
                    new { profileId },
                    splitOn: "currency"
                )
                .AsList()
        );

    /// <summary>Prices of others for a model, newest first.</summary>
    public IReadOnlyList<Comparable> Others(string profileId) =>
        database.Read(connection =>
            connection
                .Query<Comparable>(
                    "SELECT * FROM comparables WHERE profile_id = @profileId AND deleted_at IS NULL ORDER BY day DESC, id DESC",
                    new { profileId }
                )
                .AsList()
        );

    /// <summary>Adds prices of others.</summary>
    public void Add(string profileId, IEnumerable<ComparablePrice> prices) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO comparables (profile_id, day, condition, price, currency, words) VALUES (@profileId, @day, @grade, @price, @code, @Words)",
                    prices.Select(p => new
                    {
                        profileId,
                        day = DayText.Write(p.Day),
                        grade = p.Grade.Id,
                        price = p.Price.Value,
                        code = p.Price.Currency.Code,
                        p.Words,
                    }),
                    transaction
                )
        );

    /// <summary>Takes a price of another away, or brings it back.</summary>
    public void SetDeleted(long id, bool deleted) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE comparables SET deleted_at = CASE WHEN @deleted THEN @at END WHERE id = @id",
                    new
                    {
                        id,
                        deleted,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );
}
