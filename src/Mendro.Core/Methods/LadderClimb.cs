using Mendro.Core.Library;

namespace Mendro.Core.Methods;

/// <summary>A rung that was gone.</summary>
/// <param name="Rung">Id of the rung.</param>
/// <param name="SwabClean">True when the swab came off clean in the end.</param>
/// <param name="Works">Whether the function works now; null when it was not tried.</param>
/// <param name="ThisJob">True when it was in the job on the bench, not in an earlier one of the same unit.</param>
public sealed record RungGone(string Rung, bool SwabClean, bool? Works, bool ThisJob = true);

/// <summary>What to do next on a ladder.</summary>
public enum LadderAdvice
{
    /// <summary>Go this rung.</summary>
    Go,

    /// <summary>Take off first what the last rung left.</summary>
    TakeOff,

    /// <summary>Stop: the swab is clean and it works.</summary>
    Cured,

    /// <summary>Stop: it is as clean as it gets; the fault lies elsewhere, or the contact must be replaced.</summary>
    Spent,
}

/// <summary>Where a contact stands on its ladder.</summary>
/// <param name="Advice">What to do next.</param>
/// <param name="Rung">The rung to go, or null.</param>
/// <param name="Why">Why.</param>
/// <param name="WearSpent">Share of the plating that is gone by now, over all jobs of the unit, 0 to 1.</param>
/// <param name="Residue">Agents that must come off before the next rung.</param>
public sealed record LadderState(
    LadderAdvice Advice,
    LadderRung? Rung,
    string Why,
    double WearSpent,
    IReadOnlyList<MaterialAgent> Residue
);

/// <summary>
/// Climbs a cleaning ladder: begins where the condition says, stays on a rung until the swab comes off clean, stops at the first that
/// works, and goes no higher than the plating bears (common practice, no source).
/// </summary>
public static class LadderClimb
{
    /// <summary>Goes on one rung before it is left for the next although the swab is not clean.</summary>
    public const int MostGoes = 3;

    // Bare copper corrodes in weeks: some plating has to stay.
    private const double MostWear = 0.8;

    /// <summary>Where a contact stands.</summary>
    /// <param name="ladder">Ladder.</param>
    /// <param name="condition">Condition seen; null for the gentlest beginning.</param>
    /// <param name="gone">Rungs gone so far on this contact, over all jobs of the unit, in order.</param>
    /// <param name="residue">Agents that are still on the surface.</param>
    /// <param name="noFurther">Last rung that the shop goes; null for all.</param>
    public static LadderState Of(
        ContactLadder ladder,
        string? condition,
        IReadOnlyList<RungGone> gone,
        IReadOnlyList<MaterialAgent> residue,
        string? noFurther = null
    )
    {
        var wear = Math.Min(1, gone.Sum(g => ladder.Rungs.FirstOrDefault(r => r.Id == g.Rung)?.Wear ?? 0));
        var now = gone.Where(g => g.ThisJob).ToList();
        LadderState Say(LadderAdvice advice, LadderRung? rung, string why) => new(advice, rung, why, wear, residue);

        if (residue.Count > 0)
        {
            var names = string.Join(", ", residue.Select(a => a.Name));
            return Say(LadderAdvice.TakeOff, null, $"{names}: all of it must come off before the next rung, and before power.");
        }

        if (now is [.., { SwabClean: true, Works: true }])
            return Say(LadderAdvice.Cured, null, "The swab is clean and it works: stop here. Every rung more takes plating.");
        var first = Math.Max(0, ladder.IndexOf(ladder.Starts.FirstOrDefault(s => s.Condition == condition)?.Rung));
        if (now.Count == 0)
            return Bear(ladder.Rungs[first], condition is null ? "The gentlest first." : "Where this condition begins.");
        var last = now[^1];
        var at = ladder.IndexOf(last.Rung);
        var goes = now.Count(g => g.Rung == last.Rung);
        if (!last.SwabClean && goes < MostGoes)
            return Bear(ladder.Rungs[at], "It still comes off dirty: the same again, with a fresh swab.");
        if (last.Works == true)
            return Bear(ladder.Rungs[at], "It works, but the swab is not clean: it will come back. Once more the same.");
        return at + 1 < ladder.Rungs.Count
            ? Bear(ladder.Rungs[at + 1], last.SwabClean ? "Clean, and it does not work yet." : $"{goes} times, and still not clean.")
            : Say(LadderAdvice.Spent, null, "That was the last rung: the fault lies elsewhere, or the contact must be replaced.");

        LadderState Bear(LadderRung rung, string why)
        {
            if (ladder.IndexOf(noFurther) is >= 0 and var most && ladder.IndexOf(rung.Id) > most)
                return Say(LadderAdvice.Spent, null, $"Your bench goes no further than “{ladder.Rungs[most].Name}”.");
            return wear + rung.Wear > MostWear
                ? Say(
                    LadderAdvice.Spent,
                    null,
                    FormattableString.Invariant($"{wear * 100:0} % of the plating is gone: {rung.Name} would go through. Replace it.")
                )
                : Say(LadderAdvice.Go, rung, why);
        }
    }
}
