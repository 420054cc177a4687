using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.StandIns;

/// <summary>
/// A seasoned hand who computes nothing (common practice, no source): everything cheap with the case closed first, the other
/// cartridge, cable or disc before any work, what an eye, a finger or the meter has found bad is dealt with at once and gently first,
/// then dirt where dirt is usual, then the supply point by point, then what lies open, and new parts last.
/// </summary>
internal sealed class SeasonedPolicy : IPolicy
{
    private const double Cheap = 1;
    private const int MostOfOnePart = 3;

    private readonly HashSet<string> _asked = [];

    /// <inheritdoc/>
    public bool Step(PracticeBench bench, DeviceFunction target)
    {
        var model = bench.Model;
        var way = Way(model, target);
        var cleared = Cleared(bench, target);
        var open = way.Where(p => !cleared.Contains(p)).ToList();
        return Found(bench, target, way)
            || Ask(bench, target, open, p => p.State == AccessState.Closed && p.Minutes <= Cheap)
            || Swap(bench, target, open)
            || Clean(bench, target, open, m => m.State == AccessState.Closed)
            || Supply(bench, target, open)
            || Ask(bench, target, open, p => p.State <= AccessState.Open && p.Minutes <= 2 * Cheap)
            || Clean(bench, target, open, m => m.State <= AccessState.Open)
            || Ask(bench, target, open, _ => true)
            || Work(bench, target, open)
            || Work(bench, target, way.Where(cleared.Contains).ToList());
    }

    /// <summary>Parts on the way of a function, the source first.</summary>
    private static List<PartId> Way(DeviceModel model, DeviceFunction target) =>
        model.Closure(target.Id).OrderBy(p => model.Graph.Upstream(p, powerOnly: false).Count).ToList();

    /// <summary>Parts that a working function needs as well: what starts has its supply.</summary>
    private static HashSet<PartId> Cleared(PracticeBench bench, DeviceFunction target) =>
        bench
            .Model.Profile.Functions.Where(f => f.Id != target.Id && UnitDiagnosis.StateOf(bench.Events, f.Id) == FunctionState.Works)
            .SelectMany(f => bench.Model.Closure(f.Id))
            .ToHashSet();

    /// <summary>Deals with what was found bad since the last work there.</summary>
    private static bool Found(PracticeBench bench, DeviceFunction target, List<PartId> way)
    {
        var named = bench
            .Events.Reverse()
            .TakeWhile(e => e is not RepairDone)
            .Select(e =>
                e switch
                {
                    ProbeTaken { Outcome: not ProbeOutcome.Normal } taken
                        when bench.Model.Profile.FindProbe(taken.ProbeId) is { Kind: not ProbeKind.Volts } p => p.PartIds().Where(way.Contains).ToList(),
                    SwapTried { Passed: true } swap when swap.FunctionId == target.Id => way.Except(swap.Chain).ToList(),
                    _ => [],
                }
            )
            .FirstOrDefault(parts => parts.Count > 0);
        return named is not null && Work(bench, target, named);
    }

    private bool Ask(PracticeBench bench, DeviceFunction target, List<PartId> open, Func<Probe, bool> which)
    {
        var fresh = new UnitCase(bench.Model, bench.Events).FreshReadings();
        var probe = bench
            .Model.Profile.Probes.Where(p =>
                p.Kind != ProbeKind.Volts && which(p) && !fresh.ContainsKey(p.Id) && p.PartIds().Any(open.Contains) && !_asked.Contains(Key(bench, p))
            )
            .OrderBy(p => p.State)
            .ThenBy(p => p.Minutes)
            .ThenBy(p => p.PartIds().Where(open.Contains).Select(x => open.IndexOf(x)).Min())
            .FirstOrDefault();
        if (probe is null)
            return false;
        _asked.Add(Key(bench, probe));
        bench.Measure(probe);
        return true;
    }

    /// <summary>A check is made again only after its parts were worked on.</summary>
    private static string Key(PracticeBench bench, Probe probe) =>
        $"{probe.Id}@{bench.Events.OfType<RepairDone>().Count(r => probe.PartIds().Contains(r.PartId))}";

    private bool Swap(PracticeBench bench, DeviceFunction target, List<PartId> open)
    {
        var unit = new UnitCase(bench.Model, bench.Events);
        var part = SwapPlanner
            .Swappable(bench.Model, target.Id)
            .Where(p => SwapPlanner.ByHand(unit.Model, p) && open.Contains(p.Id))
            .FirstOrDefault(p => _asked.Add($"swap:{target.Id}:{p.Id}"));
        if (part is null)
            return false;
        bench.Swap(target, part.Id);
        return true;
    }

    /// <summary>With no sign of life the supply is followed from the source, and the first point where it is missing encloses the
    /// work.</summary>
    private bool Supply(PracticeBench bench, DeviceFunction target, List<PartId> open)
    {
        var model = bench.Model;
        if (target.Kind is not ("power-light" or "start-up" or "picture" or "video-out" or "charging" or "backlight"))
            return false;
        var fresh = new UnitCase(model, bench.Events).FreshReadings();
        var good = new HashSet<PartId>();
        foreach (
            var probe in model
                .Profile.Probes.Where(p => p is { Kind: ProbeKind.Volts, At: { } at } && open.Contains(at))
                .OrderBy(p => model.Graph.Upstream(p.At!.Value, powerOnly: true).Count)
        )
        {
            var upstream = model.Graph.Upstream(probe.At!.Value, powerOnly: true);
            if (!fresh.TryGetValue(probe.Id, out var outcome))
            {
                if (!_asked.Add(Key(bench, probe) + bench.Events.OfType<RepairDone>().Count()))
                    continue;
                bench.Measure(probe);
                return true;
            }

            if (outcome == ProbeOutcome.Normal)
                good.UnionWith(upstream);
            else
                return Work(bench, target, upstream.Except(good).ToList());
        }

        return false;
    }

    private static bool Clean(PracticeBench bench, DeviceFunction target, List<PartId> open, Func<Method, bool> which) =>
        Work(bench, target, open, m => m.Type == MethodType.Clean && !m.WantsIron && which(m), 1);

    /// <summary>The gentlest thing not done yet, the quickest first.</summary>
    private static bool Work(
        PracticeBench bench,
        DeviceFunction target,
        IReadOnlyList<PartId> parts,
        Func<Method, bool>? which = null,
        int most = MostOfOnePart
    )
    {
        var model = bench.Model;
        var done = bench.Events.OfType<RepairDone>().ToList();
        var next = model
            .Profile.Parts.Where(p => parts.Contains(p.Id) && done.Count(d => d.PartId == p.Id) < most)
            .SelectMany(p => model.MethodsFor(p).Where(m => m.Together is null && which?.Invoke(m) != false).Select(m => (Part: p, Method: m)))
            .Where(x => x.Method.Type != MethodType.Modification && !done.Any(d => d.PartId == x.Part.Id && d.MethodId == x.Method.Id))
            .OrderBy(x => x.Method.Harshness)
            .ThenBy(x => x.Method.Minutes + bench.ToReach(x.Part.Id, x.Method))
            .FirstOrDefault();
        if (next.Method is null)
            return false;
        bench.Repair(next.Part.Id, next.Method, target);
        return true;
    }
}
