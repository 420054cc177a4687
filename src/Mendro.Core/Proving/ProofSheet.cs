using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Proving;

/// <summary>State of one function on the proof sheet.</summary>
public enum ProofState
{
    /// <summary>Never tried.</summary>
    NotTried,

    /// <summary>Tried, but a repair since may have disturbed it.</summary>
    Stale,

    /// <summary>Fails.</summary>
    Fails,

    /// <summary>Works, tried after the last repair.</summary>
    Proved,
}

/// <summary>One line of the proof sheet.</summary>
/// <param name="Function">Function.</param>
/// <param name="State">State.</param>
/// <param name="Failed">True when it failed before it was last worked on, and nobody has tried it since.</param>
public sealed record ProofLine(DeviceFunction Function, ProofState State, bool Failed = false);

/// <summary>What has been shown to work since the last repair. A repair in one area obliges a test of all of it.</summary>
/// <param name="Lines">One line a function, in profile order.</param>
public sealed record ProofSheet(IReadOnlyList<ProofLine> Lines)
{
    /// <summary>Functions that fail.</summary>
    public IEnumerable<ProofLine> Failures => Lines.Where(l => l.State == ProofState.Fails);

    /// <summary>Functions neither proved nor failing.</summary>
    public IEnumerable<ProofLine> Unproved => Lines.Where(l => l.State is ProofState.NotTried or ProofState.Stale);

    /// <summary>True when every function works and was tried after the last repair.</summary>
    public bool Complete => Lines.All(l => l.State == ProofState.Proved);

    /// <summary>Draws up the sheet. What was seen before a repair is not what is there after it.</summary>
    /// <param name="model">Model of the unit.</param>
    /// <param name="events">What happened, in order of time.</param>
    public static ProofSheet Make(DeviceModel model, IReadOnlyList<BenchEvent> events) =>
        Make(model.Profile, events, Complaints.NotTriedSince(model, events));

    /// <summary>Draws up the sheet.</summary>
    /// <param name="profile">Profile of the unit.</param>
    /// <param name="events">What happened, in order of time.</param>
    /// <param name="workedOn">Functions that failed and were worked on since; null where a failure stays one until it is seen to work.</param>
    public static ProofSheet Make(DeviceProfile profile, IReadOnlyList<BenchEvent> events, IReadOnlySet<FunctionId>? workedOn = null)
    {
        var lastRepair = -1;
        for (var at = 0; at < events.Count; at++)
            if (events[at] is RepairDone)
                lastRepair = at;
        return new ProofSheet(
            profile
                .Functions.Select(function =>
                {
                    for (var at = events.Count - 1; at >= 0; at--)
                    {
                        if (events[at] is not FunctionTried tried || tried.FunctionId != function.Id)
                            continue;
                        // A failure stays one until it is seen to work; a pass must be newer than the last repair.
                        if (!tried.Passed)
                            return workedOn?.Contains(function.Id) == true
                                ? new ProofLine(function, ProofState.Stale, Failed: true)
                                : new ProofLine(function, ProofState.Fails);
                        return new ProofLine(function, at > lastRepair ? ProofState.Proved : ProofState.Stale);
                    }

                    return new ProofLine(function, ProofState.NotTried);
                })
                .ToList()
        );
    }

    /// <summary>Why the unit may not be handed over yet, or null when it may.</summary>
    /// <param name="statedReason">Why it goes all the same, as stated by the technician.</param>
    /// <param name="kept">Items of the test plan that fail and stay so, by their ids; null for none.</param>
    public string? Bar(string? statedReason, IReadOnlyDictionary<string, string>? kept = null)
    {
        if (Complete || !string.IsNullOrWhiteSpace(statedReason))
            return null;
        bool Goes(ProofLine line) => kept?.ContainsKey(TestItem.IdOf(line.Function.Id)) == true;
        var failing = string.Join(", ", Failures.Where(l => !Goes(l)).Select(l => l.Function.Name));
        var worked = string.Join(", ", Unproved.Where(l => l.Failed && !Goes(l)).Select(l => l.Function.Name));
        var open = string.Join(", ", Unproved.Where(l => !l.Failed).Select(l => l.Function.Name));
        return failing.Length > 0 ? $"Still failing: {failing}. Say why it goes all the same, or go back to Find."
            : worked.Length > 0 ? $"Not tried since it was worked on: {worked}. Try it first, or say why it goes all the same."
            : open.Length > 0 ? $"Not proved since the last repair: {open}. Try them, or say why it goes all the same."
            : null;
    }
}
