using Mendro.Core.Profiles;

namespace Mendro.Core.Dismantling;

/// <summary>How far a unit is apart after a step, in the coarse states by which checks and methods are told.</summary>
public static class StepAccess
{
    /// <summary>State after a step: that of the probes it frees; without any, one further than before when it frees parts, and as
    /// before when it frees nothing.</summary>
    public static AccessState Of(DeviceProfile profile, TeardownStep step) => Of(profile, step, []);

    /// <summary>State before a step: that of the steps it needs.</summary>
    public static AccessState Before(DeviceProfile profile, TeardownStep step) => Before(profile, step, []);

    private static AccessState Of(DeviceProfile profile, TeardownStep step, HashSet<string> seen)
    {
        var before = Before(profile, step, seen);
        var freed = (step.Frees ?? []).Select(f => profile.FindProbe(f)?.State ?? AccessState.Closed).DefaultIfEmpty().Max();
        if (freed > before)
            return freed;
        return step.Frees is { Count: > 0 } && before < AccessState.BoardOut ? before + 1 : before;
    }

    private static AccessState Before(DeviceProfile profile, TeardownStep step, HashSet<string> seen) =>
        // Steps that wait for one another have no state before them.
        !seen.Add(step.Id)
            ? AccessState.Closed
            : (step.Needs ?? [])
                .Select(profile.FindStep)
                .OfType<TeardownStep>()
                .Select(s => Of(profile, s, [.. seen]))
                .DefaultIfEmpty(AccessState.Closed)
                .Max();
}
