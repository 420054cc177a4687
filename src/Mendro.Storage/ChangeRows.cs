using Dapper;

namespace Mendro.Storage;

/// <summary>A price, a rate, a count or an order that was changed by hand.</summary>
public sealed record MoneyChange
{
    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>Who; blank where nobody signs in.</summary>
    public string Who { get; init; } = "";

    /// <summary>What it is about, such as <c>unit</c> or <c>order 3</c>.</summary>
    public string About { get; init; } = "";

    /// <summary>Number of its job, or null.</summary>
    public long? Job { get; init; }

    /// <summary>What of it.</summary>
    public string Field { get; init; } = "";

    /// <summary>What it was; blank for nothing.</summary>
    public string Old { get; init; } = "";

    /// <summary>What it is; blank for nothing.</summary>
    public string New { get; init; } = "";
}

/// <summary>Who changed what.</summary>
public sealed partial class JournalStore
{
    /// <summary>Adds time and name to what was changed in this transaction.</summary>
    public void SignChanges() =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE changes SET at = @at, who = @who WHERE who IS NULL",
                    new { at = time.GetUtcNow(), who = Acting.Now },
                    transaction
                )
        );

    /// <summary>What was changed by hand in a time, the newest first.</summary>
    public IReadOnlyList<MoneyChange> Changes(DateTimeOffset from, DateTimeOffset to, int most) =>
        database.Read(connection =>
            connection
                .Query<MoneyChange>(
                    """
                    SELECT c.at, coalesce(c.who, '') AS who, c.about, j.number AS job, c.field, c.old, c.new FROM changes c
                    LEFT JOIN jobs j ON j.id = c.job_id WHERE c.at >= @from AND c.at < @to ORDER BY c.id DESC LIMIT @most
                    """,
                    new { from, to, most }
                )
                .AsList()
        );
}
