using Mendro.Core.Profiles;

namespace Mendro.Core.Evidence;

/// <summary>
/// When a reading has gone stale. One rule for all who ask: a repair makes stale what was measured on the part, across it, or
/// behind it along the supply, and every test of a rail to ground.
/// </summary>
public static class Freshness
{
    /// <summary>The last reading of every probe that still holds.</summary>
    /// <param name="graph">Graph of the unit's profile.</param>
    /// <param name="events">What happened, in order of time.</param>
    public static IReadOnlyDictionary<ProbeId, ProbeTaken> Readings(ProfileGraph graph, IEnumerable<BenchEvent> events)
    {
        var fresh = new Dictionary<ProbeId, ProbeTaken>();
        foreach (var happened in events)
        {
            // What a switch shows when off does not answer what it shows when on.
            if (happened is ProbeTaken { On: not false } taken)
                fresh[taken.ProbeId] = taken;
            if (happened is not RepairDone repair)
                continue;
            foreach (var id in fresh.Keys.Where(id => Touches(graph, repair.PartId, graph.Profile.FindProbe(id))).ToList())
                fresh.Remove(id);
        }

        return fresh;
    }

    /// <summary>True when work on a part makes a reading at a probe stale.</summary>
    /// <param name="graph">Graph of the unit's profile.</param>
    /// <param name="part">Part worked on.</param>
    /// <param name="probe">Probe; null for one that the profile does not know any more.</param>
    public static bool Touches(ProfileGraph graph, PartId part, Probe? probe)
    {
        if (probe is null || probe.Rail is not null || probe.Spans?.Contains(part) == true)
            return true;
        if (probe.At is not { } at)
            return false;
        // Once it charges again a pack is no longer what it was.
        var upstream = graph.Upstream(at, powerOnly: true);
        return upstream.Contains(part) || graph.ChargeWays(upstream).Contains(part);
    }
}
