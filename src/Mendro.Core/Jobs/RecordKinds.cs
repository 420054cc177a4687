using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Mendro.Core.Profiles;

namespace Mendro.Core.Jobs;

/// <summary>All kinds of record, found by their attribute; reads and writes their payloads.</summary>
public static class RecordKinds
{
    private static readonly JsonSerializerOptions Compact = new(ProfileJson.Options)
    {
        WriteIndented = false,
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { PayloadOnly } },
    };

    private static readonly IReadOnlyDictionary<Type, RecordKindAttribute> ByType = typeof(RecordKinds)
        .Assembly.GetTypes()
        .Where(t => !t.IsAbstract && t.IsSubclassOf(typeof(RecordBody)))
        .Select(t => (Type: t, Kind: t.GetCustomAttribute<RecordKindAttribute>()))
        .Where(x => x.Kind is not null)
        .ToDictionary(x => x.Type, x => x.Kind!);

    private static readonly IReadOnlyDictionary<string, Type> ByKey = ByType.ToDictionary(x => x.Value.Key, x => x.Key);

    private static readonly IReadOnlyList<Func<EvidenceEntry, EntryContext, Outcome<RecordBody>?>> Readers = ByType
        .Keys.Where(t => t.IsAssignableTo(typeof(IEvidenceEntryReader)))
        .OrderBy(t => ByType[t].Key, StringComparer.Ordinal)
        .Select(t => typeof(RecordKinds).GetMethod(nameof(ReaderOf), BindingFlags.NonPublic | BindingFlags.Static)!.MakeGenericMethod(t))
        .Select(m => (Func<EvidenceEntry, EntryContext, Outcome<RecordBody>?>)m.Invoke(null, null)!)
        .ToList();

    /// <summary>Keys of all kinds.</summary>
    public static IReadOnlyCollection<string> Keys => [.. ByKey.Keys];

    /// <summary>Key of a kind.</summary>
    /// <exception cref="InvalidOperationException">The class carries no <see cref="RecordKindAttribute"/>; a build error.</exception>
    public static string KeyOf(Type kind) => Kind(kind).Key;

    /// <summary>Version of a kind's payload.</summary>
    public static int VersionOf(Type kind) => Kind(kind).Version;

    /// <summary>Writes a payload as compact JSON; that of an unknown kind comes back as it was.</summary>
    public static string Write(RecordBody body) =>
        body is UnknownRecord unknown ? unknown.Payload : JsonSerializer.Serialize(body, body.GetType(), Compact);

    /// <summary>
    /// Reads a payload. What this version does not know, or cannot read, is kept as it stands and never refused: a page must
    /// open whatever is stored.
    /// </summary>
    /// <param name="key">Key of the kind.</param>
    /// <param name="version">Version of the payload.</param>
    /// <param name="payload">JSON.</param>
    public static RecordBody Read(string key, int version, string payload)
    {
        if (ByKey.TryGetValue(key, out var type) && version <= ByType[type].Version)
        {
            try
            {
                if (JsonSerializer.Deserialize(payload, type, Compact) is RecordBody body)
                    return body;
            }
            catch (JsonException)
            {
                // Kept as unknown below.
            }
        }

        return new UnknownRecord(key, version, payload);
    }

    /// <summary>Reads an entry of an evidence file by the kind that claims it.</summary>
    /// <returns>What it says, or why it cannot be read.</returns>
    public static Outcome<RecordBody> FromEntry(EvidenceEntry entry, EntryContext context) =>
        Readers.Select(read => read(entry, context)).FirstOrDefault(claimed => claimed is not null)
        ?? Outcome<RecordBody>.Fail("name a function, swap, probe, mark or part.");

    /// <summary>What a record is made of is its payload; what follows from that is not stored beside it.</summary>
    private static void PayloadOnly(JsonTypeInfo info)
    {
        if (!info.Type.IsSubclassOf(typeof(RecordBody)))
            return;
        var payload = info
            .Type.GetConstructors()
            .SelectMany(c => c.GetParameters())
            .Select(p => p.Name!)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        for (var n = info.Properties.Count - 1; n >= 0; n--)
            if (!payload.Contains(info.Properties[n].Name))
                info.Properties.RemoveAt(n);
    }

    private static RecordKindAttribute Kind(Type kind) =>
        ByType.TryGetValue(kind, out var found)
            ? found
            : throw new InvalidOperationException($"{kind.Name} carries no RecordKind attribute.");

    private static Func<EvidenceEntry, EntryContext, Outcome<RecordBody>?> ReaderOf<TBody>()
        where TBody : IEvidenceEntryReader => TBody.FromEntry;
}
