using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>The shop's test gear with its use counters. Uses are counted from the swap trials that hold, so that a withdrawn trial
/// counts no more.</summary>
public sealed class GearStore(ShopDatabase database, TimeProvider time)
{
    // Trials that are looked through for a unit that ran well: before that, wear has long made it suspect again.
    private const int MostTrials = 100;

    // Records of the bench in which a unit that ran well is looked for: what lies further back is not “just now”.
    private const int Lately = 500;

    // Uses in trials are counted by triggers, as trials are filed, withdrawn and brought back.
    private const string Select = "SELECT g.*, g.other_uses + g.trial_uses AS uses FROM gear g";

    /// <summary>Gear in use, by kind and name.</summary>
    public IReadOnlyList<Gear> InUse() =>
        database.Read(connection =>
            WithRuns(connection, connection.Query<Gear>($"{Select} WHERE g.retired_at IS NULL ORDER BY g.kind, g.standard DESC, g.name"))
        );

    /// <summary>All gear, retired pieces last.</summary>
    public IReadOnlyList<Gear> All() =>
        database.Read(connection =>
            WithRuns(connection, connection.Query<Gear>($"{Select} ORDER BY g.retired_at IS NOT NULL, g.kind, g.standard DESC, g.name"))
        );

    /// <summary>Adds a piece; the first of its kind becomes the standard one.</summary>
    /// <returns>Its id.</returns>
    public long Add(string name, string kind) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<long>(
                    """
                    INSERT INTO gear (name, kind, standard, cleaned_at, created_at)
                    VALUES (@name, @kind, NOT EXISTS (SELECT 1 FROM gear WHERE kind = @kind AND standard = 1 AND retired_at IS NULL), @at, @at) RETURNING id
                    """,
                    new
                    {
                        name,
                        kind,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Notes that a piece was cleaned: its counter begins anew.</summary>
    public void Clean(long id) => Change("UPDATE gear SET cleaned_at = @at, other_uses = 0 WHERE id = @id", id);

    /// <summary>Counts uses that no swap trial tells of.</summary>
    public void AddUses(long id, int uses) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute("UPDATE gear SET other_uses = max(0, other_uses + @uses) WHERE id = @id", new { id, uses }, transaction)
        );

    /// <summary>Makes a piece the standard one of its kind.</summary>
    public void MakeStandard(long id) =>
        Change("UPDATE gear SET standard = (id = @id) WHERE kind = (SELECT kind FROM gear WHERE id = @id)", id);

    /// <summary>Puts a piece out of use; it can be brought back.</summary>
    public void Retire(long id) => Change("UPDATE gear SET retired_at = @at, standard = 0 WHERE id = @id", id);

    /// <summary>Brings a piece back into use.</summary>
    public void Restore(long id) => Change("UPDATE gear SET retired_at = NULL WHERE id = @id", id);

    /// <summary>The newest trials of each piece: which units ran well with it, and how often it was used since. Uses that no trial tells
    /// of may have come at any time, and count as later.</summary>
    private static List<Gear> WithRuns(SqliteConnection connection, IEnumerable<Gear> pieces) =>
        pieces
            .Select(piece =>
            {
                var trials = connection
                    .Query<(JobId Job, bool Ran)>(
                        """
                        SELECT r.job_id, CASE WHEN json_valid(r.payload) THEN json_extract(r.payload, '$.result') = 'pass' ELSE 0 END AS ran
                        FROM gear_uses u JOIN bench_records r ON r.id = u.record_id
                        WHERE u.gear_id = @Id AND r.withdrawn_at IS NULL AND r.at >= @CleanedAt ORDER BY u.record_id DESC LIMIT @MostTrials
                        """,
                        new
                        {
                            piece.Id,
                            piece.CleanedAt,
                            MostTrials,
                        }
                    )
                    .ToList();
                var other = Math.Max(0, piece.Uses - trials.Count);
                return piece with
                {
                    Runs = trials
                        .Select((t, n) => (t.Job, t.Ran, UsesSince: n + (trials.Count < MostTrials ? other : 0)))
                        .Where(t => t.Ran)
                        .DistinctBy(t => t.Job)
                        .Take(2)
                        .Select(t => (t.Job, t.UsesSince))
                        .ToList(),
                };
            })
            .ToList();

    /// <summary>Functions that another unit of the same model passed lately, as it stands, with the standard gear in its chain; newest
    /// first.</summary>
    /// <param name="profileId">The model: gear such as a test cartridge is of one model.</param>
    /// <param name="except">The unit that is diagnosed: what it showed is evidence already.</param>
    public IReadOnlyList<PassedLately> PassedLately(string profileId, JobId except) =>
        database.Read(connection =>
            connection
                .Query<PassedLately>(
                    """
                    SELECT r.id AS record, r.subject AS function, r.at FROM bench_records r JOIN jobs j ON j.id = r.job_id
                    WHERE r.id > (SELECT max(id) - @Lately FROM bench_records) AND r.kind = 'function' AND r.symptom = 0
                      AND r.withdrawn_at IS NULL AND r.job_id <> @except AND j.profile_id = @profileId AND j.practice_seed IS NULL
                    ORDER BY r.id DESC
                    """,
                    new
                    {
                        Lately,
                        profileId,
                        except,
                    }
                )
                .ToList()
        );

    /// <summary>Uses of a piece after a record of the bench; those that no trial tells of may have come at any time, and count as later.</summary>
    public int UsesAfter(Gear piece, long record) =>
        database.Read(connection =>
            connection.ExecuteScalar<int>(
                """
                SELECT (SELECT other_uses FROM gear WHERE id = @Id) + count(*) FROM gear_uses u JOIN bench_records r ON r.id = u.record_id
                WHERE u.gear_id = @Id AND u.record_id > @record AND r.withdrawn_at IS NULL
                """,
                new { piece.Id, record }
            )
        );

    private void Change(string sql, long id) =>
        database.Write((connection, transaction) => connection.Execute(sql, new { id, at = time.GetUtcNow() }, transaction));
}

/// <summary>A function that another unit passed.</summary>
public sealed record PassedLately
{
    /// <summary>Record of the bench.</summary>
    public long Record { get; init; }

    /// <summary>The function.</summary>
    public FunctionId Function { get; init; }

    /// <summary>When, UTC.</summary>
    public DateTimeOffset At { get; init; }
}
