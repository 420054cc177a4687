using System.Collections.Concurrent;
using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;
using Mendro.Storage;

namespace Mendro.Shop;

/// <summary>Profiles compiled once and kept: a version never changes.</summary>
public sealed class ModelShelf(ProfileStore profiles, TradeLibrary library)
{
    private readonly ConcurrentDictionary<(string, long), DeviceModel> _models = new();

    /// <summary>Which state of the shop's methods the models go by.</summary>
    public int Methods => library.MethodsRevision;

    /// <summary>The compiled model of a profile version.</summary>
    /// <remarks>Where another hand has spoilt it, the job opens all the same: with the newest version that can be read, else with the one
    /// that ships, else with the stand-in of an unknown model.</remarks>
    public DeviceModel Get(string profileId, long version) =>
        _models.GetOrAdd(
            (profileId, version),
            key => new DeviceModel(profiles.Find(key.Item1, key.Item2) ?? profiles.Latest(key.Item1)?.Profile ?? Spoilt(key.Item1), library)
        );

    private DeviceProfile Spoilt(string id)
    {
        var known = library.Profiles.Concat(library.Archetypes).FirstOrDefault(p => p.Id == id);
        var stand = known ?? library.Profiles.FirstOrDefault(p => p.Generic) ?? library.Profiles[0];
        return known ?? stand with { Id = id, Name = $"{id}: its description cannot be read", Maker = "", Build = null, Archetype = null };
    }

    /// <summary>The model that a job was taken in with.</summary>
    public DeviceModel Of(Job job) => Get(job.ProfileId, job.ProfileVersion);

    /// <summary>The newest version of a model with its number, or null.</summary>
    public (DeviceModel Model, long Version)? Latest(string profileId) =>
        profiles.Latest(profileId) is { } latest ? (Get(profileId, latest.Version), latest.Version) : null;
}
