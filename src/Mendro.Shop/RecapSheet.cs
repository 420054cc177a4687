using Mendro.Core.Capacitors;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Shop;

/// <summary>A capacitor position as its job sees it.</summary>
/// <param name="Position">Position.</param>
/// <param name="Renewed">True when it is renewed in this job.</param>
/// <param name="Offers">Fitting parts, the best first.</param>
/// <param name="Part">Part that goes in: as it was placed, else the best; null when none fits.</param>
/// <param name="Placed">Where it sits; null while that is not worked out, or when it fits nowhere.</param>
/// <param name="Unplaced">Why it fits nowhere, or null.</param>
/// <param name="Old">What is known of the old one, or null.</param>
/// <param name="IsIn">True when the new one is in.</param>
/// <param name="Before">How often it had failed on units of this model, out of how many measured; null when none was.</param>
/// <param name="Nothing">Why nothing fits, and what comes nearest; empty when a part fits.</param>
public sealed record RecapLine(
    RecapPosition Position,
    bool Renewed,
    IReadOnlyList<CapacitorMatch> Offers,
    CapacitorPart? Part,
    FitPlacement? Placed,
    FitUnplaced? Unplaced,
    CapacitorOut? Old,
    bool IsIn,
    (int Failed, int Measured)? Before,
    string Nothing = ""
);

/// <summary>One school of how much to renew, in figures.</summary>
/// <param name="Scope">Which.</param>
/// <param name="Parts">Parts.</param>
/// <param name="Minutes">Minutes of work, tests included.</param>
/// <param name="AnotherFails">Chance that an old one left in fails within <see cref="RecapDesk.AheadYears"/> years, 0 to 1.</param>
/// <param name="Spread">Between which chances it lies with eight in ten.</param>
public sealed record SchoolFigures(RecapScope Scope, int Parts, double Minutes, double AnotherFails, (double Low, double High) Spread);

/// <summary>Another unit of the same model in the shop.</summary>
/// <param name="Number">Number on its tag.</param>
/// <param name="Title">Name.</param>
/// <param name="SameList">True when its revision is the same, false when another, null when it was not told.</param>
/// <param name="Chance">Chance that capacitors are to blame for what is wrong with it, 0 to 1.</param>
/// <param name="Value">Value when it works, in its currency; null when not told.</param>
/// <param name="Marks">Condition marks that speak against it: water, crust, earlier work.</param>
/// <param name="First">True for the best to do first.</param>
public sealed record LikeUnit(long Number, string Title, bool? SameList, double Chance, decimal? Value, int Marks, bool First);

/// <summary>Work on another part that is open anyway.</summary>
/// <param name="Part">Part; without an id a place of the unit that is no part of its profile.</param>
/// <param name="Method">Method.</param>
/// <param name="Saved">Minutes of opening and closing that another time would cost.</param>
public sealed record JointWork(Part Part, Method Method, double Saved);

/// <summary>The capacitor job of one unit, worked out.</summary>
/// <param name="View">The job.</param>
/// <param name="Plan">What was decided.</param>
/// <param name="Boards">Boards.</param>
/// <param name="WantsRevision">True when the revision has to be told first.</param>
/// <param name="Lines">All positions.</param>
/// <param name="Size">Best number of parts between two power-ups.</param>
/// <param name="MinutesPerPart">Expected minutes of testing a part at that size.</param>
/// <param name="Stages">Stages: as begun, or as they would be.</param>
/// <param name="Schools">Schools in figures.</param>
/// <param name="Progress">How far placing is; null when it is not under way.</param>
/// <param name="Tasks">Boards to be placed.</param>
/// <param name="IsPlaced">True when every board was placed with the parts and positions as they stand.</param>
public sealed record RecapSheet(
    JobView View,
    RecapPlan Plan,
    IReadOnlyList<Board> Boards,
    bool WantsRevision,
    IReadOnlyList<RecapLine> Lines,
    int Size,
    double MinutesPerPart,
    IReadOnlyList<RecapStage> Stages,
    IReadOnlyList<SchoolFigures> Schools,
    FitProgress? Progress,
    IReadOnlyList<FitTask> Tasks,
    bool IsPlaced
)
{
    /// <summary>Positions renewed in this job.</summary>
    public IEnumerable<RecapLine> Renewed => Lines.Where(l => l.Renewed);

    /// <summary>True when the work has begun.</summary>
    public bool HasBegun => Plan.Groups.Count > 0;

    /// <summary>The stage that is on; null when all are done.</summary>
    public RecapStage? Now => Stages.FirstOrDefault(s => s.Positions.Any(p => !IsIn(p)));

    /// <summary>True when the new one is in.</summary>
    public bool IsIn(RecapPosition position) => Lines.First(l => l.Position.Key == position.Key).IsIn;

    /// <summary>A position by its key, or null.</summary>
    public RecapLine? Find(string? key) => Lines.FirstOrDefault(l => l.Position.Key == key);
}
