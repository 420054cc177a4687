using Mendro.Storage;

namespace Mendro.Web.Pages;

/// <summary>Models to choose from in a list: the shop's own by name, then those that only say the kind.</summary>
internal static class ModelChoice
{
    /// <summary>Ids and names.</summary>
    public static IReadOnlyList<(string Id, string Name)> Of(ProfileStore profiles) =>
        profiles
            .All()
            .OrderBy(p => p.Generic || p.Archetype is not null)
            .ThenBy(p => p.FullName, StringComparer.Ordinal)
            .Select(p => (p.Id, p.FullName))
            .ToList();
}
