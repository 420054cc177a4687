using System.Reflection;
using System.Text.Json;
using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>The trade's knowledge as shipped: part kinds, looks, methods, cautions, condition marks, profiles.</summary>
public sealed class TradeLibrary : IPartRoles
{
    private static readonly Lazy<TradeLibrary> LazyShipped = new(LoadShipped);

    private static readonly Lazy<Dictionary<ProbeKind, ProbeKindFacts>> LazyProbeKinds = new(() =>
        Load<List<ProbeKindFacts>>("probe-kinds.json").ToDictionary(f => f.Kind)
    );

    private readonly Dictionary<string, PartKind> _partKinds;
    private readonly Dictionary<string, FunctionKind> _functionKinds;
    private volatile MethodSet _methods;
    private readonly Dictionary<string, Caution> _cautions;
    private readonly Dictionary<string, ConditionMark> _marks;

    /// <summary>Puts a library together from its pieces.</summary>
    public TradeLibrary(
        IReadOnlyList<PartKind> partKinds,
        IReadOnlyList<FunctionKind> functionKinds,
        IReadOnlyList<Method> methods,
        IReadOnlyList<Caution> cautions,
        IReadOnlyList<ConditionMark> marks,
        IReadOnlyList<DeviceProfile> profiles,
        IReadOnlyList<ContactGroup>? contactGroups = null,
        IReadOnlyList<DeviceProfile>? archetypes = null,
        IReadOnlyList<ContactLadder>? ladders = null,
        IReadOnlyList<Regime>? regimes = null
    )
    {
        (Ladders, Regimes) = (ladders ?? [], regimes ?? []);
        ContactGroups = contactGroups ?? [];
        Archetypes = archetypes ?? [];
        (PartKinds, FunctionKinds, Cautions, Marks, Profiles) = (partKinds, functionKinds, cautions, marks, profiles);
        _partKinds = partKinds.ToDictionary(k => k.Kind);
        _functionKinds = functionKinds.ToDictionary(k => k.Kind);
        _methods = new MethodSet(methods, methods.ToDictionary(m => m.Id), 0);
        _cautions = cautions.ToDictionary(c => c.Id);
        _marks = marks.ToDictionary(m => m.Id);
    }

    /// <summary>The library embedded in this assembly.</summary>
    public static TradeLibrary Shipped => LazyShipped.Value;

    /// <summary>All part kinds.</summary>
    public IReadOnlyList<PartKind> PartKinds { get; }

    /// <summary>All function kinds.</summary>
    public IReadOnlyList<FunctionKind> FunctionKinds { get; }

    /// <summary>All methods that are offered.</summary>
    public IReadOnlyList<Method> Methods => _methods.Offered;

    /// <summary>Grows whenever the methods change.</summary>
    public int MethodsRevision => _methods.Revision;

    /// <summary>The same library to be changed by one shop alone.</summary>
    public TradeLibrary Copy() =>
        new(PartKinds, FunctionKinds, Methods, Cautions, Marks, Profiles, ContactGroups, Archetypes, Ladders, Regimes);

    /// <summary>Takes a shop's methods: its own, those changed, and what was learned of them.</summary>
    /// <param name="offered">Methods that are offered.</param>
    /// <param name="retired">Methods that old records name.</param>
    public void UseMethods(IReadOnlyList<Method> offered, IReadOnlyList<Method> retired)
    {
        var byId = retired.ToDictionary(m => m.Id);
        foreach (var method in offered)
            byId[method.Id] = method;
        _methods = new MethodSet(offered, byId, _methods.Revision + 1);
    }

    /// <summary>All cautions.</summary>
    public IReadOnlyList<Caution> Cautions { get; }

    /// <summary>All condition marks, safety flags among them.</summary>
    public IReadOnlyList<ConditionMark> Marks { get; }

    /// <summary>Cleaning ladders.</summary>
    public IReadOnlyList<ContactLadder> Ladders { get; }

    /// <summary>What benches argue about.</summary>
    public IReadOnlyList<Regime> Regimes { get; }

    /// <summary>Kinds of lines in a connector.</summary>
    public IReadOnlyList<ContactGroup> ContactGroups { get; }

    /// <summary>The invented models of the demo world, and the generic stand-ins of each kind last.</summary>
    public IReadOnlyList<DeviceProfile> Profiles { get; }

    /// <summary>Builds that ship: full profiles by construction, from which a shop's own models are made.</summary>
    public IReadOnlyList<DeviceProfile> Archetypes { get; }

    /// <summary>What an empty shop begins with: the builds, and the generic stand-ins.</summary>
    public IReadOnlyList<DeviceProfile> ForAnyShop => [.. Archetypes, .. Profiles.Where(p => p.Generic)];

    /// <summary>Finds a part kind.</summary>
    public PartKind? FindPartKind(string kind) => _partKinds.GetValueOrDefault(kind);

    /// <summary>What the bench knows of a kind of probe; the same for every library.</summary>
    public static ProbeKindFacts Of(ProbeKind kind) => LazyProbeKinds.Value[kind];

    /// <inheritdoc/>
    public bool Has(string partKind, PartRole role) => FindPartKind(partKind)?.Has(role) == true;

    /// <summary>Finds a function kind.</summary>
    public FunctionKind? FindFunctionKind(string kind) => _functionKinds.GetValueOrDefault(kind);

    /// <summary>Finds a look of a kind of function.</summary>
    public Look? FindLook(string functionKind, string? look) => FindFunctionKind(functionKind)?.Looks.FirstOrDefault(l => l.Id == look);

    /// <summary>Finds a method.</summary>
    public Method? FindMethod(MethodId id) => _methods.ById.GetValueOrDefault(id);

    /// <summary>The cleaning ladder of a kind of part, or null.</summary>
    public ContactLadder? FindLadder(string partKind) => Ladders.FirstOrDefault(l => l.Kinds.Contains(partKind));

    /// <summary>Finds a caution.</summary>
    public Caution? FindCaution(string id) => _cautions.GetValueOrDefault(id);

    /// <summary>Finds a condition mark.</summary>
    public ConditionMark? FindMark(string id) => _marks.GetValueOrDefault(id);

    /// <summary>Methods that cure something in a part of this kind, in library order: gentlest first.</summary>
    public IEnumerable<Method> MethodsFor(string partKind) => Methods.Where(m => m.Cures.Any(c => c.Kind == partKind));

    /// <summary>Work that cures no fault and is asked for all the same: shell, window, improvements.</summary>
    public IEnumerable<Method> OtherWork(DeviceKind kind) => Methods.Where(m => m.Place is not null && m.For?.Contains(kind) != false);

    /// <summary>Chance that a method cures a mode; 0 when it does nothing for it.</summary>
    public static double Success(Method method, string partKind, string modeId) =>
        method.Cures.Where(c => c.Kind == partKind && (c.Mode == modeId || c.Mode == "*")).Select(c => c.Success).DefaultIfEmpty(0).Max();

    /// <summary>Methods as they stand, changed as a whole.</summary>
    private sealed record MethodSet(IReadOnlyList<Method> Offered, IReadOnlyDictionary<MethodId, Method> ById, int Revision);

    private static TradeLibrary LoadShipped()
    {
        IEnumerable<DeviceProfile> Folder(string name) =>
            typeof(TradeLibrary)
                .Assembly.GetManifestResourceNames()
                .Where(n => n.StartsWith($"Library/{name}/", StringComparison.Ordinal))
                .Select(n => Load<DeviceProfile>(n["Library/".Length..]));
        var profiles = Folder("Profiles").OrderBy(p => p.Generic).ThenBy(p => p.Name, StringComparer.Ordinal).ToList();
        return new TradeLibrary(
            Load<List<PartKind>>("part-kinds.json"),
            Load<List<FunctionKind>>("function-kinds.json"),
            Load<List<Method>>("methods.json"),
            Load<List<Caution>>("cautions.json"),
            Load<List<ConditionMark>>("condition-marks.json"),
            profiles,
            Load<List<ContactGroup>>("contact-groups.json"),
            Folder("Archetypes").OrderBy(p => p.Kind).ThenBy(p => p.Name, StringComparer.Ordinal).ToList(),
            Load<List<ContactLadder>>("ladders.json"),
            Load<List<Regime>>("regimes.json")
        );
    }

    /// <summary>Text of an embedded library file, such as <c>profile.schema.json</c>.</summary>
    /// <exception cref="InvalidOperationException">There is no such file; a build error.</exception>
    public static string ReadText(string name)
    {
        using var stream =
            Assembly.GetExecutingAssembly().GetManifestResourceStream("Library/" + name)
            ?? throw new InvalidOperationException($"Library file {name} is not embedded.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }

    private static T Load<T>(string name) =>
        JsonSerializer.Deserialize<T>(ReadText(name), ProfileJson.Options)
        ?? throw new InvalidOperationException($"Library file {name} is empty.");
}
