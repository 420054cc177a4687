using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Lots;
using Mendro.Core.Money;
using Mendro.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>Several units that came for one price.</summary>
public sealed record Lot
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Name, which its jobs bear.</summary>
    public string Name { get; init; } = "";

    /// <summary>Price, or null when only those of its items are known.</summary>
    public decimal? Price { get; init; }

    /// <summary>Postage of the purchase.</summary>
    public decimal Postage { get; init; }

    /// <summary>ISO 4217 code.</summary>
    public string Currency { get; init; } = "EUR";

    /// <summary>Day of the purchase, as 2026-11-26.</summary>
    public string BoughtOn { get; init; } = "";

    /// <summary>Where it came from, what was said of it.</summary>
    public string Words { get; init; } = "";

    /// <summary>How its price is spread.</summary>
    public SpreadWay Way { get; init; }

    /// <summary>Model of most of its items; blank for none.</summary>
    public string ProfileId { get; init; } = "";

    /// <summary>Usual worth of an item when it works, or null.</summary>
    public decimal? Working { get; init; }

    /// <summary>Usual worth of one that does not, or null.</summary>
    public decimal? Otherwise { get; init; }

    /// <summary>What an hour of work on it is worth; null for the shop's hour.</summary>
    public decimal? PerHour { get; init; }

    /// <summary>Day of the purchase.</summary>
    public DateOnly Day => DayText.Read(BoughtOn) ?? default;

    /// <summary>Price and postage; null when the price is not known.</summary>
    public Amount? Cost => Price is { } price ? new Amount(price + Postage, Currency) : null;
}

/// <summary>A lot in the list.</summary>
/// <param name="Lot">The lot.</param>
/// <param name="Units">Its units.</param>
/// <param name="InShop">Of these still in the shop.</param>
public sealed record LotLine(Lot Lot, int Units, int InShop);

/// <summary>What is known of a unit as an item of its lot.</summary>
/// <param name="Apart">True when it does not belong in it.</param>
/// <param name="Why">Why.</param>
/// <param name="Weight">Weight when the price is spread, or null.</param>
public sealed record LotPlace(bool Apart, string Why, decimal? Weight)
{
    /// <summary>An ordinary item.</summary>
    public static LotPlace Usual { get; } = new(false, "", null);
}

/// <summary>Keeps lots and the places of units in them.</summary>
public sealed class LotStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>A page of lots, the newest first.</summary>
    /// <param name="before">Only those with ids below; null for the newest.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<LotLine> List(long? before, int most) =>
        database.Read(connection =>
            connection
                .Query<Lot>("SELECT * FROM lots WHERE id < @before ORDER BY id DESC LIMIT @most", new { before = before ?? long.MaxValue, most })
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

    /// <summary>One lot, or null.</summary>
    public Lot? Find(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<Lot>("SELECT * FROM lots WHERE id = @id", new { id }));

    /// <summary>One lot by its name, or null.</summary>
    public Lot? Find(string name) =>
        database.Read(connection => connection.QueryFirstOrDefault<Lot>("SELECT * FROM lots WHERE name = @name", new { name }));

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
                        r.Weight is { } told ? decimal.Parse(told, System.Globalization.CultureInfo.InvariantCulture) : null
                    )
                )
        );

    /// <summary>Adds a lot.</summary>
    /// <returns>Its id.</returns>
    public long Add(Lot lot) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    """
                    INSERT INTO lots (name, price, postage, currency, bought_on, words, way, profile_id, working, otherwise, per_hour, created_at)
                    VALUES (@Name, @Price, @Postage, @Currency, @BoughtOn, @Words, @way, @ProfileId, @Working, @Otherwise, @PerHour, @at) RETURNING id
                    """,
                    Fields(lot),
                    transaction
                )
        );

    /// <summary>Keeps what was told of a lot; its name stays.</summary>
    public void Save(Lot lot) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    UPDATE lots SET price = @Price, postage = @Postage, currency = @Currency, bought_on = @BoughtOn, words = @Words, way = @way,
                      profile_id = @ProfileId, working = @Working, otherwise = @Otherwise,
                      per_hour = @PerHour WHERE id = @Id
                    """,
                    Fields(lot),
                    transaction
                )
        );

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

    private const string Counts = "j.deleted_at IS NULL AND j.practice_seed IS NULL";

    private object Fields(Lot lot) =>
        new
        {
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
