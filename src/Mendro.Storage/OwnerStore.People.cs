using Dapper;

namespace Mendro.Storage;

/// <summary>A way to reach a person.</summary>
/// <param name="Kind"><c>phone</c>, <c>mail</c> or <c>address</c>.</param>
/// <param name="Value">Number, mail or address.</param>
public sealed record ContactWay(string Kind, string Value);

/// <summary>A person in the list of owners.</summary>
public sealed record PersonLine
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Name.</summary>
    public string Name { get; init; } = "";

    /// <summary>First phone, mail or address.</summary>
    public string Contact { get; init; } = "";

    /// <summary>Jobs.</summary>
    public int Jobs { get; init; }

    /// <summary>Jobs that are in the shop.</summary>
    public int Open { get; init; }

    /// <summary>When the last job came in or was closed, UTC; null without one.</summary>
    public DateTimeOffset? LastHere { get; init; }
}

/// <summary>How people are reached, who of them are one, and who has not been here for long.</summary>
public sealed partial class OwnerStore
{
    /// <summary>How a person is reached, in the order told.</summary>
    public IReadOnlyList<ContactWay> Contacts(long id) =>
        database.Read(connection =>
            connection.Query<ContactWay>("SELECT kind, value FROM customer_contacts WHERE customer_id = @id ORDER BY id", new { id }).AsList()
        );

    /// <summary>Keeps name and ways; the first way stands beside the name everywhere.</summary>
    public void Save(long id, string name, IReadOnlyList<ContactWay> ways) =>
        database.Write(
            (connection, transaction) =>
            {
                connection.Execute(
                    "UPDATE customers SET name = @name, contact = @first WHERE id = @id",
                    new
                    {
                        id,
                        name,
                        first = ways.Count > 0 ? ways[0].Value : "",
                    },
                    transaction
                );
                connection.Execute("DELETE FROM customer_contacts WHERE customer_id = @id", new { id }, transaction);
                connection.Execute(
                    "INSERT INTO customer_contacts (customer_id, kind, value) VALUES (@id, @Kind, @Value)",
                    ways.Select(w => new { id, w.Kind, w.Value }),
                    transaction
                );
                connection.Execute("INSERT OR IGNORE INTO jobs_due (job_id) SELECT id FROM jobs WHERE customer_id = @id", new { id }, transaction);
                return ways.Count;
            }
        );

    /// <summary>Two rows are one person: the jobs, lots and ways of the first go to the other.</summary>
    public void Merge(long from, long into) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT OR IGNORE INTO merged_jobs (job_id, customer_id) SELECT id, @from FROM jobs WHERE customer_id = @from;
                    INSERT OR IGNORE INTO jobs_due (job_id) SELECT id FROM jobs WHERE customer_id = @from;
                    UPDATE jobs SET customer_id = @into WHERE customer_id = @from;
                    UPDATE lots SET customer_id = @into WHERE customer_id = @from;
                    INSERT INTO customer_contacts (customer_id, kind, value) SELECT @into, kind, value FROM customer_contacts c WHERE customer_id = @from
                      AND NOT EXISTS (SELECT 1 FROM customer_contacts o WHERE o.customer_id = @into AND o.value = c.value) ORDER BY id;
                    UPDATE customers SET contact = coalesce((SELECT value FROM customer_contacts WHERE customer_id = @into ORDER BY id LIMIT 1), '')
                      WHERE id = @into AND contact = '';
                    UPDATE customers SET merged_into = @into WHERE id = @from OR merged_into = @from;
                    """,
                    new { from, into },
                    transaction
                )
        );

    /// <summary>Takes a merging back: the jobs that came along go back.</summary>
    public void Part(long from) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT OR IGNORE INTO jobs_due (job_id) SELECT job_id FROM merged_jobs WHERE customer_id = @from;
                    UPDATE jobs SET customer_id = @from WHERE id IN (SELECT job_id FROM merged_jobs WHERE customer_id = @from);
                    UPDATE lots SET customer_id = @from WHERE customer_id = (SELECT merged_into FROM customers WHERE id = @from)
                      AND name IN (SELECT lot FROM jobs WHERE id IN (SELECT job_id FROM merged_jobs WHERE customer_id = @from));
                    DELETE FROM merged_jobs WHERE customer_id = @from;
                    UPDATE customers SET merged_into = NULL WHERE id = @from;
                    """,
                    new { from },
                    transaction
                )
        );

    /// <summary>Into whom a row was merged; null for one that stands by itself.</summary>
    public long? MergedInto(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<long?>("SELECT merged_into FROM customers WHERE id = @id", new { id }));

    /// <summary>Rows that were merged into one.</summary>
    public IReadOnlyList<Owner> Merged(long into) => Rows("WHERE merged_into = @into ORDER BY id", new { into });

    /// <summary>People whose name begins likewise, or who are reached likewise.</summary>
    public IReadOnlyList<PersonLine> Near(string begins, string contact, int most) =>
        database.Read(connection =>
            connection
                .Query<PersonLine>(
                    """
                    SELECT c.id, c.name, c.contact, (SELECT count(*) FROM jobs j WHERE j.customer_id = c.id AND j.deleted_at IS NULL) AS jobs
                    FROM customers c WHERE c.merged_into IS NULL AND c.name >= @begins COLLATE NOCASE AND c.name < @end COLLATE NOCASE LIMIT @most
                    """,
                    new { begins, end = begins + char.ConvertFromUtf32(0x10FFFF), most }
                )
                .Concat(
                    contact.Length == 0
                        ? []
                        : connection.Query<PersonLine>(
                            """
                            SELECT c.id, c.name, c.contact, (SELECT count(*) FROM jobs j WHERE j.customer_id = c.id AND j.deleted_at IS NULL) AS jobs
                            FROM customers c JOIN customer_contacts w ON w.customer_id = c.id
                            WHERE w.value = @contact AND c.merged_into IS NULL LIMIT @most
                            """,
                            new { contact, most }
                        )
                )
                .DistinctBy(p => p.Id)
                .ToList()
        );

    /// <summary>People by name or contact, those who were here last first.</summary>
    /// <param name="words">Words of name or contact; blank for all.</param>
    /// <param name="before">Only those whose last day here was before it, with nothing in the shop; null for all.</param>
    /// <param name="skip">How many to leave out.</param>
    /// <param name="most">How many.</param>
    public IReadOnlyList<PersonLine> People(string words, DateTimeOffset? before, int skip, int most) =>
        database.Read(connection =>
            connection
                .Query<PersonLine>(
                    """
                    SELECT c.id, c.name, c.contact,
                      (SELECT count(*) FROM jobs j WHERE j.customer_id = c.id AND j.deleted_at IS NULL) AS jobs,
                      (SELECT count(*) FROM jobs j WHERE j.customer_id = c.id AND j.deleted_at IS NULL AND j.closed_at IS NULL) AS open,
                      (SELECT max(max(j.received_at, coalesce(j.closed_at, j.received_at))) FROM jobs j
                        WHERE j.customer_id = c.id AND j.deleted_at IS NULL) AS last_here
                    FROM customers c WHERE c.id IN (
                      SELECT p.id FROM customers p
                      WHERE p.merged_into IS NULL AND p.name NOT LIKE @erased AND (@words = '' OR instr(lower(p.name), lower(@words)) > 0
                        OR instr(lower(p.contact), lower(@words)) > 0)
                        AND (@before IS NULL OR (p.created_at < @before AND NOT EXISTS (SELECT 1 FROM jobs j WHERE j.customer_id = p.id
                          AND j.deleted_at IS NULL AND (j.closed_at IS NULL OR j.closed_at >= @before OR j.received_at >= @before))))
                      ORDER BY coalesce((SELECT max(id) FROM jobs j WHERE j.customer_id = p.id), 0) DESC, p.id DESC LIMIT @most OFFSET @skip)
                    ORDER BY coalesce((SELECT max(id) FROM jobs j WHERE j.customer_id = c.id), 0) DESC, c.id DESC
                    """,
                    new
                    {
                        words,
                        before,
                        skip,
                        most,
                        erased = ErasedName + " %",
                    }
                )
                .AsList()
        );
}
