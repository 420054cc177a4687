using Mendro.Core.Diagnosis;
using Mendro.Core.Methods;
using Mendro.Core.Profiles;

namespace Mendro.StandIns;

/// <summary>Who works on the practice units.</summary>
public enum SimulatedPolicy
{
    /// <summary>Takes the advisor's first move each time.</summary>
    Advisor,

    /// <summary>
    /// A fixed order: parts that a working function clears come last; swaps and cleaning first, then repairs,
    /// replacements and modifications; each tried again before the next. It takes no measurements.
    /// </summary>
    Checklist,

    /// <summary>Knows the hidden faults and only repairs them: the limit nobody can beat.</summary>
    Oracle,
}

/// <summary>What a policy achieved.</summary>
/// <param name="Units">Number of units.</param>
/// <param name="Seed">Seed they were drawn with.</param>
/// <param name="Policy">Policy.</param>
/// <param name="MeanMinutes">Mean bench minutes a unit, cured or not.</param>
/// <param name="P90Minutes">Minutes that nine of ten units stay below.</param>
/// <param name="ShareCured">Share of units with every function working at the end, 0 to 1.</param>
/// <param name="MeanCost">Mean cost of parts, in the library's currency units.</param>
public sealed record SimulationResult(int Units, long Seed, SimulatedPolicy Policy, double MeanMinutes, double P90Minutes, double ShareCured, double MeanCost);

/// <summary>Lets a policy work on drawn units and counts minutes, cures and cost.</summary>
public sealed class Simulation
{
    /// <summary>A unit is given up after this many minutes, by every policy alike.</summary>
    public const double LongestMinutes = 300;

    // A unit must not be given up early: share cured is compared too.
    private static readonly BenchCosts Costs = new(UncuredMinutes: LongestMinutes, OriginalityMinutes: 0, HarmMinutes: 0);

    private readonly DeviceModel _model;
    private readonly PracticeUnit _unit;
    private readonly List<BenchEvent> _events = [];
    private AccessState _access = AccessState.Closed;
    private double _minutes;
    private decimal _cost;

    private Simulation(DeviceModel model, PracticeUnit unit) => (_model, _unit) = (model, unit);

    /// <summary>Runs a policy.</summary>
    /// <param name="model">Model.</param>
    /// <param name="units">Number of units, 1 or more.</param>
    /// <param name="seed">Seed; the same seed gives the same units to every policy.</param>
    /// <param name="policy">Policy.</param>
    public static SimulationResult Run(DeviceModel model, int units, long seed, SimulatedPolicy policy)
    {
        var runs = new (double Minutes, bool Cured, decimal Cost)[units];
        Parallel.For(0, units, n =>
        {
            var simulation = new Simulation(model, PracticeUnit.Draw(model, seed, n));
            var cured = simulation.Work(policy);
            runs[n] = (simulation._minutes, cured, simulation._cost);
        });
        var sorted = runs.Select(r => r.Minutes).Order().ToList();
        return new SimulationResult(units, seed, policy, sorted.Average(), sorted[(int)Math.Ceiling(0.9 * units) - 1],
            runs.Count(r => r.Cured) / (double)units, (double)runs.Average(r => r.Cost));
    }

    private bool Work(SimulatedPolicy policy)
    {
        foreach (var function in _model.Profile.Functions) Try(function);
        while (_minutes < LongestMinutes && UnitDiagnosis.ChooseTarget(_model, _events) is { } target)
        {
            var goesOn = policy switch
            {
                SimulatedPolicy.Advisor => Advised(target),
                SimulatedPolicy.Checklist => Listed(target),
                _ => Known(target),
            };
            if (!goesOn) break;
        }

        return _model.Profile.Functions.All(f => UnitDiagnosis.StateOf(_events, f.Id) == FunctionState.Works);
    }

    private bool Advised(DeviceFunction target)
    {
        var diagnosis = UnitDiagnosis.Make(_model, _events);
        if (!diagnosis.IsOk) return false;
        if (new MoveAdvisor(Costs).Advise(diagnosis.Value, _access).Moves.FirstOrDefault() is not { } move) return false;
        if (move.Repair is { } repair) Repair(repair.Part.Id, repair.Method, target);
        else if (move.Probe is { } probe) Measure(probe);
        else Try(move.Function!);
        return true;
    }

    private bool Listed(DeviceFunction target)
    {
        // What a working function depends on comes last: any technician passes it over.
        var cleared = _model.Profile.Functions.Where(f => UnitDiagnosis.StateOf(_events, f.Id) == FunctionState.Works)
            .SelectMany(f => _model.Closure(f.Id)).ToHashSet();
        var next = _model.Profile.Parts.Where(p => _model.Closure(target.Id).Contains(p.Id))
            .SelectMany(p => _model.Library.MethodsFor(p.Kind).Select(m => (Part: p, Method: m)))
            .Where(x => _events.OfType<RepairDone>().Count(r => r.PartId == x.Part.Id && r.MethodId == x.Method.Id) < 2)
            .OrderBy(x => cleared.Contains(x.Part.Id))
            .ThenBy(x => x.Method.Type switch { MethodType.Swap or MethodType.Clean => 0, MethodType.Repair => 1, MethodType.Replace => 2, _ => 3 })
            .ThenBy(x => x.Method.Minutes + _model.Profile.Preparation.Minutes(AccessState.Closed, x.Method.State))
            .FirstOrDefault();
        if (next.Method is null) return false;
        Repair(next.Part.Id, next.Method, target);
        return true;
    }

    private bool Known(DeviceFunction target)
    {
        var guilty = _model.FunctionFails(target).Links.Where(l => _unit.Present.Contains(l.Fault)).Select(l => _model.Faults[l.Fault]).ToList();
        if (guilty.Count == 0)
        {
            // Nothing is wrong any more: a bench error is tried again.
            Try(target);
            return true;
        }

        var done = new UnitCase(_model, _events);
        var best = guilty.SelectMany(f => _model.Library.MethodsFor(f.Part.Kind).Select(m => (f.Part, Method: m,
                Success: done.SuccessNow(m.Id, _model.FaultsOf(f.Part.Id).Single(i => _model.Faults[i].Mode.Id == f.Mode.Id)))))
            .Where(x => x.Success > 0.01)
            .OrderBy(x => (x.Method.Minutes + Costs.RetestMinutes + _model.Profile.Preparation.Minutes(_access, x.Method.State)) / x.Success)
            .FirstOrDefault();
        if (best.Method is null) return false;
        Repair(best.Part.Id, best.Method, target);
        return true;
    }

    private void Repair(string partId, Method method, DeviceFunction target)
    {
        Reach(method.State);
        _unit.Repair(partId, method);
        _minutes += method.Minutes + Costs.RetestMinutes - target.Minutes;
        _cost += method.PartsCost;
        _events.Add(new RepairDone(_events.Count, partId, method.Id));
        Try(target);
        if (UnitDiagnosis.StateOf(_events, target.Id) != FunctionState.Works) return;
        // What failed before may work again now.
        foreach (var function in _model.Profile.Functions.Where(f => UnitDiagnosis.StateOf(_events, f.Id) == FunctionState.Fails)) Try(function);
    }

    private void Measure(Probe probe)
    {
        Reach(probe.State);
        _minutes += probe.Minutes;
        _events.Add(new ProbeTaken(_events.Count, probe.Id, _unit.Probe(probe)));
    }

    private void Try(DeviceFunction function)
    {
        _minutes += function.Minutes;
        var (works, look) = _unit.Try(function);
        _events.Add(new FunctionTried(_events.Count, function.Id, works, look));
    }

    private void Reach(AccessState state)
    {
        _minutes += _model.Profile.Preparation.Minutes(_access, state);
        if (state > _access) _access = state;
    }
}
