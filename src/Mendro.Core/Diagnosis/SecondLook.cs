using Mendro.Core.Profiles;

namespace Mendro.Core.Diagnosis;

/// <summary>When a unit that was given up is worth another look.</summary>
/// <param name="Minutes">Minutes of work within which it should be cured.</param>
/// <param name="Chance">Chance from which it is worth a look, 0 to 1.</param>
public sealed record SecondLookLine(double Minutes = 45, double Chance = 0.5)
{
    /// <summary>True when new experience lifts the chance over the line.</summary>
    public bool Crossed(double before, double after) => before < Chance && after >= Chance;
}

/// <summary>Scores a unit again in the light of what was learned elsewhere.</summary>
public static class SecondLook
{
    /// <summary>Chance that the failing function of a unit is cured within some minutes of work, checks left out; 0 when none fails.</summary>
    /// <param name="model">Its model.</param>
    /// <param name="events">What happened to it.</param>
    /// <param name="context">What the shop knows.</param>
    /// <param name="state">How far it is apart.</param>
    /// <param name="costs">Costs.</param>
    /// <param name="minutes">Minutes of work.</param>
    public static double ChanceWithin(
        DeviceModel model, IReadOnlyList<BenchEvent> events, CaseContext context, AccessState state, BenchCosts costs, double minutes)
    {
        var outcome = UnitDiagnosis.Make(model, events, context);
        if (!outcome.IsOk || outcome.Value.Target is not { } target) return 0;
        var shares = new BlameShares(outcome.Value.Case, target).Of(outcome.Value.Posterior.Fault, out _);
        var options = RepairOption.For(outcome.Value.Case, shares, costs);
        return RepairPlan.Make(shares, options, model.Profile.Preparation, state, costs).ChanceWithin(minutes);
    }
}
