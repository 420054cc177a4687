using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>A model found in a line.</summary>
/// <param name="Profile">The model.</param>
/// <param name="Names">Words that named it.</param>
/// <param name="Left">The other words.</param>
internal sealed record NamedModel(DeviceProfile Profile, IReadOnlyList<string> Names, List<string> Left);

/// <summary>Finds the model that a line names.</summary>
internal static class ModelNames
{
    private static readonly string[] Loose = ["any", "with", "save", "cell", "colour"];

    private static readonly (string Word, DeviceKind Kind)[] Kinds =
    [
        ("handheld", DeviceKind.Handheld),
        ("portable", DeviceKind.Handheld),
        ("console", DeviceKind.Console),
        ("cartridge", DeviceKind.Cartridge),
        ("pad", DeviceKind.Controller),
        ("controller", DeviceKind.Controller),
        ("cable", DeviceKind.Accessory),
    ];

    /// <summary>The profile most of whose name words stand in the line; of equals the shorter name, so that a console is not taken
    /// for its cartridge.</summary>
    public static NamedModel? Find(IReadOnlyList<string> words, IReadOnlyList<DeviceProfile> profiles)
    {
        var best = profiles
            .Where(p => !p.Generic && p.Archetype is null)
            .Select(p => (Profile: p, Names: NameWords(p)))
            .Select(x => (x.Profile, Hits: Run(words, x.Names), x.Names.Count))
            // A word that any model shares, such as “cartridge”, names none.
            .Where(x => x.Hits.Any(h => Kinds.All(k => k.Word != h)))
            .OrderByDescending(x => x.Hits.Count)
            .ThenBy(x => x.Count)
            .FirstOrDefault();
        if (best.Profile is not null)
            return new NamedModel(best.Profile, best.Hits, words.Where(w => !best.Hits.Contains(w)).ToList());
        var kind = Kinds.FirstOrDefault(k => words.Contains(k.Word));
        if (kind.Word is null)
            return null;
        var disc = words.Contains("disc") && kind.Kind == DeviceKind.Console;
        var wanted = disc ? DeviceKind.DiscConsole : kind.Kind;
        return profiles.FirstOrDefault(p => p.Generic && p.Kind == wanted) is { } generic
            ? new NamedModel(generic, [kind.Word, "any"], WithoutFirst(words, kind.Word))
            : null;
    }

    /// <summary>Words in a row that belong to a name: “atrium cartridge”, but not the cartridge pressed into an Atrium.</summary>
    private static List<string> Run(IReadOnlyList<string> words, IReadOnlyList<string> names)
    {
        var best = new List<string>();
        for (var at = 0; at < words.Count; at++)
        {
            var run = words.Skip(at).TakeWhile(w => names.Any(n => Same(w, n))).Distinct().ToList();
            if (run.Count > best.Count)
                best = run;
        }

        return best;
    }

    /// <summary>The line without the words that name the model.</summary>
    public static string Without(string typed, NamedModel? named) =>
        named is null
            ? typed
            : string.Join(
                ' ',
                typed
                    .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                    .Where(w => !named.Names.Contains(w.Trim(',', ';', ':', '.').ToLowerInvariant()))
            );

    private static List<string> WithoutFirst(IReadOnlyList<string> words, string word)
    {
        var left = words.Where(w => w != "any").ToList();
        left.Remove(word);
        return left;
    }

    private static List<string> NameWords(DeviceProfile profile) =>
        $"{profile.Maker} {profile.Name}"
            .ToLowerInvariant()
            .Split([' ', ','], StringSplitOptions.RemoveEmptyEntries)
            .Where(w => w.Length > 2 && !Loose.Contains(w))
            .ToList();

    private static bool Same(string typed, string name) =>
        name == typed || typed.Length >= 4 && name.StartsWith(typed, StringComparison.Ordinal);
}
