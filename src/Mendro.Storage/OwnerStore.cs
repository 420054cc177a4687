using Dapper;
using Mendro.Core.Jobs;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>An owner.</summary>
/// <param name="Id">Row id.</param>
/// <param name="Name">Name.</param>
/// <param name="Contact">Phone, mail or address.</param>
/// <param name="CreatedAt">Since when known, UTC.</param>
public sealed record Owner(long Id, string Name, string Contact, DateTimeOffset CreatedAt);

/// <summary>What the shop keeps of a person: all of it, or nothing any more.</summary>
public sealed partial class OwnerStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>What stands for one who was taken out; a number follows.</summary>
    public const string ErasedName = "Erased owner";

    // What is not searched: what the law wants kept as it was given out, what follows from other rows, and what names no person.
    private static readonly string[] NotSearched =
    [
        "SchemaVersions", "customers", "erasures", "bills", "access_log", "settings", "profiles", "job_texts", "sessions", "accounts", "actions",
        "journal_months", "journal_lines",
    ];

    /// <summary>An owner, or null.</summary>
    public Owner? Find(long id) => Rows("WHERE id = @id", new { id }).FirstOrDefault();

    /// <summary>Jobs of an owner, deleted ones too, oldest first.</summary>
    public IReadOnlyList<Job> Jobs(long id) =>
        database.Read(connection =>
            connection.Query<Job>($"{JobStore.Select} WHERE j.customer_id = @id ORDER BY j.number", new { id }).AsList()
        );

    /// <summary>Earlier jobs of the same unit, by its serial number, newest first.</summary>
    public IReadOnlyList<Job> Earlier(Job job) =>
        job.Serial.Length == 0
            ? []
            : database.Read(connection =>
                connection
                    .Query<Job>(
                        $"{JobStore.Select} WHERE j.serial <> '' AND j.serial = @Serial AND j.profile_id = @ProfileId AND j.id < @Id AND j.deleted_at IS NULL "
                            + "AND j.practice_seed IS NULL ORDER BY j.id DESC LIMIT 10",
                        new
                        {
                            job.Serial,
                            job.ProfileId,
                            job.Id,
                        }
                    )
                    .AsList()
            );

    /// <summary>
    /// Takes name and contact of a person out of everything: the owner's row, and every text of the jobs in which they stand. What was
    /// found and done stays. Backups made before still hold them.
    /// </summary>
    /// <returns>The name under which the work stays.</returns>
    public string Erase(Owner owner) =>
        database.Write(
            (connection, transaction) =>
            {
                var stays = FormattableString.Invariant($"{ErasedName} {owner.Id}");
                var erasure = connection.ExecuteScalar<long>(
                    "INSERT INTO erasures (owner, at, done_by) VALUES (@Id, @at, @by) RETURNING id",
                    new
                    {
                        owner.Id,
                        at = time.GetUtcNow(),
                        by = Acting.Now,
                    },
                    transaction
                );
                // What is overwritten is gone from the pages of the file as well.
                connection.Execute("PRAGMA secure_delete = ON", transaction: transaction);
                var ways = connection.Query<string>("SELECT value FROM customer_contacts WHERE customer_id = @Id", new { owner.Id }, transaction);
                var words = new PersonWords(owner.Name, string.Join('\n', ways.Prepend(owner.Contact)), stays);
                connection.CreateFunction("take_out_own", (string? text) => text is null ? null : words.TakeOutOwn(text));
                connection.CreateFunction("take_out_sure", (string? text) => text is null ? null : words.TakeOutSure(text));
                foreach (var column in TextColumns(connection, transaction))
                {
                    var own = column.Own is null ? "0" : $"({column.Own})";
                    var taken = $"CASE WHEN {own} THEN take_out_own({column.Name}) ELSE take_out_sure({column.Name}) END";
                    connection.Execute(
                        $"UPDATE {column.Table} SET {column.Name} = {taken} WHERE {column.Name} IS NOT NULL AND {column.Name} <> {taken}",
                        new { owner.Id },
                        transaction
                    );
                }

                connection.Execute("DELETE FROM customer_contacts WHERE customer_id = @Id", new { owner.Id }, transaction);
                connection.Execute("DELETE FROM actions WHERE take_out_own(result) <> result", transaction: transaction);
                connection.Execute(
                    // Rows left over from a corrected intake have no job any more; they hold the name all the same.
                    """
                    UPDATE customers SET name = @stays, contact = '' WHERE id = @Id
                      OR (name = @Name AND NOT EXISTS (SELECT 1 FROM jobs WHERE jobs.customer_id = customers.id))
                    """,
                    new
                    {
                        stays,
                        owner.Id,
                        owner.Name,
                    },
                    transaction
                );
                connection.Execute(
                    "INSERT OR IGNORE INTO jobs_due (job_id) SELECT id FROM jobs WHERE customer_id = @Id",
                    new { owner.Id },
                    transaction
                );
                connection.Execute("UPDATE erasures SET under_way = 0 WHERE id = @erasure", new { erasure }, transaction);
                return stays;
            }
        );

    /// <summary>Folds the file and its log: what was overwritten is in neither.</summary>
    /// <returns>False when somebody else was reading: it is folded when the shop opens next.</returns>
    public bool Fold()
    {
        try
        {
            using var connection = database.Open();
            connection.Execute("VACUUM; PRAGMA wal_checkpoint(TRUNCATE)");
            return true;
        }
        catch (SqliteException)
        {
            return false;
        }
    }

    /// <summary>Owners of whom nothing was taken out yet, with name and contact.</summary>
    public IReadOnlyList<Owner> All() => Rows("ORDER BY id", null);

    // Rows of people by the end of a statement of ours; what is looked for comes by parameters.
    private List<Owner> Rows(string which, object? values) =>
        database.Read(connection =>
            connection
                .Query<(long Id, string Name, string Contact, DateTimeOffset At)>($"SELECT id, name, contact, created_at FROM customers {which}", values)
                .Select(c => new Owner(c.Id, c.Name, c.Contact, c.At))
                .ToList()
        );

    /// <summary>Where else words stand that may be this person's: parts of the name in rows of others, or a slip of the pen away.</summary>
    /// <param name="owner">Owner.</param>
    /// <param name="alike">Whether a word is one of these, or nearly.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<(string Where, string Text)> Elsewhere(Owner owner, Func<string, IReadOnlyList<string>, bool> alike, int most) =>
        database.Read(connection =>
        {
            var parts = new PersonWords(owner.Name, owner.Contact, "").Parts;
            connection.CreateFunction("is_like", (string? text) => text is not null && alike(text, parts));
            var found = new List<(string, string)>();
            foreach (var column in TextColumns(connection, null))
            {
                var own = column.Own is null ? "0" : $"({column.Own})";
                found.AddRange(
                    connection
                        .Query<string>(
                            $"SELECT {column.Name} FROM {column.Table} WHERE NOT {own} AND is_like({column.Name}) LIMIT @most",
                            new { owner.Id, most }
                        )
                        .Select(t => ($"{column.Table}, {column.Name}", t))
                );
                if (found.Count >= most)
                    break;
            }

            return found.Take(most).ToList();
        });

    // Every column of text of every table, so that a new one cannot be missed; and which of its rows are of this owner's jobs.
    private static List<(string Table, string Name, string? Own)> TextColumns(SqliteConnection connection, SqliteTransaction? transaction)
    {
        var found = new List<(string, string, string?)>();
        var tables = connection.Query<string>(
            "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite!_%' ESCAPE '!' AND name NOT LIKE 'job!_search%' ESCAPE '!'",
            transaction: transaction
        );
        const string OfOwner = "SELECT id FROM jobs WHERE customer_id = @Id";
        foreach (var table in tables.Except(NotSearched).ToList())
        {
            var columns = connection
                .Query<(string Name, string Type)>($"SELECT name, type FROM pragma_table_info('{table}')", transaction: transaction)
                .ToList();
            var names = columns.Select(c => c.Name).ToHashSet();
            var own =
                table == "jobs" || names.Contains("customer_id") ? "customer_id IS @Id"
                : names.Contains("job_id") ? $"job_id IN ({OfOwner})"
                : null;
            found.AddRange(
                columns.Where(c => c.Type == "TEXT" && !c.Name.EndsWith("_at", StringComparison.Ordinal) && c.Name != "at").Select(c => (table, c.Name, own))
            );
        }

        return found;
    }
}
