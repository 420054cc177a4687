using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>How a failure mode shows in the circuit.</summary>
public enum ModeEffect
{
    /// <summary>Nothing passes.</summary>
    Open,

    /// <summary>The part does not do its work.</summary>
    Dead,

    /// <summary>Comes and goes.</summary>
    Intermittent,

    /// <summary>Pulls its supply rail down.</summary>
    Short,

    /// <summary>Works, but badly.</summary>
    Degraded,
}

/// <summary>A kind of part, as the library knows it.</summary>
/// <param name="Kind">Id used in profiles.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Modes">The ways it fails.</param>
/// <param name="Gear">True for test gear that belongs to the bench and not to the unit.</param>
/// <param name="Swappable">True when another piece can stand in for it in a trial.</param>
/// <param name="Roles">What it does in a unit; rules ask for these and never for the kind.</param>
/// <param name="WearPerUse">Chance that one more use as test gear leaves it dirty, 0 to 1 (common practice, no source).</param>
/// <param name="StandsFor">Kinds of device whose whole unit it can stand for in a swap trial.</param>
/// <param name="Calculators">Calculators that apply to it.</param>
/// <param name="Hazards">What it brings into every unit that has it, by ids of cautions.</param>
/// <param name="Classes">Ages and makes in which it fails more or less than at large; a part of a model names its class.</param>
public sealed record PartKind(
    string Kind,
    string Name,
    IReadOnlyList<FailureMode> Modes,
    bool Gear = false,
    bool Swappable = false,
    IReadOnlyList<PartRole>? Roles = null,
    double WearPerUse = PartKind.LeastWear,
    IReadOnlyList<DeviceKind>? StandsFor = null,
    IReadOnlyList<string>? Calculators = null,
    IReadOnlyList<string>? Hazards = null,
    IReadOnlyList<PartClass>? Classes = null
)
{
    /// <summary>Wear of a kind that the data say nothing of: screens and the like hardly get dirty.</summary>
    public const double LeastWear = 0.0005;

    /// <summary>True when the kind plays this role.</summary>
    public bool Has(PartRole role) => Roles?.Contains(role) == true;

    /// <summary>First weight of a mode in a part: the part's own, else its class's, else that at large.</summary>
    /// <param name="part">The part.</param>
    /// <param name="mode">Mode of this kind.</param>
    /// <param name="chemistry">Chemistry of the unit's cells, as its supply says; null when it has none.</param>
    public double Prior(Part part, FailureMode mode, string? chemistry = null) =>
        (
            part.Modes?.FirstOrDefault(m => m.Mode == mode.Id)
            ?? ClassOf(part, chemistry)?.Modes.FirstOrDefault(m => m.Mode == mode.Id)
        )?.Prior
        ?? mode.Prior;

    /// <summary>The class of a part: its own, else that of the cells it holds; null when there is none.</summary>
    /// <param name="part">The part.</param>
    /// <param name="chemistry">Chemistry of the unit's cells; null when it has none.</param>
    public PartClass? ClassOf(Part part, string? chemistry = null) =>
        (part.Class ?? chemistry) is { } id ? Classes?.FirstOrDefault(c => c.Id == id) : null;
}

/// <summary>Parts of a kind that are of one age and make.</summary>
/// <param name="Id">Id, unique in the kind.</param>
/// <param name="Name">Age and make, in words.</param>
/// <param name="Modes">First weights in this class; a mode that is not named weighs as at large.</param>
public sealed record PartClass(string Id, string Name, IReadOnlyList<ModeOverride> Modes);

/// <summary>One way a kind of part fails.</summary>
/// <param name="Id">Id within the kind.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Effect">How it shows.</param>
/// <param name="Prior">Starting chance in a unit brought in as faulty, 0 to 1; a guess that the shop's history may overrule.</param>
/// <param name="Fails">Chance that a function that needs the part fails, when not the effect's default.</param>
/// <param name="Detect">Chance that a check of this kind at the part shows it, by probe kind.</param>
/// <param name="Looks">How the failure looks, by function kind.</param>
/// <param name="Source">Where this comes from.</param>
/// <param name="Words">Words in which an eye or a finger tells it: “crust”, “bent”; with a star at the end where only the beginning counts.</param>
/// <param name="Resistive">True for what passes something, badly, as dirt and crust do, where a break passes nothing.</param>
/// <param name="Only">Kinds of function it harms, when the part lies in the way of others too; null for all.</param>
/// <param name="GoneWith">Kind of function whose success takes it away, as charging does an empty pack; null for none.</param>
/// <param name="TooHigh">Share of its bad volts that are too high and not too low, 0 to 1.</param>
/// <param name="Eats">Where it was seen: how many times the odds that traces of its board are eaten; null for what eats nothing.</param>
/// <param name="Eaten">True for what such a leak does to a part.</param>
public sealed record FailureMode(
    string Id,
    string Name,
    ModeEffect Effect,
    double Prior,
    double? Fails,
    IReadOnlyDictionary<ProbeKind, double>? Detect,
    IReadOnlyList<LookShare>? Looks,
    string Source,
    IReadOnlyList<string>? Words = null,
    bool Resistive = false,
    IReadOnlyList<string>? Only = null,
    string? GoneWith = null,
    double TooHigh = 0,
    double? Eats = null,
    bool Eaten = false
)
{
    /// <summary>The word in which a bench mostly tells it; null where no eye or finger can.</summary>
    public string? PlainWord => Words is { Count: > 0 } words ? words[0].TrimEnd('*') : null;
}

/// <summary>How often a failing function shows a certain look under one failure mode.</summary>
/// <param name="Function">Function kind, or <c>*</c> for all.</param>
/// <param name="Look">Look id.</param>
/// <param name="Share">Share of the failures that look like this, 0 to 1.</param>
public sealed record LookShare(string Function, string Look, double Share);

/// <summary>A kind of function and the looks by which its failures differ.</summary>
/// <param name="Kind">Id used in profiles.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Pass">What a pass means, in words.</param>
/// <param name="Looks">Looks of failure, the plainest first.</param>
/// <param name="Medium">What it is made of, where sound and picture go the same way for a while; else null.</param>
/// <param name="Try">How to try it, in words (common practice, no source).</param>
/// <param name="With">What is laid out for it.</param>
/// <param name="Felt">True for what goes through the shell: buttons, wheels, slots and sockets are felt again once the screws are in.</param>
/// <param name="OnScreen">True for what is seen to work on the picture, and not to be tried while there is none.</param>
/// <param name="NotWith">Cautions with which it is never tried: a unit with a mark that carries one of them is not asked for it.</param>
public sealed record FunctionKind(
    string Kind,
    string Name,
    string Pass,
    IReadOnlyList<Look> Looks,
    Carries? Medium = null,
    string Try = "",
    IReadOnlyList<string>? With = null,
    bool Felt = false,
    IReadOnlyList<string>? NotWith = null,
    bool OnScreen = false
);

/// <summary>One look of a failing function.</summary>
/// <param name="Id">Id, shared by function kinds that fail alike.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Proves">What works for it to look like this.</param>
/// <param name="Own">True for what only the part shows that a hand moves or hears, never a board behind it.</param>
public sealed record Look(string Id, string Name, LookProves Proves = LookProves.Nothing, bool Own = false);

/// <summary>What a failure that looks a certain way shows to be working all the same (common practice, no source).</summary>
public enum LookProves
{
    /// <summary>Nothing.</summary>
    Nothing,

    /// <summary>The supply on the way arrives.</summary>
    Power,

    /// <summary>The unit has started: supply, board and what it starts from.</summary>
    Start,

    /// <summary>A picture stands: the unit has started, and every supply on the way arrives.</summary>
    Shown,

    /// <summary>All of the way works, if badly or now and then: nothing on it is broken for good.</summary>
    Path,
}
