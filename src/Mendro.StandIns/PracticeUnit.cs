using System.Security.Cryptography;
using System.Text;
using Mendro.Core.Diagnosis;
using Mendro.Core.Methods;
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

    private PracticeUnit(DeviceModel model, string seed, HashSet<int> present) => (_model, _seed, _present) = (model, seed, present);

    /// <summary>Faults still there, as indexes of the model.</summary>
    public IReadOnlySet<int> Present => _present;

    /// <summary>Draws a unit in which at least one function fails when first tried.</summary>
    /// <param name="model">Model.</param>
    /// <param name="seed">Seed; the same seed and number give the same unit.</param>
    /// <param name="number">Number of the unit within the seed.</param>
    /// <exception cref="InvalidOperationException">The model's weights are so small that no faulty unit turns up.</exception>
    public static PracticeUnit Draw(DeviceModel model, long seed, int number)
    {
        for (var draw = 0; draw < MostDraws; draw++)
        {
            var key = $"{seed}/{number}/{draw}";
            var present = Enumerable.Range(0, model.Faults.Count).Where(i => Uniform(key, "fault", model.Faults[i].Id) < model.Faults[i].Prior).ToHashSet();
            if (present.Count == 0) continue;
            if (model.Profile.Functions.Any(f => new PracticeUnit(model, key, present).Fails(f) is not null)) return new PracticeUnit(model, key, present);
        }

        throw new InvalidOperationException($"{model.Profile.Id}: no faulty unit turned up; the weights are too small.");
    }

    /// <summary>Tries a function.</summary>
    /// <returns>True when it works, and else the look of the failure, which may not be told.</returns>
    public (bool Works, string? Look) Try(DeviceFunction function)
    {
        if (Fails(function) is not { } cause) return (true, null);
        if (cause < 0) return (false, null);
        var kind = _model.Library.FindFunctionKind(function.Kind);
        var left = Uniform(_seed, "look", $"{_model.Faults[cause].Id}/{function.Id}");
        var fails = _model.FunctionFails(function).Links.Single(l => l.Fault == cause).P;
        foreach (var look in kind?.Looks ?? [])
        {
            var link = _model.FunctionLooks(function, look.Id).Links.Single(l => l.Fault == cause);
            left -= link.P / fails;
            if (left < 0) return (false, look.Id);
        }

        return (false, null);
    }

    /// <summary>Takes a probe.</summary>
    public ProbeOutcome Probe(Probe probe) => Cause(_model.ProbeAbnormal(probe)) is null ? ProbeOutcome.Normal : ProbeOutcome.Abnormal;

    /// <summary>Carries a method out on a part; each fault it can cure is gone with the method's chance, less when it is repeated.</summary>
    public void Repair(string partId, Method method)
    {
        var key = $"{partId}/{method.Id}";
        var times = _repairs[key] = _repairs.GetValueOrDefault(key) + 1;
        foreach (var fault in _model.FaultsOf(partId).Where(_present.Contains).ToList())
        {
            var success = EvidenceWeights.Success(method, _model.Faults[fault], times - 1);
            if (Uniform(_seed, "repair", $"{key}/{times}/{fault}") < success) _present.Remove(fault);
        }
    }

    private int? Fails(DeviceFunction function) => Cause(_model.FunctionFails(function));

    /// <summary>The fault that makes a finding present at this trial, −1 for a bench error, null when it is absent.</summary>
    private int? Cause(FindingTemplate finding)
    {
        var trial = _trials[finding.Id] = _trials.GetValueOrDefault(finding.Id) + 1;
        foreach (var link in finding.Links)
        {
            if (!_present.Contains(link.Fault)) continue;
            var fault = _model.Faults[link.Fault];
            var moment = fault.Mode.Effect == ModeEffect.Intermittent ? trial : 0;
            if (Uniform(_seed, "cause", $"{fault.Id}/{finding.Id}/{moment}") < link.P) return link.Fault;
        }

        return Uniform(_seed, "leak", $"{finding.Id}/{trial}") < finding.Leak ? -1 : null;
    }

    /// <summary>A number from 0 to 1 that depends on its name alone, so that the order of questions changes nothing.</summary>
    private static double Uniform(string seed, string kind, string name)
    {
        var hash = SHA256.HashData(Encoding.UTF8.GetBytes($"{seed}|{kind}|{name}"));
        return (BitConverter.ToUInt64(hash) >> 11) * (1.0 / (1UL << 53));
    }
}
