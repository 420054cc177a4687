using Mendro.Core.Evidence;
using System.Text.Json.Serialization;
using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>What sort of intervention a method is.</summary>
public enum MethodType
{
    /// <summary>Cleaning or lubricating.</summary>
    Clean,

    /// <summary>Repair of the part in place.</summary>
    Repair,

    /// <summary>Replacing like with like.</summary>
    Replace,

    /// <summary>Swapping bench gear for another piece.</summary>
    Swap,

    /// <summary>A change the maker did not build; must be disclosed.</summary>
    Modification,
}

/// <summary>Order among sorts of intervention.</summary>
public static class MethodTypes
{
    /// <summary>How much of the unit it puts at risk: 0 for swaps and cleaning, 3 for a modification (common practice, no source).</summary>
    public static int Harshness(this MethodType type) =>
        type switch
        {
            MethodType.Swap or MethodType.Clean => 0,
            MethodType.Repair => 1,
            MethodType.Replace => 2,
            _ => 3,
        };
}

/// <summary>A way to cure something.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name as the bench says it, starting with the verb.</param>
/// <param name="Type">Sort of intervention.</param>
/// <param name="School">The way of thinking it belongs to, where benches disagree; else null.</param>
/// <param name="TradeOff">What speaks for and against it.</param>
/// <param name="Minutes">Hands-on time, minutes, without taking the unit apart.</param>
/// <param name="PartsCost">Typical cost of parts, in the shop's currency.</param>
/// <param name="State">How far the unit must be taken apart.</param>
/// <param name="Harm">Chance to do damage, 0 to 1.</param>
/// <param name="OriginalityLoss">0 for none, 1 for a change that cannot be undone.</param>
/// <param name="Tools">Tools and materials.</param>
/// <param name="Settings">Settings, with units, such as iron 350 °C.</param>
/// <param name="Steps">What to do, in order.</param>
/// <param name="Cautions">Caution ids shown at this step.</param>
/// <param name="Cures">What it cures and how surely.</param>
/// <param name="Source">Where this comes from.</param>
/// <param name="NotFor">Kinds of device on which nobody does this.</param>
/// <param name="OneOfMany">True when it treats one piece of several that age alike: it does less where all are likely to be bad.</param>
/// <param name="ComesOff">Whether it is for parts that come off, or for those that are soldered in; null for both.</param>
/// <param name="Ladder">Ladder on which it is a rung, or null: what a lower rung cures a higher one cures too, so that where the
/// lower has failed the higher has only what it adds.</param>
/// <param name="Check">The check with which it ends; null where trying the function is all there is.</param>
/// <param name="Dwell">True when it touches a joint that bears heat for a second or two only: the touches are timed and counted.</param>
/// <param name="Place">Where it is done, for work that cures no fault of a part: shell, window, an improvement; else null.</param>
/// <param name="For">Kinds of device that it is for, of such work; null for all.</param>
/// <param name="Drawing">Its small circuit drawing, or null.</param>
/// <param name="Together">Methods that are done in this one go, each on its own part, the part it is named after first; null for a
/// method by itself. It is filed as what it consists of.</param>
/// <param name="NotWith">Cautions with which it is never done: a unit with a mark that carries one of them is not offered it.</param>
/// <param name="OnlyMarked">Marks one of which is noted on a unit that it is offered for; null for any unit. A dark shell does not
/// yellow, and is not whitened.</param>
public sealed record Method(
    MethodId Id,
    string Name,
    MethodType Type,
    string? School,
    string? TradeOff,
    double Minutes,
    decimal PartsCost,
    AccessState State,
    double Harm,
    double OriginalityLoss,
    IReadOnlyList<string> Tools,
    IReadOnlyList<string> Settings,
    IReadOnlyList<MethodStep> Steps,
    IReadOnlyList<string> Cautions,
    IReadOnlyList<Cure> Cures,
    string Source,
    IReadOnlyList<DeviceKind>? NotFor = null,
    bool? ComesOff = null,
    bool OneOfMany = false,
    string? Ladder = null,
    MethodCheck? Check = null,
    bool Dwell = false,
    string? Place = null,
    IReadOnlyList<DeviceKind>? For = null,
    string? Drawing = null,
    IReadOnlyList<MethodShare>? Together = null,
    IReadOnlyList<string>? NotWith = null,
    IReadOnlyList<string>? OnlyMarked = null
)
{
    /// <summary>True when a step of it wants the iron.</summary>
    [JsonIgnore]
    public bool WantsIron => Steps.Any(s => s.Heat is not null);

    /// <summary>True when what it treats is new afterwards, whatever was wrong with it.</summary>
    [JsonIgnore]
    public bool Renews => !OneOfMany && (Type == MethodType.Replace || Cures.Any(c => c.Mode == "*" && c.Success >= SurelyNew));

    private const double SurelyNew = 0.9;

    /// <summary>How much of the unit it puts at risk, as <see cref="MethodTypes.Harshness"/>: a cleaning that lifts the part off with the
    /// iron spares nothing that a new part would cost.</summary>
    [JsonIgnore]
    public int Harshness => Type == MethodType.Clean && WantsIron ? MethodType.Replace.Harshness() : Type.Harshness();

    /// <summary>Methods in the order in which a careful hand would try them: what puts least at risk first, of those what takes least of
    /// the original, then what does least damage, then the shortest.</summary>
    public static IEnumerable<Method> GentlestFirst(IEnumerable<Method> methods) =>
        methods.OrderBy(m => m.Harshness).ThenBy(m => m.OriginalityLoss).ThenBy(m => m.Harm).ThenBy(m => m.Minutes);
}

/// <summary>A method that is done in one go with others.</summary>
/// <param name="Kind">Kind of the part it is done on.</param>
/// <param name="Method">The method.</param>
public sealed record MethodShare(string Kind, MethodId Method);

/// <summary>What a method does to one failure mode.</summary>
/// <param name="Kind">Part kind.</param>
/// <param name="Mode">Failure mode, or <c>*</c> for all of the kind.</param>
/// <param name="Success">Chance that the fault is gone afterwards, 0 to 1.</param>
public sealed record Cure(string Kind, string Mode, double Success);

/// <summary>Something noticed on the outside at intake; counts as evidence.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name as the bench says it.</param>
/// <param name="Kinds">Kinds of device it applies to; empty for all.</param>
/// <param name="Leak">How often it is seen without any of the faults it hints at, 0 to 1.</param>
/// <param name="Hints">Faults that leave this mark.</param>
/// <param name="Caution">Caution to show, for the marks that are safety flags.</param>
/// <param name="Source">Where this comes from.</param>
/// <param name="Mains">Mains volts that it says the unit is made for; null for every other mark.</param>
/// <param name="WreckFrom">How bad it has to be for the whole board to be in doubt; null for a mark that never says so.</param>
/// <param name="Needs">What of the casing is put right from another unit; null for a mark that asks for none.</param>
/// <param name="Lost">Share of such wrecks that stay dead whatever is done, 0 to 1; told with <paramref name="WreckFrom"/>.</param>
public sealed record ConditionMark(
    string Id,
    string Name,
    IReadOnlyList<DeviceKind>? Kinds,
    double Leak,
    IReadOnlyList<MarkHint>? Hints,
    string? Caution,
    string Source,
    MainsRange? Mains = null,
    SeenGrade? WreckFrom = null,
    string? Needs = null,
    double? Lost = null
);

/// <summary>How strongly a fault leaves a mark.</summary>
/// <param name="Kind">Part kind.</param>
/// <param name="Mode">Failure mode, or <c>*</c>.</param>
/// <param name="P">Chance that the fault leaves the mark, 0 to 1.</param>
public sealed record MarkHint(string Kind, string Mode, double P);
