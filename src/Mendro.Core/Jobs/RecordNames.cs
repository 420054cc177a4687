using System.Text.Json;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>What records name of a model: parts, functions, probes, connectors.</summary>
public static class RecordNames
{
    /// <summary>What records of one model name that another does not have.</summary>
    /// <param name="bodies">Records.</param>
    /// <param name="from">Model that they were filed under.</param>
    /// <param name="to">Model that they are to go to.</param>
    /// <returns>Names in the words of the first model.</returns>
    public static IReadOnlyList<string> Missing(IEnumerable<RecordBody> bodies, DeviceProfile from, DeviceProfile to)
    {
        var (had, has) = (Names(from), Names(to));
        return bodies
            .SelectMany(b => Texts(JsonDocument.Parse(RecordKinds.Write(b)).RootElement))
            .Where(t => had.ContainsKey(t) && !has.ContainsKey(t))
            .Distinct()
            .Select(t => had[t])
            .ToList();
    }

    private static Dictionary<string, string> Names(DeviceProfile profile) =>
        profile
            .Parts.Select(p => (Id: p.Id.Value, Name: p.Name))
            .Concat(profile.Functions.Select(f => (Id: f.Id.Value, Name: f.Name)))
            .Concat(profile.Probes.Select(p => (Id: p.Id.Value, Name: p.Name)))
            .Concat((profile.Connectors ?? []).Select(c => (Id: c.Id, Name: c.Name)))
            .GroupBy(x => x.Id)
            .ToDictionary(g => g.Key, g => g.First().Name);

    private static IEnumerable<string> Texts(JsonElement at) =>
        at.ValueKind switch
        {
            JsonValueKind.String => [at.GetString()!],
            JsonValueKind.Array => at.EnumerateArray().SelectMany(Texts),
            JsonValueKind.Object => at.EnumerateObject().SelectMany(p => Texts(p.Value)),
            _ => [],
        };
}
