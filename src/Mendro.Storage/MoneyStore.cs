using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Quantities;

namespace Mendro.Storage;

/// <summary>A payment of an owner.</summary>
public sealed record Payment
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job.</summary>
    public JobId JobId { get; init; }

    /// <summary><c>deposit</c>, <c>payment</c> or <c>refund</c>.</summary>
    public string Kind { get; init; } = "payment";

    /// <summary>How much, above nothing, in the job's currency.</summary>
    public decimal Amount { get; init; }

    /// <summary>Day, as 2026-11-26.</summary>
    public string Day { get; init; } = "";

    /// <summary>How, and what for.</summary>
    public string Words { get; init; } = "";

    /// <summary><c>bank</c>, <c>cash</c>, or blank for one of a time at which the two were not told apart.</summary>
    public string Way { get; init; } = "";

    /// <summary>True when it went through the bank.</summary>
    public bool Bank => Way == "bank";

    /// <summary>The sum as it moves the cash: a refund goes out.</summary>
    public decimal Sum => Kind == "refund" ? -Amount : Amount;
}

/// <summary>A job as the books take it.</summary>
public sealed record BookJob
{
    /// <summary>Row id.</summary>
    public JobId Id { get; init; }

    /// <summary>Number on the tag.</summary>
    public long Number { get; init; }

    /// <summary>Model by name.</summary>
    public string ModelName { get; init; } = "";

    /// <summary>Model.</summary>
    public string ProfileId { get; init; } = "";

    /// <summary>Lot.</summary>
    public string Lot { get; init; } = "";

    /// <summary>Currency.</summary>
    public string Currency { get; init; } = "EUR";

    /// <summary>What was paid for it.</summary>
    public decimal? Paid { get; init; }

    /// <summary>Owner, or null for shop stock.</summary>
    public long? CustomerId { get; init; }

    /// <summary>Where it went.</summary>
    public JobEnd Ending { get; init; }

    // What the mapper fills in its place, so that another word there opens the page all the same.
    internal string EndingStored
    {
        get => Ending.ToString();
        init => Ending = Stored.Word(value, JobEnd.Open);
    }

    /// <summary>When it came in, UTC.</summary>
    public DateTimeOffset ReceivedAt { get; init; }

    /// <summary>When it was closed, UTC.</summary>
    public DateTimeOffset? ClosedAt { get; init; }

    /// <summary>Minutes worked on it.</summary>
    public double Minutes { get; init; }

    /// <summary>What an hour cost when it was closed; null for one that is open.</summary>
    public decimal? HourAtClose { get; init; }

    /// <summary>When it was deleted, UTC, or null.</summary>
    public DateTimeOffset? DeletedAt { get; init; }

    /// <summary>True for a practice unit: no money moves in it.</summary>
    public long? PracticeSeed { get; init; }
}

/// <summary>Parts that went into a job on a day.</summary>
/// <param name="Job">Job.</param>
/// <param name="At">When, UTC.</param>
/// <param name="Cost">Cost, in the job's currency.</param>
/// <param name="FromStock">True when they came out of a bin.</param>
/// <param name="Donor">Number of the donor's job; null when they came out of none.</param>
/// <param name="Record">Record of the bench.</param>
public sealed record PartsSpent(JobId Job, DateTimeOffset At, decimal Cost, bool FromStock, long? Donor, long Record);

/// <summary>A part of a donor that was sold.</summary>
public sealed record PartSold
{
    /// <summary>Row id of the part.</summary>
    public long Id { get; init; }

    /// <summary>Job of the donor.</summary>
    public JobId JobId { get; init; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>For how much, in the currency of its job.</summary>
    public decimal Price { get; init; }
}

/// <summary>Keeps payments and rates, and finds what the books of a time are made of.</summary>
public sealed class MoneyStore(ShopDatabase database, TimeProvider time)
{
    private const string Minutes =
        "(SELECT coalesce(sum(r.minutes), 0.0) FROM bench_records r WHERE r.job_id = j.id AND r.withdrawn_at IS NULL) AS minutes";

    private const string Counts = "j.deleted_at IS NULL AND j.practice_seed IS NULL";

    /// <summary>A job, deleted or not; null where there is none.</summary>
    public BookJob? Job(JobId id) =>
        database.Read(connection => connection.QueryFirstOrDefault<BookJob>($"SELECT j.*, {Minutes} FROM jobs j WHERE j.id = @id", new { id }));

    /// <summary>Jobs by their numbers.</summary>
    public IReadOnlyList<BookJob> Jobs(IReadOnlyList<long> numbers) =>
        database.Read(connection =>
            numbers
                .Chunk(MostAtOnce)
                .SelectMany(some => connection.Query<BookJob>($"SELECT j.*, {Minutes} FROM jobs j WHERE j.number IN @some ORDER BY j.number", new { some }))
                .ToList()
        );

    private const int MostAtOnce = 400;

    /// <summary>One job, or all jobs of a lot, by number.</summary>
    /// <param name="number">Number of the job; null for a lot.</param>
    /// <param name="lot">Lot; blank for a job.</param>
    public IReadOnlyList<BookJob> Jobs(long? number, string lot) =>
        database.Read(connection =>
            connection
                .Query<BookJob>(
                    $"SELECT j.*, {Minutes} FROM jobs j WHERE {Counts} AND (j.number = @number OR @lot <> '' AND j.lot = @lot) ORDER BY j.number",
                    new { number, lot }
                )
                .AsList()
        );

    /// <summary>Parts that went into a job.</summary>
    public IReadOnlyList<PartsSpent> Parts(JobId job) => Parts("job_id = @job", new { job });

    /// <summary>Parts of donors that were sold.</summary>
    /// <param name="job">Job of the donor, or null for all.</param>
    public IReadOnlyList<PartSold> PartsSold(JobId? job = null) =>
        database.Read(connection =>
            connection
                .Query<PartSold>(
                    """
                    SELECT id, job_id, changed_at AS at, price FROM donor_parts
                    WHERE (@job IS NULL OR job_id = @job) AND state = 'sold' AND price IS NOT NULL ORDER BY id
                    """,
                    new { job = job?.Value }
                )
                .AsList()
        );

    /// <summary>Payments of a job, the oldest first.</summary>
    /// <param name="job">Job.</param>
    /// <param name="deleted">True for those that were taken away.</param>
    public IReadOnlyList<Payment> Payments(JobId job, bool deleted = false) =>
        database.Read(connection =>
            connection
                .Query<Payment>(
                    "SELECT * FROM payments WHERE (deleted_at IS NOT NULL) = @deleted AND job_id = @job ORDER BY day, id",
                    new { job, deleted }
                )
                .AsList()
        );

    /// <summary>Adds a payment.</summary>
    /// <returns>Its id.</returns>
    public long Add(Payment payment) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    "INSERT INTO payments (job_id, kind, amount, day, words, way, at) VALUES (@JobId, @Kind, @Amount, @Day, @Words, @Way, @at) RETURNING id",
                    new
                    {
                        payment.JobId,
                        payment.Kind,
                        payment.Amount,
                        payment.Day,
                        payment.Words,
                        payment.Way,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Takes a payment away, or brings it back.</summary>
    public void SetDeleted(JobId job, long id, bool deleted) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE payments SET deleted_at = CASE WHEN @deleted THEN @at END WHERE id = @id AND job_id = @job",
                    new
                    {
                        id,
                        job,
                        deleted,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>What one of a currency was worth in the shop's on a day, by the last rate kept by then; null when none was.</summary>
    public decimal? Rate(string currency, DateOnly day) =>
        database.Read(connection =>
            connection.QueryFirstOrDefault<string>(
                "SELECT rate FROM rates WHERE currency = @currency AND day <= @day ORDER BY day DESC LIMIT 1",
                new { currency, day = DayText.Write(day) }
            )
        )
            is { } told
            ? Stored.Amount(told)
            : null;

    /// <summary>Keeps the rate of a day.</summary>
    public void SetRate(string currency, DateOnly day, decimal rate) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "INSERT INTO rates (currency, day, rate) VALUES (@currency, @day, @rate) ON CONFLICT (currency, day) DO UPDATE SET rate = excluded.rate",
                    new
                    {
                        currency,
                        day = DayText.Write(day),
                        rate,
                    },
                    transaction
                )
        );

    private static bool IsDonor(string bin) => bin.StartsWith(PartUsed.DonorBin, StringComparison.Ordinal);

    private List<PartsSpent> Parts(string where, object with) =>
        database.Read(connection =>
            connection
                .Query<(long Id, long Job, string At, string Cost, bool Used, string Bin)>(
                    $"""
                    SELECT id, job_id, at, cost, kind = 'part-used',
                      CASE WHEN kind = 'part-used' AND json_valid(payload) THEN coalesce(json_extract(payload, '$.bin'), '') ELSE '' END AS bin
                    FROM bench_records WHERE {where} AND cost IS NOT NULL AND withdrawn_at IS NULL ORDER BY id
                    """,
                    with
                )
                .Select(r => new PartsSpent(
                    new JobId(r.Job),
                    Stored.Moment(r.At),
                    Stored.Amount(r.Cost),
                    r.Used && !IsDonor(r.Bin),
                    IsDonor(r.Bin) && long.TryParse(r.Bin[PartUsed.DonorBin.Length..], out var donor) ? donor : null,
                    r.Id
                ))
                .ToList()
        );
}
