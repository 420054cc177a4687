using Mendro.Core.Library;
using Mendro.Core.Profiles;

namespace Mendro.Core.Methods;

/// <summary>What a step of a run sheet asks of the technician.</summary>
public enum RunStepKind
{
    /// <summary>Hands at work; a stopwatch runs.</summary>
    Work,

    /// <summary>Hands free; a timer runs.</summary>
    Wait,

    /// <summary>The check with which the method ends.</summary>
    Check,
}

/// <summary>One step of a run sheet.</summary>
/// <param name="Index">Index, from 0.</param>
/// <param name="Kind">What it asks.</param>
/// <param name="Say">What to do, in words.</param>
/// <param name="Minutes">Hands-on minutes to expect; 0 for a wait and a check.</param>
/// <param name="Wait">The wait, or null.</param>
/// <param name="Heat">Iron or air, °C, or null.</param>
/// <param name="Cautions">Cautions of this very step.</param>
/// <param name="Materials">What it does to the unit, for the material check; a wait that dries counts with its least minutes.</param>
/// <param name="OwnMinutes">True when the minutes are told of this very step; false for an even share of the method's.</param>
public sealed record RunStep(
    int Index,
    RunStepKind Kind,
    string Say,
    double Minutes,
    StepWait? Wait,
    double? Heat,
    IReadOnlyList<string> Cautions,
    IReadOnlyList<SequenceStep> Materials,
    bool OwnMinutes = false
);

/// <summary>A method laid out to be run step by step, with its check last.</summary>
public static class RunPlan
{
    // Plug out, clips on, a look at the meter, and once more (common practice, no source).
    private const double SafeMinutes = 2;

    /// <summary>The steps of a method on one unit: what makes it safe comes before any work inside.</summary>
    /// <param name="method">The method.</param>
    /// <param name="hazards">Hazards of the unit.</param>
    public static IReadOnlyList<RunStep> Of(Method method, UnitHazards hazards)
    {
        var steps = Of(method);
        if (method.State == AccessState.Closed || hazards.First is not { Count: > 0 } first)
            return steps;
        return first
            .Select(say => new RunStep(0, RunStepKind.Work, say, SafeMinutes, null, null, [], [], true))
            .Concat(steps)
            .Select((s, n) => s with { Index = n })
            .ToList();
    }

    /// <summary>The steps of a method. Hands-on minutes that no step claims are shared evenly by the others.</summary>
    public static IReadOnlyList<RunStep> Of(Method method)
    {
        var work = method.Steps.Where(s => s.Wait is null).ToList();
        var open = work.Count(s => s.Minutes is null);
        var share = open == 0 ? 0 : Math.Max(0, method.Minutes - work.Sum(s => s.Minutes ?? 0)) / open;
        var steps = method
            .Steps.Select(
                (s, n) =>
                    new RunStep(
                        n,
                        s.Wait is null ? RunStepKind.Work : RunStepKind.Wait,
                        s.Do,
                        s.Wait is null ? s.Minutes ?? share : 0,
                        s.Wait,
                        s.Heat,
                        s.Cautions ?? [],
                        Materials(s),
                        s.Minutes is not null
                    )
            )
            .ToList();
        if (method.Check is { } check)
            steps.Add(new RunStep(steps.Count, RunStepKind.Check, check.Say, 0, null, null, [], []));
        return steps;
    }

    /// <summary>Least and longest minutes of waiting in a method.</summary>
    public static (double Least, double Most) Waits(Method method) =>
        (method.Steps.Sum(s => s.Wait?.Minutes ?? 0), method.Steps.Sum(s => s.Wait?.Most ?? s.Wait?.Minutes ?? 0));

    private static List<SequenceStep> Materials(MethodStep step)
    {
        var steps = new List<SequenceStep>();
        if (step.Agent is { } agent)
            steps.Add(new SequenceStep(agent, step.Surface));
        if (step.Rinse)
            steps.Add(new SequenceStep(Rinse: true));
        // What cures gives its solvent off as what dries does.
        if (step.Wait is { Kind: WaitKind.Dry or WaitKind.Cure } dry)
            steps.Add(new SequenceStep(Dry: dry.Minutes));
        if (step.Heat is { } celsius)
            steps.Add(new SequenceStep(Heat: celsius));
        if (step.Power)
            steps.Add(new SequenceStep(Power: true));
        return steps;
    }
}
