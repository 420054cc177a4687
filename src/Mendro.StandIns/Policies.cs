using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.StandIns;

/// <summary>Decides what is done next to a practice unit.</summary>
internal interface IPolicy
{
    /// <summary>Does one thing for the failing function worked on.</summary>
    /// <returns>False when there is nothing left to do.</returns>
    bool Step(PracticeBench bench, DeviceFunction target);
}

/// <summary>Takes the advisor's first move each time.</summary>
internal sealed class AdvisorPolicy(BenchCosts costs, CaseContext context) : IPolicy
{
    private const int MostTriedAgain = 2;

    private readonly MoveAdvisor _advisor = new(costs);
    private int _triedAgain;

    /// <inheritdoc/>
    public bool Step(PracticeBench bench, DeviceFunction target)
    {
        var diagnosis = UnitDiagnosis.Make(bench.Model, bench.Events, context);
        if (!diagnosis.IsOk)
            return false;
        if (_advisor.Advise(diagnosis.Value, bench.Apart).Moves.FirstOrDefault(m => !m.Ends) is not { } move)
        {
            // Out of advice: the last failure may have been a bench error, so it is tried again before the unit is given up.
            if (_triedAgain++ >= MostTriedAgain)
            {
                bench.End(Move.AsideId);
                return false;
            }

            bench.Try(target, "Nothing else is worth its time; the last failure may have been a slip.");
            return true;
        }

        bench.Asked(move.Outlook?.ChanceToCure, move.Known);
        if (move.Repair is { } repair)
            bench.Repair(repair.Part.Id, repair.Method, target, move.Why, tryTheRest: false);
        else if (move.Probe is { } probe)
            bench.Measure(probe, move.Why);
        else if (move.SwapOut is { } part)
            bench.Swap(move.Function!, part, move.Why);
        else if (move.Provoke is { } how)
            bench.Provoke(move.Function!, how, move.Why);
        else
            bench.Try(move.Function!, move.Why);
        return true;
    }
}

/// <summary>
/// A good technician with a fixed order and no arithmetic: with no sign of life the supply is followed from the
/// source with the meter, and the first point where it is missing encloses the work; parts that a working function
/// clears come last; swaps and cleaning first, then repairs, replacements, modifications, the quickest of each first;
/// every repair is tried again before the next.
/// </summary>
internal sealed class ChecklistPolicy : IPolicy
{
    private readonly HashSet<string> _measured = [];

    /// <inheritdoc/>
    public bool Step(PracticeBench bench, DeviceFunction target)
    {
        var model = bench.Model;
        var closure = model.Closure(target.Id);
        var cleared = model
            .Profile.Functions.Where(f => UnitDiagnosis.StateOf(bench.Events, f.Id) == FunctionState.Works)
            .SelectMany(f => model.Closure(f.Id))
            .ToHashSet();
        IReadOnlySet<PartId> enclosed = new HashSet<PartId>();
        // No sign of life: no working function shares the supply of the failing one.
        var supply = model
            .Profile.Probes.Where(p => p is { Kind: ProbeKind.Volts, At: { } at } && closure.Contains(at))
            .OrderBy(p => model.Graph.Upstream(p.At!.Value, powerOnly: true).Count)
            .ToList();
        if (supply.Count > 0 && !supply.Any(p => cleared.Contains(p.At!.Value)))
        {
            var fresh = new UnitCase(model, bench.Events).FreshReadings();
            var good = new HashSet<PartId>();
            foreach (var probe in supply)
            {
                if (!fresh.TryGetValue(probe.Id, out var outcome))
                {
                    // Measured anew at most once after each repair.
                    if (!_measured.Add($"{probe.Id}@{bench.Events.OfType<RepairDone>().Count()}"))
                        continue;
                    bench.Measure(probe);
                    return true;
                }

                var upstream = model.Graph.Upstream(probe.At!.Value, powerOnly: true);
                if (outcome == ProbeOutcome.Normal)
                    good.UnionWith(upstream);
                else
                {
                    enclosed = upstream.Except(good).ToHashSet();
                    break;
                }
            }
        }

        var next = model
            .Profile.Parts.Where(p => closure.Contains(p.Id))
            .SelectMany(p =>
                model
                    .MethodsFor(p)
                    .Where(m => m.Together is null)
                    .Select(m =>
                        (Part: p, Method: m, Done: bench.Events.OfType<RepairDone>().Count(r => r.PartId == p.Id && r.MethodId == m.Id))
                    )
            )
            .Where(x => x.Done < 2)
            .OrderByDescending(x => enclosed.Contains(x.Part.Id))
            .ThenBy(x => cleared.Contains(x.Part.Id))
            .ThenBy(x => x.Method.Type.Harshness())
            .ThenBy(x => x.Method.Minutes + model.Disassembly.Minutes(default, model.Disassembly.Goal(x.Part.Id, x.Method.State)))
            .ThenByDescending(x => x.Done)
            .FirstOrDefault();
        if (next.Method is null)
            return false;
        bench.Repair(next.Part.Id, next.Method, target);
        return true;
    }
}

/// <summary>Knows the hidden faults and only repairs them, cheapest per success first: the limit nobody can beat.</summary>
internal sealed class OraclePolicy(BenchCosts costs) : IPolicy
{
    /// <inheritdoc/>
    public bool Step(PracticeBench bench, DeviceFunction target)
    {
        var (faults, damaged) = bench.Unit.GuiltyOf(target);
        if (faults.Count == 0 && damaged.Count == 0)
        {
            // Nothing is wrong any more: a bench error is tried again.
            bench.Try(target);
            return true;
        }

        var library = bench.Model.Library;
        var best = faults
            .Concat(damaged.Select(bench.Unit.DamageOf))
            .SelectMany(f =>
                bench
                    .Model.MethodsFor(f.Part)
                    .Where(m => m.Together is null)
                    .Concat(library.MethodsFor("*"))
                    .Select(m => (f.Part, Method: m, Success: Success(bench, m, f)))
            )
            .Where(x => x.Success > 0.01)
            .OrderBy(x =>
                (x.Method.Minutes + costs.RetestMinutes + bench.ToReach(x.Part.Id, x.Method)) / x.Success
            )
            .FirstOrDefault();
        if (best.Method is null)
            return false;
        bench.Repair(best.Part.Id, best.Method, target);
        return true;
    }

    private static double Success(PracticeBench bench, Method method, PartFault fault)
    {
        var done = bench.Events.OfType<RepairDone>().Where(r => r.PartId == fault.Part.Id).ToList();
        return EvidenceWeights.Success(
            method,
            fault,
            done.Count(r => r.MethodId == method.Id),
            done.Select(r => bench.Model.Library.FindMethod(r.MethodId)).OfType<Method>()
        );
    }
}
