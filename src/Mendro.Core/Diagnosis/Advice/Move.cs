using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>What an answer to a check, or the result of a repair, would mean.</summary>
/// <param name="Answer">The answer in words.</param>
/// <param name="Probability">How likely it is, 0 to 1.</param>
/// <param name="Leading">Leading suspects after it.</param>
/// <param name="Then">What would come next, or null.</param>
public sealed record MoveOutcome(string Answer, double Probability, IReadOnlyList<Suspect> Leading, string? Then);

/// <summary>What is to be expected when a move comes first.</summary>
/// <param name="ChanceToCure">Chance that the function worked on is cured in the end, 0 to 1.</param>
/// <param name="WorkMinutes">Work to expect, minutes.</param>
/// <param name="StopMinutes">Minutes after which it is no longer worth going on.</param>
/// <param name="Parts">Cost of parts to expect, in the shop's currency.</param>
public sealed record Outlook(double ChanceToCure, double WorkMinutes, double StopMinutes, double Parts = 0)
{
    /// <summary>What is to be expected of a check with two answers.</summary>
    /// <param name="minutes">Minutes the check takes.</param>
    /// <param name="p">Chance of the first answer, 0 to 1.</param>
    /// <param name="first">Outlook after it.</param>
    /// <param name="second">Outlook after the other.</param>
    public static Outlook Of(double minutes, double p, Outlook first, Outlook second) =>
        new(
            p * first.ChanceToCure + (1 - p) * second.ChanceToCure,
            minutes + p * first.WorkMinutes + (1 - p) * second.WorkMinutes,
            minutes + Math.Max(first.StopMinutes, second.StopMinutes),
            p * first.Parts + (1 - p) * second.Parts
        );
}

/// <summary>Something worth doing next: a check, a trial of a function, or a repair.</summary>
/// <param name="Id">Id such as <c>probe:tp3</c>, <c>fn:picture</c>, <c>provoke:picture:pressed</c>, <c>swap:cable</c>,
/// <c>fix:switch:flush-switch</c>, <c>stop</c> or <c>aside</c>.</param>
/// <param name="Title">What to do.</param>
/// <param name="Why">Why it comes now.</param>
/// <param name="Minutes">Minutes with preparation.</param>
/// <param name="PreparationMinutes">Minutes of it to take the unit apart.</param>
/// <param name="PartsCost">Parts, in the shop's currency.</param>
/// <param name="ExpectedMinutes">Expected cost to the end when this comes first; the ranking goes by it.</param>
/// <param name="Outcomes">What each answer would mean.</param>
/// <param name="Probe">Probe, for a check.</param>
/// <param name="Function">Function, for a trial.</param>
/// <param name="Repair">Repair, for a repair.</param>
/// <param name="Outlook">What is to be expected when this comes first; null when nothing fails.</param>
/// <param name="ChanceToWork">For a repair: exact chance that the function works afterwards, 0 to 1.</param>
/// <param name="Provoke">With a function: how to provoke it instead of merely trying it.</param>
/// <param name="SwapOut">With a function: the part another piece stands in for while it is tried.</param>
/// <param name="Known">True when the fault it cures is known, so that its minutes are owed whatever else is wrong.</param>
/// <param name="Shown">Of a known fault: true when eye, finger or meter has found it at the very part, and not the figures alone.</param>
public sealed record Move(
    string Id,
    string Title,
    string Why,
    double Minutes,
    double PreparationMinutes,
    decimal PartsCost,
    double ExpectedMinutes,
    IReadOnlyList<MoveOutcome> Outcomes,
    Outlook? Outlook,
    Probe? Probe = null,
    DeviceFunction? Function = null,
    RepairOption? Repair = null,
    double? ChanceToWork = null,
    Provocation? Provoke = null,
    PartId? SwapOut = null,
    bool Known = false,
    bool Shown = false
)
{
    /// <summary>Id of the move that ends the work for good.</summary>
    public const string StopId = "stop";

    /// <summary>Id of the move that puts the unit on the shelf with what was seen.</summary>
    public const string AsideId = "aside";

    /// <summary>True when it ends the work on the unit.</summary>
    public bool Ends => Id is StopId or AsideId;

    /// <summary>True when the unit has to be fed and switched on for it: a trial, volts or current, or pressing to see what
    /// changes.</summary>
    public bool NeedsPower => Function is not null || Probe is { Unloaded: false } probe && TradeLibrary.Of(probe.Kind).NeedsPower;
}

/// <summary>The advice for a unit at this moment.</summary>
/// <param name="Moves">Moves, best first.</param>
/// <param name="Plan">The plan of repairs only, or null when nothing fails.</param>
public sealed record Advice(IReadOnlyList<Move> Moves, RepairPlan? Plan)
{
    /// <summary>Share of units with such marks that stay dead whatever is done, 0 to 1; see <see cref="Wreckage"/>.</summary>
    public double Lost { get; init; }

    /// <summary>What is to be expected when one goes on with the best move; null when there is none to go on with. Of what is lost
    /// whatever is done nothing is cured.</summary>
    public Outlook? Outlook =>
        Moves.FirstOrDefault(m => m is { Ends: false, Outlook: not null })?.Outlook is { } outlook
            ? Lost > 0
                ? outlook with
                {
                    ChanceToCure = outlook.ChanceToCure * (1 - Lost),
                }
                : outlook
            : null;

    /// <summary>Id of the end that is advised before everything else, or null.</summary>
    public string? EndsWith => Moves is [{ Ends: true } end, ..] ? end.Id : null;
}
