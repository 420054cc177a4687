using System.ComponentModel.DataAnnotations;

namespace Mendro.Core.Profiles;

/// <summary>How one model of device hangs together: format <c>mendro.profile/1</c>.</summary>
/// <param name="Format">Always <c>mendro.profile/1</c>.</param>
/// <param name="Id">Id, lower case with hyphens.</param>
/// <param name="Name">Model name.</param>
/// <param name="Maker">Maker, or empty for a generic profile.</param>
/// <param name="Kind">Sort of device.</param>
/// <param name="Revisions">Board revisions.</param>
/// <param name="Supply">Where the power comes from.</param>
/// <param name="Parts">Parts.</param>
/// <param name="Feeds">Block diagram.</param>
/// <param name="Functions">What the user can see work, in the order of the baseline test.</param>
/// <param name="Probes">Places to measure, look and press.</param>
/// <param name="Preparation">Minutes to take it apart.</param>
/// <param name="Generic">True for the stand-in of an unknown model.</param>
/// <param name="Hazards">Caution ids that hold for the whole unit.</param>
/// <param name="Note">Anything worth saying about the model.</param>
/// <param name="Connectors">Connectors whose contacts can be swept.</param>
/// <param name="Fasteners">What holds it together.</param>
/// <param name="Steps">Steps of taking it apart.</param>
/// <param name="Boards">Its boards, to plan capacitors on.</param>
/// <param name="Checks">What is tried before it leaves, besides its functions.</param>
/// <param name="Archetype">For a build that ships: what tells it from the others; null for a model.</param>
/// <param name="Build">Id of the build that a model was made from, or null.</param>
/// <param name="Author">Who made the description, in their own words, or null.</param>
/// <param name="Licence">Under which terms it may be given on, in their own words, or null.</param>
/// <param name="Confirmed">Sections taken over from a build that somebody has looked at on a unit: fasteners, connectors, refdes.</param>
public sealed record DeviceProfile(
    [property: AllowedValues(DeviceProfile.FormatName)] string Format,
    [property: RegularExpression(ProfileFormat.ModelIdPattern)] string Id,
    [property: MinLength(1), MaxLength(80)] string Name,
    [property: MaxLength(80)] string Maker,
    DeviceKind Kind,
    [property: MayBeMissing, MaxLength(ProfileFormat.MostRevisions)] IReadOnlyList<Revision> Revisions,
    Supply? Supply,
    [property: MinLength(1), MaxLength(ProfileFormat.MostParts)] IReadOnlyList<Part> Parts,
    [property: MayBeMissing, MaxLength(ProfileFormat.MostFeeds)] IReadOnlyList<Feed> Feeds,
    [property: MinLength(1), MaxLength(ProfileFormat.MostFunctions)] IReadOnlyList<DeviceFunction> Functions,
    [property: MayBeMissing, MaxLength(ProfileFormat.MostProbes)] IReadOnlyList<Probe> Probes,
    [property: MayBeMissing] Preparation Preparation,
    bool Generic = false,
    [property: MaxLength(ProfileFormat.MostHazards)] IReadOnlyList<string>? Hazards = null,
    [property: MaxLength(ProfileFormat.LongestNote)] string? Note = null,
    [property: MaxLength(ProfileFormat.MostConnectors)] IReadOnlyList<Connector>? Connectors = null,
    [property: MaxLength(ProfileFormat.MostFasteners)] IReadOnlyList<Fastener>? Fasteners = null,
    [property: MaxLength(ProfileFormat.MostSteps)] IReadOnlyList<TeardownStep>? Steps = null,
    [property: MaxLength(ProfileFormat.MostBoards)] IReadOnlyList<Board>? Boards = null,
    [property: MaxLength(ProfileFormat.MostChecks)] IReadOnlyList<ProofCheck>? Checks = null,
    BuildFacts? Archetype = null,
    [property: RegularExpression(ProfileFormat.ModelIdPattern)] string? Build = null,
    [property: MaxLength(200)] string? Author = null,
    [property: MaxLength(200)] string? Licence = null,
    [property: MaxLength(10)] IReadOnlyList<string>? Confirmed = null
)
{
    /// <summary>The format name every profile file carries.</summary>
    public const string FormatName = "mendro.profile/1";

    /// <summary>Id of the build it is or was made from, or null.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string? BuildId => Archetype is null ? Build : Id;

    /// <summary>Finds a part by id.</summary>
    public Part? FindPart(PartId id) => Parts.FirstOrDefault(p => p.Id == id);

    /// <summary>Finds a function by id.</summary>
    public DeviceFunction? FindFunction(FunctionId id) => Functions.FirstOrDefault(f => f.Id == id);

    /// <summary>Finds a probe by id.</summary>
    public Probe? FindProbe(ProbeId id) => Probes.FirstOrDefault(p => p.Id == id);

    /// <summary>Finds a step of taking it apart by id.</summary>
    public TeardownStep? FindStep(string id) => Steps?.FirstOrDefault(s => s.Id == id);

    /// <summary>Finds a board by id.</summary>
    public Board? FindBoard(string id) => Boards?.FirstOrDefault(b => b.Id == id);

    /// <summary>True when a net of its boards counts for a part: then its lines can be tested on the board map.</summary>
    public bool HasNets(PartId part) => Boards?.Any(b => b.Nets?.Any(n => n.Serves is { } serves && serves == part) == true) == true;

    /// <summary>Maker and model, as written on a tag.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string FullName => Maker.Length > 0 ? $"{Maker} {Name}" : Name;
}
