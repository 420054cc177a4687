using Mendro.Core.Profiles;

namespace Mendro.Core.Methods;

/// <summary>One thing that is done to a unit; exactly one of its members says what.</summary>
/// <param name="Agent">Agent put on.</param>
/// <param name="Surface">Surface it is put on.</param>
/// <param name="Minutes">Minutes it stays, 0 or more.</param>
/// <param name="Rinse">True for a rinse.</param>
/// <param name="Dry">Minutes of drying.</param>
/// <param name="Heat">Iron or air, °C.</param>
/// <param name="Power">True when it is switched on.</param>
/// <param name="Enough">True when who stood at it judged a drying to be enough, however long it was.</param>
public sealed record SequenceStep(
    string? Agent = null,
    string? Surface = null,
    double? Minutes = null,
    bool? Rinse = null,
    double? Dry = null,
    double? Heat = null,
    bool? Power = null,
    bool? Enough = null
);

/// <summary>What the material check says of one step.</summary>
/// <param name="Index">Index of the step, from 0.</param>
/// <param name="Verdict">Whether the agent may touch that surface; safe for a rinse, drying, heat and power.</param>
/// <param name="Reasons">Why, and what to mind.</param>
public sealed record StepVerdict(int Index, MaterialVerdict Verdict, IReadOnlyList<string> Reasons);

/// <summary>A step that must not be taken yet.</summary>
/// <param name="Index">Index of the step, from 0.</param>
/// <param name="Rule">chlorine, chloramine, chloroform, peracid, flammable-heat, flammable-power, wet-power, residue or shedding.</param>
/// <param name="Reason">What would happen, and what lifts the stop.</param>
public sealed record SequenceStop(int Index, string Rule, string Reason);

/// <summary>What the material check says of a sequence.</summary>
/// <param name="Steps">Each step.</param>
/// <param name="Stops">Steps that must not be taken yet.</param>
public sealed record SequenceReport(IReadOnlyList<StepVerdict> Steps, IReadOnlyList<SequenceStop> Stops);

/// <summary>Reads <c>mendro.sequence/1</c>.</summary>
public static class MaterialSequence
{
    /// <summary>The format name of a sequence.</summary>
    public const string FormatName = "mendro.sequence/1";

    /// <summary>Most steps of a sequence.</summary>
    public const int MostSteps = 1000;

    /// <summary>Reads the steps.</summary>
    /// <returns>The steps, or what is wrong with its place.</returns>
    public static Outcome<IReadOnlyList<SequenceStep>> Read(string json, MaterialLibrary library)
    {
        if (ProfileJson.Deserialize<Document>(json, out var document) is { } unreadable)
            return Fail(unreadable);
        if (document?.Format is not (null or FormatName))
            return Fail($"format: expected “{FormatName}”.");
        if (document?.Steps is not { } steps)
            return Fail("steps: a sequence has a list of steps.");
        if (steps.Count > MostSteps)
            return Fail($"steps: at most {MostSteps}.");
        for (var n = 0; n < steps.Count; n++)
            if (Problem(steps[n], library) is var (place, problem))
                return Fail($"steps[{n}]{place}: {problem}");
        return Outcome<IReadOnlyList<SequenceStep>>.Ok(steps!);
    }

    private static (string Place, string Problem)? Problem(SequenceStep? step, MaterialLibrary library)
    {
        if (step is null)
            return ("", "empty.");
        var told = new object?[] { step.Agent, True(step.Rinse), step.Dry, step.Heat, True(step.Power) }.Count(t => t is not null);
        if (told != 1)
            return ("", "say one of agent with surface, rinse, dry, heat or power.");
        if (step.Agent is not null && library.FindAgent(step.Agent) is null)
            return (".agent", $"there is no agent “{step.Agent}”; known: {string.Join(", ", library.Agents.Select(a => a.Id))}.");
        if (step.Agent is not null && library.FindSurface(step.Surface) is null)
            return (".surface", $"there is no surface “{step.Surface}”; known: {string.Join(", ", library.Surfaces.Select(s => s.Id))}.");
        if (step.Minutes < 0)
            return (".minutes", "0 or more.");
        if (step.Dry < 0)
            return (".dry", "minutes, 0 or more.");
        return step.Heat is < -273.15 or > 1500 ? (".heat", "°C, −273.15 to 1500.") : null;
    }

    private static object? True(bool? told) => told == true ? told : null;

    private static Outcome<IReadOnlyList<SequenceStep>> Fail(string problem) => Outcome<IReadOnlyList<SequenceStep>>.Fail(problem);

    private sealed record Document(string? Format, IReadOnlyList<SequenceStep?>? Steps);
}
