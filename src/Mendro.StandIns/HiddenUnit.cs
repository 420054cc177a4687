using System.Security.Cryptography;
using System.Text;
using Mendro.Core.Diagnosis;
using Mendro.Core.Evidence;
using Mendro.Core.Jobs;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.StandIns;

/// <summary>
/// A unit with hidden faults that answers as a unit on the bench does. Lasting faults answer alike every time; an intermittent one
/// has a mood that lasts from one piece of work to the next. The same seed is the same unit, whatever is asked of it and in whatever
/// order.
/// </summary>
public abstract class HiddenUnit
{
    private const int MostDraws = 100_000;

    /// <summary>Chance that the check at a method's end doubts what is well.</summary>
    protected virtual double Doubts => EvidenceWeights.CheckDoubts;

    /// <summary>Chance that an intermittent in a failing mood fails a trial.</summary>
    protected const double Steady = EvidenceWeights.AtOneMoment;

    private readonly HashSet<int> _present;
    private readonly Dictionary<string, int> _trials = [];
    private readonly Dictionary<string, int> _repairs = [];
    private readonly HashSet<string> _damaged = [];
    private int _moment;

    /// <summary>A unit with certain faults.</summary>
    /// <param name="model">Its model.</param>
    /// <param name="seed">Seed of its answers.</param>
    /// <param name="present">Indexes of the faults.</param>
    protected HiddenUnit(DeviceModel model, string seed, IEnumerable<int> present) =>
        (Model, Seed, _present) = (model, seed, present.ToHashSet());

    /// <summary>The model.</summary>
    protected DeviceModel Model { get; }

    /// <summary>Seed of the answers.</summary>
    protected string Seed { get; }

    /// <summary>Faults still there, as indexes of the model.</summary>
    public IReadOnlySet<int> Present => _present;

    /// <summary>Parts that a repair has damaged.</summary>
    public IReadOnlySet<string> Damaged => _damaged;

    /// <summary>Tries a function.</summary>
    /// <returns>True when it works, and else the look of the failure, which may not be told.</returns>
    public abstract (bool Works, string? Look) Try(DeviceFunction function);

    /// <summary>Takes a probe: what is typed at the bar, as it is judged.</summary>
    public abstract ProbeReading Measure(Probe probe);

    /// <summary>Tries a function with some of its parts only, sound pieces in the place of the others.</summary>
    public abstract bool Swap(DeviceFunction function, IReadOnlyList<PartId> chain);

    /// <summary>Presses, flexes or warms the unit and watches a function.</summary>
    public abstract bool Provoke(DeviceFunction function, Provocation how);

    /// <summary>Draws faults until a unit turns up that fails.</summary>
    /// <typeparam name="TUnit">Kind of unit.</typeparam>
    /// <param name="model">Model.</param>
    /// <param name="seed">Seed; the same seed and number give the same unit.</param>
    /// <param name="number">Number of the unit within the seed.</param>
    /// <param name="priors">Chance of every fault in the unit's world; null for the model's own.</param>
    /// <param name="make">Makes a unit of a seed and faults.</param>
    /// <exception cref="InvalidOperationException">The model's weights are so small that no faulty unit turns up.</exception>
    protected static TUnit Drawn<TUnit>(
        DeviceModel model,
        long seed,
        int number,
        double[]? priors,
        Func<string, IReadOnlyList<int>, TUnit> make
    )
        where TUnit : HiddenUnit
    {
        for (var draw = 0; draw < MostDraws; draw++)
        {
            var key = $"{seed}/{number}/{draw}";
            var present = Enumerable
                .Range(0, model.Faults.Count)
                .Where(i => Uniform(key, "fault", model.Faults[i].Id) < (priors?[i] ?? model.Faults[i].Prior))
                .ToList();
            if (present.Count > 0 && model.Profile.Functions.Any(f => !make(key, present).Try(f).Works))
                return make(key, present);
        }

        throw new InvalidOperationException($"{model.Profile.Id}: no faulty unit turned up; the weights are too small.");
    }

    /// <summary>Moves, turns and warms the unit, so that what comes and goes has its chance to come.</summary>
    public void Stir() => _moment++;

    /// <summary>Carries a method out on a part; each fault it can cure is gone with the method's chance, less when it is repeated.
    /// It may do harm.</summary>
    public void Repair(string partId, Method method)
    {
        _moment++;
        var key = $"{partId}/{method.Id}";
        var times = _repairs[key] = _repairs.GetValueOrDefault(key) + 1;
        foreach (var fault in Model.FaultsOf(partId).Where(_present.Contains).ToList())
        {
            var success = EvidenceWeights.Success(method, Model.Faults[fault], times - 1);
            // The rungs of a ladder share one draw: what a lower one cures a higher one cures too.
            var draw = method.Ladder is { } ladder && times == 1 ? $"{partId}/{ladder}" : $"{key}/{times}";
            if (Uniform("repair", $"{draw}/{fault}") < success)
                _present.Remove(fault);
        }

        if (_damaged.Contains(partId) && Uniform("undo", $"{key}/{times}") < EvidenceWeights.Success(method, DamageOf(partId), times - 1))
            _damaged.Remove(partId);
        if (Uniform("harm", $"{key}/{times}") < method.Harm)
            _damaged.Add(partId);
    }

    /// <summary>What the check at a method's end shows right after it: false when something is still there that it was to cure, and
    /// shows. Null where the check is a trial of the whole unit, which follows anyway.</summary>
    public bool? Held(string partId, Method method)
    {
        var cures = Model.FaultsOf(partId).Where(f => EvidenceWeights.Success(method, Model.Faults[f], 0) > 0).ToList();
        if (!cures.Any(f => DeviceModel.ShowsAtEnd(method, Model.Faults[f].Mode) is not null))
            return null;
        // What an eye has missed it misses again.
        var left = cures
            .Where(_present.Contains)
            .Any(f => Uniform("held", Model.Faults[f].Id) < (DeviceModel.ShowsAtEnd(method, Model.Faults[f].Mode) ?? 0));
        return !left && Uniform("doubt", $"{partId}/{method.Id}/{Trial($"held:{partId}:{method.Id}")}") >= Doubts;
    }

    /// <summary>Damage of a step as a fault.</summary>
    public PartFault DamageOf(string partId) =>
        new(
            Model.Profile.FindPart(partId)!,
            new FailureMode(EvidenceWeights.StepDamage, "damaged", ModeEffect.Dead, 0, null, null, null, ""),
            0
        );

    /// <summary>Faults and damaged parts that can make a function fail now.</summary>
    public (IReadOnlyList<PartFault> Faults, IReadOnlyList<string> Damaged) GuiltyOf(DeviceFunction function)
    {
        var fails = Model.FunctionFails(function);
        return (
            fails.Links.Where(l => _present.Contains(l.Fault)).Select(l => Model.Faults[l.Fault]).ToList(),
            _damaged.Where(p => fails.Damage!.ContainsKey(p)).Order(StringComparer.Ordinal).ToList()
        );
    }

    /// <summary>True when an intermittent fault is in a failing mood now.</summary>
    protected bool Failing(PartFault fault) => Uniform("mood", $"{fault.Id}/{_moment}") < EvidenceWeights.Fails(fault.Mode) / Steady;

    /// <summary>Of several parts that are looked at together one sees which it is; words to append, or nothing.</summary>
    protected static string Which(Probe probe, Part part) =>
        probe.Spans is { Count: > 1 } ? $" {Refdes.Expand(part.Refdes).FirstOrDefault() ?? part.Name}" : "";

    /// <summary>Number of a trial of something, 1 for the first.</summary>
    protected int Trial(string name) => _trials[name] = _trials.GetValueOrDefault(name) + 1;

    /// <summary>A number from 0 to 1 that depends on the unit and its name alone, so that the order of questions changes
    /// nothing.</summary>
    protected double Uniform(string kind, string name) => Uniform(Seed, kind, name);

    /// <inheritdoc cref="Uniform(string, string)"/>
    protected static double Uniform(string seed, string kind, string name)
    {
        var hash = SHA256.HashData(Encoding.UTF8.GetBytes($"{seed}|{kind}|{name}"));
        return (BitConverter.ToUInt64(hash) >> 11) * (1.0 / (1UL << 53));
    }
}
