using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>An owner.</summary>
/// <param name="Id">Row id.</param>
/// <param name="Name">Name.</param>
/// <param name="Contact">Phone, mail or address.</param>
/// <param name="CreatedAt">Since when known, UTC.</param>
public sealed record Owner(long Id, string Name, string Contact, DateTimeOffset CreatedAt);

/// <summary>What the shop keeps of a person: all of it, or nothing any more.</summary>
public sealed class OwnerStore(ShopDatabase database, TimeProvider time)
{
    // Shorter ones would be found inside other words.
    private const int ShortestReplaced = 3;

    private static readonly (string Table, string Key, string[] Columns)[] Texts =
    [
        (
            "jobs",
            "id",
            ["claim", "accessories", "condition_note", "ending_note", "stated_reason", "shelf_reason", "next_try", "unit_name"]
        ),
        ("bench_records", "job_id", ["words", "note", "payload"]),
        ("timeline", "job_id", ["words"]),
        ("pictures", "job_id", ["caption", "marks"]),
        ("sales", "job_id", ["words"]),
    ];

    /// <summary>An owner, or null.</summary>
    public Owner? Find(long id) =>
        database.Read(connection =>
            connection
                .Query<(long Id, string Name, string Contact, DateTimeOffset At)>(
                    "SELECT id, name, contact, created_at FROM customers WHERE id = @id",
                    new { id }
                )
                .Select(c => new Owner(c.Id, c.Name, c.Contact, c.At))
                .FirstOrDefault()
        );

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
                var stays = FormattableString.Invariant($"Erased owner {owner.Id}");
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
                foreach (var (from, to) in Replacements(owner, stays))
                {
                    foreach (var (table, key, columns) in Texts)
                        foreach (var column in columns)
                            connection.Execute(
                                $"UPDATE {table} SET {column} = replace({column}, @from, @to) "
                                    + $"WHERE {key} IN (SELECT id FROM jobs WHERE customer_id = @Id) AND instr({column}, @from) > 0",
                                new
                                {
                                    from,
                                    to,
                                    owner.Id,
                                },
                                transaction
                            );
                    connection.Execute("DELETE FROM actions WHERE instr(result, @from) > 0", new { from }, transaction);
                }

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

    private static List<(string From, string To)> Replacements(Owner owner, string stays)
    {
        var found = new List<(string, string)>();
        foreach (var (from, to) in ((string, string)[])[(owner.Name, stays), (owner.Contact, "")])
        {
            if (from.Length < ShortestReplaced)
                continue;
            found.Add((from, to));
            // As it stands inside a payload.
            var inside = JsonSerializer.Serialize(from)[1..^1];
            if (inside != from)
                found.Add((inside, to));
        }

        return found;
    }
}
