using Mendro.Core.Evidence;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// Turns posteriors into shares of the blame for one failing function. Made once a unit, used for every answer that
/// the advisor imagines.
/// </summary>
public sealed class BlameShares
{
    private readonly UnitCase _unit;
    private readonly (int Fault, double P)[] _causes;

    /// <summary>Piece of the network that stands for a cause of the failure that the profile lacks, or null.</summary>
    public int? UnknownPiece { get; }

    /// <summary>Prepares the shares.</summary>
    /// <param name="unit">Unit.</param>
    /// <param name="target">Failing function worked on, or null.</param>
    public BlameShares(UnitCase unit, DeviceFunction? target)
    {
        _unit = unit;
        // A rail that is bad on the meter is a target of its own: the work is to get it right first.
        var finding =
            target is null ? -1
            : unit.BadRail(target.Id) is >= 0 and var rail ? rail
            : unit.FailureOf(target.Id);
        if (target is null || finding < 0)
        {
            _causes = [];
            return;
        }

        UnknownPiece = unit.UnknownPiece(finding);
        // To blame is what has made the failure look as it does: a fault that may be there too, as in any unit, but would look
        // otherwise, is not. What a step broke after the failure had begun is not to blame for it either.
        var without = SwappedOut(unit, target.Id);
        _causes = unit
            .Network.Findings[finding]
            .Links.Where(l => l.P > 0 && unit.FaultOf(l.Fault) is >= 0 and var fault && unit.UncuredPiece(fault) == l.Fault)
            .Select(l => (Fault: unit.FaultOf(l.Fault), l.P))
            .Select(l => without.Contains(unit.Faults[l.Fault].Part.Id) ? l with { P = l.P * FailsWithoutIt } : l)
            .ToArray();
    }

    /// <summary>Share of the blame that is left to a part without which it fails just so: what took its place may have failed
    /// too.</summary>
    private const double FailsWithoutIt = 0.05;

    /// <summary>Parts without which the function was seen to fail, and has gone on to fail just so: work that changed nothing has cured
    /// nothing that they might hide behind.</summary>
    internal static HashSet<PartId> SwappedOut(UnitCase unit, FunctionId function)
    {
        var without = new HashSet<PartId>();
        string? look = null;
        var changed = false;
        var worked = new HashSet<PartId>();
        foreach (var happened in unit.Events.Reverse())
            switch (happened)
            {
                case RepairDone repair:
                    worked.Add(repair.PartId);
                    break;
                case FunctionTried tried when tried.FunctionId == function:
                    changed |= tried.Passed || look is not null && tried.LookId is not null && tried.LookId != look;
                    look ??= tried.LookId;
                    break;
                case SwapTried { Passed: false } swap when swap.FunctionId == function && !(changed && swap.Chain.Any(worked.Contains)):
                    without.UnionWith(unit.Model.Closure(function).Except(swap.Chain));
                    break;
            }

        return without;
    }

    /// <summary>
    /// Shares by fault index; their sum is 1 at most. A fault is to blame when it is there and its link has fired. That
    /// something fired is known, for the function does fail: where little else could have, a fault that is there has
    /// fired for sure, however seldom it would otherwise (p ÷ (1 − (1 − p)(1 − o)) with o the chance of all others).
    /// </summary>
    /// <param name="posterior">Posterior of a piece of the network.</param>
    /// <param name="unexplained">Chance that a cause the profile lacks, or bench error, is at work.</param>
    public double[] Of(Func<int, double> posterior, out double unexplained)
    {
        var shares = new double[_unit.Faults.Count];
        unexplained = UnknownPiece is { } piece ? posterior(piece) : 0;
        double all = 0,
            sum = 0;
        foreach (var (fault, p) in _causes)
            all += shares[fault] = posterior(_unit.UncuredPiece(fault)) * p;
        foreach (var (fault, p) in _causes)
        {
            var others = Math.Min(1, unexplained + all - shares[fault]);
            if (p < 1)
                shares[fault] /= 1 - (1 - p) * (1 - others);
            sum += shares[fault];
        }

        if (sum > 0)
            foreach (var (fault, _) in _causes)
                shares[fault] *= (1 - unexplained) / sum;
        return shares;
    }

    /// <summary>All faults as suspects, the most to blame first.</summary>
    public IReadOnlyList<Suspect> Suspects(Func<int, double> posterior, out double unexplained)
    {
        var shares = Of(posterior, out unexplained);
        return Enumerable
            .Range(0, shares.Length)
            .Select(i => new Suspect(i, _unit.Faults[i], posterior(_unit.UncuredPiece(i)), shares[i]))
            .OrderByDescending(s => s.Share)
            .ThenByDescending(s => s.Posterior)
            .ToList();
    }
}
