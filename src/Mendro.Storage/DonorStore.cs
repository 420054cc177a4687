using Dapper;
using Mendro.Core.Jobs;

namespace Mendro.Storage;

/// <summary>A part of a unit that was given up for parts.</summary>
public sealed record DonorPart
{
    /// <summary>Row id.</summary>
    public long Id { get; init; }

    /// <summary>Job of the unit.</summary>
    public JobId JobId { get; init; }

    /// <summary>Number on its tag.</summary>
    public long Number { get; init; }

    /// <summary>Part of the model.</summary>
    public string Part { get; init; } = "";

    /// <summary>Name of the part.</summary>
    public string Name { get; init; } = "";

    /// <summary>Kind of the part.</summary>
    public string Kind { get; init; } = "";

    /// <summary>Model.</summary>
    public string ProfileId { get; init; } = "";

    /// <summary>Maker and model, or what the unit was.</summary>
    public string Unit { get; init; } = "";

    /// <summary>Chance that it is good, 0 to 1, from the diagnosis.</summary>
    public double Good { get; init; }

    /// <summary><c>there</c>, <c>taken</c>, <c>bad</c> or <c>sold</c>.</summary>
    public string State { get; init; } = "there";

    /// <summary>Where it went, or what is wrong with it.</summary>
    public string Words { get; init; } = "";

    /// <summary>What it was sold for, in the currency of its job; null unless it was.</summary>
    public decimal? Price { get; init; }

    /// <summary>When it last changed, UTC.</summary>
    public DateTimeOffset ChangedAt { get; init; }
}

/// <summary>Keeps the parts of donor units.</summary>
public sealed class DonorStore(ShopDatabase database, TimeProvider time)
{
    private const string Select = """
        SELECT d.*, j.number, CASE WHEN j.unit_name <> '' THEN j.unit_name ELSE j.model_name END AS unit
        FROM donor_parts d JOIN jobs j ON j.id = d.job_id
        """;

    /// <summary>Parts that are there, or all; the surest first within each model.</summary>
    /// <param name="kind">Kind of part, or null for all.</param>
    /// <param name="all">True with those taken and bad.</param>
    public IReadOnlyList<DonorPart> List(string? kind, bool all) =>
        database.Read(connection =>
            connection
                .Query<DonorPart>(
                    $"{Select} WHERE (@kind IS NULL OR d.kind = @kind) AND (@all OR d.state = 'there') AND j.deleted_at IS NULL "
                        + "ORDER BY unit, d.good DESC, d.id LIMIT 500",
                    new { kind, all }
                )
                .AsList()
        );

    /// <summary>Kinds of which there are or were parts.</summary>
    public IReadOnlyList<string> Kinds() =>
        database.Read(connection => connection.Query<string>("SELECT DISTINCT kind FROM donor_parts").AsList());

    /// <summary>Parts of one unit.</summary>
    public IReadOnlyList<DonorPart> Of(JobId jobId) =>
        database.Read(connection => connection.Query<DonorPart>($"{Select} WHERE d.job_id = @jobId ORDER BY d.id", new { jobId }).AsList());

    /// <summary>One part, or null.</summary>
    public DonorPart? Find(long id) =>
        database.Read(connection => connection.QueryFirstOrDefault<DonorPart>($"{Select} WHERE d.id = @id", new { id }));

    /// <summary>A part by the number of its donor and its name with that number, as a record of the bench has it; null for none.</summary>
    public DonorPart? Find(string number, string named) =>
        database.Read(connection =>
            connection
                .Query<DonorPart>($"{Select} WHERE j.number = @number", new { number })
                .FirstOrDefault(p => FormattableString.Invariant($"{p.Name} of {p.Number}") == named)
        );

    /// <summary>Adds the parts of a unit; those it gave before, when it was reopened meanwhile, are kept as they are.</summary>
    public void Add(JobId jobId, string profileId, IEnumerable<DonorPart> parts) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT INTO donor_parts (job_id, part, name, kind, profile_id, good, changed_at)
                    SELECT @jobId, @Part, @Name, @Kind, @profileId, @Good, @at
                    WHERE NOT EXISTS (SELECT 1 FROM donor_parts WHERE job_id = @jobId AND part = @Part)
                    """,
                    parts.Select(p => new
                    {
                        jobId,
                        p.Part,
                        p.Name,
                        p.Kind,
                        profileId,
                        p.Good,
                        at = time.GetUtcNow(),
                    }),
                    transaction
                )
        );

    /// <summary>Notes where a part went, what is wrong with it, or that it is there again.</summary>
    public void Set(long id, string state, string words, decimal? price = null) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE donor_parts SET state = @state, words = @words, price = @price, changed_at = @at WHERE id = @id",
                    new
                    {
                        id,
                        state,
                        words,
                        price,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );
}
