using System.Text.Json;
using Dapper;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Storage;

/// <summary>One version of a method of the shop's own.</summary>
/// <param name="Method">The method.</param>
/// <param name="Version">Version, from 1.</param>
/// <param name="BasedOn">Method it was copied from.</param>
/// <param name="MadeAt">When, UTC.</param>
/// <param name="Retired">True when it is not offered any more.</param>
public sealed record ShopMethod(Method Method, int Version, MethodId BasedOn, DateTimeOffset MadeAt, bool Retired);

/// <summary>Keeps the shop's own methods, every version of them, and which way it usually goes.</summary>
public sealed class MethodStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>All versions of all methods of the shop, the oldest first.</summary>
    public IReadOnlyList<ShopMethod> All() =>
        database.Read(connection =>
            connection
                .Query<(string Json, long Version, string BasedOn, string MadeAt, string? RetiredAt)>(
                    "SELECT json, version, based_on, made_at, retired_at FROM shop_methods ORDER BY id"
                )
                .Select(r => new ShopMethod(
                    Stored.Json<Method>(r.Json, null!, ProfileJson.Options),
                    (int)r.Version,
                    r.BasedOn,
                    Stored.Moment(r.MadeAt),
                    r.RetiredAt is not null
                ))
                .Where(m => m.Method is not null)
                .ToList()
        );

    /// <summary>Adds a version.</summary>
    /// <returns>Its number.</returns>
    public int Add(Method method, MethodId basedOn) =>
        database.Write(
            (connection, transaction) =>
                connection.ExecuteScalar<int>(
                    """
                    INSERT INTO shop_methods (method_id, version, based_on, json, made_at)
                    VALUES (@Id, 1 + coalesce((SELECT max(version) FROM shop_methods WHERE method_id = @Id), 0), @BasedOn, @Json, @At)
                    RETURNING version
                    """,
                    new
                    {
                        Id = method.Id.Value,
                        BasedOn = basedOn.Value,
                        Json = JsonSerializer.Serialize(method, ProfileJson.Options),
                        At = time.GetUtcNow(),
                    },
                    transaction
                )
        );

    /// <summary>Takes a method of the shop off the offer, or puts it on again.</summary>
    public void Retire(MethodId id, bool retired) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    "UPDATE shop_methods SET retired_at = @At WHERE method_id = @Id",
                    new { Id = id.Value, At = retired ? time.GetUtcNow() : (DateTimeOffset?)null },
                    transaction
                )
        );

    /// <summary>The way that the shop goes first, by kind of part.</summary>
    public IReadOnlyDictionary<string, MethodId> Usual() =>
        database
            .Read(connection => connection.Query<(string Kind, string Method)>("SELECT part_kind, method_id FROM usual_methods"))
            .ToDictionary(r => r.Kind, r => (MethodId)r.Method);

    /// <summary>Says which way the shop goes first on a kind of part; null for none.</summary>
    public void SetUsual(string partKind, MethodId? method) =>
        database.Write(
            (connection, transaction) =>
                connection.Execute(
                    method is null
                        ? "DELETE FROM usual_methods WHERE part_kind = @partKind"
                        : """
                          INSERT INTO usual_methods (part_kind, method_id) VALUES (@partKind, @Method)
                          ON CONFLICT (part_kind) DO UPDATE SET method_id = excluded.method_id
                          """,
                    new { partKind, Method = method?.Value },
                    transaction
                )
        );

    /// <summary>Another one whenever a job was closed, opened again, deleted or brought back.</summary>
    public string ClosedMark() =>
        database.Read(connection =>
            connection.QuerySingle<string>(
                """
                SELECT count(*) || ' ' || coalesce(max(closed_at), '') || ' ' || (SELECT count(*) || ' ' || coalesce(max(id), 0) FROM shop_methods)
                FROM jobs j WHERE closed_at IS NOT NULL AND deleted_at IS NULL AND practice_seed IS NULL
                """
            )
        );

    /// <summary>Repairs of closed jobs as they were filed, in the order in which the jobs were closed.</summary>
    /// <param name="number">Number of the one job that is asked for; null for all.</param>
    /// <remarks>All of them: each is read, which takes a while in a large shop.</remarks>
    public IReadOnlyList<ClosedRepair> Repairs(long? number = null) =>
        database.Read(connection =>
            connection
                .Query<(string Model, long Version, string Serial, long Job, string Ending, string Stated, string Payload)>(
                    """
                    SELECT j.profile_id, j.profile_version, j.serial, j.id, j.ending, j.stated_reason, r.payload
                    FROM bench_records r JOIN jobs j ON j.id = r.job_id
                    WHERE r.kind = 'repair' AND r.withdrawn_at IS NULL AND j.closed_at IS NOT NULL AND j.deleted_at IS NULL
                      AND j.practice_seed IS NULL AND (@number IS NULL OR j.number = @number)
                    ORDER BY j.closed_at, j.id, r.seq, r.id
                    """,
                    new { number }
                )
                .Select(r =>
                    RecordKinds.Read("repair", 1, r.Payload) is RepairLogged { Claimed: not true } repair
                        ? new ClosedRepair(r.Model, r.Version, r.Serial, r.Job, r.Ending, r.Stated, repair)
                        : null
                )
                .OfType<ClosedRepair>()
                .ToList()
        );
}

/// <summary>A repair of a closed job.</summary>
/// <param name="Model">Model of the unit.</param>
/// <param name="Version">Its version.</param>
/// <param name="Serial">Serial number of the unit; empty when it has none.</param>
/// <param name="Job">Id of the job.</param>
/// <param name="Ending">How the job ended.</param>
/// <param name="StatedReason">Why it went although not all works; empty when all did.</param>
/// <param name="Repair">The repair.</param>
public sealed record ClosedRepair(
    string Model,
    long Version,
    string Serial,
    long Job,
    string Ending,
    string StatedReason,
    RepairLogged Repair
);
