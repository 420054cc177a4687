using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>How it stands with something a unit was found to fail at.</summary>
public enum ComplaintState
{
    /// <summary>It fails.</summary>
    Fails,

    /// <summary>It failed, and something was done since that may have changed it; nobody has tried it again.</summary>
    NotTriedSince,

    /// <summary>It failed and worked with nothing done between: an intermittent, until a run of starts has held.</summary>
    NowAndThen,

    /// <summary>It failed and works since it was worked on.</summary>
    Works,
}

/// <summary>A function that failed at some time, and how it stands now.</summary>
/// <param name="Function">Function.</param>
/// <param name="State">How it stands.</param>
public sealed record Complaint(DeviceFunction Function, ComplaintState State)
{
    /// <summary>True until it is known to work.</summary>
    public bool Open => State != ComplaintState.Works;
}

/// <summary>
/// The goal is the unit: everything it was found to fail at. What was seen before a repair is no evidence of the unit after it.
/// </summary>
public static class Complaints
{
    /// <summary>Good starts in a row, with nothing done between, after which what came and went counts as working (common practice, no
    /// source).</summary>
    public const int StartsThatHold = 6;

    /// <summary>All functions that failed at some time, those nearest the source first.</summary>
    /// <param name="model">Model.</param>
    /// <param name="events">What happened, in order of time.</param>
    public static IReadOnlyList<Complaint> Of(DeviceModel model, IReadOnlyList<BenchEvent> events)
    {
        if (!events.Any(e => e is FunctionTried { Passed: false }))
            return [];
        var told = events.Select(e => BenchFacts.Restated(model, e)).ToList();
        return model
            .Profile.Functions.Select(f => (Function: f, State: StateOf(model, told, f)))
            .Where(x => x.State is not null)
            .OrderBy(x => model.Closure(x.Function.Id).Count)
            .Select(x => new Complaint(x.Function, x.State!.Value))
            .ToList();
    }

    /// <summary>Functions that failed, were worked on and were not tried again.</summary>
    /// <param name="model">Model.</param>
    /// <param name="events">What happened, in order of time.</param>
    public static IReadOnlySet<FunctionId> NotTriedSince(DeviceModel model, IReadOnlyList<BenchEvent> events) =>
        Of(model, events).Where(c => c.State == ComplaintState.NotTriedSince).Select(c => c.Function.Id).ToHashSet();

    private static ComplaintState? StateOf(DeviceModel model, List<BenchEvent> told, DeviceFunction function)
    {
        bool Tried(BenchEvent e) => e is FunctionTried tried && tried.FunctionId == function.Id;
        var failed = told.FindLastIndex(e => Tried(e) && e is FunctionTried { Passed: false });
        if (failed < 0)
            return null;
        var since = told.Skip(failed + 1).ToList();
        var passed = since.FindLastIndex(Tried);
        if (passed < 0)
            return ChangedSince(model, told, since, function) ? ComplaintState.NotTriedSince : ComplaintState.Fails;
        var starts = since.Where(Tried).Sum(e => ((FunctionTried)e).Starts);
        var worked = since.Take(passed).Any(e => e is RepairDone { Claimed: false });
        return worked || starts >= StartsThatHold ? ComplaintState.Works : ComplaintState.NowAndThen;
    }

    /// <summary>True when a part that the function needs, or one that charges it, was worked on, and nothing since has shown that it
    /// fails all the same.</summary>
    private static bool ChangedSince(DeviceModel model, List<BenchEvent> told, List<BenchEvent> since, DeviceFunction function)
    {
        var closure = model.Closure(function.Id);
        // A unit that runs minds no charger.
        var way = Goal.Starts(model, told) ? closure : closure.Union(model.ChargesOf(function.Id)).ToHashSet();
        var done = since.FindLastIndex(e => e is RepairDone { Claimed: false } repair && way.Contains(repair.PartId));
        return done >= 0 && !since.Skip(done + 1).Any(e => e is SwapTried { Passed: false } swap && swap.FunctionId == function.Id);
    }
}
