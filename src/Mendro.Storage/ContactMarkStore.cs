using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Readings;

namespace Mendro.Storage;

/// <summary>Contacts swept one by one: added and withdrawn, never overwritten.</summary>
public sealed class ContactMarkStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>State of every contact of a connector that was tried.</summary>
    public IReadOnlyList<ContactMark> Of(JobId jobId, string connectorId) =>
        database.Read(connection =>
            connection
                .Query<Row>(
                    """
                    SELECT CAST(contact AS INTEGER) AS number, state, ohms FROM contact_marks m
                    WHERE job_id = @jobId AND connector_id = @connectorId AND withdrawn_at IS NULL
                      AND id = (SELECT max(id) FROM contact_marks n WHERE n.job_id = m.job_id AND n.connector_id = m.connector_id
                        AND n.contact = m.contact AND n.withdrawn_at IS NULL)
                    ORDER BY number
                    """,
                    new { jobId, connectorId }
                )
                .Select(r => new ContactMark((int)r.Number, Stored.Word(r.State, ContactState.Silent), r.Ohms))
                .ToList()
        );

    /// <summary>Marks a contact.</summary>
    public void Add(JobId jobId, string connectorId, ContactMark mark) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT INTO contact_marks (job_id, connector_id, contact, state, ohms, at) VALUES (@jobId, @connectorId, @number, @state, @Ohms, @at)
                    """,
                    new
                    {
                        jobId,
                        connectorId,
                        number = mark.Number.ToString(System.Globalization.CultureInfo.InvariantCulture),
                        state = mark.State.ToString().ToLowerInvariant(),
                        mark.Ohms,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Takes the newest mark of a connector back.</summary>
    /// <returns>Number of the contact, or null when there was none.</returns>
    public int? Undo(JobId jobId, string connectorId) =>
        database.Write<int?>(
            (connection, transaction) =>
                (int?)
                    connection.QueryFirstOrDefault<long?>(
                        """
                        UPDATE contact_marks SET withdrawn_at = @at
                        WHERE id = (SELECT max(id) FROM contact_marks WHERE job_id = @jobId AND connector_id = @connectorId
                          AND withdrawn_at IS NULL) RETURNING CAST(contact AS INTEGER)
                        """,
                        new
                        {
                            jobId,
                            connectorId,
                            at = time.GetUtcNow(),
                        },
                        transaction
                    )
        );

    /// <summary>Takes all marks of a connector back, as before a new sweep after cleaning.</summary>
    /// <returns>How many marks were taken back.</returns>
    public int Clear(JobId jobId, string connectorId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE contact_marks SET withdrawn_at = @at WHERE job_id = @jobId AND connector_id = @connectorId AND withdrawn_at IS NULL",
                    new
                    {
                        jobId,
                        connectorId,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Brings back what was withdrawn last: one mark, or all of a sweep that was begun anew.</summary>
    /// <returns>How many marks hold again.</returns>
    public int BringBack(JobId jobId, string connectorId) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    UPDATE contact_marks SET withdrawn_at = NULL
                    WHERE job_id = @jobId AND connector_id = @connectorId
                      AND withdrawn_at = (SELECT max(withdrawn_at) FROM contact_marks WHERE job_id = @jobId AND connector_id = @connectorId)
                    """,
                    new { jobId, connectorId },
                    transaction
                )
        );

    private sealed class Row
    {
        public long Number { get; init; }
        public string State { get; init; } = "";
        public double? Ohms { get; init; }
    }
}
