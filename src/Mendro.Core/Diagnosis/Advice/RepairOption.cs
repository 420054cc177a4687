using Mendro.Core.Dismantling;
using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>What counts as a cost at the bench, put into minutes.</summary>
/// <param name="RatePerHour">Value of an hour of work, in the shop's currency.</param>
/// <param name="OriginalityMinutes">Minutes of work the shop would give to avoid a full loss of originality.</param>
/// <param name="HarmMinutes">Minutes lost when a step does damage.</param>
/// <param name="UncuredMinutes">What a unit that stays uncured costs, in minutes; the repairs stop when going on costs more.</param>
/// <param name="RetestMinutes">Minutes to try the unit after a repair.</param>
/// <param name="StakeKnown">True when what an uncured unit costs comes from its values and is no guess: only then can it be too
/// little to go on.</param>
public sealed record BenchCosts(
    double RatePerHour = 30,
    double OriginalityMinutes = 60,
    double HarmMinutes = 60,
    double UncuredMinutes = 120,
    double RetestMinutes = 1,
    bool StakeKnown = false
)
{
    /// <summary>Cost of a method in minutes, without taking the unit apart.</summary>
    public double Minutes(Method method) =>
        method.Minutes
        + RetestMinutes
        + (double)method.PartsCost / RatePerHour * 60
        + method.Harm * HarmMinutes
        + method.OriginalityLoss * OriginalityMinutes;
}

/// <summary>A method for one part, with its chances.</summary>
/// <param name="Part">Part.</param>
/// <param name="Method">Method.</param>
/// <param name="Chance">Chance that the function worked on works afterwards, 0 to 1, on the single-cause view.</param>
/// <param name="CostMinutes">All costs in minutes, without preparation.</param>
/// <param name="Cures">Faults it helps against, by index, with the success on each.</param>
/// <param name="Reaches">Goal of taking apart; null for the coarse state of the method.</param>
public sealed record RepairOption(
    Part Part,
    Method Method,
    double Chance,
    double CostMinutes,
    IReadOnlyList<(int Fault, double Success)> Cures,
    int? Reaches = null
)
{
    /// <summary>Goal of taking apart: where the method can be done on the part.</summary>
    internal int Goal => Reaches ?? Disassembly.Goal(Method.State);

    /// <summary>Id of the move that carries it out.</summary>
    public string MoveId => $"fix:{Part.Id}:{Method.Id}";

    /// <summary>A chance below this is nothing.</summary>
    internal const double Negligible = 1e-4;

    /// <summary>All methods that may help against the faults to blame.</summary>
    /// <param name="unit">Unit.</param>
    /// <param name="shares">Share of the blame by fault index.</param>
    /// <param name="costs">Costs.</param>
    public static IReadOnlyList<RepairOption> For(UnitCase unit, IReadOnlyList<double> shares, BenchCosts costs)
    {
        var options = new List<RepairOption>();
        var byPart = Enumerable
            .Range(0, shares.Count)
            .Where(f => shares[f] > 0)
            .GroupBy(f => unit.Faults[f].Part.Id)
            .ToDictionary(g => g.Key, g => g.ToList());
        foreach (var faults in byPart.Values)
        {
            if (faults.Max(f => shares[f]) < Negligible)
                continue;
            var part = unit.Faults[faults[0]].Part;
            var methods = unit.Model.MethodsFor(part);
            // What the last work may have upset is gone over again first.
            if (faults.Any(f => unit.Faults[f].Mode.Id == EvidenceWeights.StepDamage))
                methods = methods.Concat(unit.Model.Library.MethodsFor("*")).Distinct();
            foreach (var method in methods.Where(m => !unit.Forbids(m)))
            {
                var cures = unit
                    .Model.InOneGo(part, method)
                    .SelectMany(x =>
                        (x.Part.Id == part.Id ? faults : byPart.GetValueOrDefault(x.Part.Id, [])).Select(f =>
                            (Fault: f, Success: unit.SuccessNow(x.Method.Id, f))
                        )
                    )
                    .Where(c => c.Success > 0)
                    .ToList();
                var chance = cures.Sum(c => shares[c.Fault] * c.Success);
                if (chance > Negligible)
                    options.Add(new RepairOption(part, method, chance, costs.Minutes(method), cures, unit.Model.Disassembly.Goal(part.Id, method.State)));
            }
        }

        return options;
    }
}
