using System.Text.Json;
using System.Text.Json.Serialization;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Methods;

/// <summary>Whether an agent may touch a surface.</summary>
public enum MaterialVerdict
{
    /// <summary>Harms nothing.</summary>
    Safe,

    /// <summary>Try it where it does not show, or mind what the reason says.</summary>
    TestFirst,

    /// <summary>Does lasting harm.</summary>
    Never,
}

/// <summary>What an agent does to a surface.</summary>
/// <param name="Verdict">Whether it may touch it.</param>
/// <param name="Reason">Why not, or what to mind; null when it is safe.</param>
public sealed record SurfaceRule(MaterialVerdict Verdict, string? Reason = null);

/// <summary>Something that is put on a unit.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Surfaces">What it does to each surface, by id.</param>
/// <param name="Source">Where this comes from.</param>
/// <param name="Flammable">True when its vapour burns.</param>
/// <param name="Volatile">True when it dries away and leaves nothing.</param>
/// <param name="Aqueous">True when it leaves water.</param>
/// <param name="Acid">True for an acid.</param>
/// <param name="Residue">True when what stays keeps eating or conducts.</param>
/// <param name="Sheds">True when it leaves dust that conducts or grinds.</param>
/// <param name="Grease">True for what lubricates.</param>
/// <param name="WipesDust">True when wiping with it takes dust along.</param>
/// <param name="DryMinutes">Minutes of drying that it needs; 0 when it needs none.</param>
/// <param name="MostMinutes">Longest time it may stay, minutes; null when there is none.</param>
/// <param name="Removes">Agents whose residue it takes off the same surface.</param>
public sealed record MaterialAgent(
    string Id,
    string Name,
    IReadOnlyDictionary<string, SurfaceRule> Surfaces,
    string Source,
    bool Flammable = false,
    bool Volatile = false,
    bool Aqueous = false,
    bool Acid = false,
    bool Residue = false,
    bool Sheds = false,
    bool Grease = false,
    bool WipesDust = false,
    double DryMinutes = 0,
    double? MostMinutes = null,
    IReadOnlyList<string>? Removes = null
);

/// <summary>Two agents that must never meet, in whichever order.</summary>
/// <param name="Rule">Name of the rule.</param>
/// <param name="One">Agents on one side.</param>
/// <param name="Other">Agents on the other.</param>
/// <param name="Reason">What happens.</param>
/// <param name="Source">Where this comes from.</param>
public sealed record DangerousMixture(string Rule, IReadOnlyList<string> One, IReadOnlyList<string> Other, string Reason, string Source)
{
    /// <summary>True when the two make it.</summary>
    public bool IsOf(string a, string b) => One.Contains(a) && Other.Contains(b) || One.Contains(b) && Other.Contains(a);
}

/// <summary>Something an agent can touch.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name as the bench says it.</param>
public sealed record MaterialSurface(string Id, string Name);

/// <summary>The trade's knowledge of agents and surfaces: format <c>mendro.materials/1</c>.</summary>
/// <param name="Format">Always <c>mendro.materials/1</c>.</param>
/// <param name="Surfaces">Surfaces.</param>
/// <param name="Agents">Agents.</param>
/// <param name="Mixtures">What must never meet.</param>
/// <param name="RinseDryMinutes">Minutes of drying after a rinse.</param>
public sealed record MaterialLibrary(
    string Format,
    IReadOnlyList<MaterialSurface> Surfaces,
    IReadOnlyList<MaterialAgent> Agents,
    IReadOnlyList<DangerousMixture> Mixtures,
    double RinseDryMinutes
)
{
    private static readonly Lazy<MaterialLibrary> LazyShipped = new(() =>
        JsonSerializer.Deserialize<MaterialLibrary>(TradeLibrary.ReadText("materials.json"), ProfileJson.Options)!
    );

    private Dictionary<string, MaterialAgent>? _byId;

    /// <summary>The library embedded in this assembly.</summary>
    public static MaterialLibrary Shipped => LazyShipped.Value;

    /// <summary>Finds an agent by id.</summary>
    public MaterialAgent? FindAgent(string? id) => id is null ? null : ById.GetValueOrDefault(id);

    /// <summary>Finds a surface by id.</summary>
    public MaterialSurface? FindSurface(string? id) => Surfaces.FirstOrDefault(s => s.Id == id);

    [JsonIgnore]
    private Dictionary<string, MaterialAgent> ById => _byId ??= Agents.ToDictionary(a => a.Id);
}
