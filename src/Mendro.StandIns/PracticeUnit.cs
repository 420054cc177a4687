using System.Security.Cryptography;
using System.Text;
using Mendro.Core;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.StandIns;

/// <summary>
/// A unit with hidden faults, drawn from the same network that diagnoses it. Lasting faults answer a check the same
/// way every time; intermittent ones and bench errors draw anew at each trial. The same seed is the same unit,
/// whatever is asked of it and in whatever order.
/// </summary>
public sealed class PracticeUnit
{
    private const int MostDraws = 100_000;

    private readonly DeviceModel _model;
    private readonly string _seed;
    private readonly HashSet<int> _present;
    private readonly Dictionary<string, int> _trials = [];
    private readonly Dictionary<string, int> _repairs = [];
    private readonly HashSet<string> _damaged = [];

    private PracticeUnit(DeviceModel model, string seed, HashSet<int> present) => (_model, _seed, _present) = (model, seed, present);

    /// <summary>Faults still there, as indexes of the model.</summary>
    public IReadOnlySet<int> Present => _present;

    /// <summary>Parts that a repair has damaged.</summary>
    public IReadOnlySet<string> Damaged => _damaged;

    /// <summary>Draws a unit in which at least one function fails when first tried.</summary>
    /// <param name="model">Model.</param>
    /// <param name="seed">Seed; the same seed and number give the same unit.</param>
    /// <param name="number">Number of the unit within the seed.</param>
    /// <param name="priors">Chance of every fault in the unit's world; null for the model's own.</param>
    /// <exception cref="InvalidOperationException">The model's weights are so small that no faulty unit turns up.</exception>
    public static PracticeUnit Draw(DeviceModel model, long seed, int number, double[]? priors = null)
    {
        for (var draw = 0; draw < MostDraws; draw++)
        {
            var key = $"{seed}/{number}/{draw}";
            var present = Enumerable
                .Range(0, model.Faults.Count)
                .Where(i => Uniform(key, "fault", model.Faults[i].Id) < (priors?[i] ?? model.Faults[i].Prior))
                .ToHashSet();
            if (present.Count == 0)
                continue;
            if (model.Profile.Functions.Any(f => new PracticeUnit(model, key, present).Fails(f) is not null))
                return new PracticeUnit(model, key, present);
        }

        throw new InvalidOperationException($"{model.Profile.Id}: no faulty unit turned up; the weights are too small.");
    }

    /// <summary>A unit with given faults, for a demonstration.</summary>
    /// <param name="model">Model.</param>
    /// <param name="seed">Seed of its answers.</param>
    /// <param name="faults">Indexes of the faults.</param>
    public static PracticeUnit With(DeviceModel model, string seed, IEnumerable<int> faults) => new(model, seed, faults.ToHashSet());

    /// <summary>
    /// Frequencies of another world: each fault's odds a third to three times the library's, log-uniform by the seed.
    /// </summary>
    public static double[] ShiftedPriors(DeviceModel model, long shiftSeed) =>
        model
            .Faults.Select(f =>
            {
                var odds = f.Prior / (1 - f.Prior) * Math.Pow(3, 2 * Uniform($"world/{shiftSeed}", "shift", f.Id) - 1);
                return odds / (1 + odds);
            })
            .ToArray();

    /// <summary>Tries a function.</summary>
    /// <returns>True when it works, and else the look of the failure, which may not be told.</returns>
    public (bool Works, string? Look) Try(DeviceFunction function)
    {
        if (Fails(function) is not { } cause)
            return (true, null);
        if (cause < 0)
            return (false, null);
        var kind = _model.Library.FindFunctionKind(function.Kind);
        var left = Uniform(_seed, "look", $"{_model.Faults[cause].Id}/{function.Id}");
        var fails = _model.FunctionFails(function).Links.Single(l => l.Fault == cause).P;
        foreach (var look in kind?.Looks ?? [])
        {
            var link = _model.FunctionLooks(function, look.Id).Links.Single(l => l.Fault == cause);
            left -= link.P / fails;
            if (left < 0)
                return (false, look.Id);
        }

        return (false, null);
    }

    /// <summary>Takes a probe.</summary>
    public ProbeOutcome Probe(Probe probe) => ProbeCause(probe).Outcome;

    /// <summary>Takes a probe; the fault behind a bad answer is null for a bench error or damage.</summary>
    public (ProbeOutcome Outcome, PartFault? Cause) ProbeCause(Probe probe) =>
        Cause(_model.ProbeAbnormal(probe)) is not { } cause
            ? (ProbeOutcome.Normal, null)
            : (ProbeOutcome.Abnormal, cause >= 0 ? _model.Faults[cause] : null);

    /// <summary>Presses, flexes or warms the unit and watches a function.</summary>
    public bool Provoke(DeviceFunction function, Provocation how)
    {
        // Behind something that stays broken nothing can be seen to change.
        var fails = _model.FunctionFails(function);
        var solid =
            fails.Links.Any(l =>
                _present.Contains(l.Fault)
                && EvidenceWeights.Changes(_model.Faults[l.Fault].Mode, function.Kind, how) <= 0
                && Shows(fails, l, 0)
            ) || _damaged.Any(p => fails.Damage!.TryGetValue(p, out var chance) && Uniform(_seed, "damage", $"{p}/{fails.Id}") < chance);
        return Cause(_model.ChangesWhen(function, how)) is not null && !solid;
    }

    /// <summary>Carries a method out on a part; each fault it can cure is gone with the method's chance, less when it is repeated.
    /// It may do harm.</summary>
    public void Repair(string partId, Method method)
    {
        var key = $"{partId}/{method.Id}";
        var times = _repairs[key] = _repairs.GetValueOrDefault(key) + 1;
        foreach (var fault in _model.FaultsOf(partId).Where(_present.Contains).ToList())
        {
            var success = EvidenceWeights.Success(method, _model.Faults[fault], times - 1);
            if (Uniform(_seed, "repair", $"{key}/{times}/{fault}") < success)
                _present.Remove(fault);
        }

        if (
            _damaged.Contains(partId)
            && Uniform(_seed, "undo", $"{key}/{times}") < EvidenceWeights.Success(method, DamageOf(partId), times - 1)
        )
            _damaged.Remove(partId);
        if (Uniform(_seed, "harm", $"{key}/{times}") < method.Harm)
            _damaged.Add(partId);
    }

    /// <summary>Damage of a step as a fault.</summary>
    public PartFault DamageOf(string partId) =>
        new(
            _model.Profile.FindPart(partId)!,
            new FailureMode(EvidenceWeights.StepDamage, "damaged", ModeEffect.Dead, 0, null, null, null, ""),
            0
        );

    /// <summary>Faults and damaged parts that can make a function fail now.</summary>
    public (IReadOnlyList<PartFault> Faults, IReadOnlyList<string> Damaged) GuiltyOf(DeviceFunction function)
    {
        var fails = _model.FunctionFails(function);
        return (
            fails.Links.Where(l => _present.Contains(l.Fault)).Select(l => _model.Faults[l.Fault]).ToList(),
            _damaged.Where(p => fails.Damage!.ContainsKey(p)).Order(StringComparer.Ordinal).ToList()
        );
    }

    private int? Fails(DeviceFunction function) => Cause(_model.FunctionFails(function));

    /// <summary>The fault that makes a finding present at this trial, −1 for a bench error or damage, null when it is absent.</summary>
    private int? Cause(FindingTemplate finding)
    {
        var trial = _trials[finding.Id] = _trials.GetValueOrDefault(finding.Id) + 1;
        foreach (var link in finding.Links)
        {
            if (!_present.Contains(link.Fault))
                continue;
            var fault = _model.Faults[link.Fault];
            var moment = fault.Mode.Effect == ModeEffect.Intermittent ? trial : 0;
            if (Shows(finding, link, moment))
                return link.Fault;
        }

        foreach (var part in _damaged)
            if (finding.Damage?.TryGetValue(part, out var p) == true && Uniform(_seed, "damage", $"{part}/{finding.Id}") < p)
                return -1;
        return Uniform(_seed, "leak", $"{finding.Id}/{trial}") < finding.Leak ? -1 : null;
    }

    private bool Shows(FindingTemplate finding, Link link, int moment) =>
        Uniform(_seed, "cause", $"{_model.Faults[link.Fault].Id}/{finding.Id}/{moment}") < link.P;

    /// <summary>A number from 0 to 1 that depends on its name alone, so that the order of questions changes nothing.</summary>
    private static double Uniform(string seed, string kind, string name)
    {
        var hash = SHA256.HashData(Encoding.UTF8.GetBytes($"{seed}|{kind}|{name}"));
        return (BitConverter.ToUInt64(hash) >> 11) * (1.0 / (1UL << 53));
    }
}
