using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>What became of an offer.</summary>
public enum OfferState
{
    /// <summary>Still to be decided.</summary>
    Open,

    /// <summary>Bought.</summary>
    Bought,

    /// <summary>Not bought: too dear, or gone.</summary>
    Lost,
}

/// <summary>Something that could be bought, as it was weighed.</summary>
public sealed record Offer
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>What became of it.</summary>
    public OfferState State { get; init; }

    // What the mapper fills in its place, so that another word there opens the page all the same.
    internal string StateStored
    {
        get => State.ToString();
        init => State = Stored.Word(value, default(OfferState));
    }

    /// <summary>What it is.</summary>
    public string Title { get; init; } = "";

    /// <summary>Models that it may be, as a JSON list of ids.</summary>
    public string Profiles { get; init; } = "[]";

    /// <summary>What the seller says.</summary>
    public string Claim { get; init; } = "";

    /// <summary>How many units.</summary>
    public int Count { get; init; } = 1;

    /// <summary>ISO 4217 code.</summary>
    public string Currency { get; init; } = "EUR";

    /// <summary>Price asked for all of them.</summary>
    public decimal Asking { get; init; }

    /// <summary>Postage.</summary>
    public decimal Postage { get; init; }

    /// <summary>Fee on top of the price, as a share.</summary>
    public decimal BuyFee { get; init; }

    /// <summary>What one fetches working.</summary>
    public decimal Working { get; init; }

    /// <summary>What one fetches as it is or in parts.</summary>
    public decimal InParts { get; init; }

    /// <summary>Spread of those prices.</summary>
    public double Spread { get; init; } = 0.25;

    /// <summary>Chance to cure that was given, 0 to 1.</summary>
    public double Chance { get; init; }

    /// <summary>Minutes a unit that were expected.</summary>
    public double Minutes { get; init; }

    /// <summary>Highest sensible offer that was given.</summary>
    public decimal Highest { get; init; }

    /// <summary>Cautious offer that was given.</summary>
    public decimal Cautious { get; init; }

    /// <summary>Price it went for, when it was bought.</summary>
    public decimal? Paid { get; init; }

    /// <summary>Lot it became; blank for none.</summary>
    public string Lot { get; init; } = "";

    /// <summary>Own words.</summary>
    public string Words { get; init; } = "";

    /// <summary>When it was weighed first, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>When it was taken away, UTC; it can be brought back.</summary>
    public DateTimeOffset? DeletedAt { get; init; }

    /// <summary>Models that it may be.</summary>
    public IReadOnlyList<string> ModelIds => Stored.Json<List<string>>(Profiles, []);
}

/// <summary>A unit that came of an offer.</summary>
/// <param name="Offer">Offer.</param>
/// <param name="Chance">Chance to cure that was given, 0 to 1.</param>
/// <param name="Job">Job of the unit.</param>
public sealed record OfferUnit(long Offer, double Chance, Job Job);

/// <summary>Keeps offers.</summary>
public sealed class OfferStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>The newest offers.</summary>
    /// <param name="most">How many.</param>
    public IReadOnlyList<Offer> Newest(int most) =>
        database.Read(connection =>
            connection.Query<Offer>("SELECT * FROM offers WHERE deleted_at IS NULL ORDER BY id DESC LIMIT @most", new { most }).AsList()
        );

    /// <summary>One, or null.</summary>
    public Offer? Find(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<Offer>("SELECT * FROM offers WHERE id = @id", new { id }));

    /// <summary>Adds one, or keeps one that is there.</summary>
    /// <returns>Its id.</returns>
    public long Save(Offer offer) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    offer.Id == 0
                        ? """
                          INSERT INTO offers (state, title, profiles, claim, count, currency, asking, postage, buy_fee, working, in_parts, spread,
                            chance, minutes, highest, cautious, paid, lot, words, at, changed_at)
                          VALUES (@state, @Title, @Profiles, @Claim, @Count, @Currency, @Asking, @Postage, @BuyFee, @Working, @InParts, @Spread,
                            @Chance, @Minutes, @Highest, @Cautious, @Paid, @Lot, @Words, @at, @at) RETURNING id
                          """
                        : """
                          UPDATE offers SET state = @state, title = @Title, profiles = @Profiles, claim = @Claim, count = @Count,
                            currency = @Currency, asking = @Asking, postage = @Postage, buy_fee = @BuyFee, working = @Working,
                            in_parts = @InParts, spread = @Spread, chance = @Chance, minutes = @Minutes, highest = @Highest,
                            cautious = @Cautious, paid = @Paid, lot = @Lot, words = @Words, changed_at = @at WHERE id = @Id RETURNING id
                          """,
                    new
                    {
                        offer.Id,
                        state = offer.State.ToString(),
                        offer.Title,
                        offer.Profiles,
                        offer.Claim,
                        offer.Count,
                        offer.Currency,
                        offer.Asking,
                        offer.Postage,
                        offer.BuyFee,
                        offer.Working,
                        offer.InParts,
                        offer.Spread,
                        offer.Chance,
                        offer.Minutes,
                        offer.Highest,
                        offer.Cautious,
                        offer.Paid,
                        offer.Lot,
                        offer.Words,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Takes one away, or brings it back.</summary>
    public void SetDeleted(long id, bool deleted) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE offers SET deleted_at = CASE WHEN @deleted THEN @at END WHERE id = @id",
                    new
                    {
                        id,
                        deleted,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Notes the unit that came of an offer.</summary>
    public void Join(long id, JobId jobId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO offer_jobs (offer_id, job_id) VALUES (@id, @jobId) ON CONFLICT (job_id) DO UPDATE SET offer_id = excluded.offer_id",
                    new { id, jobId },
                    transaction
                )
        );

    /// <summary>Units that came of offers: of one, or of the newest that were bought.</summary>
    /// <param name="id">Offer, or null for all.</param>
    /// <param name="most">How many units.</param>
    public IReadOnlyList<OfferUnit> Units(long? id, int most) =>
        database.Read(connection =>
            connection
                .Query<(long Offer, double Chance, long Job)>(
                    """
                    SELECT o.id, o.chance, u.job_id FROM offers o JOIN offer_jobs u ON u.offer_id = o.id JOIN jobs j ON j.id = u.job_id
                    WHERE (@id IS NULL OR o.id = @id) AND o.deleted_at IS NULL AND j.deleted_at IS NULL ORDER BY u.job_id DESC LIMIT @most
                    """,
                    new { id, most }
                )
                .Select(r => new OfferUnit(
                    r.Offer,
                    r.Chance,
                    connection.QueryFirst<Job>($"{JobStore.Select} WHERE j.id = @Job", new { r.Job })
                ))
                .ToList()
        );
}
