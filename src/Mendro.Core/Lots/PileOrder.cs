namespace Mendro.Core.Lots;

/// <summary>One of several like units of which only some may be worth the work.</summary>
/// <param name="Unit">It as recipient and as donor; its worth is what curing it adds.</param>
/// <param name="Cost">What trying it costs: its minutes by the hour and its parts, in the same money.</param>
public sealed record PileUnit(DonorCandidate Unit, double Cost);

/// <summary>What is done with a unit of the pile.</summary>
public enum PileStep
{
    /// <summary>It is worked on.</summary>
    Try,

    /// <summary>It is kept for its parts.</summary>
    Donate,
}

/// <summary>What to do next with a pile, and what that brings.</summary>
/// <param name="Number">Unit; 0 where nothing is worth it.</param>
/// <param name="Step">What is done with it.</param>
/// <param name="Gain">Expected gain of the whole order from here, 0 or more.</param>
/// <param name="Chance">Chance to cure that unit now, with the parts of those that failed, 0 to 1.</param>
/// <param name="Helps">Unit that gains most by the parts of this one should it not be cured, with its chance before and after; null for
/// none.</param>
public sealed record PileMove(long Number, PileStep Step, double Gain, double Chance, (long Number, double Before, double After)? Helps);

/// <summary>
/// In which order to work through a pile of like units. Who fails gives its good parts to those that come later, so the one first tried
/// matters: the expected gain is greatest over all orders, those that change with what happened among them (dynamic programming over
/// which units are left and which gave their parts; Bellman 1957). Above <see cref="MostExact"/> units those with the best own gain an
/// hour are ordered, the others come after.
/// </summary>
/// <remarks>A part is counted for each that may need it: that two want the same is rare among few, and left out.</remarks>
public sealed class PileOrder
{
    /// <summary>Most units that are ordered exactly.</summary>
    public const int MostExact = 8;

    private readonly List<PileUnit> _units;
    private readonly Dictionary<(int Left, int Gone), (double Gain, int Unit, PileStep Step)> _best = [];

    private PileOrder(List<PileUnit> units) => _units = units;

    /// <summary>What to do next; null for a pile of fewer than two.</summary>
    public static PileMove? Next(IReadOnlyList<PileUnit> units)
    {
        if (units.Count < 2)
            return null;
        var near = units
            .OrderByDescending(u => u.Unit.Alone * u.Unit.Worth - u.Cost)
            .ThenBy(u => u.Unit.Number)
            .Take(MostExact)
            .OrderBy(u => u.Unit.Number)
            .ToList();
        var order = new PileOrder(near);
        var all = (1 << near.Count) - 1;
        var (gain, unit, step) = order.Best(all, 0);
        if (unit < 0)
            return new PileMove(0, PileStep.Try, 0, 0, null);
        return new PileMove(near[unit].Unit.Number, step, gain, near[unit].Unit.Alone, order.Helped(unit));
    }

    /// <summary>Chance to cure a unit with the parts of those that gave theirs: by itself, and where that fails, by the part that is to
    /// blame, when one of them has it good.</summary>
    public static double Chance(DonorCandidate unit, IReadOnlyList<DonorCandidate> gone) =>
        unit.Alone
        + (1 - unit.Alone) * Math.Min(1, unit.Blame.Sum(b => b.Value * (1 - gone.Aggregate(1.0, (none, g) => none * (1 - g.Good.GetValueOrDefault(b.Key))))));

    private (double Gain, int Unit, PileStep Step) Best(int left, int gone)
    {
        if (_best.TryGetValue((left, gone), out var known))
            return known;
        // To stop is always open: what is left is worth what it is.
        var best = (Gain: 0.0, Unit: -1, Step: PileStep.Try);
        var donors = Enumerable.Range(0, _units.Count).Where(n => (gone & 1 << n) != 0).Select(n => _units[n].Unit).ToList();
        for (var n = 0; n < _units.Count; n++)
        {
            var bit = 1 << n;
            if ((left & bit) == 0)
                continue;
            var chance = Chance(_units[n].Unit, donors);
            var (cured, failed) = (Best(left & ~bit, gone).Gain, Best(left & ~bit, gone | bit).Gain);
            var tried = chance * (_units[n].Unit.Worth + cured) + (1 - chance) * failed - _units[n].Cost;
            if (tried > best.Gain + 1e-9)
                best = (tried, n, PileStep.Try);
            if (failed > best.Gain + 1e-9)
                best = (failed, n, PileStep.Donate);
        }

        _best[(left, gone)] = best;
        return best;
    }

    private (long, double, double)? Helped(int unit) =>
        _units
            .Where((_, n) => n != unit)
            .Select(u => (u.Unit.Number, Before: u.Unit.Alone, After: Chance(u.Unit, [_units[unit].Unit])))
            .Where(u => u.After - u.Before > 0.05)
            .OrderByDescending(u => u.After - u.Before)
            .Select(u => ((long, double, double)?)u)
            .FirstOrDefault();
}
