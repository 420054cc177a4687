using System.Collections.Concurrent;
using Dapper;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Microsoft.Data.Sqlite;

namespace Mendro.Storage;

/// <summary>Profiles with their versions. A new version never changes an old one: jobs stay on theirs.</summary>
public sealed class ProfileStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>
    /// Puts the builds and the generic profiles in, as a new version where they have changed. A model that the shop has made its own
    /// stays as the shop has it. The invented models belong to the demo: another shop keeps those it has used, and loses the others.
    /// </summary>
    /// <param name="library">The library.</param>
    /// <param name="demo">True to take the invented models in too.</param>
    public void TakeIn(TradeLibrary library, bool demo) =>
        database.Write(
            (connection, transaction) =>
            {
                var invented = library.Profiles.Where(p => !p.Generic).Select(p => p.Id).ToList();
                if (!demo)
                    connection.Execute(
                        """
                        DELETE FROM profiles WHERE id IN @invented
                          AND NOT EXISTS (SELECT 1 FROM profiles o WHERE o.id = profiles.id AND o.origin = 'shop')
                          AND NOT EXISTS (SELECT 1 FROM jobs j WHERE j.profile_id = profiles.id)
                          AND NOT EXISTS (SELECT 1 FROM good_readings g WHERE g.profile_id = profiles.id)
                        """,
                        new { invented },
                        transaction
                    );
                var kept = connection
                    .Query<string>("SELECT DISTINCT id FROM profiles WHERE id IN @invented", new { invented }, transaction)
                    .ToHashSet();
                foreach (var profile in library.ForAnyShop.Concat(library.Profiles.Where(p => !p.Generic && (demo || kept.Contains(p.Id)))))
                {
                    var json = ProfileJson.Write(profile);
                    var latest = connection.QueryFirstOrDefault<(long Version, string Json, string Origin)?>(
                        "SELECT version, json, origin FROM profiles WHERE id = @Id ORDER BY version DESC LIMIT 1",
                        new { profile.Id },
                        transaction
                    );
                    if (latest?.Json == json || latest?.Origin == "shop")
                        continue;
                    connection.Execute(
                        "INSERT INTO profiles (id, version, json, origin, created_at) VALUES (@Id, @Version, @Json, 'library', @At)",
                        new
                        {
                            profile.Id,
                            Version = (latest?.Version ?? 0) + 1,
                            Json = json,
                            At = time.GetUtcNow(),
                        },
                        transaction
                    );
                }

                return 0;
            }
        );

    /// <summary>Keeps a profile of the shop's own as a new version; jobs stay on the versions they have.</summary>
    /// <returns>Number of the version; the latest one when nothing has changed.</returns>
    public long Save(DeviceProfile profile) =>
        database.Write(
            (connection, transaction) =>
            {
                // One whose making was taken back is in use again.
                connection.Execute("DELETE FROM retired_models WHERE id = @Id AND now_id IS NULL", new { profile.Id }, transaction);
                var json = ProfileJson.Write(profile);
                var latest = connection.QueryFirstOrDefault<(long Version, string Json)?>(
                    "SELECT version, json FROM profiles WHERE id = @Id ORDER BY version DESC LIMIT 1",
                    new { profile.Id },
                    transaction
                );
                if (latest is { } same && same.Json == json)
                    return same.Version;
                var version = (latest?.Version ?? 0) + 1;
                connection.Execute(
                    "INSERT INTO profiles (id, version, json, origin, created_at) VALUES (@Id, @version, @json, 'shop', @At)",
                    new
                    {
                        profile.Id,
                        version,
                        json,
                        At = time.GetUtcNow(),
                    },
                    transaction
                );
                return version;
            }
        );

    /// <summary>All versions of a profile, newest first, with the number of jobs on each.</summary>
    public IReadOnlyList<ProfileVersion> Versions(string id) =>
        database.Read(connection =>
            connection
                .Query<ProfileVersion>(
                    """
                    SELECT version, origin, created_at, (SELECT count(*) FROM jobs j WHERE j.profile_id = p.id
                      AND j.profile_version = p.version AND j.deleted_at IS NULL) AS jobs
                    FROM profiles p WHERE id = @id ORDER BY version DESC
                    """,
                    new { id }
                )
                .AsList()
        );

    /// <summary>One version of a profile, or null.</summary>
    public DeviceProfile? Find(string id, long version) =>
        database.Read(connection =>
            Parse(
                connection.QueryFirstOrDefault<string>(
                    "SELECT json FROM profiles WHERE id = @id AND version = @version",
                    new { id, version }
                )
            )
        );

    /// <summary>The latest version of a profile with its number, or null.</summary>
    public (DeviceProfile Profile, long Version)? Latest(string id)
    {
        var row = database.Read(connection =>
            connection.QueryFirstOrDefault<(string Json, long Version)?>(
                "SELECT json, version FROM profiles WHERE id = @id ORDER BY version DESC LIMIT 1",
                new { id }
            )
        );
        return row is { } found && Parse(found.Json) is { } profile ? (profile, found.Version) : null;
    }

    /// <summary>Ids that are in use or were.</summary>
    public IReadOnlySet<string> Ids() =>
        database.Read(connection => connection.Query<string>("SELECT DISTINCT id FROM profiles").ToHashSet());

    /// <summary>The latest version of every profile that is not retired, own models first, generic ones last.</summary>
    public IReadOnlyList<DeviceProfile> All() =>
        database.Read(connection =>
            connection
                .Query<(string Id, long Version, string At, long Bytes)>(
                    """
                    SELECT id, version, created_at, octet_length(json) FROM profiles p
                    WHERE version = (SELECT max(version) FROM profiles q WHERE q.id = p.id)
                      AND NOT EXISTS (SELECT 1 FROM retired_models r WHERE r.id = p.id)
                    """
                )
                .Select(key => Read(connection, key))
                .OfType<DeviceProfile>()
                .OrderBy(p => p.Generic)
                .ThenBy(p => p.FullName, StringComparer.Ordinal)
                .ToList()
        );

    /// <summary>Most models that are kept read.</summary>
    private const int MostKept = 400;

    // Reading forty models takes longer than hearing a line. A version never changes, but one that was rolled back may come again otherwise:
    // its moment and length are part of the key.
    private readonly ConcurrentDictionary<(string Id, long Version, string At, long Bytes), DeviceProfile?> _kept = new();

    private DeviceProfile? Read(SqliteConnection connection, (string Id, long Version, string At, long Bytes) key)
    {
        if (_kept.TryGetValue(key, out var known))
            return known;
        if (_kept.Count >= MostKept)
            _kept.Clear();
        var json = connection.QueryFirstOrDefault<string>("SELECT json FROM profiles WHERE id = @Id AND version = @Version", new { key.Id, key.Version });
        return _kept[key] = Parse(json);
    }

    private static DeviceProfile? Parse(string? json) => json is null ? null : ProfileJson.Read(json).Value;
}

/// <summary>One version of a profile.</summary>
public sealed record ProfileVersion
{
    /// <summary>Number, from 1.</summary>
    public long Version { get; init; }

    /// <summary>library or shop.</summary>
    public string Origin { get; init; } = "";

    /// <summary>When it was made, UTC.</summary>
    public DateTimeOffset CreatedAt { get; init; }

    /// <summary>Jobs that stand on it.</summary>
    public int Jobs { get; init; }
}
