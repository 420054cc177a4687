using Mendro.Core.Diagnosis;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Planning;

/// <summary>How the selection walks on while both hands hold probes.</summary>
public enum WalkSchool
{
    /// <summary>To the measurement that saves most minutes: fewest readings, jumps about the board.</summary>
    Best,

    /// <summary>From the source along the supply, point by point: more readings, nothing skipped, no jumping about.</summary>
    Supply,

    /// <summary>Every point in turn, whatever the advice: for a comparison with good units, and for a good unit itself.</summary>
    Every,
}

/// <summary>Finds the next point that a meter can measure.</summary>
public static class ProbeWalk
{
    /// <summary>True when a meter answers at this kind of probe.</summary>
    public static bool IsMetered(ProbeKind kind) => TradeLibrary.Of(kind).Meter is not null;

    /// <summary>Next metered probe, or null when there is none worth measuring.</summary>
    /// <param name="diagnosis">Diagnosis so far; null while the evidence contradicts itself.</param>
    /// <param name="advice">Moves by rank.</param>
    /// <param name="graph">The profile's graph.</param>
    /// <param name="taken">Probes already taken since the last repair.</param>
    /// <param name="school">Way of walking.</param>
    public static Probe? Next(UnitVerdict? diagnosis, Advice advice, ProfileGraph graph, IReadOnlySet<ProbeId> taken, WalkSchool school)
    {
        if (school == WalkSchool.Every)
            return InTurn(graph.Profile, taken);
        if (diagnosis?.Target is null)
            return null;
        // Once the fault is enclosed between two points, walking on along the supply tells nothing more.
        if (school == WalkSchool.Supply && diagnosis.Stretch is null && AlongSupply(graph, diagnosis.Target, taken) is { } point)
            return point;
        return advice.Moves.Select(m => m.Probe).FirstOrDefault(p => p is not null && IsMetered(p.Kind) && !taken.Contains(p.Id));
    }

    /// <summary>
    /// The first point not taken yet, with what needs the least taking apart first. Nothing is unsoldered for a comparison,
    /// and a connector is swept contact by contact on its own map.
    /// </summary>
    private static Probe? InTurn(DeviceProfile profile, IReadOnlySet<ProbeId> taken) =>
        profile
            .Probes.Where(p =>
                IsMetered(p.Kind)
                && p.State < AccessState.Lifted
                && !taken.Contains(p.Id)
                && profile.Connectors?.Any(c => p.Id.Equals(c.Probe)) != true
            )
            .OrderBy(p => p.State)
            .FirstOrDefault();

    /// <summary>The point nearest the source that was not taken yet, on the way to the function.</summary>
    private static Probe? AlongSupply(ProfileGraph graph, DeviceFunction target, IReadOnlySet<ProbeId> taken)
    {
        var needed = graph.Closure(target);
        return graph
            .Profile.Probes.Where(p =>
                p is { Kind: ProbeKind.Volts, At: { } at, Unloaded: false } && needed.Contains(at) && !taken.Contains(p.Id)
            )
            .Select((p, n) => (Probe: p, Depth: graph.Upstream(p.At!.Value, powerOnly: true).Count, n))
            .OrderBy(x => x.Depth)
            .ThenBy(x => x.n)
            .Select(x => x.Probe)
            .FirstOrDefault();
    }
}
