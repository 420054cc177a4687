using Mendro.Core.Profiles;

namespace Mendro.Core.Proving;

/// <summary>What was disturbed on the way.</summary>
public enum Disturbance
{
    /// <summary>A step of taking it apart: seats, springs, cables.</summary>
    Opened,

    /// <summary>Heat at a part: its joints and those beside it.</summary>
    Soldered,

    /// <summary>New capacitors on a board: their polarity, joints and heights.</summary>
    Recapped,
}

/// <summary>Something that was disturbed and is to be looked at before the unit leaves.</summary>
/// <param name="What">In which way.</param>
/// <param name="Id">Step, part or board.</param>
/// <param name="At">Place among the events at which it was last disturbed.</param>
public sealed record Disturbed(Disturbance What, string Id, int At);

/// <summary>The past of a unit as far as it decides what has to be tried; places count over all its records.</summary>
/// <param name="Functions">Last trial of each function: where, and whether it worked.</param>
/// <param name="Checks">Last result of every other item, by its id.</param>
/// <param name="Repairs">Last repair of each part.</param>
/// <param name="Disturbed">What was disturbed.</param>
/// <param name="LastClosing">Where it was last closed; -1 when it was never opened.</param>
/// <param name="Open">True while it lies open.</param>
/// <param name="Kept">Items that fail and stay so, with the reason.</param>
public sealed record TestHistory(
    IReadOnlyDictionary<FunctionId, (int At, bool Passed)> Functions,
    IReadOnlyDictionary<string, (int At, bool Passed)> Checks,
    IReadOnlyDictionary<PartId, int> Repairs,
    IReadOnlyList<Disturbed> Disturbed,
    int LastClosing,
    bool Open,
    IReadOnlyDictionary<string, string> Kept
)
{
    /// <summary>Functions that failed and were worked on since; what was seen before a repair is not what is there after it.</summary>
    public IReadOnlySet<FunctionId> WorkedOn { get; init; } = new HashSet<FunctionId>();

    /// <summary>True when it was opened at all, whether it is closed again or not.</summary>
    public bool WasOpened => Open || LastClosing >= 0;

    /// <summary>Where the last repair was; -1 for none.</summary>
    public int LastRepair => Repairs.Count == 0 ? -1 : Repairs.Values.Max();
}
