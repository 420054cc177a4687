using Dapper;
using Mendro.Core.Diagnosis;
using Mendro.Core.Jobs;
using Mendro.Core.Money;
using Mendro.Core.Profiles;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>The jobs. Every write is a transaction and leaves a line in the timeline.</summary>
public sealed class JobStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Moves a job to another version of its model; its records stay as they are.</summary>
    public void MoveToVersion(JobId id, long version) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("UPDATE jobs SET profile_version = @version WHERE id = @id", new { id, version }, transaction)
        );

    /// <summary>True when a unit was ever taken in, practice units left out.</summary>
    public bool Any() =>
        database.Read(connection => connection.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM jobs WHERE practice_seed IS NULL)"));

    /// <summary>Practice units are numbered upwards from here, so that the shop's own numbers stay without gaps.</summary>
    public const long FirstPractice = 900_000;

    internal const string Select = """
        SELECT j.*, c.name AS customer_name, c.contact AS customer_contact,
          (SELECT l.per_hour FROM lots l WHERE l.name = j.lot) AS lot_hour
        FROM jobs j LEFT JOIN customers c ON c.id = j.customer_id
        """;

    /// <summary>Takes a unit in.</summary>
    /// <returns>The job with its number.</returns>
    public Job TakeIn(NewJob intake)
    {
        var number = database.Write(
            (connection, transaction) =>
            {
                var customer = intake.OwnerName is { } name ? Customer(connection, transaction, name, intake.OwnerContact, time.GetUtcNow()) : (long?)null;
                var next = connection.ExecuteScalar<long>(
                    intake.Job.PracticeSeed is null
                        ? "SELECT coalesce(max(number), 100) + 1 FROM jobs WHERE number <= @FirstPractice"
                        : "SELECT max(coalesce(max(number), 0), @FirstPractice) + 1 FROM jobs",
                    new { FirstPractice },
                    transaction
                );
                LotStore.Ensure(connection, transaction, intake.Job, intake.Job.ReceivedAt);
                var id = new JobId(Insert(connection, transaction, intake.Job, next, customer));
                Timeline.Add(
                    connection,
                    transaction,
                    id,
                    intake.Job.ReceivedAt,
                    "intake",
                    $"Taken in: {intake.Job.Title}, {intake.OwnerName ?? "shop stock"}"
                );
                long seq = 0;
                foreach (var record in intake.Records)
                    BenchRecordStore.Insert(connection, transaction, record with { JobId = id, Seq = ++seq });
                return next;
            }
        );
        return Find(number)!;
    }

    /// <summary>The job with this number, deleted ones too, or null.</summary>
    public Job? Find(long number) =>
        database.Read(connection => connection.QueryFirstOrDefault<Job>($"{Select} WHERE j.number = @number", new { number }));

    /// <summary>Jobs in the shop: not closed, not deleted; newest number first.</summary>
    public IReadOnlyList<Job> Live() =>
        database.Read(connection =>
            connection
                .Query<Job>(
                    $"{Select} WHERE j.closed_at IS NULL AND j.deleted_at IS NULL AND j.practice_seed IS NULL ORDER BY j.number DESC"
                )
                .AsList()
        );

    /// <summary>True when the shop has never had a job, practice units too.</summary>
    public bool IsEmpty() => database.Read(connection => connection.ExecuteScalar<long>("SELECT EXISTS (SELECT 1 FROM jobs)")) == 0;

    /// <summary>Practice units, newest first.</summary>
    public IReadOnlyList<Job> Practice() =>
        database.Read(connection =>
            connection
                .Query<Job>($"{Select} WHERE j.deleted_at IS NULL AND j.practice_seed IS NOT NULL ORDER BY j.number DESC LIMIT 50")
                .AsList()
        );

    /// <summary>Changes what was written down at intake.</summary>
    public void SaveIntake(Job job, string? ownerName, string ownerContact) =>
        Change(
            job.Id,
            "intake",
            "Intake corrected",
            (connection, transaction) =>
            {
                var customer = ownerName is { } name ? Customer(connection, transaction, name, ownerContact, time.GetUtcNow()) : (long?)null;
                LotStore.Ensure(connection, transaction, job, job.ReceivedAt);
                connection.Execute(
                    """
                    UPDATE jobs SET unit_name = @UnitName, revision = @Revision, serial = @Serial, customer_id = @customer, lot = @Lot, paid = @Paid,
                      currency = @Currency, accessories = @Accessories, claim = @Claim, condition_note = @ConditionNote,
                      value_working = @ValueWorking, value_as_is = @ValueAsIs, value_parts = @ValueParts,
                      promised = @Promised WHERE id = @Id
                    """,
                    new
                    {
                        job.UnitName,
                        job.Revision,
                        job.Serial,
                        customer,
                        job.Lot,
                        job.Paid,
                        job.Currency,
                        job.Accessories,
                        job.Claim,
                        job.ConditionNote,
                        job.ValueWorking,
                        job.ValueAsIs,
                        job.ValueParts,
                        job.Promised,
                        job.Id,
                    },
                    transaction
                );
            }
        );

    /// <summary>A unit is mended whatever it brings, or not any more.</summary>
    public void SetAnyway(JobId id, bool anyway) =>
        Change(
            id,
            "life",
            anyway ? "Mended whatever it brings" : "Weighed by what it brings again",
            (connection, transaction) => connection.Execute("UPDATE jobs SET anyway = @anyway WHERE id = @id", new { id = id.Value, anyway }, transaction)
        );

    /// <summary>Tells the board revision of a unit.</summary>
    public void SetRevision(JobId id, string revision) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("UPDATE jobs SET revision = @revision WHERE id = @id", new { id, revision }, transaction)
        );

    /// <summary>Moves a job to where it stands now; the rules of the move are <see cref="JobLife"/>'s.</summary>
    /// <param name="job">The job as it was.</param>
    /// <param name="to">Where it stands now.</param>
    /// <param name="words">What happened, for the timeline; null leaves no line.</param>
    /// <param name="reason">Why it lies on its shelf; kept while it stays there when null.</param>
    /// <param name="nextTry">What to try next; kept likewise.</param>
    public void Move(Job job, JobStatus to, string? words, string? reason = null, string? nextTry = null) =>
        database.Write(
            (connection, transaction) =>
            {
                var at = time.GetUtcNow();
                var stays = to.Shelf == job.Shelf && to.Shelf != Shelf.None;
                connection.Execute(
                    """
                    UPDATE jobs SET stage = @stage, shelf = @shelf, shelf_reason = @reason, next_try = @nextTry, ending = @ending,
                      closed_at = CASE WHEN @ending = 'Open' THEN NULL ELSE coalesce(closed_at, @at) END,
                      deleted_at = CASE WHEN @Deleted THEN coalesce(deleted_at, @at) END
                    WHERE id = @Id
                    """,
                    new
                    {
                        stage = to.Stage.ToString(),
                        shelf = to.Shelf.ToString(),
                        ending = to.Ending.ToString(),
                        to.Deleted,
                        at,
                        job.Id,
                        reason = reason ?? (stays ? job.ShelfReason : ""),
                        nextTry = nextTry ?? (stays ? job.NextTry : ""),
                    },
                    transaction
                );
                if (to.Shelf != job.Shelf)
                    HookStore.Tell(connection, transaction, job, to.Shelf, reason ?? "", at);
                // What it waited for is over, however it came off its shelf.
                if (to.Shelf == Shelf.None && job.Shelf != Shelf.None)
                    connection.Execute("DELETE FROM shelf_waits WHERE job_id = @Id", new { job.Id }, transaction);
                if (words is not null)
                    Timeline.Add(connection, transaction, job.Id, at, "life", words);
                return 0;
            }
        );

    /// <summary>Leaves a line in the timeline.</summary>
    public void Note(JobId id, string words, string kind = "life") => Change(id, kind, words, (_, _) => { });

    /// <summary>Writes down how a job was handed over, beside its move, and what an hour cost then.</summary>
    public void WriteEnding(JobId jobId, string note, string statedReason, decimal? asking, decimal perHour) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE jobs SET ending_note = @note, stated_reason = @statedReason, asking = @asking, hour_at_close = @perHour WHERE id = @jobId",
                    new
                    {
                        note,
                        statedReason,
                        asking,
                        perHour,
                        jobId,
                    },
                    transaction
                )
        );

    private void Change(JobId jobId, string kind, string words, Action<SqliteConnection, SqliteTransaction> work) =>
        database.Write(
            (connection, transaction) =>
            {
                work(connection, transaction);
                Timeline.Add(connection, transaction, jobId, time.GetUtcNow(), kind, words);
                return 0;
            }
        );

    internal static long Customer(SqliteConnection connection, SqliteTransaction transaction, string name, string contact, DateTimeOffset at)
    {
        var known = connection.QueryFirstOrDefault<long?>(
            "SELECT id FROM customers WHERE name = @name COLLATE NOCASE AND name = @name AND (contact = @contact OR @contact = '') ORDER BY id DESC",
            new { name, contact },
            transaction
        );
        return known
            ?? connection.ExecuteScalar<long>(
                "INSERT INTO customers (name, contact, created_at) VALUES (@name, @contact, @at) RETURNING id",
                new
                {
                    name,
                    contact,
                    at,
                },
                transaction
            );
    }

    private static long Insert(SqliteConnection connection, SqliteTransaction transaction, Job job, long number, long? customer) =>
        connection.ExecuteScalar<long>(
            """
            INSERT INTO jobs (number, profile_id, profile_version, model_name, unit_name, revision, serial, customer_id, lot, paid, currency,
              accessories, claim, condition_note, stage, shelf, ending, value_working, value_as_is, value_parts, received_at, practice_seed, promised)
            VALUES (@number, @ProfileId, @ProfileVersion, @ModelName, @UnitName, @Revision, @Serial, @customer, @Lot, @Paid, @Currency,
              @Accessories, @Claim, @ConditionNote, @stage, 'None', 'Open', @ValueWorking, @ValueAsIs, @ValueParts, @ReceivedAt, @PracticeSeed,
              @Promised)
            RETURNING id
            """,
            new
            {
                number,
                job.ProfileId,
                job.ProfileVersion,
                job.ModelName,
                job.UnitName,
                job.Revision,
                job.Serial,
                customer,
                job.Lot,
                job.Paid,
                job.Currency,
                job.Accessories,
                job.Claim,
                job.ConditionNote,
                stage = job.Stage.ToString(),
                job.ValueWorking,
                job.ValueAsIs,
                job.ValueParts,
                job.ReceivedAt,
                job.PracticeSeed,
                job.Promised,
            },
            transaction
        );
}
