using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// A function that fails, and works when one piece of its chain is another: what stayed in the chain did not fail it just then, and
/// what fails it goes on failing it, so that the piece is named. Without this each trial would draw anew whether a weak part fails,
/// and one good trial would hardly speak for the piece.
/// </summary>
internal sealed class WorkedWithout
{
    private readonly IReadOnlyList<PartFault> _faults;
    private readonly SameMoment _moment;
    private readonly List<(int Moment, FunctionId Function, Dictionary<int, double> Fails)> _trials = [];

    /// <summary>Finds the trials.</summary>
    public WorkedWithout(DeviceModel model, IReadOnlyList<PartFault> faults, BenchFacts facts, int count, SameMoment moment)
    {
        (_faults, _moment) = (faults, moment);
        for (var at = 0; at < count; at++)
            if (
                facts[at] is SwapTried { Passed: true, Flickers: false } swap
                && model.Profile.FindFunction(swap.FunctionId) is { } function
                && model.Closure(function.Id).Except(swap.Chain).Any()
            )
                _trials.Add((moment.Of(at), function.Id, model.SwapFails(function, swap.Chain, at).Links.ToDictionary(l => l.Fault, l => l.P)));
    }

    /// <summary>Links of a failure, less what stayed in a chain that worked in the same moment: its chance to fail once and not again, by
    /// that to have failed neither time (p·(1−r) ÷ (1−p), with r the chance that what fails goes on).</summary>
    /// <param name="at">When the function failed.</param>
    /// <param name="function">Function that failed.</param>
    /// <param name="links">Links of the failure.</param>
    public IReadOnlyList<Link> Links(int at, FunctionId function, IReadOnlyList<Link> links)
    {
        foreach (var trial in _trials.Where(t => t.Moment == _moment.Of(at) && t.Function == function))
            links = [.. links.Select(l => trial.Fails.TryGetValue(l.Fault, out var p) ? l with { P = l.P * Leaves(l.Fault, p) } : l)];
        return links;
    }

    private double Leaves(int fault, double p) =>
        Math.Min(1, (1 - EvidenceWeights.GoesOnFailing(_faults[fault].Mode)) / Math.Max(1e-6, 1 - p));
}
