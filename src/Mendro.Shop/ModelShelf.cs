using System.Collections.Concurrent;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Profiles compiled once and kept: a version never changes.</summary>
public sealed class ModelShelf(ProfileStore profiles, TradeLibrary library)
{
    private readonly ConcurrentDictionary<(string, long), DeviceModel> _models = new();

    /// <summary>Which state of the shop's methods the models go by.</summary>
    public int Methods => library.MethodsRevision;

    /// <summary>The compiled model of a profile version.</summary>
    /// <exception cref="InvalidOperationException">The profile version is missing; the foreign key forbids it.</exception>
    public DeviceModel Get(string profileId, long version) =>
        _models.GetOrAdd(
            (profileId, version),
            key => new DeviceModel(
                profiles.Find(key.Item1, key.Item2) ?? throw new InvalidOperationException($"Profile {profileId} {version} is missing."),
                library
            )
        );

    /// <summary>The model that a job was taken in with.</summary>
    public DeviceModel Of(Job job) => Get(job.ProfileId, job.ProfileVersion);

    /// <summary>The newest version of a model with its number, or null.</summary>
    public (DeviceModel Model, long Version)? Latest(string profileId) =>
        profiles.Latest(profileId) is { } latest ? (Get(profileId, latest.Version), latest.Version) : null;
}
