using Mendro.Core.Profiles;

namespace Mendro.Core.Library;

/// <summary>One rung of a ladder.</summary>
/// <param name="Id">Id, unique in its ladder.</param>
/// <param name="Name">Name.</param>
/// <param name="Do">What to do.</param>
/// <param name="Minutes">Hands-on minutes.</param>
/// <param name="Wear">Share of the plating that one go takes off, 0 to 1.</param>
/// <param name="Source">Where this comes from.</param>
/// <param name="Agent">Agent that is put on, or null.</param>
/// <param name="Method">Method of the library that it is; null where none cures by it alone.</param>
/// <param name="Caution">Caution of this rung.</param>
public sealed record LadderRung(
    string Id,
    string Name,
    string Do,
    double Minutes,
    double Wear,
    string Source,
    string? Agent = null,
    MethodId? Method = null,
    string? Caution = null
);

/// <summary>Where to begin by what is seen.</summary>
/// <param name="Condition">Id of the condition.</param>
/// <param name="Name">What is seen.</param>
/// <param name="Rung">Rung to begin with.</param>
public sealed record LadderStart(string Condition, string Name, string Rung);

/// <summary>Ways to clean a sort of contact, gentlest first.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name.</param>
/// <param name="Kinds">Kinds of part that it is for.</param>
/// <param name="Surface">Surface that is cleaned.</param>
/// <param name="Rungs">Rungs, gentlest first.</param>
/// <param name="Starts">Where to begin.</param>
/// <param name="GentleUpTo">Last rung of those benches that keep the plating.</param>
/// <param name="PolishFirst">Rung with which other benches begin at once; null where nobody does.</param>
public sealed record ContactLadder(
    string Id,
    string Name,
    IReadOnlyList<string> Kinds,
    string Surface,
    IReadOnlyList<LadderRung> Rungs,
    IReadOnlyList<LadderStart> Starts,
    string GentleUpTo,
    string? PolishFirst = null
)
{
    /// <summary>Place of a rung, from 0, or −1.</summary>
    public int IndexOf(string? rung) => Rungs.ToList().FindIndex(r => r.Id == rung);
}
