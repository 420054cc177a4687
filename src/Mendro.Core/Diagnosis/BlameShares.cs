using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>
/// Turns posteriors into shares of the blame for one failing function. Made once a unit, used for every answer that
/// the advisor imagines.
/// </summary>
public sealed class BlameShares
{
    private readonly UnitCase _unit;
    private readonly DeviceFunction? _target;
    private readonly (int Fault, double P)[] _causes;

    /// <summary>Prepares the shares.</summary>
    /// <param name="unit">Unit.</param>
    /// <param name="target">Failing function worked on, or null.</param>
    public BlameShares(UnitCase unit, DeviceFunction? target)
    {
        (_unit, _target) = (unit, target);
        if (target is null || unit.Events.OfType<FunctionTried>().LastOrDefault(t => t.FunctionId == target.Id) is not { } last)
        {
            _causes = [];
            return;
        }

        // The look has already moved the posterior; here only "is it a cause at all" counts.
        var possible = unit.LinksOf(unit.Model.Shown(target, last)).Where(l => l.P > 0).Select(l => l.Fault).ToHashSet();
        _causes = unit.LinksOf(unit.Model.FunctionFails(target)).Where(l => possible.Contains(l.Fault)).Select(l => (l.Fault, l.P)).ToArray();
    }

    /// <summary>Faults that can be to blame.</summary>
    public IEnumerable<int> Causes => _causes.Select(c => c.Fault);

    /// <summary>Shares by fault index; their sum is 1 at most.</summary>
    /// <param name="posterior">Posterior of a piece of the network.</param>
    /// <param name="unexplained">Share that no fault of the profile takes.</param>
    public double[] Of(Func<int, double> posterior, out double unexplained)
    {
        var shares = new double[_unit.Faults.Count];
        double sum = 0;
        foreach (var (fault, p) in _causes) sum += shares[fault] = posterior(_unit.UncuredPiece(fault)) * p;
        if (sum > 1)
            foreach (var (fault, _) in _causes) shares[fault] /= sum;
        unexplained = _target is null ? 0 : Math.Max(0, 1 - sum);
        return shares;
    }

    /// <summary>All faults as suspects, the most to blame first.</summary>
    public IReadOnlyList<Suspect> Suspects(Func<int, double> posterior, out double unexplained)
    {
        var shares = Of(posterior, out unexplained);
        return Enumerable.Range(0, shares.Length)
            .Select(i => new Suspect(i, _unit.Faults[i], posterior(_unit.UncuredPiece(i)), shares[i]))
            .OrderByDescending(s => s.Share).ThenByDescending(s => s.Posterior).ToList();
    }
}
