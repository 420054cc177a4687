namespace Mendro.Core.Profiles;

/// <summary>One thing in which two profiles differ.</summary>
/// <param name="Place">What it is: a part, a feed, a probe …, with its id.</param>
/// <param name="Mine">What one's own says; null when it is not there.</param>
/// <param name="Theirs">What the other says; null when it is not there.</param>
public sealed record ProfileDifference(string Place, string? Mine, string? Theirs);

/// <summary>A merged profile.</summary>
/// <param name="Profile">The profile.</param>
/// <param name="Contested">What both changed, each otherwise: there one's own was kept.</param>
public sealed record MergedProfile(DeviceProfile Profile, IReadOnlyList<string> Contested);

/// <summary>
/// Brings two histories of one profile together, item by item: parts, feeds, functions, probes, revisions and connectors by their
/// ids, everything else as one item each. What only one side changed is taken from it; what both changed otherwise stays as one's own.
/// </summary>
public static class ProfileMerge
{
    /// <summary>Merges what two sides made of a profile.</summary>
    /// <param name="origin">The profile both began with.</param>
    /// <param name="mine">One's own.</param>
    /// <param name="theirs">The other's.</param>
    public static MergedProfile ThreeWay(DeviceProfile origin, DeviceProfile mine, DeviceProfile theirs)
    {
        var changes = new ByWhoChanged();
        return new MergedProfile(Combine(origin, mine, theirs, changes), changes.Contested);
    }

    /// <summary>One's own profile with some of the other's items in the place of one's own.</summary>
    /// <param name="mine">One's own.</param>
    /// <param name="theirs">The other's.</param>
    /// <param name="places">Places of <see cref="Between"/> at which the other's is taken.</param>
    public static DeviceProfile Take(DeviceProfile mine, DeviceProfile theirs, IReadOnlySet<string> places)
    {
        var made = Combine(mine, mine, theirs, new ByPlace(places));
        // Who made what was taken, and on which terms, goes along with it.
        return places.Count == 0
            ? made
            : made with
            {
                Author = Both(mine.Author, theirs.Author),
                Licence = Both(mine.Licence, theirs.Licence),
            };
    }

    /// <summary>The places at which another profile has something that one's own lacks: all of it can be taken without a choice.</summary>
    public static IReadOnlySet<string> Missing(DeviceProfile mine, DeviceProfile theirs) =>
        Between(mine, theirs).Where(d => d.Mine is null).Select(d => d.Place).ToHashSet();

    private static string? Both(string? mine, string? theirs) =>
        string.IsNullOrWhiteSpace(theirs) || mine?.Contains(theirs, StringComparison.OrdinalIgnoreCase) == true ? mine
        : string.IsNullOrWhiteSpace(mine) ? theirs
        : $"{mine}; {theirs}" is { Length: <= 200 } both ? both
        : mine;

    /// <summary>In what two profiles differ, item by item.</summary>
    public static IReadOnlyList<ProfileDifference> Between(DeviceProfile mine, DeviceProfile theirs)
    {
        var differences = new Noting();
        Combine(mine, mine, theirs, differences);
        return differences.Found;
    }

    /// <summary>What is to stand at a place.</summary>
    private interface IChoice
    {
        T Choose<T>(string place, T before, T own, T other);
    }

    private sealed class ByWhoChanged : IChoice
    {
        public List<string> Contested { get; } = [];

        public T Choose<T>(string place, T before, T own, T other)
        {
            if (Same(other, before) || Same(own, other))
                return own;
            if (Same(own, before))
                return other;
            Contested.Add(place);
            return own;
        }
    }

    private sealed class ByPlace(IReadOnlySet<string> places) : IChoice
    {
        public T Choose<T>(string place, T before, T own, T other) => places.Contains(place) ? other : own;
    }

    private sealed class Noting : IChoice
    {
        public List<ProfileDifference> Found { get; } = [];

        public T Choose<T>(string place, T before, T own, T other)
        {
            if (!Same(own, other))
                Found.Add(new ProfileDifference(place, Words(own), Words(other)));
            return own;
        }
    }

    /// <summary>Goes over all items of a profile once, in the order in which they are told; what is chosen at each makes the
    /// profile.</summary>
    private static DeviceProfile Combine(DeviceProfile origin, DeviceProfile mine, DeviceProfile theirs, IChoice choice)
    {
        T One<T>(string place, Func<DeviceProfile, T> of) => choice.Choose(place, of(origin), of(mine), of(theirs));
        IReadOnlyList<T> Each<T>(string what, Func<DeviceProfile, IReadOnlyList<T>?> of, Func<T, string> key)
            where T : class
        {
            var (before, own, other) = (Keyed(of(origin), key), Keyed(of(mine), key), Keyed(of(theirs), key));
            // In one's own order; what is new comes behind.
            return own
                .Keys.Union(other.Keys)
                .Select(k =>
                    choice.Choose($"{what} {k}", before.GetValueOrDefault(k), own.GetValueOrDefault(k), other.GetValueOrDefault(k))
                )
                .OfType<T>()
                .ToList();
        }

        return mine with
        {
            Name = One("name", p => p.Name),
            Maker = One("maker", p => p.Maker),
            Kind = One("kind", p => p.Kind),
            Note = One("note", p => p.Note),
            Supply = One("supply", p => p.Supply),
            Preparation = One("preparation", p => p.Preparation),
            Hazards = One("hazards", p => p.Hazards),
            Confirmed = One("confirmed", p => p.Confirmed),
            Revisions = Each("revision", p => p.Revisions, r => r.Id),
            Parts = Each("part", p => p.Parts, x => x.Id.Value),
            Feeds = Each("feed", p => p.Feeds, f => $"{f.From} > {f.To} ({f.Carries})"),
            Functions = Each("function", p => p.Functions, f => f.Id.Value),
            Probes = Each("probe", p => p.Probes, x => x.Id.Value),
            Connectors = Each("connector", p => p.Connectors, c => c.Id) is { Count: > 0 } some ? some : null,
            Fasteners = Each("fastener", p => p.Fasteners, f => f.Id) is { Count: > 0 } held ? held : null,
            Steps = Each("step", p => p.Steps, s => s.Id) is { Count: > 0 } taken ? taken : null,
            Checks = Each("check", p => p.Checks, c => c.Id) is { Count: > 0 } tried ? tried : null,
            Boards = Each("board", p => p.Boards, b => b.Id) is { Count: > 0 } drawn ? drawn : null,
        };
    }

    private static Dictionary<string, T> Keyed<T>(IReadOnlyList<T>? items, Func<T, string> key)
        where T : class
    {
        var keyed = new Dictionary<string, T>();
        foreach (var item in items ?? [])
            keyed.TryAdd(key(item), item);
        return keyed;
    }

    // Lists inside records compare by reference; as text they compare by what they say.
    private static bool Same<T>(T a, T b) => Words(a) == Words(b);

    private static string? Words<T>(T item) => item is null ? null : ProfileJson.WriteItem(item);
}
