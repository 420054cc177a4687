using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>What of a model is still its build's and only typical there: nobody has measured it on this model.</summary>
public static class TypicalSections
{
    /// <summary>Screws and clips.</summary>
    public const string Fasteners = "fasteners";

    /// <summary>Lines of a connector.</summary>
    public const string Connectors = "connectors";

    /// <summary>Reference designators of parts.</summary>
    public const string Refdes = "refdes";

    /// <summary>True when the model has taken a section over from its build as it stands, the build calls it typical, and nobody has
    /// confirmed it on a unit.</summary>
    /// <param name="library">The library.</param>
    /// <param name="profile">The model.</param>
    /// <param name="section">One of the sections named here.</param>
    public static bool IsTypical(this TradeLibrary library, DeviceProfile profile, string section)
    {
        if (library.Archetypes.FirstOrDefault(a => a.Id == profile.BuildId) is not { Archetype.Typical: { } typical } build)
            return false;
        return profile.Confirmed?.Contains(section) != true && typical.Contains(section) && Said(profile, section) == Said(build, section);
    }

    private static string Said(DeviceProfile profile, string section) =>
        section switch
        {
            Fasteners => ProfileJson.WriteItem(profile.Fasteners),
            Connectors => ProfileJson.WriteItem(profile.Connectors),
            _ => string.Join('|', profile.Parts.Select(p => $"{p.Id} {p.Refdes}")),
        };
}
