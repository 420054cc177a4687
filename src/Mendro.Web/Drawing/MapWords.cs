using Mendro.Core.Diagnosis;
using Mendro.Core.Profiles;

namespace Mendro.Web.Drawing;

/// <summary>The path map in words, for those who hear it: the state of a part, and what feeds what.</summary>
public static class MapWords
{
    /// <summary>A part's state.</summary>
    public static string Of(PartState state) =>
        state switch
        {
            PartState.Proved => "proved good",
            PartState.Suspect => "suspect",
            PartState.Failed => "failed",
            _ => "unknown",
        };

    /// <summary>What feeds a part and what it feeds, as the tail of a sentence: <c>; fed by Fuse; feeds Regulator, Screen board
    /// (video)</c>.</summary>
    public static string Flow(DeviceProfile profile, Part part)
    {
        var (into, from) = (profile.Feeds.Where(f => f.To == part.Id), profile.Feeds.Where(f => f.From == part.Id));
        return Tail("fed by", into.Select(f => Named(profile, f.From, f.Carries)))
            + Tail("feeds", from.Select(f => Named(profile, f.To, f.Carries)));
    }

    /// <summary>What a function needs, as the tail of a sentence.</summary>
    public static string Flow(DeviceProfile profile, DeviceFunction function) =>
        Tail("needs", function.Needs.Select(id => profile.FindPart(id)?.Name ?? id.Value));

    /// <summary>Power goes without saying; what else flows is told.</summary>
    private static string Named(DeviceProfile profile, PartId id, Carries carries) =>
        (profile.FindPart(id)?.Name ?? id.Value) + (carries == Carries.Power ? "" : $" ({carries.ToString().ToLowerInvariant()})");

    private static string Tail(string verb, IEnumerable<string> names)
    {
        var all = string.Join(", ", names.Distinct());
        return all.Length > 0 ? $"; {verb} {all}" : "";
    }
}
