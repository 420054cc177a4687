using Dapper;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;

namespace Mendro.Storage;

/// <summary>Profiles with their versions. A new version never changes an old one: jobs stay on theirs.</summary>
public sealed class ProfileStore(ShopDatabase database, TimeProvider time)
{
    /// <summary>Puts the shipped profiles in, as a new version where they have changed.</summary>
    public void TakeIn(TradeLibrary library) => database.Write((connection, transaction) =>
    {
        foreach (var profile in library.Profiles)
        {
            var json = ProfileJson.Write(profile);
            var latest = connection.QueryFirstOrDefault<(long Version, string Json)?>(
                "SELECT version, json FROM profiles WHERE id = @Id ORDER BY version DESC LIMIT 1", new { profile.Id }, transaction);
            if (latest?.Json == json) continue;
            connection.Execute(
                "INSERT INTO profiles (id, version, json, origin, created_at) VALUES (@Id, @Version, @Json, 'library', @At)",
                new { profile.Id, Version = (latest?.Version ?? 0) + 1, Json = json, At = time.GetUtcNow() }, transaction);
        }

        return 0;
    });

    /// <summary>One version of a profile, or null.</summary>
    public DeviceProfile? Find(string id, long version)
    {
        using var connection = database.Open();
        return Parse(connection.QueryFirstOrDefault<string>("SELECT json FROM profiles WHERE id = @id AND version = @version", new { id, version }));
    }

    /// <summary>The latest version of a profile with its number, or null.</summary>
    public (DeviceProfile Profile, long Version)? Latest(string id)
    {
        using var connection = database.Open();
        var row = connection.QueryFirstOrDefault<(string Json, long Version)?>(
            "SELECT json, version FROM profiles WHERE id = @id ORDER BY version DESC LIMIT 1", new { id });
        return row is { } found && Parse(found.Json) is { } profile ? (profile, found.Version) : null;
    }

    /// <summary>The latest version of every profile, own models first, generic ones last.</summary>
    public IReadOnlyList<DeviceProfile> All()
    {
        using var connection = database.Open();
        return connection.Query<string>(
                "SELECT json FROM profiles p WHERE version = (SELECT max(version) FROM profiles q WHERE q.id = p.id)")
            .Select(Parse).OfType<DeviceProfile>().OrderBy(p => p.Generic).ThenBy(p => p.FullName, StringComparer.Ordinal).ToList();
    }

    private static DeviceProfile? Parse(string? json) => json is null ? null : ProfileJson.Read(json).Value;
}
