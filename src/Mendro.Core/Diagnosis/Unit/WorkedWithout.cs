using Mendro.Core.Evidence;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// A function that fails, and works when one piece of its chain is another: what stayed in the chain did not fail it just then, and
/// what fails it goes on failing it, so that the piece is named. Without this each trial would draw anew whether a weak part fails,
/// and one good trial would hardly speak for the piece.
/// </summary>
internal sealed class WorkedWithout
{
    private readonly DeviceModel _model;
    private readonly IReadOnlyList<PartFault> _faults;
    private readonly List<(int From, int To, DeviceFunction Function, Func<PartId, bool> Stayed)> _trials = [];

    /// <summary>Finds the trials; what was tried before a repair is another moment.</summary>
    public WorkedWithout(DeviceModel model, IReadOnlyList<PartFault> faults, BenchFacts facts, int count)
    {
        (_model, _faults) = (model, faults);
        for (var at = 0; at < count; at++)
            if (
                facts[at] is SwapTried { Passed: true, Flickers: false } swap
                && model.Profile.FindFunction(swap.FunctionId) is { } function
                && model.Closure(function.Id).Except(swap.Chain).Any()
            )
                _trials.Add((Edge(facts, at, -1, count), Edge(facts, at, 1, count), function, model.Stayed(function, swap.Chain)));
    }

    /// <summary>Last fact of a moment in one direction.</summary>
    private static int Edge(BenchFacts facts, int at, int step, int count)
    {
        while (at + step >= 0 && at + step < count && facts[at + step] is not RepairDone)
            at += step;
        return at;
    }

    /// <summary>Share of what a fault does to a function that it still may have done in a failure of this moment: its chance to fail once
    /// and not again, by that to have failed neither time (p·(1−r) ÷ (1−p), with r the chance that what fails goes on).</summary>
    /// <param name="at">When the function failed.</param>
    /// <param name="function">Function that failed.</param>
    /// <param name="fault">Index of the fault.</param>
    public double Leaves(int at, FunctionId function, int fault)
    {
        if (_trials.Count == 0)
            return 1;
        var mode = _faults[fault].Mode;
        var left = 1.0;
        foreach (var trial in _trials.Where(t => t.From <= at && at <= t.To && t.Function.Id == function && t.Stayed(_faults[fault].Part.Id)))
        {
            var p = _model.FunctionFails(trial.Function).Links.Where(l => l.Fault == fault).Select(l => l.P).FirstOrDefault();
            if (mode.Effect == ModeEffect.Intermittent)
                p = Math.Max(p, EvidenceWeights.ClearsAtTheMoment);
            left *= Math.Min(1, (1 - EvidenceWeights.GoesOnFailing(mode)) / Math.Max(1e-6, 1 - p));
        }

        return left;
    }
}
