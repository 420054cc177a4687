using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>A unit that the shop bought, with whom it was bought of and what it was sold for: a line of the purchase book.</summary>
public sealed record PurchaseLine
{
    /// <summary>Number of its job.</summary>
    public long Number { get; init; }

    /// <summary>Row of its job.</summary>
    public JobId JobId { get; init; }

    /// <summary>Unit.</summary>
    public string Unit { get; init; } = "";

    /// <summary>Serial number.</summary>
    public string Serial { get; init; } = "";

    /// <summary>Lot, or blank.</summary>
    public string Lot { get; init; } = "";

    /// <summary>Row of the lot, or null.</summary>
    public long? LotId { get; init; }

    /// <summary>When its job began, UTC.</summary>
    public DateTimeOffset ReceivedAt { get; init; }

    /// <summary>Day on which its lot was bought; blank without one.</summary>
    public string BoughtOn { get; init; } = "";

    /// <summary>What was paid for it.</summary>
    public decimal Paid { get; init; }

    /// <summary>ISO 4217 code of that, and of its price.</summary>
    public string Currency { get; init; } = "EUR";

    /// <summary>Seller.</summary>
    public string Seller { get; init; } = "";

    /// <summary>Seller's address.</summary>
    public string Address { get; init; } = "";

    /// <summary>What proves it: a receipt, a contract, a message.</summary>
    public string Proof { get; init; } = "";

    /// <summary>What it fetched, where it is sold.</summary>
    public decimal? Price { get; init; }

    /// <summary>When it was sold, UTC.</summary>
    public DateTimeOffset? SoldAt { get; init; }

    /// <summary>Day on which it was bought, where a lot says so.</summary>
    public DateOnly? LotDay => DayText.Read(BoughtOn);
}

/// <summary>Keeps of whom units and lots were bought.</summary>
public sealed class PurchaseStore(ShopDatabase database, TimeProvider time)
{
    private const string Select = """
        SELECT j.number, j.id AS job_id, CASE WHEN j.unit_name <> '' THEN j.unit_name ELSE j.model_name END AS unit, j.serial, j.lot, l.id AS lot_id,
          j.received_at, coalesce(l.bought_on, '') AS bought_on, j.paid, j.currency, coalesce(p.seller, q.seller, '') AS seller,
          coalesce(p.address, q.address, '') AS address, coalesce(p.proof, q.proof, '') AS proof,
          CASE WHEN s.state = 'Sold' THEN s.price END AS price, CASE WHEN s.state = 'Sold' THEN s.changed_at END AS sold_at
        FROM jobs j LEFT JOIN lots l ON j.lot <> '' AND l.name = j.lot LEFT JOIN purchases p ON p.job_id = j.id
          LEFT JOIN purchases q ON q.lot_id = l.id LEFT JOIN sales s ON s.job_id = j.id
        WHERE j.customer_id IS NULL AND j.practice_seed IS NULL AND j.deleted_at IS NULL AND j.paid IS NOT NULL AND l.customer_id IS NULL
        """;

    /// <summary>Units that were bought, the newest first.</summary>
    /// <param name="open">True for those only of whom no seller is told.</param>
    /// <param name="skip">How many to leave out.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<PurchaseLine> Lines(bool open, int skip, int most) =>
        database.Read(connection =>
            connection
                .Query<PurchaseLine>(
                    $"{Select} AND (NOT @open OR coalesce(p.seller, q.seller, '') = '') ORDER BY j.received_at DESC, j.number DESC LIMIT @most OFFSET @skip",
                    new { open, skip, most }
                )
                .AsList()
        );

    /// <summary>Keeps of whom a unit was bought, or a whole lot.</summary>
    public void Keep(JobId? job, long? lot, string seller, string address, string proof) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    $"""
                    INSERT INTO purchases (job_id, lot_id, seller, address, proof, at) VALUES (@job, @lot, @seller, @address, @proof, @at)
                    ON CONFLICT ({(lot is null ? "job_id" : "lot_id")}) DO UPDATE SET seller = excluded.seller, address = excluded.address,
                      proof = excluded.proof, at = excluded.at
                    """,
                    new
                    {
                        job = job?.Value,
                        lot,
                        seller,
                        address,
                        proof,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );
}
