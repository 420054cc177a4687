using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// Which failing function is worked on. The complaint is the goal: what failed before any work. Of several complaints the one
/// that keeps the others from being tried comes first. What was found on the way waits, unless a complaint hangs on it; what worked
/// until the last work and fails since comes before all: the fault is in what was just done.
/// </summary>
internal static class Goal
{
    /// <summary>The function to work on, or null when none is open.</summary>
    public static DeviceFunction? Choose(DeviceModel model, IReadOnlyList<BenchEvent> events) => Order(model, events).FirstOrDefault();

    /// <summary>The open complaints that can be worked on now, in the order in which they are: what fails; else what was not tried since
    /// it was worked on; else what comes and goes.</summary>
    public static IReadOnlyList<DeviceFunction> Order(DeviceModel model, IReadOnlyList<BenchEvent> events)
    {
        var told = events.Select(e => BenchFacts.Restated(model, e)).ToList();
        var open = Complaints.Of(model, events).Where(c => c.Open).ToLookup(c => c.State, c => c.Function);
        // What comes and goes nearer the source keeps from starting what hangs on it.
        if (open[ComplaintState.Fails].ToList() is { Count: > 0 } fails)
            return
            [
                .. Ordered(
                    model,
                    told,
                    open[ComplaintState.NowAndThen]
                        .Where(n => !WorkedOn(model, told, n) && fails.TrueForAll(f => !CanBeTried(model, f, n, starts: false)))
                ),
                .. Ordered(model, told, fails),
            ];
        if (open[ComplaintState.NotTriedSince].Any())
            return Ordered(model, told, open[ComplaintState.NotTriedSince]);
        return OnBadRail(model, events) is { } rail ? [rail] : Ordered(model, told, open[ComplaintState.NowAndThen]);
    }

    /// <summary>True when a part it needs was worked on since it was last tried.</summary>
    private static bool WorkedOn(DeviceModel model, List<BenchEvent> told, DeviceFunction function) =>
        told.Skip(told.FindLastIndex(e => e is FunctionTried tried && tried.FunctionId == function.Id))
            .Any(e => e is RepairDone { Claimed: false } repair && model.Closure(function.Id).Contains(repair.PartId));

    private static List<DeviceFunction> Ordered(DeviceModel model, List<BenchEvent> told, IEnumerable<DeviceFunction> functions)
    {
        var failing = functions.Select(f => (Function: f, Since: FailingSince(told, f.Id))).ToList();
        if (failing.Count == 0)
            return [];
        var work = told.FindIndex(e => e is ProbeTaken or RepairDone or SwapTried or Provoked);
        var complaints = failing.Where(x => work < 0 || FirstFailure(told, x.Function.Id) < work).ToList();
        // What cannot be tried while another fails waits for that one.
        var starts = Starts(model, told);
        var open = failing
            .Where(x => !failing.Any(o => o.Function.Id != x.Function.Id && !CanBeTried(model, x.Function, o.Function, starts)))
            .ToList();
        if (open.Count > 0)
        {
            var waiting = complaints.Where(c => !open.Contains(c)).ToList();
            complaints = complaints
                .Where(open.Contains)
                .Concat(open.Where(o => waiting.Any(w => !CanBeTried(model, w.Function, o.Function, starts))))
                .Distinct()
                .ToList();
            failing = open;
        }

        var spoilt = failing.Where(x => IsSpoilt(model, told, x.Function)).ToList();
        var goals =
            spoilt.Count > 0 ? spoilt
            : complaints.Count == 0
                ? failing
                : complaints
                    .Concat(failing.Except(complaints).Where(side => complaints.Any(c => HangsOn(model, c.Function, side.Function))))
                    .ToList();
        // What is found on the way, or waits for a start, comes behind; another look may make it the next.
        return goals
            .OrderBy(x => Depth(model, x.Function))
            .ThenBy(x => x.Since)
            .Concat(failing.Except(goals).OrderBy(x => Depth(model, x.Function)))
            .Select(x => x.Function)
            .ToList();
    }

    /// <summary>
    /// A rail found bad by the meter before anything was tried is a goal of its own: nobody switches a unit on to see whether a short
    /// does harm. The function nearest to the source that hangs on that rail and was not tried stands for it.
    /// </summary>
    private static DeviceFunction? OnBadRail(DeviceModel model, IReadOnlyList<BenchEvent> events)
    {
        var bad = Freshness.Readings(model.Graph, events).Values.Where(r => r.Outcome == ProbeOutcome.Abnormal).ToList();
        var parts = bad.Select(r => model.Profile.FindProbe(r.ProbeId))
            .Where(p => p is { Kind: ProbeKind.Volts, At: not null })
            .Select(p => p!.At!.Value)
            .Concat(bad.SelectMany(model.ShortedBy))
            .ToHashSet();
        return model
            .Profile.Functions.Where(f =>
                UnitDiagnosis.StateOf(events, f.Id) == FunctionState.NotTried && model.Closure(f.Id).Overlaps(parts)
            )
            .OrderBy(f => Depth(model, f))
            .FirstOrDefault();
    }

    /// <summary>True when a function worked until the last work on a part it needs, and fails since.</summary>
    private static bool IsSpoilt(DeviceModel model, List<BenchEvent> events, DeviceFunction function)
    {
        var work = events.FindLastIndex(e => e is RepairDone { Claimed: false });
        if (work < 0 || !model.Closure(function.Id).Contains(((RepairDone)events[work]).PartId))
            return false;
        bool? Last(IEnumerable<BenchEvent> some) => some.OfType<FunctionTried>().LastOrDefault(t => t.FunctionId == function.Id)?.Passed;
        return Last(events.Take(work)) == true && Last(events.Skip(work)) == false;
    }

    /// <summary>True when a function needs all that another needs.</summary>
    public static bool HangsOn(DeviceModel model, DeviceFunction function, DeviceFunction other)
    {
        var (needs, less) = (model.Closure(function.Id), model.Closure(other.Id));
        return less.Count < needs.Count && less.All(needs.Contains);
    }

    /// <summary>
    /// True when a function can be tried while another fails. Without a light board and cartridge are no subject, unless the unit
    /// starts all the same; without a start there is no picture, sound or button to try.
    /// </summary>
    /// <param name="model">Model.</param>
    /// <param name="function">Function to try.</param>
    /// <param name="failing">Function that fails.</param>
    /// <param name="starts">True when the unit is known to start.</param>
    public static bool CanBeTried(DeviceModel model, DeviceFunction function, DeviceFunction failing, bool starts) =>
        !HangsOn(model, function, failing)
        && failing.Kind switch
        {
            "power-light" when starts => true,
            "power-light" => function.Kind is "charging" or "saving",
            "start-up" => function.Kind is "charging" or "power-light" or "backlight" or "tray" or "reset" or "saving",
            // What is not read cannot save either.
            "cartridge" => false,
            _ => true,
        };

    /// <summary>True when nothing is on the screen, or the unit is dark, by which another function could be seen to work.</summary>
    public static bool IsBlank(DeviceModel model, IReadOnlyList<BenchEvent> events) =>
        model.Profile.Functions.Any(f =>
            f.Kind is "picture" or "video-out" or "start-up" or "power-light"
            && events.OfType<FunctionTried>().LastOrDefault(t => t.FunctionId == f.Id) is { Passed: false } last
            && SameMoment.NotShown(last.LookId)
        );

    /// <summary>Parts a function hangs on; what charges its cells counts too.</summary>
    private static int Depth(DeviceModel model, DeviceFunction function) =>
        model.Closure(function.Id).Count + model.ChargesOf(function.Id).Count;

    /// <summary>True when a start worked when last tried. One before the last work says nothing once the light is gone since.</summary>
    public static bool Starts(DeviceModel model, IReadOnlyList<BenchEvent> events)
    {
        int Last(string kind, bool passed)
        {
            for (var at = events.Count - 1; at >= 0; at--)
                if (events[at] is FunctionTried tried && model.Profile.FindFunction(tried.FunctionId)?.Kind == kind)
                    return tried.Passed == passed ? at : -1;
            return -1;
        }

        var (started, dark) = (Last("start-up", true), Last("power-light", false));
        return started >= 0 && (dark < started || !events.Skip(started).Take(dark - started).Any(e => e is RepairDone { Claimed: false }));
    }

    /// <summary>Event since which a function fails without a pass, or −1 when it does not fail now.</summary>
    private static int FailingSince(List<BenchEvent> events, FunctionId id)
    {
        var since = -1;
        for (var at = 0; at < events.Count; at++)
            if (events[at] is FunctionTried tried && tried.FunctionId == id)
                since =
                    tried.Passed ? -1
                    : since < 0 ? at
                    : since;
        return since;
    }

    private static int FirstFailure(List<BenchEvent> events, FunctionId id) =>
        events.FindIndex(e => e is FunctionTried { Passed: false } tried && tried.FunctionId == id);
}
