using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// Units that stay dead whatever is done: a board soaked, eaten all over or cracked has more wrong with it than its single faults show,
/// for what ruined the one ruined others. How many of such a kind are lost is told with the mark; what works since, and a board that
/// looks sound, speak against it (Bayes).
/// </summary>
public static class Wreckage
{
    // What a lost board still does (values from memory): some function runs, it looks sound, its rail is no dead short.
    private const double StillRuns = 0.35;
    private const double LooksSound = 0.15;
    private const double NoShort = 0.6;

    /// <summary>Chance that a unit is lost, 0 to 1; 0 where no mark says so.</summary>
    public static double Lost(DeviceModel model, IReadOnlyList<BenchEvent> events)
    {
        var saved = events
            .OfType<MarkSeen>()
            .Select(m => (Mark: model.Library.FindMark(m.MarkId), m.Grade))
            .Where(m => m.Mark is { WreckFrom: { } from } && m.Grade >= from)
            .DistinctBy(m => m.Mark!.Id)
            .Aggregate(1.0, (left, m) => left * (1 - (m.Mark!.Lost ?? 0)));
        if (saved >= 1)
            return 0;
        var speaks = 1.0;
        foreach (var function in events.OfType<FunctionTried>().GroupBy(t => t.FunctionId).Select(g => g.Last()).Where(t => t.Passed))
            if (model.Profile.FindFunction(function.FunctionId) is { } told && OnBoard(model, told))
                speaks *= StillRuns;
        foreach (var taken in events.OfType<ProbeTaken>().GroupBy(t => t.ProbeId).Select(g => g.Last()).Where(t => t.Outcome == ProbeOutcome.Normal))
            if (model.Profile.FindProbe(taken.ProbeId) is { } probe)
                speaks *= IsLookAtBoard(model, probe) ? LooksSound : probe.Rail is not null ? NoShort : 1;
        return (1 - saved) * speaks / ((1 - saved) * speaks + saved);
    }

    /// <summary>True for a look that shows the traces of the board.</summary>
    public static bool IsLookAtBoard(DeviceModel model, Probe probe) =>
        probe.Kind == ProbeKind.Look && probe.Spans?.Any(id => model.Profile.FindPart(id)?.Kind == "trace") == true;

    private static bool OnBoard(DeviceModel model, DeviceFunction function) =>
        model.Closure(function.Id).Any(id => model.Profile.FindPart(id)?.Kind is "logic" or "trace");
}
