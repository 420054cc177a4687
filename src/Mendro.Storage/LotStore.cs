using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>Keeps lots and the places of units in them.</summary>
public sealed class LotStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>A page of lots, the newest first.</summary>
    /// <param name="before">Only those with ids below; null for the newest.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<LotLine> List(long? before, int most) =>
        database.Read(connection =>
            connection
                .Query<Lot>($"{Select} WHERE l.id < @before ORDER BY l.id DESC LIMIT @most", new { before = before ?? long.MaxValue, most })
                .Select(lot =>
                {
                    var (units, inShop) = connection.QuerySingle<(int, int)>(
                        $"SELECT count(*), count(*) FILTER (WHERE closed_at IS NULL) FROM jobs j WHERE j.lot = @Name AND {Counts}",
                        new { lot.Name }
                    );
                    return new LotLine(lot, units, inShop);
                })
                .ToList()
        );

    /// <summary>The newest lots without what is in them.</summary>
    public IReadOnlyList<Lot> Newest(int most) =>
        database.Read(connection => connection.Query<Lot>($"{Select} ORDER BY l.id DESC LIMIT @most", new { most }).AsList());

    /// <summary>One lot, or null.</summary>
    public Lot? Find(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<Lot>($"{Select} WHERE l.id = @id", new { id }));

    /// <summary>One lot by its name, or null.</summary>
    public Lot? Find(string name) =>
        database.Read(connection => connection.QueryFirstOrDefault<Lot>($"{Select} WHERE l.name = @name", new { name }));

    /// <summary>Units of a lot, by number.</summary>
    public IReadOnlyList<Job> Units(string name) =>
        database.Read(connection =>
            connection.Query<Job>($"{JobStore.Select} WHERE j.lot = @name AND {Counts} ORDER BY j.number", new { name }).AsList()
        );

    /// <summary>Places of the units of a lot.</summary>
    public IReadOnlyDictionary<JobId, LotPlace> Places(string name) =>
        database.Read(connection =>
            connection
                .Query<(long Job, bool Apart, string Why, string? Weight)>(
                    "SELECT i.job_id, i.apart, i.why, i.weight FROM lot_items i JOIN jobs j ON j.id = i.job_id WHERE j.lot = @name",
                    new { name }
                )
                .ToDictionary(
                    r => new JobId(r.Job),
                    r => new LotPlace(
                        r.Apart,
                        r.Why,
                        r.Weight is { } told ? Stored.Amount(told) : null
                    )
                )
        );

    /// <summary>Units of a lot that went: sold, or given up for parts.</summary>
    public IReadOnlySet<JobId> Gone(string name) =>
        database.Read(connection =>
            connection
                .Query<JobId>(
                    "SELECT j.id FROM jobs j LEFT JOIN sales s ON s.job_id = j.id WHERE j.lot = @name AND (j.ending = 'Parts' OR s.state = 'Sold')",
                    new { name }
                )
                .ToHashSet()
        );

    /// <summary>Units that are set apart, of any lot.</summary>
    public IReadOnlySet<JobId> AllApart() =>
        database.Read(connection => connection.Query<JobId>("SELECT job_id FROM lot_items WHERE apart").ToHashSet());

    /// <summary>Adds a lot.</summary>
    /// <returns>Its id.</returns>
    public long Add(Lot lot) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    """
                    INSERT INTO lots (name, price, postage, currency, bought_on, words, way, profile_id, working, otherwise, per_hour, customer_id,
                      created_at)
                    VALUES (@Name, @Price, @Postage, @Currency, @BoughtOn, @Words, @way, @ProfileId, @Working, @Otherwise, @PerHour, @owner, @at)
                    RETURNING id
                    """,
                    Fields(lot, OwnerOf(lot, connection, transaction)),
                    transaction
                )
        );

    /// <summary>Keeps what was told of a lot; its name stays. Its owner is that of all its units.</summary>
    public void Save(Lot lot) =>
        database.Write(
            (connection, transaction) =>
            {
                var fields = Fields(lot, OwnerOf(lot, connection, transaction));
                connection.Execute(
                    """
                    UPDATE lots SET price = @Price, postage = @Postage, currency = @Currency, bought_on = @BoughtOn, words = @Words, way = @way,
                      profile_id = @ProfileId, working = @Working, otherwise = @Otherwise, per_hour = @PerHour, customer_id = @owner WHERE id = @Id
                    """,
                    fields,
                    transaction
                );
                connection.Execute(
                    "UPDATE jobs SET customer_id = @owner WHERE lot = @Name AND practice_seed IS NULL AND @owner IS NOT NULL AND customer_id IS NOT @owner",
                    fields,
                    transaction
                );
                return 0;
            }
        );

    private long? OwnerOf(Lot lot, SqliteConnection connection, SqliteTransaction transaction) =>
        lot.OwnerName is { Length: > 0 } name ? JobStore.Customer(connection, transaction, name, lot.OwnerContact, time.GetUtcNow()) : null;

    /// <summary>The worth of a lot counts for its open items: those that bear what it was before bear what it is now; what an item was
    /// given for itself stays.</summary>
    /// <returns>How many items were changed.</returns>
    public int CarryWorth(Lot before, Lot now) =>
        database.Write(
            (connection, transaction) =>
            {
                int Carry(string column, decimal? was, decimal? becomes) =>
                    was == becomes
                        ? 0
                        : connection.Execute(
                            $"UPDATE jobs SET {column} = @becomes WHERE lot = @Name AND closed_at IS NULL "
                                + $"AND CAST({column} AS REAL) IS CAST(@was AS REAL)",
                            new
                            {
                                now.Name,
                                was,
                                becomes,
                            },
                            transaction
                        );
                return Carry("value_working", before.Working, now.Working) + Carry("value_as_is", before.Otherwise, now.Otherwise);
            }
        );

    /// <summary>Keeps the place of a unit in its lot.</summary>
    public void Place(JobId jobId, LotPlace place) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT INTO lot_items (job_id, apart, why, weight) VALUES (@jobId, @Apart, @Why, @Weight)
                    ON CONFLICT (job_id) DO UPDATE SET apart = excluded.apart, why = excluded.why, weight = excluded.weight
                    """,
                    new
                    {
                        jobId,
                        place.Apart,
                        place.Why,
                        place.Weight,
                    },
                    transaction
                )
        );

    /// <summary>A unit belongs to another lot; blank for none. What it was there, apart or of another weight, is gone with it.</summary>
    public void MoveTo(JobId jobId, string name) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "DELETE FROM lot_items WHERE job_id = @jobId; UPDATE jobs SET lot = @name, paid = NULL WHERE id = @jobId",
                    new { jobId, name },
                    transaction
                )
        );

    /// <summary>Keeps what was paid for units.</summary>
    public void SetPaid(IEnumerable<(JobId Job, decimal Paid)> shares) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE jobs SET paid = @Paid WHERE id = @Job AND paid IS NOT @Paid",
                    shares.Select(s => new { s.Job, s.Paid }),
                    transaction
                )
        );

    /// <summary>Keeps what was said of the end of a lot, the first time at each number of items decided.</summary>
    public void SaidOfEnd(long lot, int decided, int low, int high) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT OR IGNORE INTO lot_ends (lot_id, decided, low, high, at) VALUES (@lot, @decided, @low, @high, @at)",
                    new
                    {
                        lot,
                        decided,
                        low,
                        high,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>What was said of the ends of the newest lots.</summary>
    public IReadOnlyList<(long Lot, int Decided, int Low, int High)> SaidOfEnds(int most) =>
        database.Read(connection =>
            connection
                .Query<(long, int, int, int)>(
                    """
                    SELECT lot_id, decided, low, high FROM lot_ends
                    WHERE lot_id IN (SELECT DISTINCT lot_id FROM lot_ends ORDER BY lot_id DESC LIMIT @most) ORDER BY lot_id, decided
                    """,
                    new { most }
                )
                .AsList()
        );

    /// <summary>A unit names a lot: it is there from then on.</summary>
    internal static void Ensure(SqliteConnection connection, SqliteTransaction transaction, Job job, DateTimeOffset at)
    {
        if (job.Lot.Length > 0 && job.PracticeSeed is null)
            connection.Execute(
                "INSERT INTO lots (name, currency, bought_on, created_at) SELECT @Lot, @Currency, @day, @at "
                    + "WHERE NOT EXISTS (SELECT 1 FROM lots WHERE name = @Lot)",
                new
                {
                    job.Lot,
                    job.Currency,
                    day = DayText.Write(DateOnly.FromDateTime(at.UtcDateTime)),
                    at,
                },
                transaction
            );
    }

    private const string Select =
        "SELECT l.*, c.name AS owner_name, coalesce(c.contact, '') AS owner_contact FROM lots l LEFT JOIN customers c ON c.id = l.customer_id";

    private const string Counts = "j.deleted_at IS NULL AND j.practice_seed IS NULL";

    private object Fields(Lot lot, long? owner) =>
        new
        {
            owner,
            lot.Id,
            lot.Name,
            lot.Price,
            lot.Postage,
            lot.Currency,
            lot.BoughtOn,
            lot.Words,
            way = lot.Way.ToString(),
            lot.ProfileId,
            lot.Working,
            lot.Otherwise,
            lot.PerHour,
            at = time.GetUtcNow(),
        };
}
