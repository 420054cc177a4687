using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Profiles;
using Mendro.Core.Readings;

namespace Mendro.Storage;

/// <summary>A unit known to be good, with how many of its readings are kept.</summary>
/// <param name="Name">Name.</param>
/// <param name="Readings">Number of readings.</param>
/// <param name="Withdrawn">True when they do not count at present.</param>
public sealed record GoodUnit(string Name, long Readings, bool Withdrawn);

/// <summary>Readings of good units; one unit counts once a probe, its newest reading.</summary>
public sealed class GoodReadingStore(ShopDatabase database, TimeProvider time)
{
    private const string Columns = "profile_id AS profile, revision, probe_id AS probe, unit, value, good_unit";

    /// <summary>Readings that count for a profile, the newest of each unit at each probe.</summary>
    public IReadOnlyList<GoodReading> Of(string profileId) =>
        database.Read(connection =>
            connection
                .Query<Row>(
                    $"""
                    SELECT {Columns} FROM good_readings g
                    WHERE profile_id = @profileId AND withdrawn_at IS NULL
                      AND id = (SELECT max(id) FROM good_readings n WHERE n.profile_id = g.profile_id AND n.probe_id = g.probe_id
                        AND n.good_unit = g.good_unit AND n.withdrawn_at IS NULL)
                    ORDER BY probe_id, good_unit
                    """,
                    new { profileId }
                )
                .Select(r => new GoodReading(r.Profile, r.Revision, r.Probe, r.Unit, r.Value, r.GoodUnit))
                .ToList()
        );

    /// <summary>Signatures of a profile by probe id; those of the revision where it has at least three units, else of all
    /// revisions.</summary>
    public IReadOnlyDictionary<string, Signature> Signatures(string profileId, string revision = "") =>
        Of(profileId)
            .GroupBy(r => r.Probe)
            .ToDictionary(
                g => g.Key,
                g =>
                {
                    var own = g.Where(r => revision.Length > 0 && r.Revision == revision).ToList();
                    return Signature.Of((own.Count >= 3 ? own : g.ToList()).Select(r => r.Value).ToList())!;
                }
            );

    /// <summary>The good units of a profile, those put aside last.</summary>
    public IReadOnlyList<GoodUnit> Units(string profileId) =>
        database.Read(connection =>
            connection
                .Query<UnitRow>(
                    """
                    SELECT good_unit AS name, count(*) AS readings, min(withdrawn_at IS NOT NULL) AS withdrawn FROM good_readings WHERE profile_id = @profileId
                    GROUP BY good_unit ORDER BY withdrawn, max(id) DESC
                    """,
                    new { profileId }
                )
                .Select(u => new GoodUnit(u.Name, u.Readings, u.Withdrawn != 0))
                .ToList()
        );

    /// <summary>Adds readings.</summary>
    /// <param name="readings">Readings.</param>
    /// <param name="jobId">Job they come from, or null.</param>
    public void Add(IEnumerable<GoodReading> readings, JobId? jobId = null) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    """
                    INSERT INTO good_readings (profile_id, revision, probe_id, unit, value, good_unit, job_id, at)
                      VALUES (@Profile, @Revision, @Probe, @Unit, @Value, @GoodUnit, @jobId, @at)
                    """,
                    readings.Select(r => new
                    {
                        r.Profile,
                        r.Revision,
                        r.Probe,
                        r.Unit,
                        r.Value,
                        r.GoodUnit,
                        jobId,
                        at = time.GetUtcNow(),
                    }),
                    transaction
                )
        );

    /// <summary>Puts a unit aside: its readings count no more.</summary>
    public void Withdraw(string profileId, string name) =>
        Change(
            "UPDATE good_readings SET withdrawn_at = @at WHERE profile_id = @profileId AND good_unit = @name AND withdrawn_at IS NULL",
            profileId,
            name
        );

    /// <summary>Lets a unit count again.</summary>
    public void Restore(string profileId, string name) =>
        Change("UPDATE good_readings SET withdrawn_at = NULL WHERE profile_id = @profileId AND good_unit = @name", profileId, name);

    private void Change(string sql, string profileId, string name) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    sql,
                    new
                    {
                        profileId,
                        name,
                        at = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    private sealed class Row
    {
        public string Profile { get; init; } = "";
        public string Revision { get; init; } = "";
        public string Probe { get; init; } = "";
        public string Unit { get; init; } = "";
        public double? Value { get; init; }
        public string GoodUnit { get; init; } = "";
    }

    private sealed class UnitRow
    {
        public string Name { get; init; } = "";
        public long Readings { get; init; }
        public long Withdrawn { get; init; }
    }
}
