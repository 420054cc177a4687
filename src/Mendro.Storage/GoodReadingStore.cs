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
    /// <summary>Units that a signature is made of: the newest so many.</summary>
    public const int MostUnits = 200;

    /// <summary>Units that are listed at once.</summary>
    public const int MostListed = 100;

    // Readings looked through for them: a unit measured again counts once.
    private const int MostReadings = 3 * MostUnits;

    // And for a list of units, each with a reading at every probe.
    private const int MostReadingsListed = 40 * MostListed;

    /// <summary>Readings that count for a profile, the newest of each unit at each probe.</summary>
    public IReadOnlyList<GoodReading> Of(string profileId) =>
        database.Read(connection =>
            connection
                .Query<Row>(
                    """
                    SELECT profile_id AS profile, revision, probe_id AS probe, unit, value, good_unit FROM good_readings
                    WHERE id IN (SELECT max(id) FROM good_readings WHERE profile_id = @profileId AND withdrawn_at IS NULL
                      GROUP BY probe_id, good_unit)
                    ORDER BY probe_id, good_unit
                    """,
                    new { profileId }
                )
                .Select(r => new GoodReading(r.Profile, r.Revision, r.Probe, r.Unit, r.Value, r.GoodUnit))
                .ToList()
        );

    /// <summary>What the newest good units show at a probe: those of the revision where it has at least three, else of all
    /// revisions; null when there is none.</summary>
    public Signature? Signature(string profileId, ProbeId probe, string revision = "")
    {
        var units = database.Read(connection =>
            connection
                .Query<Row>(
                    """
                    SELECT revision, value, good_unit FROM good_readings WHERE profile_id = @profileId AND probe_id = @probe AND withdrawn_at IS NULL
                    ORDER BY id DESC LIMIT @MostReadings
                    """,
                    new
                    {
                        profileId,
                        probe = probe.Value,
                        MostReadings,
                    }
                )
                .DistinctBy(r => r.GoodUnit)
                .Take(MostUnits)
                .ToList()
        );
        var own = units.Where(r => revision.Length > 0 && r.Revision == revision).ToList();
        return Core.Readings.Signature.Of((own.Count >= 3 ? own : units).Select(r => r.Value).ToList());
    }

    /// <summary>Signatures by probe, where there are any.</summary>
    public IReadOnlyDictionary<ProbeId, Signature> Signatures(string profileId, IEnumerable<Probe> probes, string revision = "") =>
        probes
            .Select(p => (p.Id, Signature: Signature(profileId, p.Id, revision)))
            .Where(p => p.Signature is not null)
            .ToDictionary(p => p.Id, p => p.Signature!);

    /// <summary>The newest good units of a profile, those put aside last; at most <see cref="MostListed"/>.</summary>
    /// <param name="profileId">Profile.</param>
    /// <param name="begins">Only those whose name begins like this; blank for all.</param>
    public IReadOnlyList<GoodUnit> Units(string profileId, string begins = "") =>
        database.Read(connection =>
            connection
                .Query<UnitRow>(
                    $"""
                    SELECT good_unit AS name, count(*) AS readings, min(withdrawn_at IS NOT NULL) AS withdrawn
                    FROM (SELECT id, good_unit, withdrawn_at FROM good_readings WHERE profile_id = @profileId
                      {(
                        begins.Length == 0 ? "" : "AND good_unit >= @begins AND good_unit < @end"
                    )} ORDER BY id DESC LIMIT @MostReadingsListed)
                    GROUP BY good_unit ORDER BY withdrawn, max(id) DESC LIMIT @MostListed
                    """,
                    new
                    {
                        profileId,
                        begins,
                        end = begins + char.ConvertFromUtf32(0x10FFFF),
                        MostReadingsListed,
                        MostListed,
                    }
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
