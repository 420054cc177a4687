using System.Runtime.CompilerServices;

namespace Mendro.Core.Profiles;

/// <summary>Reachability over a profile's feeds. Made once a profile, used for every job.</summary>
public sealed class ProfileGraph
{
    private static readonly ConditionalWeakTable<DeviceProfile, ProfileGraph> Made = [];

    private readonly IPartRoles _roles;
    private readonly Dictionary<PartId, List<Feed>> _into;
    private readonly Dictionary<PartId, List<Feed>> _outOf;
    private readonly Dictionary<PartId, Part> _parts;

    /// <summary>Indexes the feeds of a profile. Feeds that name unknown parts are ignored.</summary>
    /// <param name="profile">Profile.</param>
    /// <param name="roles">What each kind of part does.</param>
    public ProfileGraph(DeviceProfile profile, IPartRoles roles)
    {
        (Profile, _roles) = (profile, roles);
        _parts = profile.Parts.GroupBy(p => p.Id).ToDictionary(g => g.Key, g => g.First());
        _into = _parts.Keys.ToDictionary(id => id, _ => new List<Feed>());
        _outOf = _parts.Keys.ToDictionary(id => id, _ => new List<Feed>());
        foreach (var feed in profile.Feeds)
        {
            if (!_parts.ContainsKey(feed.From) || !_parts.ContainsKey(feed.To))
                continue;
            _into[feed.To].Add(feed);
            _outOf[feed.From].Add(feed);
        }
    }

    /// <summary>The graph of a profile, made when it is first asked for and kept as long as the profile is.</summary>
    public static ProfileGraph Of(DeviceProfile profile, IPartRoles roles) => Made.GetValue(profile, p => new ProfileGraph(p, roles));

    /// <summary>True when the part is there and its kind plays the role.</summary>
    public bool Has(PartId partId, PartRole role) => _parts.TryGetValue(partId, out var part) && _roles.Has(part.Kind, role);

    /// <summary>The profile indexed.</summary>
    public DeviceProfile Profile { get; }

    /// <summary>Feeds that arrive at a part.</summary>
    public IReadOnlyList<Feed> Into(PartId partId) => _into.TryGetValue(partId, out var feeds) ? feeds : [];

    /// <summary>Feeds that leave a part.</summary>
    public IReadOnlyList<Feed> OutOf(PartId partId) => _outOf.TryGetValue(partId, out var feeds) ? feeds : [];

    /// <summary>
    /// The part and everything upstream of it. A button reports to the board without the board needing it: feeds of
    /// input are followed only into parts that merely pass them on, such as a ribbon. Nor does the walk go on behind
    /// cells or a pack: once charged they feed the unit alone.
    /// </summary>
    /// <param name="partId">Where to start.</param>
    /// <param name="powerOnly">Follow supply feeds only.</param>
    /// <param name="medium">Sound or picture, when the walk is for one of them: where both arrive at a part, as at a picture
    /// socket, only its own way is followed.</param>
    /// <param name="lit">False to leave out what only gives light: a picture is there without it, and seen under a lamp.</param>
    public HashSet<PartId> Upstream(PartId partId, bool powerOnly = false, Carries? medium = null, bool lit = true) =>
        Walk(
            partId,
            id =>
                Has(id, PartRole.Store)
                    ? []
                    : Into(id)
                        .Where(f => powerOnly ? f.Carries == Carries.Power : Needed(f) && Own(f, medium) && (lit || f.Carries != Carries.Light))
                        .Select(f => f.From)
        );

    /// <summary>What charges the cells or packs among some parts: their charger and all on its way.</summary>
    public HashSet<PartId> ChargeWays(IEnumerable<PartId> parts) =>
        parts
            .Where(p => Has(p, PartRole.Store))
            .SelectMany(p => Into(p))
            .Where(f => f.Carries == Carries.Power)
            .SelectMany(f => Upstream(f.From))
            .ToHashSet();

    /// <summary>The part and everything downstream of it.</summary>
    /// <param name="partId">Where to start.</param>
    /// <param name="powerOnly">Follow supply feeds only.</param>
    public HashSet<PartId> Downstream(PartId partId, bool powerOnly = false) =>
        Walk(partId, id => OutOf(id).Where(f => !powerOnly || f.Carries == Carries.Power).Select(f => f.To));

    /// <summary>All parts a function depends on.</summary>
    /// <param name="function">Function.</param>
    /// <param name="medium">Sound or picture, when it is one of them.</param>
    /// <param name="lit">False to leave out what only gives light.</param>
    public HashSet<PartId> Closure(DeviceFunction function, Carries? medium = null, bool lit = true)
    {
        var closure = new HashSet<PartId>();
        foreach (var need in function.Needs.Where(_parts.ContainsKey))
            closure.UnionWith(Upstream(need, medium: medium, lit: lit));
        return closure;
    }

    /// <summary>
    /// The rail a part hangs on: the nearest source or converter upstream of it (the heads), and all that those feed.
    /// A short anywhere on the rail pulls the whole of it down; what is before the heads holds.
    /// </summary>
    public SupplyRail RailOf(PartId partId)
    {
        var heads = new HashSet<PartId>();
        var seen = new HashSet<PartId> { partId };
        var pending = new Queue<PartId>([partId]);
        while (pending.TryDequeue(out var id))
        {
            var sources = Into(id).Where(f => f.Carries == Carries.Power).Select(f => f.From).ToList();
            var isHead = id != partId && Has(id, PartRole.Converter);
            if (isHead || sources.Count == 0)
            {
                heads.Add(id);
                continue;
            }

            foreach (var source in sources.Where(seen.Add))
                pending.Enqueue(source);
        }

        var members = new HashSet<PartId>();
        foreach (var head in heads)
            members.UnionWith(Downstream(head, powerOnly: true));
        return new SupplyRail(heads, members);
    }

    /// <summary>Sound does not hang on the picture, nor the picture on the sound, only because they leave by one socket.</summary>
    private bool Own(Feed feed, Carries? medium) =>
        medium is null
        || feed.Carries is not (Carries.Audio or Carries.Video)
        || feed.Carries == medium
        || Into(feed.To).All(f => f.Carries != medium);

    private bool Needed(Feed feed) => feed.Carries != Carries.Input || Into(feed.To).All(f => f.Carries == Carries.Input);

    private static HashSet<PartId> Walk(PartId start, Func<PartId, IEnumerable<PartId>> next)
    {
        var seen = new HashSet<PartId> { start };
        var pending = new Stack<PartId>([start]);
        while (pending.TryPop(out var id))
            foreach (var other in next(id))
                if (seen.Add(other))
                    pending.Push(other);
        return seen;
    }
}

/// <summary>A supply rail: what makes it and what hangs on it.</summary>
/// <param name="Heads">Parts that make the rail.</param>
/// <param name="Members">The heads and everything they feed with power.</param>
public sealed record SupplyRail(IReadOnlySet<PartId> Heads, IReadOnlySet<PartId> Members);
